/** What a sensor of a capture or a log can measure, with its unit here. Values of other units are turned into it when read. */
export const SENSORS = {
  'card-load': '%',
  'card-w': 'W',
  'card-mhz': 'MHz',
  'memory-mhz': 'MHz',
  'card-c': '°C',
  'memory-mb': 'MB',
  'cpu-load': '%',
  'cpu-w': 'W',
  'cpu-mhz': 'MHz',
  'cpu-c': '°C',
  'wall-w': 'W',
  'card-busy-ms': 'ms',
  'cpu-busy-ms': 'ms',
  'latency-ms': 'ms',
  fps: 'frames/s',
} as const;
export type Sensor = keyof typeof SENSORS;
export const SENSOR_IDS = Object.keys(SENSORS) as Sensor[];

/**
 * What a column holds: the time from frame to frame, the rate of each frame, when a frame came, the day of that time, the time between
 * pictures on the screen, whether a frame was generated, which program drew it, a sensor, or nothing that is read.
 */
export const ROLES = [
  'frame',
  'rate',
  'time',
  'date',
  'shown',
  'generated',
  'program',
  'ignore',
  ...SENSOR_IDS,
] as const;
export type ColumnRole = (typeof ROLES)[number];

/**
 * Tells a column role that is a sensor.
 *
 * @param role role of a column
 * @returns true for sensors
 */
export function isSensor(role: ColumnRole): role is Sensor {
  return role in SENSORS;
}

/** Units of a time, in ms; `clock` is a date or a time of day. */
export const TIME_UNITS = { ms: 1, s: 1000, us: 1e-3, ns: 1e-6, clock: 1 } as const;
export type TimeUnit = keyof typeof TIME_UNITS;
/** Units of a sensor other than its own, as factors into it. */
export const SENSOR_FACTORS = { own: 1, kilo: 1000, milli: 0.001, share: 100 } as const;
export type SensorUnit = keyof typeof SENSOR_FACTORS;
export type ColumnUnit = TimeUnit | SensorUnit;

export interface CaptureColumn {
  readonly role: ColumnRole;
  readonly unit: ColumnUnit;
}

/** The delimiter of a table whose columns are set apart by any number of blanks. */
export const BLANKS = ' ';

/** How a table of text is laid out and what its columns hold. */
export interface Mapping {
  /** One character; `BLANKS` for runs of blanks, empty for a table of one column. */
  readonly delimiter: string;
  readonly decimal: '.' | ',';
  /** What a line that is no row begins with; empty: there are none. */
  readonly comment: string;
  /** Lines before the header, or before the first row where there is none. */
  readonly skip: number;
  readonly header: boolean;
  readonly columns: readonly CaptureColumn[];
}

/** A table as it was found in the first lines of a file. */
export interface CaptureLayout {
  readonly delimiter: string;
  readonly decimal: '.' | ',';
  readonly comment: string;
  readonly skip: number;
  /** Names of the columns; null: the file has none. */
  readonly header: readonly string[] | null;
  readonly width: number;
  /** The first rows as they are written. */
  readonly sample: readonly (readonly string[])[];
}

/** A row that was not read. `column` counts from 0; null: the row as a whole. */
export interface BadRow {
  readonly line: number;
  readonly column: number | null;
  readonly value: string;
  readonly why: 'short' | 'not-a-number' | 'not-above-0' | 'too-long' | 'not-a-time' | 'goes-back';
}

/** A sensor over time, evenly spaced; NaN where nothing was measured. `t0Ms` counts from the first frame. */
export interface SensorSeries {
  readonly sensor: Sensor;
  readonly t0Ms: number;
  readonly dtMs: number;
  readonly values: Float32Array;
}

/** Frames of one program, or a sensor log whose program is unknown. */
export interface Stream {
  readonly program: string;
  /** Time of each rendered frame in ms, rounded to float32; empty in a log of sensors. */
  readonly frames: Float32Array;
  /** Time between pictures on the screen, where it was captured apart from the rendered ones. */
  readonly shown: Float32Array | null;
  readonly lanes: readonly SensorSeries[];
  /** When the first row was taken, in ms since 1970, where the file says so. */
  readonly startedMs: number | null;
}

/** How the clock of a file goes with its frame times; both in ms over the same rows. */
export interface AgainstClock {
  readonly clockMs: number;
  readonly framesMs: number;
  /** Places where the clock jumps on by much more than a frame lasts, and the line of the first. */
  readonly gaps: number;
  readonly gapLine: number | null;
}

export interface ReadCapture {
  readonly streams: readonly Stream[];
  readonly rows: number;
  readonly bad: readonly BadRow[];
  readonly badCount: number;
  /** Null where the file has no clock beside its frame times. */
  readonly clock: AgainstClock | null;
}

export type CaptureProblem =
  | { readonly code: 'empty' }
  /** Bytes that are not of the encoding it was read in. */
  | { readonly code: 'encoding'; readonly encoding: string }
  | { readonly code: 'no-table' }
  /** The names above the figures are not as many as the cells of the rows. `comma`: a comma that is decimal mark and delimiter may be why. */
  | {
      readonly code: 'width';
      readonly line: number;
      readonly names: number;
      readonly cells: number;
      readonly comma: boolean;
    }
  | { readonly code: 'no-times' }
  | { readonly code: 'no-rows' }
  | { readonly code: 'too-many'; readonly most: number }
  | { readonly code: 'json'; readonly where: string; readonly why: string };
export type CaptureResult<T> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly problem: CaptureProblem };

/** Most frames of one capture. */
export const MAX_FRAMES = 1_000_000;
/** The longest one frame may be, ms; a row that says more is a bad row. */
export const LONGEST_FRAME_MS = 60_000;
