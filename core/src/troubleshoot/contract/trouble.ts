import * as z from 'zod';
import { CAUSE_IDS, OUTCOMES, SYMPTOM_IDS, TEST_IDS } from '../../base';
import { instant, uuid } from '../../base/contract';
import { BY, CLOSINGS, FIX_RESULTS, ORIGINS, TEST_ANSWERS } from '../trouble';

const words = z.string().trim().max(300, { error: 'Words: at most 300 characters' }).default('');
const symptoms = z
  .array(z.enum(SYMPTOM_IDS, { error: 'Seen: a symptom from the list' }))
  .max(SYMPTOM_IDS.length, { error: 'Seen: each symptom once' });

export const KNOWN_PORTS = ['usb-c', 'oculink', 'inside', 'mini-dp'] as const;
/** Answers given without a setup: null is "not sure". */
export const saidSchema = z.strictObject({
  form: z.enum(['laptop', 'mini-pc', 'handheld', 'desktop']).nullable().default(null),
  port: z.enum(KNOWN_PORTS).nullable().default(null),
  lamp: z.enum(['on', 'off']).nullable().default(null),
  screen: z.enum(['card', 'panel', 'hub']).nullable().default(null),
});
export type TroubleSaid = z.infer<typeof saidSchema>;

const from = z.strictObject({
  kind: z.enum(ORIGINS),
  /** The step, the alarm or the words of it. */
  what: z.string().trim().max(200).default(''),
});

const noteShapes = [
  z.strictObject({ what: z.literal('seen'), symptoms }),
  z.strictObject({
    what: z.literal('test'),
    test: z.enum(TEST_IDS, { error: 'Test: one from the list' }),
    says: z.enum(TEST_ANSWERS),
    by: z.enum(BY).default('hand'),
    words,
  }),
  z.strictObject({
    what: z.literal('fix'),
    cause: z.enum(CAUSE_IDS, { error: 'Cause: one from the list' }),
    result: z.enum(FIX_RESULTS),
    words,
  }),
  z.strictObject({
    what: z.literal('closed'),
    outcome: z.enum(CLOSINGS),
    cause: z.enum(CAUSE_IDS).nullable().default(null),
    words,
  }),
] as const;
const note = z.discriminatedUnion('what', noteShapes);

/** Begin to look for a cause. Tests that readings already answered come along. */
export const troubleBody = z.strictObject({
  id: uuid,
  symptoms: symptoms.min(1, { error: 'Seen: choose at least one' }),
  from: from.default({ kind: 'symptom', what: '' }),
  said: saidSchema.nullable().default(null),
  answers: z
    .array(z.strictObject({ id: uuid, test: z.enum(TEST_IDS), says: z.enum(['yes', 'no']) }))
    .max(TEST_IDS.length)
    .default([]),
  happenedAt: instant.optional(),
});
export type TroubleBody = z.input<typeof troubleBody>;

/** One more note of a search; the last one may write an entry of the log. */
export const troubleNoteBody = z
  .strictObject({
    id: uuid,
    note,
    happenedAt: instant.optional(),
    log: z
      .strictObject({ id: uuid, outcome: z.enum(OUTCOMES) })
      .nullable()
      .default(null),
    /** Put the setup aside: it was only made for this search. */
    retire: z.boolean().default(false),
  })
  .superRefine((b, ctx) => {
    if (b.note.what !== 'closed' && (b.log !== null || b.retire))
      ctx.addIssue({
        code: 'custom',
        path: ['log'],
        message: 'Only closing a search writes the log or puts the setup aside',
      });
  });
export type TroubleNoteBody = z.input<typeof troubleNoteBody>;

const opened = z.strictObject({
  what: z.literal('opened'),
  symptoms,
  from,
  said: saidSchema.nullable(),
});
/** What is kept of each: under the search it belongs to. */
export const troubleEvent = z.object({
  trouble: z.string(),
  note: z.discriminatedUnion('what', [opened, ...noteShapes]),
});

const noted = z.object({ id: uuid, at: instant, note });
export const troubleRow = z.object({
  id: uuid,
  at: instant,
  by: z.string(),
  from,
  said: saidSchema.nullable(),
  notes: z.array(noted),
});
export type TroubleRow = z.infer<typeof troubleRow>;
/** Every search of a setup, oldest first; notes that were taken back are gone. */
export const troublesSchema = z.object({ troubles: z.array(troubleRow) });
export type Troubles = z.infer<typeof troublesSchema>;

/** A figure of the net that this workshop set, with why. */
export const figureRow = z.object({
  key: z.string(),
  value: z.number(),
  reason: z.string(),
  rev: z.number().int(),
});
export type FigureRow = z.infer<typeof figureRow>;
export const figureBody = z.strictObject({
  key: z.string().max(80),
  /** Null: as it shipped. */
  value: z.number({ error: 'Figure: a number' }).nullable(),
  reason: z.string().trim().max(300, { error: 'Reason: at most 300 characters' }).default(''),
});
export type FigureBody = z.input<typeof figureBody>;
/** What moves the net here: figures set, and counts of searches whose cause was found. */
export const tablesSchema = z.object({
  figures: z.array(figureRow),
  counts: z.record(z.string(), z.object({ k: z.number().int(), n: z.number().int() })),
  cases: z.number().int(),
});
export type TablesRead = z.infer<typeof tablesSchema>;
export const figureInFile = z.strictObject({
  key: z.string().max(80),
  value: z.number(),
  reason: z.string().trim().max(300),
});
