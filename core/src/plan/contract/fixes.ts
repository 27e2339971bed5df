import * as z from 'zod';
import { OUTCOMES } from '../../base';
import { currency, isoDate, uuid, nameLine } from '../../base/contract';
import { shownBy, videoPlug } from '../../chain';
import { installedSchema, settingsSchema, softwareRole } from '../../parts';
import { FINDING_CODES, type FindingCode } from '../codes';
import { coverageSchema, evaluateBody } from './evaluate';

/** A change to a setup, as a person may keep it: an adjustment, another port, or another part in one place. */
export const changeSchema = z.object({
  settings: settingsSchema.partial().optional(),
  installed: installedSchema.partial().optional(),
  dropLoad: z.number().int().optional(),
  screen: z
    .object({ index: z.number().int(), by: shownBy.optional(), plug: videoPlug.optional() })
    .optional(),
  socket: z.string().optional(),
  part: z
    .object({
      slot: z.enum(['path', 'dock', 'card', 'supply', 'screen', 'system']),
      index: z.number().int(),
      id: uuid,
    })
    .optional(),
});
export type SetupChange = z.infer<typeof changeSchema>;

/** Which finding a fix is wanted for, on a chain given as for judging. */
export const fixesBody = z.strictObject({
  chain: evaluateBody.shape.chain,
  setupId: evaluateBody.shape.setupId,
  code: z.enum(Object.keys(FINDING_CODES) as [FindingCode, ...FindingCode[]]),
  about: z.string().max(80).optional(),
});

const range = z.object({ lo: z.number(), hi: z.number() }).nullable();
export const fixRow = z.object({
  words: z.string(),
  change: changeSchema,
  verdict: z.enum(['works', 'care', 'blocked', 'unknown']),
  /** How many of its areas are known. */
  coverage: coverageSchema,
  usable: range,
  stops: z.number().int(),
  care: z.number().int(),
  /** What another part costs: a piece is there, an offer counts, or no price is known; null when no part is taken. */
  price: z
    .object({
      owned: z.boolean(),
      minor: z.number().int().nullable(),
      currency: currency.nullable(),
      onDate: isoDate.nullable(),
    })
    .nullable(),
});
export type FixRow = z.infer<typeof fixRow>;
export const fixesResponse = z.object({ items: z.array(fixRow), tried: z.number().int() });

/** A setup a release touches, and how it stands there. */
export const touchedRow = z.object({
  id: uuid,
  name: z.string(),
  state: z.string(),
  rev: z.number().int(),
  part: z.string(),
  have: z.string(),
  stands: z.enum(['older', 'same', 'newer', 'not known']),
  /** The version the setup is pinned at, when this release would leave it. */
  pin: z.object({ version: z.string(), reason: z.string() }).nullable(),
  /** Requirements not met today that it would meet. */
  mends: z.array(z.string()),
});
export type TouchedRow = z.infer<typeof touchedRow>;

/** A version marked as installed, with its date and, when known, what came of it. */
export const installedBody = z.strictObject({
  id: uuid,
  role: softwareRole,
  version: nameLine('Version', 60),
  on: isoDate,
  outcome: z
    .strictObject({
      id: uuid,
      outcome: z.enum(OUTCOMES),
      note: z.string().trim().max(2000).default(''),
    })
    .nullable()
    .default(null),
});
export type InstalledBody = z.infer<typeof installedBody>;
