import * as z from 'zod';
import { textLine } from '../base/contract';
import { softwareRole } from '../parts';

/** A version hold, with its reason. */
export const pinSchema = z.strictObject({
  role: softwareRole,
  version: textLine('Version', 60).min(1, { error: 'Version: must not be empty' }),
  reason: textLine('Reason', 300).default(''),
});
/** Pins of a setup: one for each kind of software at most. */
export const pinsSchema = z
  .array(pinSchema)
  .max(7, { error: 'At most one pin for each kind of software' })
  .refine((list) => new Set(list.map((p) => p.role)).size === list.length, {
    error: 'Two pins for one kind of software',
  });
export type Pin = z.infer<typeof pinSchema>;
