import * as z from 'zod';
import { OUTCOMES } from '../../base';
import { flag, isoDate, pageOf, pageQuery, uuid } from '../../base/contract';
import { chainInput, coverageSchema } from '../../plan/contract';
import { COMPAT_SORTS } from '../labels';
import { SHARED_ATTRIBUTES } from '../log/weights';
import { logFilter, outcomeSchema, versionsSchema } from './outcomes';

export type CompatSort = (typeof COMPAT_SORTS)[number];

/** One chain: what is predicted and what was seen stand apart. */
export const compatRow = z.object({
  key: z.string(),
  host: z.string(),
  port: z.string(),
  standard: z.string(),
  cable: z.string(),
  dock: z.string(),
  card: z.string(),
  predicted: z.object({
    verdict: z.enum(['works', 'care', 'blocked', 'unknown']),
    sentence: z.string(),
    coverage: coverageSchema,
    down: z.object({ lo: z.number(), hi: z.number() }).nullable(),
  }),
  /** Counted by setup and set of versions: retries of one evening count once. */
  seen: z.object({ n: z.number().int(), worked: z.number().int(), failed: z.number().int() }),
  /** Hearsay; counted apart from own observations. */
  told: z.object({ n: z.number().int(), worked: z.number().int() }),
  /** More than half of what was seen is otherwise than predicted. */
  contradicted: z.boolean(),
  /** The 95 % interval of what was seen excludes the prediction. */
  sure: z.boolean(),
  /** What it shares with the parts that were asked for, when near ones are wanted; null otherwise. */
  shared: z.object({ parts: z.array(z.enum(SHARED_ATTRIBUTES)), weight: z.number() }).nullable(),
  /** The newest status, under which versions, and since when it holds under them. */
  now: z.object({
    outcome: z.enum(OUTCOMES),
    on: isoDate,
    since: isoDate,
    versions: versionsSchema,
  }),
  /** Sets of versions that newer ones have taken the place of. */
  older: z.number().int(),
  entries: z.number().int(),
  setups: z.array(z.object({ id: uuid, name: z.string() })),
});
export type CompatRow = z.infer<typeof compatRow>;
export const compatPage = pageOf(compatRow).extend({ total: z.number().int() });

export const compatQuery = z.strictObject({
  ...pageQuery,
  ...logFilter,
  outcome: z.enum(OUTCOMES).optional(),
  /** Chains that share something with the host, dock, card and standard asked for, the nearest first. */
  near: flag.default(false),
  sort: z.enum(COMPAT_SORTS).default('newest'),
  dir: z.enum(['asc', 'desc']).default('desc'),
});
export type CompatQuery = z.output<typeof compatQuery>;

const factor = z.number().min(0).max(1);
/** Other weights than the house rules give, to see what hangs on them; nothing is stored. */
const tryWeights = z
  .strictObject({
    host: factor,
    link: factor,
    dock: factor,
    family: factor,
    changed: factor,
    strength: z.number().min(0).max(100),
  })
  .partial();

/** Exactly one of `chain` and `setupId`. */
export const evidenceBody = z
  .strictObject({
    chain: chainInput.optional(),
    setupId: uuid.optional(),
    weights: tryWeights.default({}),
    /** An entry that is left out, to see what hangs on it. */
    without: uuid.nullable().default(null),
    /** Near entries to return. */
    limit: z.number().int().min(1).max(200).default(20),
  })
  .refine((b) => (b.chain === undefined) !== (b.setupId === undefined), {
    error: 'Give either a chain or a setupId',
    path: ['chain'],
  });
export type EvidenceBody = z.input<typeof evidenceBody>;

const count = z.object({ n: z.number().int(), worked: z.number().int() });
const tally = z.object({
  n: z.number().int(),
  works: z.number().int(),
  care: z.number().int(),
  unreliable: z.number().int(),
  fails: z.number().int(),
  newest: isoDate.nullable(),
});
export const evidenceSummary = z.object({
  exact: tally,
  same: count,
  told: count,
  weighted: z.object({ worked: z.number(), failed: z.number() }),
  near: z.object({ n: z.number().int(), weight: z.number(), worked: z.number() }),
});
/** An entry with the factors it counts by. */
export const weightedEntrySchema = z.object({
  entry: outcomeSchema,
  exact: z.boolean(),
  shares: z.array(z.enum(SHARED_ATTRIBUTES)),
  shared: z.number(),
  versions: z.number(),
  told: z.number(),
  weight: z.number(),
});
export type WeightedEntryView = z.infer<typeof weightedEntrySchema>;
export const evidenceResponse = z.object({
  summary: evidenceSummary,
  expected: z.object({
    mean: z.number(),
    lo: z.number(),
    hi: z.number(),
    prior: z.number().nullable(),
    strength: z.number(),
  }),
  weights: tryWeights.required(),
  /** Units of exactly this chain first, then near ones by weight. */
  entries: z.array(weightedEntrySchema),
  /** Near ones that are not shown. */
  more: z.number().int(),
});
export type EvidenceAnswer = z.infer<typeof evidenceResponse>;

/** Names in the log, as suggestions for fields. */
export const logNames = z.object({
  host: z.array(z.string()),
  dock: z.array(z.string()),
  card: z.array(z.string()),
});
export type LogNames = z.infer<typeof logNames>;
