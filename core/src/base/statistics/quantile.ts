/**
 * The p-quantile of values sorted upward, by linear interpolation between the two nearest: p = 0 is the first, 1 the last.
 * NaN for an empty list. Source: Hyndman and Fan, The American Statistician 50 (1996), 361-365, type 7.
 * Worked example: of 1, 2, 4, 8 the 0.5-quantile is 3.
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
