import * as z from 'zod';
import { instant, origin, uuid } from '../../base/contract';
import { type Reading, readingSchema } from '../schema/reading';
import { reportSchema } from '../schema/report';

/** A reading to store: what was read, and when; without an instant it is now. */
export const readingBody = z.strictObject({
  id: uuid,
  happenedAt: instant.optional(),
  reading: readingSchema,
  /** The attempt it was taken in. */
  attempt: uuid.nullable().default(null),
});
export type ReadingBody = z.input<typeof readingBody>;

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
  /** What was seen of router and slot, typed or taken from the report. */
  seen: z
    .object({
      routerGbps: z.number().nullable(),
      lanes: z.number().nullable(),
      gen: z.number().nullable(),
    })
    .default({ routerGbps: null, lanes: null, gen: null }),
  /** What it was read through: cable by name, and by the label of its piece where one is named. */
  through: z
    .object({ cable: z.string(), piece: z.string(), port: z.string() })
    .default({ cable: '', piece: '', port: '' }),
  attempt: z.string().nullable().default(null),
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
