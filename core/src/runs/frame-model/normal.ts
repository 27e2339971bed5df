// The package has no types of its own; whoever compiles this file needs these few.
// eslint-disable-next-line @typescript-eslint/triple-slash-reference
/// <reference path="../../base/statistics/jstat.d.ts" />
import jstat from 'jstat';

const { normal } = jstat.jStat;
/** Below this the distribution function underflows to 0 and its logarithm is taken from the tail's own expansion. */
const FAR = -6;

/**
 * Standard normal distribution function. Computed by the package jstat.
 * @param z any number
 * @returns a chance from 0 to 1
 * @example normalCdf(1.96) // => 0.975
 */
export function normalCdf(z: number): number {
  return normal.cdf(z, 0, 1);
}

/**
 * Standard normal quantile. Computed by the package jstat.
 * @param p a chance, above 0 and below 1
 * @returns the value that a standard normal number stays below with chance `p`
 * @example normalQuantile(0.975) // => 1.96
 */
export function normalQuantile(p: number): number {
  return normal.inv(p, 0, 1);
}

/**
 * Logarithm of the standard normal distribution function, finite far below 0 too.
 *
 * Source: Abramowitz and Stegun, Handbook of Mathematical Functions (1964), 26.2.12 (expansion of the tail, three terms).
 * @param z any number
 * @returns ln of the chance
 * @example lnNormalCdf(-10) // => -53.2313
 */
export function lnNormalCdf(z: number): number {
  if (z > FAR) return Math.log(normalCdf(z));
  const s = 1 / (z * z);
  return -0.5 * z * z - Math.log(-z) - 0.5 * Math.log(2 * Math.PI) + Math.log1p(-s + 3 * s * s);
}
