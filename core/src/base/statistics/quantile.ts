/**
 * The p-quantile by linear interpolation between the two nearest values.
 *
 * Source: Hyndman and Fan, The American Statistician 50 (1996), 361-365, type 7.
 * @param sorted values in rising order, any unit
 * @param p share from 0 (the first value) to 1 (the last)
 * @returns the quantile in the unit of `sorted`; NaN of an empty list
 * @example quantile([1, 2, 4, 8], 0.5) // => 3
 */
export function quantile(sorted: ArrayLike<number>, p: number): number {
  const n = sorted.length;
  if (n === 0) return NaN;
  const at = (n - 1) * p;
  const below = Math.floor(at);
  const lo = sorted[below] as number;
  const hi = sorted[Math.min(n - 1, below + 1)] as number;
  return lo + (at - below) * (hi - lo);
}
