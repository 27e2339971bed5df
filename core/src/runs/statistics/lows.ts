import { quantile } from '../../base';

/**
 * The frame at a quantile (type 7): the 99th-percentile frame is one reading of "1 % low". Common practice, no
 * published source.
 * @param sorted frame times in ms, rising, at least one
 * @param share from 0 to 1: 0.01 for 1 % low
 * @returns ms
 * @example lowAt([1, 2, 3, 4, 5], 0.25) // => 4
 */
export function lowAt(sorted: ArrayLike<number>, share: number): number {
  return quantile(sorted, 1 - share);
}

/**
 * The mean of the slowest share of all frames, at least one of them: another reading of "1 % low". Common practice,
 * no published source.
 * @param sorted frame times in ms, rising, at least one
 * @param share from 0 to 1
 * @returns ms
 * @example slowestFrames([1, 2, 3, 4, 5], 0.4) // => 4.5
 */
export function slowestFrames(sorted: ArrayLike<number>, share: number): number {
  const n = Math.max(1, Math.floor(sorted.length * share));
  let sum = 0;
  for (let i = sorted.length - n; i < sorted.length; i++) sum += sorted[i] as number;
  return sum / n;
}

/**
 * The mean of the slowest frames that together last a share of the whole time, the last of them in part: a third
 * reading of "1 % low". Common practice, no published source.
 * @param sorted frame times in ms, rising, at least one
 * @param share from 0 to 1
 * @param totalMs how long all frames last, ms
 * @returns ms
 */
export function slowestTime(sorted: ArrayLike<number>, share: number, totalMs: number): number {
  const most = totalMs * share;
  let ms = 0;
  let frames = 0;
  for (let i = sorted.length - 1; i >= 0; i--) {
    const f = sorted[i] as number;
    if (ms + f >= most) return most / (frames + (most - ms) / f);
    ms += f;
    frames++;
  }
  return totalMs / Math.max(1, sorted.length);
}
