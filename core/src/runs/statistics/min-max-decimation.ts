const BASE = 16;

/** The least and the most of any stretch of a run in a few steps, and where each frame ends. Levels halve, from 16 frames up. */
export interface MinMaxDecimation {
  readonly frames: Float32Array;
  /** End of each frame in ms from the start. */
  readonly ends: Float64Array;
  readonly levels: readonly { readonly least: Float32Array; readonly most: Float32Array }[];
}

/**
 * The least and the most frame of every stretch of a run, at several lengths of stretches, for drawing.
 * @param frames frame times in ms
 * @returns the decimation; it keeps `frames`
 */
export function decimateMinMax(frames: Float32Array): MinMaxDecimation {
  const ends = new Float64Array(frames.length);
  let at = 0;
  for (let i = 0; i < frames.length; i++) {
    at += frames[i] as number;
    ends[i] = at;
  }
  const levels: { least: Float32Array; most: Float32Array }[] = [];
  let least = frames;
  let most = frames;
  let step = BASE;
  while (least.length > 1) {
    const n = Math.ceil(least.length / step);
    const lo = new Float32Array(n);
    const hi = new Float32Array(n);
    for (let k = 0; k < n; k++) {
      let a = Infinity;
      let b = -Infinity;
      for (let i = k * step; i < Math.min(least.length, (k + 1) * step); i++) {
        if ((least[i] as number) < a) a = least[i] as number;
        if ((most[i] as number) > b) b = most[i] as number;
      }
      lo[k] = a;
      hi[k] = b;
    }
    levels.push({ least: lo, most: hi });
    least = lo;
    most = hi;
    step = 2;
  }
  return { frames, ends, levels };
}

/**
 * The least and the most frame of a stretch; exact, so that no spike is lost.
 * @param p the decimation
 * @param from index of the first frame
 * @param to index after the last frame, above `from`
 * @returns both in ms
 */
export function extent(
  p: MinMaxDecimation,
  from: number,
  to: number,
): readonly [least: number, most: number] {
  let lo = Infinity;
  let hi = -Infinity;
  const take = (a: number, b: number) => {
    if (a < lo) lo = a;
    if (b > hi) hi = b;
  };
  let i = from;
  while (i < to) {
    // The largest block that begins here and ends within.
    let level = -1;
    let size = 1;
    for (let l = 0, s = BASE; l < p.levels.length && i % s === 0 && i + s <= to; l++, s *= 2) {
      level = l;
      size = s;
    }
    const at = p.levels[level];
    if (at) take(at.least[i / size] as number, at.most[i / size] as number);
    else take(p.frames[i] as number, p.frames[i] as number);
    i += size;
  }
  return [lo, hi];
}

/**
 * The first frame that ends after a time.
 * @param p the decimation
 * @param ms time from the start, ms
 * @returns index of the frame
 */
export function frameAt(p: MinMaxDecimation, ms: number): number {
  let lo = 0;
  let hi = p.ends.length;
  while (lo < hi) {
    const mid = (lo + hi) >> 1;
    if ((p.ends[mid] as number) <= ms) lo = mid + 1;
    else hi = mid;
  }
  return lo;
}

/** A column of a drawing: the frames that touch it, from least to most, and their median (of 33 evenly taken ones where there are more). */
export interface MinMaxColumn {
  readonly least: number;
  readonly most: number;
  readonly median: number;
}
const TAKEN = 33;

/**
 * What a drawing of a stretch shows, column by column. Every frame is in at least one column.
 * @param p the decimation
 * @param fromMs start of the stretch, ms
 * @param toMs end of the stretch, ms
 * @param width how many columns
 * @returns least and most in ms; null where no frame is
 */
export function columns(
  p: MinMaxDecimation,
  fromMs: number,
  toMs: number,
  width: number,
): (MinMaxColumn | null)[] {
  const step = (toMs - fromMs) / width;
  const taken = new Float32Array(TAKEN);
  const n = p.frames.length;
  return Array.from({ length: width }, (_, x) => {
    const from = frameAt(p, fromMs + x * step);
    if (from >= n || fromMs + (x + 1) * step <= 0) return null;
    const to = Math.min(n, frameAt(p, fromMs + (x + 1) * step) + 1);
    const [least, most] = extent(p, from, to);
    const count = Math.min(TAKEN, to - from);
    for (let k = 0; k < count; k++)
      taken[k] = p.frames[from + Math.floor(((k + 0.5) * (to - from)) / count)] as number;
    const middle = taken.subarray(0, count).sort();
    return { least, most, median: middle[count >> 1] as number };
  });
}
