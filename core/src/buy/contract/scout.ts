import * as z from 'zod';
import {
  condition,
  currency,
  fileId,
  instant,
  isoDate,
  origin,
  uuid,
  nameLine,
} from '../../base/contract';
import { framesAsked } from '../../runs/contract';
import { FORGOTTEN_CODES, type ForgottenCode } from '../../setups';
import type { MachineKind } from '../search/outright';
import type { ScoutResult } from '../search/result';
import { type Limits, REJECT_REASONS, type ScoutInput, type Weights } from '../search/types';

const figure = (label: string, min: number, max: number) => {
  const error = `${label}: ${min} to ${max}`;
  return z.number({ error }).min(min, { error }).max(max, { error }).nullable().default(null);
};
const minor = z.number().int().min(0).max(1_000_000_000_000);
const weight = (label: string, usual: number) => {
  const error = `${label}: 0 to 3`;
  return z.number({ error }).min(0, { error }).max(3, { error }).default(usual);
};
const flag = z.boolean().default(false);

/** What has to hold. */
export const scoutLimits = z.strictObject({
  budgetMinor: minor.nullable().default(null),
  targetFps: figure('Target frame rate', 1, 1000),
  chargeW: figure('Charges with', 1, 240),
  noiseDb: figure('Dock noise', 10, 80),
  lengthMm: figure('Dock length', 60, 600),
  noOpening: flag,
  portable: flag,
  openOnly: flag,
  noRepackaged: flag,
  proven: flag,
  unsure: flag,
}) satisfies z.ZodType<Limits>;
/** How much each wish counts. */
export const scoutWeights = z.strictObject({
  frames: weight('Frames', 2),
  money: weight('Low price', 1),
  quiet: weight('Quiet', 0),
  small: weight('Small', 0),
  proven: weight('Worked when tried', 1),
}) satisfies z.ZodType<Weights>;

const resolution = z.string().regex(/^\d{3,5}x\d{3,5}$/, { error: 'Resolution: like 2560x1440' });
function idsShape<T extends z.ZodType<string>>(id: T) {
  return z.strictObject({
    socket: z.string().max(40),
    path: z.array(id).max(6),
    dock: id.nullable(),
    card: id,
    supply: id.nullable(),
    screen: id.nullable(),
  });
}
/** The ids of the parts of one combination. */

/** A search with the kind of id it holds: of the database, or of a file. */
function askShape<T extends z.ZodType<string>>(id: T) {
  return z.strictObject({
    hostId: id,
    /** System, settings, versions and loads are those of this setup; null: nothing is said of them. */
    setupId: id.nullable().default(null),
    titleId: id,
    resolution: resolution.default('2560x1440'),
    panel: flag,
    preset: z.string().trim().max(60, { error: 'Preset: at most 60 characters' }).default(''),
    currency: currency.default('EUR'),
    condition: condition.nullable().default(null),
    /** Owned items cost nothing: none, those that are free, or also those that stand in another active setup. */
    own: z.enum(['none', 'free', 'all']).default('free'),
    screens: z.array(id).max(6, { error: 'Screens: at most 6' }).default([]),
    forgotten: z
      .partialRecord(z.enum(FORGOTTEN_CODES as [ForgottenCode, ...ForgottenCode[]]), minor)
      .default({}),
    limits: scoutLimits.prefault({}),
    weights: scoutWeights.prefault({}),
    pins: z.array(idsShape(id)).max(12, { error: 'Pinned: at most 12' }).default([]),
  });
}
/** A search for what to buy: host, use, money, what counts as there, and limits. */
export const scoutAsk = askShape(uuid);
export type ScoutAsk = z.output<typeof scoutAsk>;
export type ScoutAskInput = z.input<typeof scoutAsk>;

/** A whole machine that could be bought instead. */
export interface OutrightChoice {
  readonly kind: MachineKind;
  readonly id: string;
  readonly name: string;
  readonly minor: number | null;
  readonly resaleMinor: number | null;
  readonly fps: readonly ({ lo: number; mid: number; hi: number } | null)[];
  readonly noiseDb: number | null;
}
/** All a search needs, for whoever runs it. `left`: parts of the catalogue that were too many. */
export interface ScoutGrounds {
  readonly input: ScoutInput;
  readonly host: string;
  readonly title: string;
  readonly outright: readonly OutrightChoice[];
  readonly left: Readonly<Record<string, number>>;
}
export const scoutGrounds = z.looseObject({
  host: z.string(),
  title: z.string(),
}) as unknown as z.ZodType<ScoutGrounds, ScoutGrounds>;

const result = z.looseObject({
  done: z.number(),
  total: z.number(),
  kept: z.number(),
  left: z.array(
    z.looseObject({ reason: z.enum(REJECT_REASONS), n: z.number(), alone: z.number() }),
  ),
}) as unknown as z.ZodType<ScoutResult, ScoutResult>;
export const scoutAnswer = z.object({
  result,
  outright: z.array(z.looseObject({ kind: z.string() })),
  ms: z.number(),
});

/** Whole machines to hold a plan against: of the first title and size asked for. */
export const machinesBody = z.strictObject({ frames: framesAsked, currency });
const machineRow = z.object({
  kind: z.enum(['laptop', 'desktop']),
  name: z.string(),
  netMinor: z.number().nullable(),
  fps: z.object({ lo: z.number(), mid: z.number(), hi: z.number() }).nullable(),
});
export type MachineRow = z.infer<typeof machineRow>;
export const machinesAnswer = z.object({ items: z.array(machineRow) });

/** A search that is kept under a name. */
const searchName = nameLine('Name', 80);
export const searchBody = z.strictObject({ id: uuid, name: searchName, ask: scoutAsk });
export const searchInFile = z.strictObject({ id: fileId, name: searchName, ask: askShape(fileId) });
export const searchPatch = z.strictObject({ name: searchName, ask: scoutAsk }).partial();
export const searchEntry = z.object({
  id: uuid,
  name: z.string(),
  ask: scoutAsk,
  rev: z.number().int(),
  origin,
  createdAt: instant,
  on: isoDate,
});
export type SearchEntry = z.output<typeof searchEntry>;
