import * as z from 'zod';
import { readingSchema, reportSchema, type Reading } from '../schema';
import { instant, origin, uuid } from './common';

/** A reading to store: what was read, and when; without an instant it is now. */
export const readingBody = z.strictObject({
  id: uuid,
  happenedAt: instant.optional(),
  reading: readingSchema,
});
export type ReadingBody = z.infer<typeof readingBody>;

const range = z.object({ lo: z.number(), hi: z.number() }).nullable();

/** A reading as it was held against its chain on the day it was stored. */
export const storedReading = z.object({
  reading: readingSchema,
  /** The chain it was held against, in words. */
  sentence: z.string(),
  overall: z.string(),
  grade: z.string().nullable(),
  gbps: z.number().nullable(),
  share: range,
  expected: z.object({ gen: range, lanes: range, down: range, up: range }),
  /** Version of the rules that graded it. */
  core: z.string(),
});
export type StoredReading = Omit<z.infer<typeof storedReading>, 'reading'> & { reading: Reading };

export const readingEntry = storedReading.extend({
  id: uuid,
  happenedAt: instant,
  recordedAt: instant,
  by: z.string(),
  origin,
});
export type ReadingEntry = z.infer<typeof readingEntry>;

/** A pasted listing or report, to be read; nothing is stored. */
export const reportBody = z.strictObject({ text: z.string() });
export const reportResponse = z.object({ report: reportSchema });
