// The package has no types of its own; whoever compiles this file needs these few.
// eslint-disable-next-line @typescript-eslint/triple-slash-reference
/// <reference path="./jstat.d.ts" />
import jstat from 'jstat';

const t = jstat.jStat.studentt;

/**
 * Two-sided chance of a Student t at least so far from 0. Computed by the package jstat; checked against tables.
 * @param value the t
 * @param df degrees of freedom, above 0; need not be whole
 * @returns a chance from 0 to 1
 * @example tChance(2.228, 10) // => 0.05
 */
export function tChance(value: number, df: number): number {
  return Math.min(1, 2 * t.cdf(-Math.abs(value), df));
}

/**
 * The t that leaves a chance above it. Computed by the package jstat; checked against tables.
 * @param upper chance above the t, from 0 to 1
 * @param df degrees of freedom, above 0; need not be whole
 * @returns the t
 * @example tQuantile(0.025, 10) // => 2.228
 */
export function tQuantile(upper: number, df: number): number {
  return t.inv(1 - upper, df);
}
