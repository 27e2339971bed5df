import * as z from 'zod';
import { DRIVER_SCHOOLS, ORDER_IDS, OUTCOMES, PURPOSES, STEP_IDS, SYMPTOM_IDS } from '../../base';
import { instant, isoDate, uuid, textLine } from '../../base/contract';
import { installedSchema, softwareRole, WORD_SETTINGS } from '../../parts';
import { CAME_BACK_WRONG, type CameBackWrong } from '../../setups';
import { setupSchema } from '../../setups/contract';
import { STEP_STATES } from '../steps/fold';

/** Begin an attempt; one that is still open ends with it. */
export const attemptBody = z.strictObject({
  id: uuid,
  purpose: z.enum(PURPOSES),
  order: z.enum(ORDER_IDS),
  driver: z.enum(DRIVER_SCHOOLS).default('before'),
  happenedAt: instant.optional(),
});

const wrong = z
  .array(z.enum(Object.keys(CAME_BACK_WRONG) as [CameBackWrong, ...CameBackWrong[]]))
  .max(20);
const about = z.record(z.string().max(20), z.string().max(600));

/** Note how a step went, with what was read at it. All of it is stored, or nothing. */
export const stepBody = z
  .strictObject({
    id: uuid,
    attempt: uuid,
    step: z.enum(STEP_IDS),
    state: z.enum(STEP_STATES),
    reason: textLine('Reason', 300).default(''),
    symptom: z.enum(SYMPTOM_IDS).nullable().default(null),
    /** What stands in the places the step is about, in words. */
    about: about.default({}),
    installed: z.partialRecord(softwareRole, textLine('Version', 60)).default({}),
    settings: z.partialRecord(z.enum(WORD_SETTINGS), z.string().max(40).nullable()).default({}),
    /** What came back wrong after docking or undocking. */
    wrong: wrong.nullable().default(null),
    /** The last step of bringing up writes the entry. */
    outcome: z
      .strictObject({
        id: uuid,
        outcome: z.enum(OUTCOMES),
        note: textLine('Note', 2000).default(''),
        /** Mark the setup's present state as its last good one. */
        good: z.boolean().default(false),
      })
      .nullable()
      .default(null),
    /** With this step the attempt is over and counts as passed. */
    ends: z.boolean().default(false),
    happenedAt: instant.optional(),
  })
  .superRefine((b, ctx) => {
    if (b.state === 'skipped' && b.reason === '')
      ctx.addIssue({
        code: 'custom',
        path: ['reason'],
        message: 'Reason: say why this step is left out',
      });
    if (b.state === 'failed' && b.symptom === null && b.reason === '')
      ctx.addIssue({
        code: 'custom',
        path: ['symptom'],
        message: 'What was seen: choose it, or say it in words',
      });
    if (b.outcome !== null && (b.step !== 'log-entry' || b.state !== 'done'))
      ctx.addIssue({
        code: 'custom',
        path: ['outcome'],
        message: 'Only the last step writes the entry',
      });
    if (b.ends && b.state !== 'done' && b.state !== 'skipped')
      ctx.addIssue({
        code: 'custom',
        path: ['ends'],
        message: 'An attempt is over with a step that is done or skipped',
      });
  });
export type StepBody = z.input<typeof stepBody>;

/** End an attempt that did not pass. */
export const endBody = z.strictObject({
  id: uuid,
  outcome: z.enum(['failed', 'left']),
  reason: textLine('Reason', 300).default(''),
  happenedAt: instant.optional(),
});

/** A try from before: which order, on which day, under which build, and whether the card came up. */
export const tryBody = z.strictObject({
  id: uuid,
  order: z.enum(ORDER_IDS),
  on: isoDate,
  build: textLine('System build', 60).default(''),
  worked: z.boolean(),
  reason: textLine('Note', 300).default(''),
});

/** Retracts a fact that was noted by mistake. Both stay on record. */
export const struckBody = z.strictObject({
  id: uuid,
  corrects: uuid,
  reason: textLine('Reason', 300).min(1, { error: 'Reason: say why it is taken back' }),
});

/** A stretch of use: hours, and how often the card dropped out or the picture froze meanwhile. */
export const usedBody = z
  .strictObject({
    id: uuid,
    from: isoDate,
    until: isoDate,
    hours: z
      .number({ error: 'Hours: a number' })
      .min(0.1, { error: 'Hours: from 0.1' })
      .max(100_000, { error: 'Hours: up to 100000' }),
    drops: z
      .number({ error: 'Drops: a whole number' })
      .int({ error: 'Drops: a whole number' })
      .min(0)
      .max(100_000),
    freezes: z
      .number({ error: 'Freezes: a whole number' })
      .int({ error: 'Freezes: a whole number' })
      .min(0)
      .max(100_000),
    words: textLine('What was seen', 300).default(''),
  })
  .superRefine((b, ctx) => {
    const days = (Date.parse(b.until) - Date.parse(b.from)) / 86_400_000 + 1;
    if (days < 1)
      ctx.addIssue({ code: 'custom', path: ['until'], message: 'Last day: not before the first' });
    else if (b.hours > days * 24)
      ctx.addIssue({
        code: 'custom',
        path: ['hours'],
        message: `Hours: ${days} days have ${days * 24} at most`,
      });
  });
export type UsedBody = z.input<typeof usedBody>;
/** Hours in use of a setup, added up. */
export const usedRow = z.object({
  setupId: uuid,
  name: z.string(),
  hours: z.number(),
  drops: z.number().int(),
  freezes: z.number().int(),
  spans: z.number().int(),
});
export type UsedRow = z.infer<typeof usedRow>;

export const goodBody = z.strictObject({ id: uuid, note: textLine('Note', 300).default('') });

const names = z.object({
  host: z.string(),
  port: z.string(),
  cable: z.string(),
  dock: z.string(),
  card: z.string(),
});

/** What is kept of each kind of event. */
export const attemptEvent = z.object({
  no: z.number().int().min(1),
  purpose: z.enum(PURPOSES),
  order: z.enum(ORDER_IDS),
  driver: z.enum(DRIVER_SCHOOLS),
  build: z.string(),
});
export const stepEvent = z.object({
  attempt: z.string(),
  no: z.number().int().min(1),
  step: z.enum(STEP_IDS),
  state: z.enum(STEP_STATES),
  reason: z.string(),
  symptom: z.enum(SYMPTOM_IDS).nullable(),
  about,
  /** Versions and settings met at it, with before and after. */
  noted: z.array(z.object({ what: z.string(), from: z.string(), to: z.string() })),
  wrong: wrong.nullable(),
});
export const ATTEMPT_OUTCOMES = ['passed', 'failed', 'left'] as const;
export const endedEvent = z.object({
  /** Null for a try from before. */
  attempt: z.string().nullable(),
  no: z.number().int().nullable(),
  purpose: z.enum(PURPOSES),
  order: z.enum(ORDER_IDS),
  outcome: z.enum(ATTEMPT_OUTCOMES),
  /** Did the card come up in this order? Null when the attempt says nothing of it. */
  worked: z.boolean().nullable(),
  /** Host and kind of link as the log counts them. */
  host: z.string(),
  link: z.string(),
  build: z.string(),
  symptom: z.enum(SYMPTOM_IDS).nullable(),
  reason: z.string(),
});
export const usedEvent = z.object({
  from: isoDate,
  until: isoDate,
  hours: z.number(),
  drops: z.number().int(),
  freezes: z.number().int(),
  words: z.string(),
});
export const struckEvent = z.object({ reason: z.string().min(1) });
export const goodEvent = z.object({ installed: installedSchema, names, note: z.string() });

const attemptRow = attemptEvent.extend({
  id: uuid,
  startedAt: instant,
  ended: z
    .object({ outcome: z.enum(ATTEMPT_OUTCOMES), at: instant, worked: z.boolean().nullable() })
    .nullable(),
});
export type AttemptRow = z.infer<typeof attemptRow>;
const stepRow = stepEvent.extend({ id: uuid, at: instant, by: z.string() });
export type StepRow = z.infer<typeof stepRow>;
const triedRow = z.object({
  id: uuid,
  /** Null for an entry of the log from a file. */
  setupId: uuid.nullable(),
  setup: z.string(),
  order: z.enum(ORDER_IDS),
  build: z.string(),
  worked: z.boolean(),
  at: instant,
});
export type TriedRow = z.infer<typeof triedRow>;

/** Everything the page of bringing up shows of a setup, oldest first. */
export const bringUpSchema = z.object({
  setup: setupSchema,
  attempts: z.array(attemptRow),
  steps: z.array(stepRow),
  /** Tries of this host through this kind of link, on all setups. */
  tried: z.array(triedRow),
  good: z.object({ id: uuid, at: instant, ...goodEvent.shape }).nullable(),
  /** How long steps take in this workshop, min; those that were timed in at least three attempts. */
  times: z.array(z.object({ step: z.enum(STEP_IDS), minutes: z.number(), n: z.number().int() })),
});
export type BringUp = z.infer<typeof bringUpSchema>;
