import * as z from 'zod';
import { fileId, instant, origin, uuid } from '../../base/contract';
import type { Fit } from '../model/fit';
import type { Forecast, NoForecast } from '../model/forecast-types';
import type { Score } from '../model/held';

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
  name: z
    .string()
    .trim()
    .min(1, { error: 'Name: must not be empty' })
    .max(80, { error: 'Name: at most 80 characters' }),
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
  /** The newest calibration that is in use: when it was made. */
  fittedAt: instant.nullable(),
  rev: z.number().int(),
  origin,
});
export type ProfileEntry = z.infer<typeof profileEntry>;

const fit = z.looseObject({
  version: z.number().int(),
  cells: z.number().int(),
}) as unknown as z.ZodType<Fit, Fit>;
/** A calibration: made on a day from the runs there were. Later runs never change it. */
export const fitEntry = z.object({ id: uuid, titleId: uuid, madeAt: instant, fit });
export type FitEntry = z.infer<typeof fitEntry>;
export const fitList = z.object({ items: z.array(fitEntry) });
/** Calibrate: `before` leaves out runs that were recorded later, to see what would have been predicted. */
export const fitBody = z.strictObject({ id: uuid, before: instant.optional() });
export type FitBody = z.input<typeof fitBody>;

export const profileInFile = z.strictObject({
  ...profileBody.shape,
  id: fileId,
  fits: z
    .array(z.strictObject({ id: fileId, madeAt: instant, fit }))
    .max(500)
    .default([]),
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
  (Forecast | NoForecast) & { resolution: string },
  (Forecast | NoForecast) & { resolution: string }
>;
export const forecasts = z.array(forecast);
export type ForecastRow = z.infer<typeof forecast>;

const banded = z.object({ mid: z.number(), lo: z.number(), hi: z.number() });
const score = z.object({
  n: z.number().int(),
  within: z.number().int(),
  inBand: z.number().int(),
  bias: z.number().nullable(),
});
/** A run against what was predicted of it from the calibration there was before it. Frames/s. */
export const predictionRow = z.object({
  runIds: z.array(uuid),
  setupId: uuid,
  setupName: z.string(),
  title: z.string(),
  resolution: z.string(),
  panel: z.boolean(),
  at: instant,
  fitMadeAt: instant,
  predicted: banded,
  measured: z.number(),
});
export type PredictionRow = z.infer<typeof predictionRow>;
export const predictions = z.object({
  items: z.array(predictionRow),
  score: score as z.ZodType<Score, Score>,
});
export type Predictions = z.infer<typeof predictions>;

/** What the link costs a frame of one title on one setup, ms. */
export const tollRow = z.object({
  titleId: uuid,
  title: z.string(),
  ms: z.number(),
  lo: z.number().nullable(),
  hi: z.number().nullable(),
  basis: z.enum(['slot', 'links', 'highest', 'interval']),
  trafficMB: z.number(),
  beyondTraffic: z.boolean(),
  uneven: z.boolean(),
  pairs: z.number().int(),
});
export type TollRow = z.infer<typeof tollRow>;
