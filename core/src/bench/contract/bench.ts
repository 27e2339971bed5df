import * as z from 'zod';
import { instant, origin, uuid } from '../../base/contract';
import {
  copyReadingSchema,
  reportSchema,
  routerReadingSchema,
  SECURITY_LEVELS,
  spanReadingSchema,
} from '../../bring-up';
import { chainSchema } from '../../chain';
import { chainInput } from '../../plan/contract';
import { actSchema } from '../acts';
import { FAULT_IDS } from '../faults';
import { HOST_POWERS, LINK_STATES, LOG_CODES } from '../ids';
import type { BenchState } from '../state';

const name = z
  .string()
  .trim()
  .min(1, { error: 'Name: must not be empty' })
  .max(80, { error: 'Name: at most 80 characters' });
const ms = z.number().int().min(0);

/** A bench to create: from a setup's present chain, from parts, or empty. Without a seed one is drawn. */
export const benchBody = z
  .strictObject({
    id: uuid,
    name,
    seed: z.number().int().min(0).max(2_147_483_647).optional(),
    setupId: uuid.nullable().default(null),
    chain: chainInput.optional(),
    speed: z.number().min(0).max(100).default(1),
  })
  .refine((b) => b.setupId === null || b.chain === undefined, {
    error: 'A setup or parts, not both',
    path: ['chain'],
  });
export type BenchBody = z.input<typeof benchBody>;

export const actBody = z.strictObject({ id: uuid, act: actSchema });

/** Set the bench's clock: how fast it goes, a step of so much, or on to what happens next by itself. */
export const clockBody = z
  .strictObject({
    speed: z.number().min(0).max(100, { error: 'Speed: 0 to 100 times' }).optional(),
    stepMs: ms.max(86_400_000, { error: 'Step: at most a day' }).optional(),
    toNext: z.literal(true).optional(),
  })
  .refine((c) => Object.values(c).filter((v) => v !== undefined).length === 1, {
    error: 'Say one of speed, stepMs, toNext',
  });
export type ClockBody = z.input<typeof clockBody>;

export const benchStateSchema = z.object({
  ms,
  host: z.enum(HOST_POWERS),
  mains: z.boolean(),
  dockOn: z.boolean(),
  dockLamp: z.boolean(),
  cardIn: z.boolean(),
  plugsIn: z.boolean(),
  screenIn: z.boolean(),
  picture: z.boolean(),
  plugged: z.string().nullable(),
  driverIn: z.boolean(),
  approval: z.enum(['none', 'once', 'always']),
  security: z.enum(SECURITY_LEVELS),
  load: z.boolean(),
  traffic: z.boolean(),
  stage: z.enum(LINK_STATES),
  since: ms,
  contact: ms.nullable(),
  kind: z.enum(['tunnel', 'direct']).nullable(),
  router: routerReadingSchema.nullable(),
  hostSpan: spanReadingSchema.nullable(),
  cardSpan: spanReadingSchema.nullable(),
  usable: z.object({ down: z.number(), up: z.number() }).nullable(),
  downs: ms,
  corrected: ms,
}) satisfies z.ZodType<BenchState>;

const params = z.record(z.string(), z.union([z.string(), z.number()]));
const at = { seq: z.number().int(), ms };
/** Everything that happens on a bench, in order: what hands did, what then came about, and how its clock was set. */
export const benchEvent = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('act'), ...at, body: actSchema }),
  z.object({
    kind: z.literal('line'),
    ...at,
    body: z.object({ code: z.enum(LOG_CODES), params, state: benchStateSchema }),
  }),
  z.object({
    kind: z.literal('clock'),
    ...at,
    body: z.object({ speed: z.number(), state: benchStateSchema }),
  }),
]);
export type BenchEvent = z.infer<typeof benchEvent>;

export const benchRow = z.object({
  id: uuid,
  name: z.string(),
  seed: z.number().int(),
  setupId: uuid.nullable(),
  setupName: z.string().nullable(),
  speed: z.number(),
  origin,
  createdAt: instant,
  host: z.string(),
  dock: z.string(),
  card: z.string(),
  state: benchStateSchema,
});
export type BenchRow = z.infer<typeof benchRow>;

/**
 * Present state of a bench: state, parts, faults, and its log up to `seq`, from where a stream continues; after an
 * act only the events it caused.
 */
export const benchSchema = benchRow.extend({
  chain: chainSchema,
  faults: z.partialRecord(z.enum(FAULT_IDS), z.number()),
  log: z.array(benchEvent),
  seq: z.number().int(),
  /** Bench time of what happens next by itself, ms. */
  nextMs: ms.nullable(),
});
export type Bench = z.infer<typeof benchSchema>;
export const benchList = z.object({ items: z.array(benchRow) });
export const benchQuery = z.strictObject({ setupId: uuid.optional() });

/** What a person at the bench reads off it: the probe's report while a system runs, and copy rates while a driver holds a card. */
export const benchReading = z.object({
  state: benchStateSchema,
  report: reportSchema.nullable(),
  copy: z.object({ down: copyReadingSchema, up: copyReadingSchema }).nullable(),
});
export type BenchReading = z.infer<typeof benchReading>;

/** A file or link of the system's tree. `hex`: bytes that are no text. */
export const treeEntry = z.object({
  path: z.string(),
  text: z.string().optional(),
  hex: z.string().optional(),
  target: z.string().optional(),
});
export const treeSchema = z.object({ entries: z.array(treeEntry) });
export type TreeEntry = z.infer<typeof treeEntry>;
