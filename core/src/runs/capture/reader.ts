import { clockMs, pastMidnight } from './clock';
import { Grow } from './grow';
import {
  type BadRow,
  type CaptureColumn,
  type CaptureResult,
  isSensor,
  LONGEST_FRAME_MS,
  type Mapping,
  MAX_FRAMES,
  type ReadCapture,
  type Sensor,
  SENSOR_FACTORS,
  type SensorUnit,
  type Stream,
  TIME_UNITS,
  type TimeUnit,
  type SensorSeries,
} from './types';

/** Bad rows that are named one by one; beyond them they are counted. */
const NAMED = 200;
/** Sensors beside frames are kept as means of this long. */
const BESIDE_MS = 100;
const NOTHING = new Set(['', 'na', 'n/a', 'nan', '-', 'null']);
const YES = new Set(['1', 'true', 'yes', 'y', 'generated']);

/** What one program drew so far. */
class Bucket {
  readonly frames = new Grow();
  readonly shown = new Grow(16);
  readonly sensors: { readonly times: Grow; readonly values: Grow }[];
  /** Where its clock stands, and when its last row was, in ms. */
  nowMs = 0;
  lastMs = NaN;
  firstMs = NaN;
  /** Time of generated frames that belongs to the next rendered one. */
  carriedMs = 0;

  constructor(
    readonly program: string,
    sensors: number,
  ) {
    this.sensors = Array.from({ length: sensors }, () => ({
      times: new Grow(64),
      values: new Grow(64),
    }));
  }
}

interface At {
  readonly index: number;
  readonly column: CaptureColumn;
}

/**
 * Reads the rows of a table one batch after another. Rows that cannot be read are named by line and column and left out; whether the
 * rest counts is for the person to say. Frame times are rounded to float32 ms as they are read: everything after uses those values.
 */
export class CaptureReader {
  readonly #mapping: Mapping;
  readonly #log: boolean;
  readonly #buckets = new Map<string, Bucket>();
  readonly #bad: BadRow[] = [];
  readonly #frame: At | null;
  readonly #time: At | null;
  readonly #shown: At | null;
  readonly #generated: At | null;
  readonly #program: At | null;
  readonly #sensors: (At & { sensor: Sensor; factor: number })[];
  readonly #least: number;
  readonly #comma: boolean;
  /** Where the time of a frame stands when nothing else but a program is read, and its factor into ms. */
  readonly #plain: { readonly index: number; readonly factor: number } | null;
  #last: Bucket | null = null;
  #badCount = 0;
  #line = 0;
  #rows = 0;
  #frames = 0;
  #headed = false;

  constructor(mapping: Mapping, what: 'frames' | 'log') {
    this.#mapping = mapping;
    this.#log = what === 'log';
    const at = (role: CaptureColumn['role']): At | null => {
      const index = mapping.columns.findIndex((c) => c.role === role);
      return index < 0 ? null : { index, column: mapping.columns[index] as CaptureColumn };
    };
    this.#frame = this.#log ? null : at('frame');
    this.#time = at('time');
    this.#shown = at('shown');
    this.#generated = at('generated');
    this.#program = at('program');
    this.#sensors = mapping.columns.flatMap((column, index) =>
      isSensor(column.role)
        ? [
            {
              index,
              column,
              sensor: column.role,
              factor: SENSOR_FACTORS[column.unit as SensorUnit] ?? 1,
            },
          ]
        : [],
    );
    const used = [this.#frame, this.#time, this.#shown, this.#generated, this.#program].map(
      (a) => a?.index ?? -1,
    );
    this.#least = Math.max(...used) + 1;
    this.#comma = mapping.decimal === ',';
    const only = this.#time ?? this.#shown ?? this.#generated ?? this.#sensors[0] ?? null;
    this.#plain =
      this.#frame && only === null
        ? { index: this.#frame.index, factor: TIME_UNITS[this.#frame.column.unit as TimeUnit] }
        : null;
  }

  get rows(): number {
    return this.#rows;
  }

  /** Rows as the CSV library cuts them, every line of the file one row. True when more than the most frames came. */
  read(rows: readonly (readonly string[])[]): boolean {
    const { skip, comment, header } = this.#mapping;
    for (const cells of rows) {
      this.#line++;
      if (this.#line <= skip) continue;
      const first = cells[0] as string;
      if (cells.length === 1 && first.trim() === '') continue;
      if (comment !== '' && first.startsWith(comment)) continue;
      if (header && !this.#headed) {
        this.#headed = true;
        continue;
      }
      this.#rows++;
      if (!this.#plain || !this.#plainRow(cells)) this.#row(cells);
    }
    return this.#frames > MAX_FRAMES;
  }

  /** The common row, nothing but a good time of a frame and perhaps a program; false: it needs a closer look. */
  #plainRow(cells: readonly string[]): boolean {
    const { index, factor } = this.#plain as { index: number; factor: number };
    if (cells.length < this.#least) return false;
    const cell = cells[index] as string;
    const frame = Math.fround(Number(this.#comma ? cell.replace(',', '.') : cell) * factor);
    // An empty cell is 0 here, and 0 is looked at closely.
    if (!(frame > 0 && frame <= LONGEST_FRAME_MS)) return false;
    const b = this.#bucket(this.#program ? (cells[this.#program.index] as string) : '');
    if (b.firstMs !== b.firstMs) b.firstMs = 0;
    b.nowMs += frame;
    b.frames.push(frame);
    this.#frames++;
    return true;
  }

  #row(cells: readonly string[]): void {
    if (cells.length < this.#least) return this.#refuse(null, String(cells.length), 'short');
    const bucket = this.#bucket(this.#program ? (cells[this.#program.index] as string) : '');
    let at = NaN;
    if (this.#time) {
      at = this.#timeOf(this.#time, cells, bucket.lastMs);
      if (Number.isNaN(at))
        return this.#refuse(this.#time.index, cells[this.#time.index] as string, 'not-a-time');
      if (at < bucket.lastMs)
        return this.#refuse(this.#time.index, cells[this.#time.index] as string, 'goes-back');
    }
    let frame = NaN;
    const column = this.#frame ?? (this.#log ? null : this.#time);
    if (this.#frame) frame = this.#lasts(this.#frame, cells);
    else if (column && !Number.isNaN(bucket.lastMs)) frame = Math.fround(at - bucket.lastMs);
    if (column && (this.#frame || !Number.isNaN(bucket.lastMs))) {
      const why = Number.isNaN(frame)
        ? 'not-a-number'
        : frame <= 0
          ? 'not-above-0'
          : frame > LONGEST_FRAME_MS
            ? 'too-long'
            : null;
      if (why !== null) return this.#refuse(column.index, cells[column.index] as string, why);
    }
    let shown = NaN;
    if (this.#shown) {
      shown = this.#lasts(this.#shown, cells);
      if (shown <= 0 || shown > LONGEST_FRAME_MS) shown = NaN;
    }
    this.#keep(bucket, cells, at, frame, shown);
  }

  #keep(bucket: Bucket, cells: readonly string[], at: number, frame: number, shown: number): void {
    if (Number.isNaN(bucket.firstMs)) bucket.firstMs = Number.isNaN(at) ? 0 : at;
    if (!Number.isNaN(at)) bucket.lastMs = at;
    if (!Number.isNaN(frame)) {
      bucket.nowMs += frame;
      const generated =
        this.#generated !== null &&
        YES.has((cells[this.#generated.index] as string).trim().toLowerCase());
      if (generated) bucket.carriedMs += frame;
      else {
        bucket.frames.push(Math.fround(bucket.carriedMs + frame));
        bucket.carriedMs = 0;
        this.#frames++;
      }
      if (this.#generated && !this.#shown) bucket.shown.push(frame);
    }
    if (!Number.isNaN(shown)) bucket.shown.push(shown);
    for (const [i, s] of this.#sensors.entries()) {
      const cell = cells[s.index];
      if (cell === undefined || NOTHING.has(cell.trim().toLowerCase())) continue;
      const value = this.#number(cell);
      const lane = bucket.sensors[i];
      if (Number.isNaN(value) || !lane) continue;
      lane.times.push(this.#time ? at - bucket.firstMs : bucket.nowMs);
      lane.values.push(value * s.factor);
    }
  }

  #bucket(program: string): Bucket {
    if (this.#last?.program === program) return this.#last;
    const name = program.trim();
    let b = this.#buckets.get(name);
    if (!b) {
      b = new Bucket(name, this.#sensors.length);
      this.#buckets.set(name, b);
    }
    this.#last = b;
    return b;
  }

  #number(cell: string): number {
    const t = this.#comma ? cell.replace(',', '.') : cell;
    const v = Number(t);
    return v === 0 && t.trim() === '' ? NaN : v;
  }

  #lasts({ index, column }: At, cells: readonly string[]): number {
    return Math.fround(this.#number(cells[index] as string) * TIME_UNITS[column.unit as TimeUnit]);
  }

  #timeOf({ index, column }: At, cells: readonly string[], last: number): number {
    const cell = cells[index] as string;
    return column.unit === 'clock'
      ? pastMidnight(clockMs(cell), last)
      : this.#number(cell) * TIME_UNITS[column.unit as TimeUnit];
  }

  #refuse(column: number | null, value: string, why: BadRow['why']): void {
    this.#badCount++;
    if (this.#bad.length < NAMED)
      this.#bad.push({ line: this.#line, column, value: value.slice(0, 60), why });
  }

  /** What was read, a stream for each program. */
  end(): CaptureResult<ReadCapture> {
    if (this.#frames > MAX_FRAMES)
      return { ok: false, problem: { code: 'too-many', most: MAX_FRAMES } };
    const streams = [...this.#buckets.values()]
      .map((b) => this.#stream(b))
      .filter((s) => s.frames.length > 0 || s.lanes.length > 0);
    if (streams.length === 0 && this.#badCount === 0)
      return { ok: false, problem: { code: 'no-rows' } };
    return {
      ok: true,
      value: { streams, rows: this.#rows, bad: this.#bad, badCount: this.#badCount },
    };
  }

  #stream(b: Bucket): Stream {
    const lanes = this.#sensors.flatMap((s, i) => {
      const lane = b.sensors[i];
      if (!lane || lane.times.length === 0) return [];
      return [
        evenLane(
          s.sensor,
          lane.times.view(),
          lane.values.view(),
          this.#log ? usualStep(lane.times) : BESIDE_MS,
        ),
      ];
    });
    return {
      program: b.program,
      frames: new Float32Array(b.frames.view()),
      shown: b.shown.length > 0 ? new Float32Array(b.shown.view()) : null,
      lanes,
      startedMs: this.#time?.column.unit === 'clock' && b.firstMs > 1e11 ? b.firstMs : null,
    };
  }
}

/** Most values of one lane: a day of seconds and then some. */
const MOST = 200_000;

/**
 * Resamples sensor values to even steps: the mean of the values in each step. A step without values repeats the one before
 * when the gap is at most two steps, else it is NaN.
 *
 * @param sensor which sensor
 * @param times times of the values, ms, ascending
 * @param values one value each, in the unit of the sensor
 * @param dtMs length of a step, ms
 * @returns the series, starting at the first time
 */
export function evenLane(
  sensor: Sensor,
  times: Float64Array,
  values: Float64Array,
  dtMs: number,
): SensorSeries {
  const first = times[0] ?? 0;
  const n = Math.min(MOST, Math.floor(((times[times.length - 1] ?? first) - first) / dtMs) + 1);
  const sums = new Float64Array(n);
  const counts = new Uint32Array(n);
  for (let i = 0; i < times.length; i++) {
    const k = Math.floor(((times[i] as number) - first) / dtMs);
    if (k < 0 || k >= n) continue;
    sums[k] = (sums[k] as number) + (values[i] as number);
    counts[k] = (counts[k] as number) + 1;
  }
  const out = new Float32Array(n);
  let held = 0;
  for (let k = 0; k < n; k++) {
    const c = counts[k] as number;
    held = c > 0 ? 0 : held + 1;
    out[k] = c > 0 ? (sums[k] as number) / c : held <= 2 && k > 0 ? (out[k - 1] as number) : NaN;
  }
  return { sensor, t0Ms: first, dtMs, values: out };
}

/**
 * Median step between rows.
 *
 * @param times times of the rows, ms
 * @returns step, ms, at least 50
 */
export function usualStep(times: Grow): number {
  const view = times.view();
  const steps = Float64Array.from(view.subarray(1), (t, i) => t - (view[i] as number)).sort();
  return Math.max(50, Math.round(steps[steps.length >> 1] ?? 1000));
}
