import * as z from 'zod';
import { condition, currency, minorAmount, percentAmount, nameLine } from '../../base/contract';
import { FORGOTTEN_CODES, type ForgottenCode } from '../cost';

const what = nameLine('What', 80);
const lines = z
  .array(z.strictObject({ what, minor: minorAmount }))
  .max(12, { error: 'At most 12 lines' });

/** What a person says of the money of a plan. */
export const costSchema = z.strictObject({
  currency,
  budgetMinor: minorAmount.nullable(),
  condition: condition.nullable(),
  shippingMinor: minorAmount.nullable(),
  discountPercent: percentAmount.nullable(),
  discountMinor: minorAmount.nullable(),
  forgotten: z.partialRecord(
    z.enum(FORGOTTEN_CODES as [ForgottenCode, ...ForgottenCode[]]),
    z.strictObject({ have: z.boolean(), minor: minorAmount.nullable() }),
  ),
  extras: lines,
  sells: lines,
});
export type CostSaid = z.infer<typeof costSchema>;
