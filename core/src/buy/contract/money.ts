import * as z from 'zod';
import {
  condition,
  currency,
  fileId,
  instant,
  isoDate,
  minorAmount,
  origin,
  percentAmount,
  textLine,
  uuid,
} from '../../base/contract';

const priceKind = z.enum(['offer', 'paid', 'shipping', 'resale']);

function priceShape<T extends z.ZodType<string>>(id: T) {
  return {
    id,
    partId: id,
    /** The very piece it was paid for, where known. */
    itemId: id.nullable().default(null),
    kind: priceKind,
    minor: minorAmount,
    currency,
    condition: condition.nullable().default(null),
    onDate: isoDate,
    source: textLine('Where', 120).default(''),
    note: textLine('Note', 200).default(''),
    /** Other parts in the same box. */
    withIds: z.array(id).max(6, { error: 'In the box: at most 6 other parts' }).default([]),
    beforeMinor: minorAmount.nullable().default(null),
    discountPercent: percentAmount.nullable().default(null),
  };
}

/** A price as seen or paid. */
export const priceBody = z.strictObject(priceShape(uuid));
export const priceInFile = z.strictObject(priceShape(fileId));
export type PriceBody = z.infer<typeof priceBody>;
export const priceEntry = z.object({ ...priceShape(uuid), origin, recordedAt: instant });
export type PriceEntry = z.infer<typeof priceEntry>;

const rateShape = {
  from: currency,
  to: currency,
  rate: z
    .number({ error: 'Rate: a number above 0' })
    .positive({ error: 'Rate: above 0' })
    .max(1e9, { error: 'Rate: too large' }),
  onDate: isoDate,
  source: textLine('Where from', 120).default(''),
};
const differ = { error: 'Two different currencies', path: ['to'] };
/** A dated rate of exchange: one `from` is `rate` of `to`. */
export const rateBody = z
  .strictObject({ id: uuid, ...rateShape })
  .refine((r) => r.from !== r.to, differ);
export const rateInFile = z
  .strictObject({ id: fileId, ...rateShape })
  .refine((r) => r.from !== r.to, differ);
export const rateEntry = z.object({ id: uuid, ...rateShape, origin });
export type RateBody = z.infer<typeof rateBody>;
export type RateEntry = z.infer<typeof rateEntry>;
