import { quantile } from '../../base';

/**
 * The two schools of "1 % low" and their like, as frame times in ms. `sorted` upward, in ms.
 * - `at`: the frame at the quantile (type 7): the 99th-percentile frame is 1 % low.
 * - `slowestFrames`: the mean of the slowest share of all frames, at least one of them.
 * - `slowestTime`: the mean of the slowest frames that together last the share of the whole time, the last of them in part.
 * Both schools are common practice, no published source.
 */
export function lowAt(sorted: ArrayLike<number>, share: number): number {
  return quantile(sorted, 1 - share);
}

export function slowestFrames(sorted: ArrayLike<number>, share: number): number {
  const n = Math.max(1, Math.floor(sorted.length * share));
  let sum = 0;
  for (let i = sorted.length - n; i < sorted.length; i++) sum += sorted[i] as number;
  return sum / n;
}

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
