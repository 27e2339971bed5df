// The package has no types of its own; whoever compiles this file needs these few.
// eslint-disable-next-line @typescript-eslint/triple-slash-reference
/// <reference path="./jstat.d.ts" />
import jstat from 'jstat';

/**
 * Rate of counted events with its exact 95 % interval. Of none seen the upper end is the rule of three, a
 * one-sided 95 % bound.
 *
 * Sources: F. Garwood, Biometrika 28 (1936), 437-442 (interval by chi-square); J. A. Hanley and A. Lippman-Hand,
 * JAMA 249 (1983), 1743-1745 (rule of three).
 * @param count events seen, a whole number from 0
 * @param time how long they were counted, any unit, above 0
 * @returns events per unit of `time`
 * @throws {RangeError} if `count` is no whole number from 0 or `time` is not above 0
 * @example eventRate(0, 30) // => { rate: 0, lo: 0, hi: 0.1 }
 * @example eventRate(10, 10) // => { rate: 1, lo: 0.4795, hi: 1.839 }
 */
export function eventRate(
  count: number,
  time: number,
): { readonly rate: number; readonly lo: number; readonly hi: number } {
  if (!Number.isInteger(count) || count < 0 || !(time > 0))
    throw new RangeError(`${count} events in ${time} give no rate`);
  const chi = jstat.jStat.chisquare;
  if (count === 0) return { rate: 0, lo: 0, hi: 3 / time };
  return {
    rate: count / time,
    lo: chi.inv(0.025, 2 * count) / 2 / time,
    hi: chi.inv(0.975, 2 * count + 2) / 2 / time,
  };
}
