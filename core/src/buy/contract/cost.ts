import * as z from 'zod';
import { isoDate, uuid } from '../../base/contract';
import { PART_KINDS } from '../../parts';
import { evaluateBody } from '../../plan/contract';
import { priceEntry, rateEntry } from './money';

/** Which parts a cost is wanted for: those of a plan by the place they stand in. */
export const costBody = z.strictObject({
  parts: z.array(z.strictObject({ slot: z.string().max(40), id: uuid })).max(40),
  /** The setup being planned: its own pieces are not "in use elsewhere". */
  setupId: evaluateBody.shape.setupId,
});
export type CostBody = z.infer<typeof costBody>;

const costPart = z.object({
  slot: z.string(),
  id: uuid,
  kind: z.enum(PART_KINDS),
  name: z.string(),
});
/** All that the core needs to know what a plan costs. */
export const costGrounds = z.object({
  asOf: isoDate,
  oldDays: z.number(),
  parts: z.array(costPart),
  allInOne: z.array(costPart),
  names: z.record(z.string(), z.string()),
  prices: z.array(priceEntry),
  rates: z.array(rateEntry),
  pieces: z.array(
    z.object({
      id: uuid,
      partId: uuid,
      label: z.string(),
      how: z.enum(['own', 'borrowed']),
      usedIn: z.string().nullable(),
    }),
  ),
});
export type CostGrounds = z.infer<typeof costGrounds>;
