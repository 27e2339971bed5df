import * as z from 'zod';
import {
  fileId,
  instant,
  origin,
  pageOf,
  pageQuery,
  uuid,
  nameLine,
  textLine,
} from '../../base/contract';
import { MAX_FRAMES, SENSOR_IDS } from '../capture/types';
import { DIMENSIONS, FACT_IDS, type RunFacts } from '../comparison/facts';
import type { RigFacts } from '../rig';
import {
  NO_RUN_CONTEXT,
  NO_RUN_SETTINGS,
  RUN_KINDS,
  runContextSchema,
  type RunKind,
  runSettingsSchema,
  segmentSchema,
} from '../schema';
import type { SensorsSeen } from '../statistics/sensors-seen';
import type { FrameStats } from '../statistics/summary';
import { keptForecast, PROFILE_KINDS } from './profiles';

/** Channels of a run: frames, pictures shown, and sensors. */
export const CHANNELS = ['frames', 'shown', ...SENSOR_IDS] as const;
export type Channel = (typeof CHANNELS)[number];
/** Most values of one channel, and most bytes it may have when packed. */
export const MAX_VALUES = 4 * MAX_FRAMES;
export const MAX_PACKED = 16 * 1024 * 1024;

export const sha256 = z
  .string()
  .regex(/^[0-9a-f]{64}$/, { error: 'a SHA-256 in 64 hexadecimal digits' });
const ms = z.number().min(-1e9).max(1e9);
export const channelBody = z.strictObject({
  channel: z.enum(CHANNELS),
  /** Time of the first value from the first frame, and from value to value, for sensors. */
  t0Ms: ms.default(0),
  dtMs: z.number().positive().max(1e7).nullable().default(null),
  n: z
    .number()
    .int()
    .min(1, { error: 'n: at least one value' })
    .max(MAX_VALUES, { error: `n: at most ${MAX_VALUES} values` }),
  sha256,
});
export type ChannelBody = z.infer<typeof channelBody>;
const channels = z.array(channelBody).max(CHANNELS.length, { error: 'Channels: one of each kind' });

const text = (label: string, most: number) => textLine(label, most).default('');
const cutS = z.number({ error: 'Cut: seconds' }).min(0, { error: 'Cut: not below 0' }).max(1e6);
const segments = z.array(segmentSchema).max(24, { error: 'Scenes: at most 24' });

/** Fields that may be left out, and then say nothing: a default would overwrite what was said before. */
function changesOf<S extends Record<string, z.ZodDefault>>(shape: S) {
  const free = Object.fromEntries(
    Object.entries(shape).map(([k, s]) => [k, (s.unwrap() as z.ZodType).optional()]),
  );
  return z.strictObject(free as { [K in keyof S]: z.ZodOptional<ReturnType<S[K]['unwrap']>> });
}
const result = z
  .strictObject({
    value: z
      .number({ error: 'Result: a number above 0' })
      .positive({ error: 'Result: above 0' })
      .max(1e12),
    unit: text('Unit', 20),
  })
  .nullable()
  .default(null);

const runShape = <T extends z.ZodType<string>>(id: T) => ({
  id,
  titleId: id,
  kind: z.enum(Object.keys(RUN_KINDS) as [RunKind, ...RunKind[]]),
  settings: runSettingsSchema.default(NO_RUN_SETTINGS),
  context: runContextSchema.default(NO_RUN_CONTEXT),
  result,
  /** Why it could not be run. */
  reason: text('Why', 300),
  /** What the person saw that the trace does not show. */
  saw: text('What you saw', 2000),
  cutS: cutS.default(0),
  segments: segments.default([]),
  channels: channels.default([]),
  /** The file it came from; the file itself is not kept. */
  source: z
    .strictObject({
      name: text('File', 200),
      bytes: z.number().int().min(0),
      sha256,
      program: text('Program', 120),
    })
    .nullable()
    .default(null),
});

/** A run to store. Channels have been sent before, each under its SHA-256. Without an instant it is now. */
export const runBody = z
  .strictObject({ ...runShape(uuid), happenedAt: instant.optional() })
  .superRefine((r, ctx) => {
    const has = (c: Channel) => r.channels.some((x) => x.channel === c);
    const say = (path: string, message: string) =>
      ctx.addIssue({ code: 'custom', path: [path], message });
    if (r.kind === 'frames' && !has('frames'))
      say('channels', 'A run of frame times needs its frames');
    if ((r.kind === 'score' || r.kind === 'time') && r.result === null)
      say('result', 'Result: a number above 0');
    if (r.kind === 'none' && r.reason === '') say('reason', 'Why: must not be empty');
    if (new Set(r.channels.map((c) => c.channel)).size !== r.channels.length)
      say('channels', 'Channels: one of each kind');
  });
export type RunBody = z.input<typeof runBody>;

/** What is said of a run later: only what is given changes; the run itself stays as it was. */
export const saidBody = z.strictObject({
  id: uuid,
  titleId: uuid.optional(),
  settings: changesOf(runSettingsSchema.shape).optional(),
  context: changesOf(runContextSchema.shape).optional(),
  saw: textLine('What you saw', 2000).optional(),
  cutS: cutS.optional(),
  segments: segments.optional(),
  channels: channels.optional(),
  /** Where sensors begin, ms from the first frame. */
  starts: z.partialRecord(z.enum(CHANNELS), ms).optional(),
});
export type SaidBody = z.input<typeof saidBody>;

const stats = z.record(z.string(), z.unknown()).nullable() as unknown as z.ZodType<
  FrameStats | null,
  FrameStats | null
>;
const rig = z.record(z.string(), z.unknown()) as unknown as z.ZodType<RigFacts, RigFacts>;
const sensors = z.record(z.string(), z.unknown()).nullable() as unknown as z.ZodType<
  SensorsSeen | null,
  SensorsSeen | null
>;
const facts = z.record(
  z.enum(FACT_IDS as [string, ...string[]]),
  z.string(),
) as unknown as z.ZodType<RunFacts, RunFacts>;

export const runEntry = z.object({
  ...runShape(uuid),
  setupId: uuid,
  setupName: z.string(),
  title: z.string(),
  work: z.enum(PROFILE_KINDS),
  happenedAt: instant,
  recordedAt: instant,
  origin,
  facts,
  /** The chain of that day as the frame model sees it. */
  rig,
  /** What meters beside it showed on average. */
  sensors,
  stats,
  shown: stats,
  segmentStats: z.array(stats),
});
export type RunEntry = z.infer<typeof runEntry>;
export const runPage = pageOf(runEntry);
/** Ids in a query, separated by commas. */
export const idList = (name: string) =>
  z.string().regex(/^[0-9a-f-]{36}(,[0-9a-f-]{36}){0,199}$/, {
    error: `${name}: up to 200 ids separated by commas`,
  });
export const runQuery = z.strictObject({
  ...pageQuery,
  setupId: uuid.optional(),
  titleId: uuid.optional(),
  /** Of these titles, by id, separated by commas. */
  titleIds: idList('titleIds').optional(),
  /** Only these, by id, separated by commas. */
  ids: idList('ids').optional(),
});

const column = z.strictObject({ role: z.string().max(20), unit: z.string().max(10) });
/** A confirmed mapping, remembered for files of the same signature. */
export const csvMapping = z.strictObject({
  signature: z.string().min(1).max(2000),
  mapping: z.strictObject({
    delimiter: z.string().max(1),
    decimal: z.enum(['.', ',']),
    comment: z.string().max(2),
    skip: z.number().int().min(0).max(10_000),
    header: z.boolean(),
    columns: z.array(column).min(1).max(400),
  }),
});
export type CsvMapping = z.infer<typeof csvMapping>;

const dimension = z.enum(DIMENSIONS);
/** A session: runs that answer one question, planned before they are measured. */
export const sessionBody = z.strictObject({
  id: uuid,
  name: nameLine('Name', 80),
  question: text('Question', 200),
  /** The one title or work that is run; empty: any. */
  title: text('Title', 80),
  factors: z
    .array(
      z.strictObject({
        dimension,
        levels: z
          .array(z.string().trim().min(1).max(120))
          .min(2, { error: 'At least two to compare' })
          .max(8, { error: 'At most eight' }),
        minutes: z.number().min(0).max(600),
      }),
    )
    .min(1, { error: 'Something must vary' })
    .max(4, { error: 'At most four things may vary' }),
  repeats: z.number().int().min(1).max(50),
  percent: z.number().positive().max(100),
  /** Setups the runs are made on. */
  setupIds: z.array(uuid).max(8).default([]),
});
export type SessionBody = z.input<typeof sessionBody>;
export const sessionEntry = z.object({ ...sessionBody.shape, createdAt: instant, origin });
export type SessionEntry = z.infer<typeof sessionEntry>;

/** A run in a file: its channels are carried along, packed, in base64. */
export const runInFile = z.strictObject({
  ...runShape(fileId),
  setupId: fileId,
  happenedAt: instant,
  recordedAt: instant,
  seq: z.number().int().min(0).max(1e9).default(0),
  /** The chain of the day; absent, the setup's chain in this file. */
  chain: z.unknown().optional(),
  /** The forecast that was kept when it was stored. */
  forecast: keptForecast.optional(),
});
export const sessionInFile = z.strictObject({
  ...sessionBody.shape,
  id: fileId,
  setupIds: z.array(fileId).max(8).default([]),
  createdAt: instant,
});
/** Values of a channel: float32, little-endian, gzip, base64; found by the SHA-256 of the unpacked bytes. */
export const captureInFile = z.strictObject({
  sha256,
  n: z.number().int().min(1).max(MAX_VALUES),
  data: z.base64().max(24 * 1024 * 1024),
});

/** A capture in the open format. */
export const captureSchema = z.object({
  format: z.literal('ruddy-bridge/capture'),
  version: z.literal(1),
  program: z.string().default(''),
  startedAt: instant.nullable().default(null),
  frameMs: z.array(z.number().positive().max(60_000)).max(MAX_FRAMES),
  shownMs: z.array(z.number().positive().max(60_000)).max(MAX_VALUES).nullable().default(null),
  sensors: z
    .array(
      z.object({
        sensor: z.enum(SENSOR_IDS as [string, ...string[]]),
        t0Ms: z.number().default(0),
        dtMs: z.number().positive(),
        values: z.array(z.number().nullable()).max(MAX_VALUES),
      }),
    )
    .default([]),
});
