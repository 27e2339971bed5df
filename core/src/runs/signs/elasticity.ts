import { mean } from '../../base';
import { scatterOf } from '../comparison/experiment';
import { USUAL_SCATTER } from '../repeats/scatter';

export interface Elasticity {
  /** Change of speed per change of clock, both as logarithms: 1 when all of it arrives, 0 when none does. */
  readonly e: number;
  readonly sd: number;
  readonly clockPercent: number;
  readonly speedPercent: number;
  /** With a standard deviation over a quarter nothing is said. */
  readonly says: 'card' | 'part' | 'other' | 'too-uncertain' | 'same-clock';
}
const MAX_SD = 0.25;
/** A change of clock below this is no change. */
const SAME = 0.003;

/**
 * How much of a change of clock arrives in the frames: E = ln(speed ratio) / ln(clock ratio), with the standard deviation that the
 * scatter of a run gives it, cv * sqrt(1/na + 1/nb) / |ln clock ratio|, which for one run a side is sqrt(2) * cv / |ln ratio|.
 * Worked example (common practice, no published source): clock +7.7 %, score +2.5 %: 0.33; clock +1.35 %, score +1.35 %: 1.
 * @param before speeds of repeats and their mean clock, any unit
 * @param after the same after the change
 * @param cv coefficient of variation of a run where it is known
 * @returns share of the change that arrives, and what it says
 */
export function elasticity(
  before: { readonly speeds: readonly number[]; readonly clock: number },
  after: { readonly speeds: readonly number[]; readonly clock: number },
  cv: number | null = null,
): Elasticity {
  const clock = Math.log(after.clock / before.clock);
  const speed = Math.log(mean(after.speeds) / mean(before.speeds));
  const scatter = cv ?? scatterOf([before.speeds, after.speeds]) ?? USUAL_SCATTER;
  const percents = { clockPercent: Math.expm1(clock) * 100, speedPercent: Math.expm1(speed) * 100 };
  if (Math.abs(clock) < SAME) return { e: 0, sd: Infinity, ...percents, says: 'same-clock' };
  const e = speed / clock;
  const sd =
    (scatter * Math.sqrt(1 / before.speeds.length + 1 / after.speeds.length)) / Math.abs(clock);
  const says = sd > MAX_SD ? 'too-uncertain' : e >= 0.75 ? 'card' : e >= 0.25 ? 'part' : 'other';
  return { e, sd, ...percents, says };
}
