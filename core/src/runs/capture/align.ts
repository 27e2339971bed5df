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
  const { dtMs } = lane;
  const a = rates(frames, dtMs);
  const least = Math.max(5, Math.floor(Math.min(a.length, lane.values.length) / 2));
  const reach = Math.min(Math.ceil(mostMs / dtMs), a.length + lane.values.length);
  const found: { lag: number; r: number }[] = [];
  for (let lag = -reach; lag <= reach; lag++) {
    const r = correlation(a, lane.values, lag, least);
    if (r !== null) found.push({ lag, r });
  }
  if (found.length === 0) return null;
  const best = found.reduce((x, y) => (Math.abs(y.r) > Math.abs(x.r) ? y : x));
  const next = found
    .filter((f) => Math.abs(f.lag - best.lag) * dtMs > 2000)
    .reduce((m, f) => Math.max(m, Math.abs(f.r)), 0);
  const r = Math.abs(best.r);
  return {
    offsetMs: best.lag * dtMs - lane.t0Ms,
    r: best.r,
    clear: r >= CLEAR_R && r - next >= APART,
  };
}
