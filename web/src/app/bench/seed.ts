import * as z from 'zod';
import type { FieldMeta } from '../platform/kit/meta';

/** Rules of a form with a seed for random numbers, from 0 to `most`; null draws one. Its other fields are free. */
export const seedSchema = (most: number) =>
  z.object({
    seed: z
      .number()
      .int({ error: 'A whole number' })
      .min(0, { error: 'Not below 0' })
      .max(most, { error: `At most ${most.toLocaleString('en')}` })
      .nullable(),
  });

/** The field of a seed. In: what the same seed gives again. */
export const seedMeta = (help: string): FieldMeta => ({
  label: 'Seed',
  input: 'number',
  placeholder: 'drawn',
  help,
});
