// The package has no types of its own; whoever compiles this file needs these few.
// eslint-disable-next-line @typescript-eslint/triple-slash-reference
/// <reference path="./jstat.d.ts" />
import jstat from 'jstat';
import type { Range } from '../units/range';

/**
 * Mean and the middle 95 % of a Beta distribution.
 *
 * Computed by the package jstat; checked against the closed forms of Beta(1, n) and Beta(n, 1).
 * @param alpha first shape, above 0: successes and prior successes
 * @param beta second shape, above 0: failures and prior failures
 * @returns mean and interval as shares from 0 to 1
 * @example betaShare(1, 1) // => { mean: 0.5, lo: 0.025, hi: 0.975 }
 */
export function betaShare(alpha: number, beta: number): { readonly mean: number } & Range {
  const at = (p: number) => jstat.jStat.beta.inv(p, alpha, beta);
  return { mean: alpha / (alpha + beta), lo: at(0.025), hi: at(0.975) };
}
