import { clockMs, dayAndTimeMs, pastMidnight } from './clock';
import { ClockCheck } from './clock-check';
import { evenLane, usualStep } from './even-lane';
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
} from './types';

/** Bad rows that are named one by one; beyond them they are counted. */
const NAMED = 200;
/** Sensors beside frames are kept as means of this long. */
const BESIDE_MS = 100;
const NOTHING = new Set(['', 'na', 'n/a', 'nan', '-', 'null']);
const YES = new Set(['1', 'true', 'yes', 'y']);
/** What a frame that was not drawn is called, anywhere in the cell. */
const NOT_DRAWN = ['generated', 'interpolated', 'synthetic', 'inserted'];

/** Does a cell say that its frame was generated? */
function saysGenerated(cell: string): boolean {
  const t = cell.trim().toLowerCase();
  return YES.has(t) || NOT_DRAWN.some((w) => t.includes(w));
}

/** What one program drew so far. */
class Bucket {
  readonly frames = new Grow();
  readonly shown = new Grow(16);
  readonly sensors: { readonly times: Grow; readonly values: Grow }[];
  /** Where its clock stands, and when its last row was, in ms. */
  nowMs = 0;
  lastMs = NaN;
  firstMs = NaN;
  /** The cell with the day of its first row. */
  day = '';
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

/** Milliseconds a row without a clock is apart from the next in a log. */
const EACH_SECOND_MS = 1000;
const BUSY: readonly { readonly busy: Sensor; readonly load: Sensor }[] = [
  { busy: 'card-busy-ms', load: 'card-load' },
  { busy: 'cpu-busy-ms', load: 'cpu-load' },
];

/** A column that is read as a sensor. */
interface SensorAt extends At {
  readonly sensor: Sensor;
  readonly factor: number;
  /** Its values are shares of the frame they stand beside, in %: the load that a busy time within a frame is. */
  readonly ofFrame: boolean;
}

function sensorsOf(columns: readonly CaptureColumn[]): SensorAt[] {
  const own = columns.flatMap((column, index) =>
    isSensor(column.role)
      ? [
          {
            index,
            column,
            sensor: column.role,
            factor: SENSOR_FACTORS[column.unit as SensorUnit] ?? 1,
            ofFrame: false,
          },
        ]
      : [],
  );
  const has = (sensor: Sensor) => own.some((s) => s.sensor === sensor);
  const loads = BUSY.filter((b) => !has(b.load)).flatMap(({ busy, load }) =>
    own.filter((s) => s.sensor === busy).map((s) => ({ ...s, sensor: load, ofFrame: true })),
  );
  return [...own, ...loads];
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
  readonly #date: At | null;
  readonly #sensors: readonly SensorAt[];
  readonly #check = new ClockCheck();
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
    this.#frame = this.#log ? null : (at('frame') ?? at('rate'));
    this.#time = at('time');
    this.#shown = at('shown');
    this.#generated = at('generated');
    this.#program = at('program');
    this.#date = at('date');
    this.#sensors = sensorsOf(mapping.columns);
    const used = [this.#frame, this.#time, this.#shown, this.#generated, this.#program].map(
      (a) => a?.index ?? -1,
    );
    this.#least = Math.max(...used) + 1;
    this.#comma = mapping.decimal === ',';
    const only =
      this.#time ?? this.#date ?? this.#shown ?? this.#generated ?? this.#sensors[0] ?? null;
    this.#plain =
      this.#frame?.column.role === 'frame' && only === null
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
    else if (this.#log && !this.#time) at = this.#rows * EACH_SECOND_MS;
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
    if (Number.isNaN(bucket.firstMs)) {
      bucket.firstMs = Number.isNaN(at) ? 0 : at;
      bucket.day = this.#date ? (cells[this.#date.index] ?? '') : '';
    } else if (this.#frame && this.#time) this.#check.row(at - bucket.lastMs, frame, this.#line);
    if (!Number.isNaN(at)) bucket.lastMs = at;
    if (!Number.isNaN(frame)) {
      bucket.nowMs += frame;
      const generated =
        this.#generated !== null && saysGenerated(cells[this.#generated.index] as string);
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
      const value = this.#number(cell) * s.factor;
      const lane = bucket.sensors[i];
      if (Number.isNaN(value) || !lane || (s.ofFrame && Number.isNaN(frame))) continue;
      lane.times.push(Number.isNaN(at) ? bucket.nowMs : at - bucket.firstMs);
      lane.values.push(s.ofFrame ? Math.min(100, (value / frame) * 100) : value);
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
    const value = this.#number(cells[index] as string);
    return Math.fround(
      column.role === 'rate' ? 1000 / value : value * TIME_UNITS[column.unit as TimeUnit],
    );
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
      value: {
        streams,
        rows: this.#rows,
        bad: this.#bad,
        badCount: this.#badCount,
        clock: this.#check.end(),
      },
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
      startedMs: this.#startOf(b),
    };
  }

  /** When the first row was taken: by the clock of the file, or by its day. */
  #startOf(b: Bucket): number | null {
    const clocked = this.#time?.column.unit === 'clock';
    if (clocked && b.firstMs > 1e11) return b.firstMs;
    const ms = dayAndTimeMs(b.day, clocked ? b.firstMs : NaN);
    return Number.isNaN(ms) ? null : ms;
  }
}
