import * as z from 'zod';
import { isCurrency } from '../money';

const MAX_MINOR = 1_000_000_000_000;
export const currency = z
  .string()
  .regex(/^[A-Z]{3}$/, { error: 'Currency: three capital letters like EUR' })
  .refine(isCurrency, { error: 'Currency: not a code of ISO 4217' });
export const minorAmount = z
  .number({ error: 'Amount: a whole number of the smallest unit' })
  .int({ error: 'Amount: a whole number of the smallest unit' })
  .min(0, { error: 'Amount: not below 0' })
  .max(MAX_MINOR, { error: 'Amount: too large' });
export const percentAmount = z
  .number()
  .min(0, { error: 'Discount: 0 to 100 %' })
  .max(100, { error: 'Discount: 0 to 100 %' });
export const condition = z.enum(['new', 'used', 'refurbished']);
