import * as z from 'zod';
import { OUTCOMES } from '../log';
import { PORT_STANDARDS, type PortStandard } from '../schema';
import { isoDate, pageOf, pageQuery, uuid } from './common';
import { versionsSchema } from './outcomes';

export const COMPAT_SORTS = ['newest', 'host', 'port', 'dock', 'card', 'n', 'share'] as const;
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
    down: z.object({ lo: z.number(), hi: z.number() }).nullable(),
  }),
  /** Counted by setup and set of versions: retries of one evening count once. */
  seen: z.object({ n: z.number().int(), worked: z.number().int(), failed: z.number().int() }),
  contradicted: z.boolean(),
  /** The newest status, under which versions, and since when it holds under them. */
  now: z.object({ outcome: z.enum(OUTCOMES), on: isoDate, since: isoDate, versions: versionsSchema }),
  /** Sets of versions that newer ones have taken the place of. */
  older: z.number().int(),
  entries: z.number().int(),
  setups: z.array(z.object({ id: uuid, name: z.string() })),
});
export type CompatRow = z.infer<typeof compatRow>;
export const compatPage = pageOf(compatRow).extend({ total: z.number().int() });

export const compatQuery = z.strictObject({
  ...pageQuery,
  q: z.string().trim().max(100).optional(),
  outcome: z.enum(OUTCOMES).optional(),
  standard: z.enum(Object.keys(PORT_STANDARDS) as [PortStandard, ...PortStandard[]]).optional(),
  sort: z.enum(COMPAT_SORTS).default('newest'),
  dir: z.enum(['asc', 'desc']).default('desc'),
});
export type CompatQuery = z.output<typeof compatQuery>;
