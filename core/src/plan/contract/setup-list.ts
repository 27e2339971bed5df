import * as z from 'zod';
import { OUTCOMES } from '../../base';
import { flag, isoDate, pageOf, pageQuery, uuid } from '../../base/contract';
import { SLOTS } from '../../chain';
import { partKind } from '../../parts';
import { setupSchema, setupState } from '../../setups/contract';
import { coverageSchema, judgedArea } from './evaluate';

const range = z.object({ lo: z.number(), hi: z.number() }).nullable();
/** What a list shows of a judgement: enough for the verdict, the mini strip and the pinch. A `null` rate is not known. */
export const evaluationSummary = z.object({
  verdict: z.enum(['works', 'care', 'blocked', 'unknown']),
  sentence: z.string(),
  /** How many of the areas that apply to this chain are known, and which are open. */
  coverage: coverageSchema,
  open: z.array(judgedArea),
  pinch: z.object({ part: z.enum(SLOTS).nullable(), usable: range }),
  hops: z.array(
    z.object({
      from: z.enum(SLOTS),
      to: z.enum(SLOTS),
      state: z.enum(['ok', 'broken', 'unknown']),
      usable: range,
      pinch: z.boolean(),
    }),
  ),
});
export type EvaluationSummary = z.infer<typeof evaluationSummary>;

export const setupRow = setupSchema.extend({
  chain: z.object({ host: z.string(), link: z.string(), dock: z.string(), card: z.string() }),
  glance: evaluationSummary,
  last: z.object({ outcome: z.enum(OUTCOMES), on: isoDate }).nullable(),
});
export type SetupRow = z.infer<typeof setupRow>;
export const setupPage = pageOf(setupRow);
/** What the list of setups sorts by: `changed` is the time of the last save. */
export const SETUP_SORTS = ['name', 'state', 'changed'] as const;
export type SetupSort = (typeof SETUP_SORTS)[number];
export const setupQuery = z.strictObject({
  ...pageQuery,
  q: z.string().trim().max(100).optional(),
  state: setupState.optional(),
  retired: flag.default(false),
  sort: z.enum(SETUP_SORTS).default('name'),
  dir: z.enum(['asc', 'desc']).default('asc'),
});

/** Counts of setups by verdict, and the most urgent one. */
export const summarySchema = z.object({
  n: z.number().int(),
  own: z.number().int(),
  demo: z.number().int(),
  works: z.number().int(),
  care: z.number().int(),
  blocked: z.number().int(),
  unknown: z.number().int(),
  first: z.object({ id: uuid, name: z.string(), sentence: z.string() }).nullable(),
});
export type Summary = z.infer<typeof summarySchema>;

export const searchHit = z.object({
  id: uuid,
  kind: z.union([z.literal('setup'), partKind]),
  name: z.string(),
  detail: z.string(),
});
export type SearchHit = z.infer<typeof searchHit>;
