import { figureText, pluralize } from '../../base/text';
import type { Outlier, RunClass, Throttled, WideSpread } from '../repeats/classify';
import type { Scatter } from '../repeats/scatter';

const percent = (share: number) => `${figureText(share * 100, 2)} %`;
const apart = (of: number) => `${percent(Math.abs(of - 1))} ${of < 1 ? 'below' : 'above'}`;

/**
 * How much the runs of a title differ, and what that rests on.
 * @param s the scatter
 * @returns a part of a sentence
 */
export function scatterText(s: Scatter): string {
  return s.freedom === 0
    ? `${percent(s.cv)}, the usual scatter of repeats`
    : `${percent(s.cv)}, the scatter of this title (${pluralize(s.freedom, 'repeat')})`;
}

/**
 * How far a run lies from its repeats.
 * @param o the outlier
 * @param n how many repeats there are, itself among them
 * @returns a sentence
 */
export function outlierText(o: Outlier, n: number): string {
  return `${apart(o.of)} the median of its ${n} repeats: ${figureText(o.z, 2)} standard deviations of ${scatterText(o.scatter)}.`;
}

/**
 * Repeats that differ more than chance.
 * @param s the spread
 * @param unit unit of its ends
 * @returns a sentence that ends in a question
 */
export function spreadText(s: WideSpread, unit: string): string {
  return `Repeats reach from ${figureText(s.lo)} to ${figureText(s.hi)}${unit ? ` ${unit}` : ''}, ${figureText(s.hi / s.lo)} times; up to ${figureText(s.usual)} times is chance at ${scatterText(s.scatter)}. Were settings different?`;
}

/**
 * A run that got slower while a clock fell.
 * @param t its rates and its clock
 * @returns a part of a sentence
 */
export function throttledText(t: Throttled): string {
  const whose = t.sensor === 'card-mhz' ? 'card' : 'processor';
  return `falls from ${figureText(t.fromFps)} to ${figureText(t.toFps)} frames/s as it runs, the ${whose} clock by ${percent(1 - t.clock)}: throttling`;
}

/**
 * Why a run does not count among its repeats.
 * @param its what it is
 * @returns the words; empty where it counts
 */
export function apartText(its: Pick<RunClass, 'counts' | 'outlier'>): string {
  if (its.counts) return '';
  return its.outlier ? `${apart(its.outlier.of)} its repeats` : 'left out by hand';
}
