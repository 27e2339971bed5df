import * as z from 'zod';

export const RUN_KINDS = {
  frames: 'Frame times',
  score: 'Score',
  time: 'Time taken',
  none: 'Could not be run',
} as const;
export type RunKind = keyof typeof RUN_KINDS;
export const SCREEN_PATHS = {
  outside: 'Screen on the card',
  panel: "Host's own panel",
  none: 'No screen',
} as const;
export const CAPTURE_METHODS = {
  program: "The program's own measurement",
  overlay: 'A counter drawn over the picture',
  trace: 'A recording beside the program',
  film: 'A film of the screen',
  hand: 'By hand: stopwatch or result on screen',
} as const;
/** Does a run count among its repeats? */
export const COUNTS = { yes: 'Yes, all the same', no: 'No, leave it out' } as const;
export const DISTURBANCE = { no: 'No', little: 'A little', clearly: 'Clearly' } as const;
export const DEVICE_SETS = {
  card: 'The outside card alone',
  inside: 'Internal graphics alone',
  processor: 'The processor alone',
  'card-processor': 'Outside card and processor',
  all: 'All of them',
} as const;

const oneOf = <T extends Record<string, string>>(label: string, words: T) =>
  z.enum(Object.keys(words) as [keyof T & string, ...(keyof T & string)[]], {
    error: `${label}: one of ${Object.keys(words).join(', ')}`,
  });
const choice = <T extends Record<string, string>>(label: string, words: T) =>
  oneOf(label, words).nullable().default(null);
const words = (label: string, most = 60) =>
  z
    .string()
    .trim()
    .max(most, { error: `${label}: at most ${most} characters` })
    .default('');
const figure = (label: string, unit: string, min: number, max: number) => {
  const error = `${label}: a number from ${min} to ${max} ${unit}, or nothing`;
  return z.number({ error }).min(min, { error }).max(max, { error }).nullable().default(null);
};
const whole = (label: string, min: number, max: number) => {
  const error = `${label}: a whole number from ${min} to ${max}, or nothing`;
  return z
    .number({ error })
    .int({ error })
    .min(min, { error })
    .max(max, { error })
    .nullable()
    .default(null);
};

/** How a run was set. Empty or null: not set, which is another thing than "off" or "none". */
export const runSettingsSchema = z.strictObject({
  resolution: z
    .string()
    .trim()
    .regex(/^(\d{3,5}x\d{3,5})?$/, { error: 'Resolution: like 2560x1440, or nothing' })
    .default(''),
  preset: words('Preset'),
  upscaling: words('Upscaling'),
  generation: words('Generated frames'),
  rayTracing: choice('Ray tracing', { on: 'On', off: 'Off' }),
  /** Limit on frames/s; 0: none was set. */
  capFps: figure('Limit', 'frames/s', 0, 1000),
  powerMode: words('Power mode'),
  screenPath: choice('Picture', SCREEN_PATHS),
  lid: choice('Lid', { open: 'Open', closed: 'Closed' }),
  deviceSet: choice('Computed by', DEVICE_SETS),
});
export type RunSettings = z.infer<typeof runSettingsSchema>;
export const NO_RUN_SETTINGS: RunSettings = runSettingsSchema.parse({});
/** What of a run's settings a stated figure is told with. */
export const statedSettingsSchema = runSettingsSchema.pick({
  resolution: true,
  preset: true,
  upscaling: true,
  rayTracing: true,
  capFps: true,
  powerMode: true,
  screenPath: true,
});
export type StatedSettings = z.infer<typeof statedSettingsSchema>;
export const NO_STATED_SETTINGS: StatedSettings = statedSettingsSchema.parse({});

/** How a run was taken. */
export const runContextSchema = z.strictObject({
  method: choice('Captured by', CAPTURE_METHODS),
  disturbs: choice('Capture disturbed it', DISTURBANCE),
  /** Processor load of the capture itself, where known. */
  captureLoadPercent: figure('Load of the capture', '%', 0, 100),
  /** What a person said of it among its repeats; left out, its figures decide. */
  counts: choice('Counts among its repeats', COUNTS),
  /** The same card in a desktop slot, to hold runs through a link against. */
  norm: z.boolean().default(false),
  /** Of a run in a desktop slot: did the same processor drive it, and what is the slot? Left out, the card's own link. */
  sameProcessor: choice('Same processor', { yes: 'Yes', no: 'No' }),
  slotGen: whole('Generation of the slot', 1, 5),
  slotLanes: whole('Lanes of the slot', 1, 16),
});
export type RunContext = z.infer<typeof runContextSchema>;
export const NO_RUN_CONTEXT: RunContext = runContextSchema.parse({});

export const SETTING_LABELS: Readonly<Record<keyof RunSettings, string>> = {
  resolution: 'Resolution',
  preset: 'Preset',
  upscaling: 'Upscaling',
  generation: 'Generated frames',
  rayTracing: 'Ray tracing',
  capFps: 'Limit on frames',
  powerMode: 'Power mode',
  screenPath: 'Picture',
  lid: 'Lid',
  deviceSet: 'Computed by',
};

/** A named stretch of a run, in seconds from its first frame. */
export const segmentSchema = z
  .strictObject({
    name: z
      .string()
      .trim()
      .min(1, { error: 'Scene: must not be empty' })
      .max(60, { error: 'Scene: at most 60 characters' }),
    fromS: z.number({ error: 'From: seconds' }).min(0, { error: 'From: not below 0' }),
    toS: z.number({ error: 'To: seconds' }),
  })
  .refine((s) => s.toS > s.fromS, { path: ['toS'], error: 'To: after the beginning' });
export type Segment = z.infer<typeof segmentSchema>;
