import type { Range } from '../units/range';

/** 97.5th percentile of the standard normal distribution. */
const Z95 = 1.959963984540054;

/**
 * Wilson's score interval of a share. With no trial nothing is known: 0 to 1.
 *
 * Source: E. B. Wilson, JASA 22 (1927), 209-212. Worked example: R. G. Newcombe, Statistics in Medicine 17
 * (1998), 857-872, table I.
 * @param k successes, from 0 to `n`
 * @param n trials, from 0
 * @param z standard normal quantile; 1.96 for 95 %
 * @returns the interval as shares from 0 to 1
 * @throws {RangeError} unless 0 <= k <= n
 * @example wilson(81, 263) // => { lo: 0.2553, hi: 0.3662 }
 */
export function wilson(k: number, n: number, z = Z95): Range {
  if (!(k >= 0 && k <= n)) throw new RangeError(`${k} of ${n} is no count of successes`);
  if (n === 0) return { lo: 0, hi: 1 };
  const p = k / n;
  const half = z * Math.sqrt((p * (1 - p)) / n + (z * z) / (4 * n * n));
  const middle = p + (z * z) / (2 * n);
  const scale = 1 + (z * z) / n;
  return { lo: k === 0 ? 0 : (middle - half) / scale, hi: k === n ? 1 : (middle + half) / scale };
}
