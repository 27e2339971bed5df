import * as z from 'zod';
import { fileId, instant, origin, uuid, nameLine } from '../../base/contract';
import { FORECAST_BASES } from '../frame-model/basis';
import type { NoForecast, TitleForecast } from '../frame-model/title-forecast';

/** What runs are made of: a title that is played, or work that is done. A title with a year is a synthetic test. */
export const PROFILE_KINDS = ['title', 'work'] as const;
export type ProfileKind = (typeof PROFILE_KINDS)[number];
export const PROFILE_KIND_WORDS: Readonly<Record<ProfileKind, string>> = {
  title: 'a title',
  work: 'work',
};

const text = (label: string, most: number) =>
  z
    .string()
    .trim()
    .max(most, { error: `${label}: at most ${most} characters` })
    .default('');
const figure = (label: string, min: number, max: number) => {
  const error = `${label}: a number from ${min} to ${max}`;
  return z.number({ error }).min(min, { error }).max(max, { error });
};
const year = z
  .number({ error: 'Year: a whole number' })
  .int({ error: 'Year: a whole number' })
  .min(1990, { error: 'Year: from 1990' })
  .max(2100, { error: 'Year: up to 2100' })
  .nullable();

/** What somebody states of a title nobody has measured: at the reference host and card of 100, at 1920x1080. */
export const titleParams = z.strictObject({
  cpuMs: figure('Processor', 0.1, 1000),
  cardMs: figure('Card', 0.1, 1000),
  trafficMB: figure('Traffic', 0, 500),
  workingGB: figure('Memory wanted', 0, 200),
});

/** A title that is played, work that is done or a test that is run, again and again in the same way. */
export const profileBody = z.strictObject({
  id: uuid,
  name: nameLine('Name', 80),
  kind: z.enum(PROFILE_KINDS),
  note: text('Which scene', 300),
  /** What it is built on, in words: titles of one engine tend to fail alike. */
  engine: text('Engine', 60),
  /** Of a synthetic test: when it came out. */
  year: year.default(null),
  params: titleParams.nullable().default(null),
});
export type ProfileBody = z.input<typeof profileBody>;
/** What may be changed of one later; only what is given changes. */
export const profilePatch = z
  .strictObject({
    note: z.string().trim().max(300),
    engine: z.string().trim().max(60, { error: 'Engine: at most 60 characters' }),
    year,
    params: titleParams.nullable(),
  })
  .partial();
export type ProfilePatch = z.input<typeof profilePatch>;
export const profileEntry = z.object({
  ...profileBody.shape,
  runs: z.number().int(),
  rev: z.number().int(),
  origin,
});
export type ProfileEntry = z.infer<typeof profileEntry>;

export const profileInFile = z.strictObject({
  ...profileBody.shape,
  id: fileId,
  /** Calibrations in files of earlier versions: read over, since a posterior is computed from the runs. */
  fits: z.array(z.unknown()).max(500).optional(),
});

/** What frames are asked for beside a judgement. */
export const framesAsked = z.strictObject({
  titleIds: z.array(uuid).max(64, { error: 'Titles: at most 64' }).optional(),
  resolutions: z
    .array(z.string().regex(/^\d{3,5}x\d{3,5}$/, { error: 'Resolution: like 2560x1440' }))
    .min(1)
    .max(8),
  panel: z.boolean().default(false),
  powerMode: z.string().trim().max(60).default(''),
  preset: z.string().trim().max(60).default(''),
  rayTracing: z.boolean().default(false),
  capFps: z.number().min(1).max(1000).nullable().default(null),
});
export type FramesAsked = z.input<typeof framesAsked>;

const forecast = z.looseObject({ titleId: z.string() }) as unknown as z.ZodType<
  TitleForecast | NoForecast,
  TitleForecast | NoForecast
>;
/** Frames to expect, title by title and size by size. */
export const forecastList = z.object({ items: z.array(forecast) });

const range = z.object({ lo: z.number(), hi: z.number() });
const bands = z.object({ mid: z.number(), 50: range, 80: range, 95: range });
const basis = z.enum(FORECAST_BASES);
const hits = z.object({
  n: z.number().int(),
  held: z.object({ 50: z.number().int(), 80: z.number().int(), 95: z.number().int() }),
});
const score = z.object({
  ...hits.shape,
  within: z.number().int(),
  bias: z.number().nullable(),
  byWidth: z.object({ narrow: hits, middling: hits, wide: hits }),
});

/** A forecast as it was kept when its run was stored: made from what was known before. */
export const keptForecast = z.strictObject({
  madeAt: instant,
  model: z.string().max(20),
  /** Pieces of evidence it was made from. */
  evidence: z.number().int().min(0),
  basis,
  /** Frames/s. */
  fps: bands,
});
export type KeptForecast = z.infer<typeof keptForecast>;

/** A run against the forecast that was made of it before it was known. Frames/s. */
export const settledRow = z.object({
  ...keptForecast.shape,
  runId: uuid,
  setupId: uuid,
  setupName: z.string(),
  titleId: uuid,
  title: z.string(),
  resolution: z.string(),
  panel: z.boolean(),
  at: instant,
  measured: z.number(),
});
export type SettledRow = z.infer<typeof settledRow>;
export const settledForecasts = z.object({
  items: z.array(settledRow),
  /** Of the workshop. */
  score,
  titles: z.array(z.object({ titleId: uuid, title: z.string(), score })),
});
export type SettledForecasts = z.infer<typeof settledForecasts>;

/** What the link of a setup costs a frame of the title that tells most of it, against a wide direct slot; ends of the 80 % band. */
export const linkOverheadRow = z.object({
  setupId: uuid,
  titleId: uuid,
  title: z.string(),
  resolution: z.string(),
  /** ms, and share of the frame. */
  ms: z.object({ mid: z.number(), ...range.shape }),
  share: z.number(),
});
export type LinkOverheadRow = z.infer<typeof linkOverheadRow>;
