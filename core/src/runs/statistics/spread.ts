import { quantile } from '../../base';

/**
 * The frame times at 0.5, 1.5, ... 99.5 %, so that each stands for one frame in a hundred.
 * @param sorted frame times in ms, rising, at least one
 * @returns a hundred times in ms
 */
export function hundredDots(sorted: ArrayLike<number>): number[] {
  return Array.from({ length: 100 }, (_, i) => quantile(sorted, (i + 0.5) / 100));
}

/** Shares of a percentile curve: every per cent, and the last one finely. */
export const CURVE = [
  ...Array.from({ length: 100 }, (_, i) => i / 100),
  0.992,
  0.994,
  0.996,
  0.998,
  0.999,
  0.9995,
  1,
] as const;

/**
 * The percentile curve of frame times.
 * @param sorted frame times in ms, rising, at least one
 * @returns ms at each share of CURVE
 */
export function percentileCurve(sorted: ArrayLike<number>): number[] {
  return CURVE.map((p) => quantile(sorted, p));
}
