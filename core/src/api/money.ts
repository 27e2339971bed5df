import * as z from 'zod';
import { FORGOTTEN_CODES, isCurrency, type ForgottenCode } from '../cost';
import { fileId, instant, isoDate, origin, uuid } from './common';

const MOST_MINOR = 1_000_000_000_000;
export const currency = z
  .string()
  .regex(/^[A-Z]{3}$/, { error: 'Currency: three capital letters like EUR' })
  .refine(isCurrency, { error: 'Currency: not a code of ISO 4217' });
const minor = z
  .number({ error: 'Amount: a whole number of the smallest unit' })
  .int({ error: 'Amount: a whole number of the smallest unit' })
  .min(0, { error: 'Amount: not below 0' })
  .max(MOST_MINOR, { error: 'Amount: too large' });
const percent = z.number().min(0, { error: 'Discount: 0 to 100 %' }).max(100, { error: 'Discount: 0 to 100 %' });
const line = (label: string, most: number) =>
  z
    .string()
    .trim()
    .max(most, { error: `${label}: at most ${most} characters` });

export const condition = z.enum(['new', 'used', 'refurbished']);
const priceKind = z.enum(['offer', 'paid', 'shipping', 'resale']);

function priceShape<T extends z.ZodType<string>>(id: T) {
  return {
    id,
    partId: id,
    /** The very piece it was paid for, where known. */
    itemId: id.nullable().default(null),
    kind: priceKind,
    minor,
    currency,
    condition: condition.nullable().default(null),
    onDate: isoDate,
    source: line('Where', 120).default(''),
    note: line('Note', 200).default(''),
    /** Other parts in the same box. */
    withIds: z.array(id).max(6, { error: 'In the box: at most 6 other parts' }).default([]),
    beforeMinor: minor.nullable().default(null),
    discountPercent: percent.nullable().default(null),
  };
}

/** A price as somebody saw or paid it. */
export const priceBody = z.strictObject(priceShape(uuid));
export const priceInFile = z.strictObject(priceShape(fileId));
export type PriceBody = z.infer<typeof priceBody>;
export const priceEntry = z.object({ ...priceShape(uuid), origin, recordedAt: instant });
export type PriceEntry = z.infer<typeof priceEntry>;

const rateShape = {
  from: currency,
  to: currency,
  rate: z.number({ error: 'Rate: a number above 0' }).positive({ error: 'Rate: above 0' }).max(1e9, { error: 'Rate: too large' }),
  onDate: isoDate,
  source: line('Where from', 120).default(''),
};
const differ = { error: 'Two different currencies', path: ['to'] };
/** A dated rate of exchange: one `from` is `rate` of `to`. */
export const rateBody = z.strictObject({ id: uuid, ...rateShape }).refine((r) => r.from !== r.to, differ);
export const rateInFile = z.strictObject({ id: fileId, ...rateShape }).refine((r) => r.from !== r.to, differ);
export const rateEntry = z.object({ id: uuid, ...rateShape, origin });
export type RateBody = z.infer<typeof rateBody>;
export type RateEntry = z.infer<typeof rateEntry>;

const what = z.string().trim().min(1, { error: 'What: must not be empty' }).max(80, { error: 'What: at most 80 characters' });
const lines = z.array(z.strictObject({ what, minor })).max(12, { error: 'At most 12 lines' });

/** What a person says of the money of a plan. */
export const costSchema = z.strictObject({
  currency,
  budgetMinor: minor.nullable(),
  condition: condition.nullable(),
  shippingMinor: minor.nullable(),
  discountPercent: percent.nullable(),
  discountMinor: minor.nullable(),
  forgotten: z.partialRecord(
    z.enum(FORGOTTEN_CODES as [ForgottenCode, ...ForgottenCode[]]),
    z.strictObject({ have: z.boolean(), minor: minor.nullable() }),
  ),
  extras: lines,
  sells: lines,
});
export type CostSaid = z.infer<typeof costSchema>;
