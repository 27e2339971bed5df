import * as z from 'zod';
import { CAUSE_IDS, SYMPTOM_IDS, TEST_IDS } from '../../base';
import { instant, uuid } from '../../base/contract';
import { chainSchema } from '../../chain';

export const GRADES = ['easy', 'middle', 'hard'] as const;
export const practiceBody = z
  .strictObject({
    id: uuid,
    /** One of the graded cases, from 1; null hides a fault at random. */
    caseNo: z.number().int().min(1).max(99).nullable().default(null),
    /** The chain of this setup, where a fault is hidden at random. */
    setupId: uuid.nullable().default(null),
    seed: z.number().int().min(0).max(999_999).nullable().default(null),
    two: z.boolean().default(false),
  })
  .refine((b) => b.caseNo === null || (b.setupId === null && !b.two), {
    error: 'A graded case brings its own chain',
    path: ['caseNo'],
  });
export type PracticeBody = z.input<typeof practiceBody>;
export const practiceTestBody = z.strictObject({
  id: uuid,
  test: z.enum(TEST_IDS, { error: 'Test: one from the list' }),
});
export const practiceSayBody = z.strictObject({
  cause: z.enum(CAUSE_IDS, { error: 'Cause: one from the list' }),
});

const says = z.enum(['yes', 'no', 'cannot']);
const step = z.object({ test: z.enum(TEST_IDS), says });
export const practiceRow = z.object({
  id: uuid,
  caseNo: z.number().int().nullable(),
  name: z.string(),
  grade: z.enum(GRADES).nullable(),
  at: instant,
  symptoms: z.array(z.enum(SYMPTOM_IDS)),
  steps: z.array(step),
  minutes: z.number(),
  named: z.enum(CAUSE_IDS).nullable(),
  right: z.boolean().nullable(),
  /** Minutes of the best path; known once it is over. */
  bestMinutes: z.number().nullable(),
});
export type PracticeRow = z.infer<typeof practiceRow>;
/** One practice. What is hidden stays out of it until a cause was named. */
export const practiceSchema = practiceRow.extend({
  chain: chainSchema,
  order: z.enum(['all-off', 'host-first']),
  ended: z
    .object({
      truth: z.array(z.enum(CAUSE_IDS)),
      faults: z.record(z.string(), z.number()),
      best: z.object({ steps: z.array(step), minutes: z.number(), says: z.enum(CAUSE_IDS) }),
      left: z
        .object({
          at: z.number().int(),
          better: z.enum(TEST_IDS).nullable(),
          worth: z.number(),
          best: z.number(),
          why: z.enum(['worth', 'early', 'late']),
        })
        .nullable(),
    })
    .nullable(),
});
export type Practice = z.infer<typeof practiceSchema>;
export const practiceList = z.object({
  items: z.array(practiceRow),
  cases: z.array(z.object({ no: z.number().int(), grade: z.enum(GRADES), name: z.string() })),
});
export type PracticeList = z.infer<typeof practiceList>;
