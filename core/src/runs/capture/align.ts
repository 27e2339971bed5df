import type { SensorSeries } from './types';

export interface Alignment {
  /** Add this to the times of the log to bring it onto the frames, ms. */
  readonly offsetMs: number;
  /** Correlation there, -1 to 1; its sign says whether the sensor rises or falls with the frame rate. */
  readonly r: number;
  /** False: no clear best, so the offset is a guess. */
  readonly clear: boolean;
}

/** Frames begun in each step, as a rate a second. */
function rates(frames: Float32Array, dtMs: number): Float64Array {
  let total = 0;
  for (const f of frames) total += f;
  const out = new Float64Array(Math.max(1, Math.floor(total / dtMs)));
  let at = 0;
  for (const f of frames) {
    const k = Math.floor(at / dtMs);
    if (k < out.length) out[k] = (out[k] as number) + 1000 / dtMs;
    at += f;
  }
  return out;
}

/** Pearson's correlation of a and b shifted by `lag` steps, over where both are known; null below `least` common steps or without scatter. */
function correlation(a: Float64Array, b: Float32Array, lag: number, least: number): number | null {
  let n = 0;
  let sa = 0;
  let sb = 0;
  let saa = 0;
  let sbb = 0;
  let sab = 0;
  for (let i = Math.max(0, lag); i < a.length && i - lag < b.length; i++) {
    const x = a[i] as number;
    const y = b[i - lag] as number;
    if (Number.isNaN(y)) continue;
    n++;
    sa += x;
    sb += y;
    saa += x * x;
    sbb += y * y;
    sab += x * y;
  }
  if (n < least) return null;
  const va = saa - (sa * sa) / n;
  const vb = sbb - (sb * sb) / n;
  return va <= 1e-9 || vb <= 1e-9 ? null : (sab - (sa * sb) / n) / Math.sqrt(va * vb);
}

const CLEAR_R = 0.5;
const APART = 0.1;

/** Where a correlates best with values in steps of the same length, by a score of their correlation. */
function bestFit(
  a: Float64Array,
  lane: Pick<SensorSeries, 't0Ms' | 'dtMs' | 'values'>,
  mostMs: number,
  score: (r: number) => number,
): Alignment | null {
  const { dtMs, values } = lane;
  const least = Math.max(5, Math.floor(Math.min(a.length, values.length) / 2));
  const reach = Math.min(Math.ceil(mostMs / dtMs), a.length + values.length);
  const found: { lag: number; r: number }[] = [];
  for (let lag = -reach; lag <= reach; lag++) {
    const r = correlation(a, values, lag, least);
    if (r !== null) found.push({ lag, r });
  }
  if (found.length === 0) return null;
  const best = found.reduce((x, y) => (score(y.r) > score(x.r) ? y : x));
  const next = found
    .filter((f) => Math.abs(f.lag - best.lag) * dtMs > 2000)
    .reduce((m, f) => Math.max(m, score(f.r)), 0);
  return {
    offsetMs: best.lag * dtMs - lane.t0Ms,
    r: best.r,
    clear: score(best.r) >= CLEAR_R && score(best.r) - next >= APART,
  };
}

/**
 * Offset of a sensor log against the frames: the shift at which sensor and frame rate correlate most, positively or
 * negatively (cross-correlation, normalised over the overlap, at least half of the shorter). The best is clear from
 * |r| 0.5 when no shift more than 2 s away comes within 0.1 of it. Common practice, no published source.
 *
 * @param frames frame times, ms
 * @param lane sensor values in even steps; NaN for gaps
 * @param mostMs upper bound on the shift either way, ms
 * @returns offset in ms, correlation and whether it is clear; null without an overlap or without variation
 */
export function align(
  frames: Float32Array,
  lane: SensorSeries,
  mostMs = 600_000,
): Alignment | null {
  return bestFit(rates(frames, lane.dtMs), lane, mostMs, Math.abs);
}

/** Steps in which two runs are held against one another, and how far one may begin before the other. */
const RUN_STEP_MS = 200;
const RUN_REACH_MS = 60_000;

/**
 * Offset of a run of the same scene against another: the shift of up to a minute at which their frame rates rise and fall
 * together (cross-correlation in steps of 0.2 s, at least half of the shorter). Clear as of `align`.
 *
 * @param frames frame times of the run that stays, ms
 * @param other frame times of the one that is shifted, ms
 * @returns what to add to the times of the other, ms; null without an overlap or without variation
 */
export function alignRuns(frames: Float32Array, other: Float32Array): Alignment | null {
  const values = Float32Array.from(rates(other, RUN_STEP_MS));
  const lane = { t0Ms: 0, dtMs: RUN_STEP_MS, values };
  return bestFit(rates(frames, RUN_STEP_MS), lane, RUN_REACH_MS, (r) => r);
}
