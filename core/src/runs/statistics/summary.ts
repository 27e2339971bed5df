import { quantile } from '../../base';
import { below, type Below } from './below';
import { type Cap, findCap, sceneStart } from './cap';
import { lowAt, slowestFrames, slowestTime } from './lows';
import { perSecond } from './seconds';
import { type Slowing, slowingOf } from './slowing';
import { hitches, period, type Period, stutters } from './stutters';

/** The rules these figures were computed by; stored with them. */
export const FRAMES_VERSION = 3;
/** Quantiles of the frame times that are kept, as shares. */
export const KEPT = [0.01, 0.05, 0.25, 0.5, 0.75, 0.9, 0.95, 0.99, 0.999] as const;

/** What a run of frames shows. Times in ms, rates in frames/s, shares 0 to 1. */
export interface FrameStats {
  readonly version: number;
  readonly frames: number;
  readonly seconds: number;
  readonly averageFps: number;
  readonly meanMs: number;
  readonly sdMs: number;
  /** Frame times at KEPT, type 7. */
  readonly atMs: readonly number[];
  /** 1 % and 0.1 % low as frames/s: the frame there, the slowest share of frames, the slowest share of time. */
  readonly low1: Low;
  readonly low01: Low;
  readonly minSecondFps: number | null;
  readonly maxSecondFps: number | null;
  readonly below30: Below;
  readonly below60: Below;
  readonly stutters: number;
  readonly stutterShare: number;
  readonly period: Period | null;
  readonly cap: Cap | null;
  /** Seconds at the start that run otherwise than the rest. */
  readonly startS: number;
  /** It gets slower as it goes on. */
  readonly slowing: Slowing | null;
}
export interface Low {
  readonly at: number;
  readonly frames: number;
  readonly time: number;
}

/**
 * Frame times in rising order. Floats above 0 stand in the order of their bits (IEEE 754), and whole numbers are
 * sorted in about half the time.
 * @param frames frame times in ms, above 0; not modified
 * @returns a new array
 */
export function sortedTimes(frames: Float32Array): Float32Array<ArrayBuffer> {
  return new Float32Array(new Uint32Array(new Float32Array(frames).buffer).sort().buffer);
}

function lowOf(sorted: Float32Array, share: number, totalMs: number): Low {
  return {
    at: 1000 / lowAt(sorted, share),
    frames: 1000 / slowestFrames(sorted, share),
    time: 1000 / slowestTime(sorted, share, totalMs),
  };
}

/**
 * Everything a run of frames shows. Sums are kept in double precision over the float32 values. Worked example: 1, 2,
 * 3 and 4 ms last 10 ms together, which is 400 frames/s on average, not the mean of 1000, 500, 333 and 250.
 * @param frames frame times in ms, at least one; not modified
 * @param setFps the limit that was set, frames/s; null where none was
 * @returns averages and lows in frames/s, times in ms and s
 * @throws {RangeError} if there is no frame
 */
export function frameStats(frames: Float32Array, setFps: number | null = null): FrameStats {
  let totalMs = 0;
  for (const f of frames) totalMs += f;
  const meanMs = totalMs / frames.length;
  let squares = 0;
  for (const f of frames) squares += (f - meanMs) ** 2;
  const sdMs = frames.length > 1 ? Math.sqrt(squares / (frames.length - 1)) : 0;
  const sorted = sortedTimes(frames);
  const found = stutters(frames);
  let stutterMs = 0;
  for (const i of found) stutterMs += frames[i] as number;
  const rates = perSecond(frames);
  const startS = sceneStart(rates);
  return {
    version: FRAMES_VERSION,
    frames: frames.length,
    seconds: totalMs / 1000,
    averageFps: 1000 / meanMs,
    meanMs,
    sdMs,
    atMs: KEPT.map((p) => quantile(sorted, p)),
    low1: lowOf(sorted, 0.01, totalMs),
    low01: lowOf(sorted, 0.001, totalMs),
    minSecondFps: rates.length > 0 ? least(rates) : null,
    maxSecondFps: rates.length > 0 ? -least(rates.map((r) => -r)) : null,
    below30: below(frames, 30),
    below60: below(frames, 60),
    stutters: found.length,
    stutterShare: stutterMs / totalMs,
    period: period(hitches(frames, found)),
    cap: findCap(rates, sorted, sdMs / meanMs, setFps),
    startS,
    slowing: slowingOf(rates, startS),
  };
}

/** The least of a list that may be too long for Math.min. */
function least(list: readonly number[]): number {
  return list.reduce((a, b) => (b < a ? b : a), Infinity);
}

/**
 * The frames of a run that begin in a stretch.
 * @param frames frame times in ms
 * @param fromS start of the stretch, s
 * @param toS end of the stretch, s; null for the end of the run
 * @returns a view of `frames`
 */
export function cutFrames(frames: Float32Array, fromS: number, toS: number | null): Float32Array {
  let at = 0;
  let from = fromS <= 0 ? 0 : -1;
  let i = 0;
  for (; i < frames.length; i++) {
    if (from < 0 && at >= fromS * 1000) from = i;
    if (toS !== null && at >= toS * 1000) break;
    at += frames[i] as number;
  }
  return from < 0 ? frames.subarray(0, 0) : frames.subarray(from, i);
}
