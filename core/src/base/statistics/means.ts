import { tChance, tQuantile } from './student';

/**
 * Arithmetic mean.
 * @param values any unit; not modified
 * @returns the mean in the unit of `values`; NaN of none
 * @example mean([1, 2, 6]) // => 3
 */
export function mean(values: readonly number[]): number {
  return values.reduce((a, b) => a + b, 0) / values.length;
}

/** Mean, standard deviation with n - 1, and the interval that holds the true mean in 95 of 100 such samples; null where n is too small. */
export interface MeanOf {
  readonly n: number;
  readonly mean: number;
  readonly sd: number | null;
  readonly lo: number | null;
  readonly hi: number | null;
}

/**
 * Sample mean with its 95 % confidence interval by Student's t.
 *
 * Source: Student, Biometrika 6 (1908), 1-25.
 * @param values one measurement each, any unit, at least one; not modified
 * @returns mean, standard deviation (n - 1) and interval in the unit of `values`; null where n is 1
 * @example meanOf([1, 2, 3]) // => { n: 3, mean: 2, sd: 1, lo: -0.484, hi: 4.484 }
 */
export function meanOf(values: readonly number[]): MeanOf {
  const n = values.length;
  const middle = mean(values);
  if (n < 2) return { n, mean: middle, sd: null, lo: null, hi: null };
  const sd = Math.sqrt(values.reduce((a, b) => a + (b - middle) ** 2, 0) / (n - 1));
  const half = (tQuantile(0.025, n - 1) * sd) / Math.sqrt(n);
  return { n, mean: middle, sd, lo: middle - half, hi: middle + half };
}

export interface Welch {
  readonly t: number;
  readonly df: number;
  /** Two-sided. */
  readonly p: number;
  /** Mean of b less mean of a, and its 95 % interval. */
  readonly difference: number;
  readonly lo: number;
  readonly hi: number;
}

/**
 * Do two samples differ in their mean? Welch's test: the variances need not be equal. Two samples without
 * any scatter differ for certain when their means do.
 *
 * Source: B. L. Welch, Biometrika 34 (1947), 28-35. The tests hold Student's sleep data against it.
 * @param a one measurement each, any unit; not modified
 * @param b the same in the same unit
 * @returns the difference b - a with its 95 % interval and the two-sided p; null where a side has fewer than two values
 * @example welch([1, 2, 3], [2, 3, 4]) // => { t: 1.2247, df: 4, p: 0.2879, difference: 1, lo: -1.267, hi: 3.267 }
 */
export function welch(a: readonly number[], b: readonly number[]): Welch | null {
  const x = meanOf(a);
  const y = meanOf(b);
  if (x.sd === null || y.sd === null) return null;
  const difference = y.mean - x.mean;
  const va = x.sd ** 2 / x.n;
  const vb = y.sd ** 2 / y.n;
  const se = Math.sqrt(va + vb);
  if (se === 0) {
    const same = difference === 0;
    return {
      t: same ? 0 : Math.sign(difference) * Infinity,
      df: x.n + y.n - 2,
      p: same ? 1 : 0,
      difference,
      lo: difference,
      hi: difference,
    };
  }
  const df = (va + vb) ** 2 / (va ** 2 / (x.n - 1) + vb ** 2 / (y.n - 1));
  const half = tQuantile(0.025, df) * se;
  return {
    t: difference / se,
    df,
    p: tChance(difference / se, df),
    difference,
    lo: difference - half,
    hi: difference + half,
  };
}

/**
 * Repeats a side that tell a difference apart: 5 % false alarms, two-sided, and 80 % chance of seeing it.
 *
 * Source: J. Cohen, Statistical Power Analysis for the Behavioral Sciences (1988), table 2.4.1 (from memory): a
 * difference of 0.5, 0.8 and 1 standard deviation takes 64, 26 and 17 a side.
 * @param cv standard deviation of a repeat as a share of the mean, from 0
 * @param difference what is to be told apart as a share of the mean, above 0
 * @param most repeats a side that are tried at most
 * @returns repeats a side, at least 2; null where not even `most` are enough
 * @example repeatsNeeded(0.02, 0.02) // => 17
 */
export function repeatsNeeded(cv: number, difference: number, most = 200): number | null {
  for (let n = 2; n < most; n++) {
    if (minDetectableChange(cv, n) <= difference) return n;
  }
  return minDetectableChange(cv, most) <= difference ? most : null;
}

/**
 * The least difference that repeats tell apart, by the rule of `repeatsNeeded`.
 * @param cv standard deviation of a repeat as a share of the mean, from 0
 * @param n repeats a side, at least 2
 * @returns the difference as a share of the mean
 * @example minDetectableChange(0.02, 17) // => 0.0199
 */
export function minDetectableChange(cv: number, n: number): number {
  const df = 2 * n - 2;
  return (tQuantile(0.025, df) + tQuantile(0.2, df)) * cv * Math.sqrt(2 / n);
}
