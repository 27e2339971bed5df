import { mean, median } from '../../base';

/** Usual run-to-run scatter of one title on one machine, as a share: 2 % (common practice, no published source). */
export const USUAL_SCATTER = 0.02;

/** Degrees of freedom that the usual scatter counts as (judgement). */
export const PRIOR_FREEDOM = 4;

/** One over the lower quartile of the absolute difference of two standard normal values. Source: P. J. Rousseeuw, C. Croux, J. Am. Stat. Assoc. 88 (1993) 1273, the factor of Qn. */
const QN_FACTOR = 2.2219;

/** How much repeats of one title differ from run to run. */
export interface Scatter {
  /** Standard deviation of the logarithm of speed: about the coefficient of variation, as a share. */
  readonly cv: number;
  /** Repeats it was measured on, less one for each group; 0: it is the usual scatter. */
  readonly freedom: number;
}

/** Runs further from the middle of their repeats than this many standard deviations are left out of the second step (judgement). */
const KEPT_WITHIN = 3;

const withPrior = (squares: number, freedom: number): number =>
  Math.sqrt((PRIOR_FREEDOM * USUAL_SCATTER ** 2 + squares) / (PRIOR_FREEDOM + freedom));

/** A first scale that nearly half of the runs cannot draw away: from the lower quartile of the differences within groups. */
function firstScale(groups: readonly (readonly number[])[], freedom: number): number {
  const differences = groups
    .flatMap((g) => g.flatMap((a, i) => g.slice(i + 1).map((b) => Math.abs(a - b))))
    .sort((a, b) => a - b);
  const quartile = differences[Math.ceil(differences.length / 4) - 1] ?? 0;
  return withPrior(freedom * (QN_FACTOR * quartile) ** 2, freedom);
}

/** The logarithms of a group that lie near its middle; of two that lie apart, neither. */
function nearMiddle(logs: readonly number[], scale: number): readonly number[] {
  const center = median(logs);
  return logs.filter((v) => Math.abs(v - center) <= KEPT_WITHIN * scale);
}

/**
 * Robust run-to-run scatter over groups of repeats: the standard deviation of the logarithms within groups, without runs
 * that lie three standard deviations of a first, robust scale from the middle of their repeats; drawn towards the usual
 * 2 %, which counts as four repeats. Source: P. J. Rousseeuw and C. Croux, J. Am. Stat. Assoc. 88 (1993) 1273, for the
 * first scale; P. J. Rousseeuw and A. M. Leroy, Robust Regression and Outlier Detection (1987), for the second step.
 * @param groups speeds of the repeats of each group, any unit, above 0
 * @returns scatter as a share; the usual one where no group has two runs
 * @example robustScatter([]) // => { cv: 0.02, freedom: 0 }
 */
export function robustScatter(groups: readonly (readonly number[])[]): Scatter {
  const logs = groups.filter((g) => g.length > 1).map((g) => g.map(Math.log));
  const freedom = logs.reduce((n, g) => n + g.length - 1, 0);
  if (freedom === 0) return { cv: USUAL_SCATTER, freedom: 0 };
  const scale = firstScale(logs, freedom);
  const kept = logs.map((g) => nearMiddle(g, scale)).filter((g) => g.length > 1);
  const left = kept.reduce((n, g) => n + g.length - 1, 0);
  const squares = kept.reduce((sum, g) => {
    const middle = mean(g);
    return sum + g.reduce((s, v) => s + (v - middle) ** 2, 0);
  }, 0);
  return { cv: withPrior(squares, left), freedom: left };
}

/** A title with its scatter. */
export interface TitleScatter extends Scatter {
  readonly title: string;
}

/**
 * The scatter of each title that was repeated, the widest first.
 * @param groups speeds of groups of repeats with their title; not modified
 * @returns a row for each title with at least one group of two
 */
export function titleScatters(
  groups: readonly { readonly title: string; readonly speeds: readonly number[] }[],
): TitleScatter[] {
  const titles = [...new Set(groups.map((g) => g.title))];
  return titles
    .map((title) => ({
      title,
      ...robustScatter(groups.filter((g) => g.title === title).map((g) => g.speeds)),
    }))
    .filter((t) => t.freedom > 0)
    .sort((a, b) => b.cv - a.cv);
}
