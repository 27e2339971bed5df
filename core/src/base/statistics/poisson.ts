// The package has no types of its own; whoever compiles this file needs these few.
// eslint-disable-next-line @typescript-eslint/triple-slash-reference
/// <reference path="./jstat.d.ts" />
import jstat from 'jstat';

/**
 * Rate of events counted over a time (any unit), with its exact 95 % interval. With none seen the lower end is 0 and the upper end is the
 * rule of three, 3 / time, a one-sided 95 % bound. Throws a RangeError unless the count is a whole number from 0 and the time above 0.
 *
 * Sources: F. Garwood, Biometrika 28 (1936), 437-442 (interval by chi-square); J. A. Hanley and A. Lippman-Hand, JAMA 249 (1983),
 * 1743-1745 (rule of three).
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
