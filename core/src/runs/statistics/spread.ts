import { quantile } from '../../base';

/** A hundred dots: the frame times at 0.5, 1.5, ... 99.5 %, so that each stands for one frame in a hundred. `sorted` upward, ms. */
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

/** The percentile curve: frame time in ms at each share of CURVE. */
export function percentileCurve(sorted: ArrayLike<number>): number[] {
  return CURVE.map((p) => quantile(sorted, p));
}
