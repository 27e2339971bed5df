import * as z from 'zod';
import { ORDER_IDS, OUTCOMES } from '../../base';
import { flag, instant, isoDate, origin, pageOf, pageQuery, uuid } from '../../base/contract';
import { PORT_STANDARDS, type PortStandard } from '../../parts';
import { PROVENANCES } from '../labels';

const version = z.string().trim().min(1).max(60, { error: 'Version: at most 60 characters' });
/** Versions under which something happened, as the person read them; an absent one was not noted. */
export const versionsSchema = z.strictObject({
  system: version.optional(),
  driver: version.optional(),
  hostFirmware: version.optional(),
  dockFirmware: version.optional(),
});

const words = (what: string) =>
  z
    .array(
      z
        .string()
        .trim()
        .min(1)
        .max(200, { error: `${what}: at most 200 characters each` }),
    )
    .max(20, { error: `${what}: at most 20` });

const CONFIDENCE = 'Confidence: from 0 to 100 %';

/** An outcome of a setup: what happened, when, under which versions, and how it is known. */
export const outcomeBody = z.strictObject({
  id: uuid,
  outcome: z.enum(OUTCOMES, {
    error: 'Choose one of: Works, Works with care, Unreliable, Fails',
  }),
  happenedOn: isoDate,
  versions: versionsSchema.default({}),
  symptoms: words('Symptoms').default([]),
  fixes: words('Fixes').default([]),
  provenance: z.enum(PROVENANCES).default('own'),
  confidence: z
    .number({ error: CONFIDENCE })
    .min(0, { error: CONFIDENCE })
    .max(1, { error: CONFIDENCE })
    .default(1),
  note: z.string().trim().max(2000, { error: 'Note: at most 2000 characters' }).default(''),
  /** The power order that worked, where noted. */
  order: z.enum(ORDER_IDS).nullable().default(null),
  /** The outcome this one corrects; both stay on record. */
  corrects: uuid.nullable().default(null),
});
export type OutcomeBody = z.infer<typeof outcomeBody>;

export const outcomeSchema = outcomeBody.extend({
  /** Null for an entry from a file: its setup is not here. */
  setupId: uuid.nullable(),
  setupName: z.string(),
  /** The file it came from; empty for one's own. */
  cameFrom: z.string(),
  chainKey: z.string().nullable(),
  chain: z.object({
    host: z.string(),
    port: z.string(),
    cable: z.string(),
    dock: z.string(),
    card: z.string(),
  }),
  correctedBy: uuid.nullable(),
  /** Newer versions of the same setup have been logged since. */
  superseded: z.boolean(),
  origin,
  recordedAt: instant,
});
export type OutcomeEntry = z.infer<typeof outcomeSchema>;
export const outcomePage = pageOf(outcomeSchema);
const find = z.string().trim().max(100, { error: 'at most 100 characters' }).optional();
/** How entries are found: free words, one part exactly or by words, and the rest by words. */
export const logFilter = {
  q: find,
  host: find,
  dock: find,
  card: find,
  controller: find,
  system: find,
  symptom: find,
  fix: find,
  standard: z.enum(Object.keys(PORT_STANDARDS) as [PortStandard, ...PortStandard[]]).optional(),
  since: isoDate.optional(),
  until: isoDate.optional(),
  /** How it is known; `file`: it came from another workshop's file. */
  known: z.enum([...PROVENANCES, 'file']).optional(),
};
export type LogFilter = z.output<z.ZodObject<typeof logFilter>>;
export const outcomeQuery = z.strictObject({
  ...pageQuery,
  ...logFilter,
  setupId: uuid.optional(),
  /** Only what was logged for exactly this chain. */
  chain: z.string().max(2000).optional(),
  outcome: z.enum(OUTCOMES).optional(),
  newest: flag.default(false),
});

export const EVENT_KINDS = [
  'created',
  'cloned',
  'parts',
  'state',
  'renamed',
  'outcome',
  'note',
  'reading',
  'version',
  'attempt',
  'step',
  'ended',
  'struck',
  'good',
  'price',
  'run',
  'run-said',
  'used',
  'trouble',
] as const;
export const noteBody = z.strictObject({
  id: uuid,
  text: z
    .string()
    .trim()
    .min(1, { error: 'Note: must not be empty' })
    .max(2000, { error: 'Note: at most 2000 characters' }),
  happenedOn: isoDate,
  /** Where a photo lies: a file name or a place. The photo itself is not kept here. */
  photo: z.string().trim().max(300, { error: 'Photo: at most 300 characters' }).default(''),
  /** The note this one corrects; both stay on record. */
  corrects: uuid.nullable().default(null),
});
export type NoteBody = z.input<typeof noteBody>;
export const eventSchema = z.object({
  id: uuid,
  seq: z.number().int(),
  kind: z.enum(EVENT_KINDS),
  body: z.record(z.string(), z.unknown()),
  happenedAt: instant,
  recordedAt: instant,
  corrects: uuid.nullable(),
  by: z.string(),
  origin,
});
export type SetupEvent = z.infer<typeof eventSchema>;
