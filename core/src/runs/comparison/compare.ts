import { mean, meanOf, type MeanOf, welch } from '../../base';

/** What a comparison is drawn of. Rates and scores are better when higher, times when lower. */
export const RUN_MEASURES = {
  average: 'Average',
  low: '1 % low, 99th-percentile frame',
  lowFrames: '1 % low, slowest 1 % of frames',
  second: 'Slowest second',
  score: 'Score',
  time: 'Time taken',
} as const;
export type Measure = keyof typeof RUN_MEASURES;

export interface RunComparison {
  readonly a: MeanOf;
  readonly b: MeanOf;
  /** Speed of b as a share of a's: 1.2 is 20 % faster. Its 95 % interval, null with fewer than two repeats a side. */
  readonly of: number;
  readonly lo: number | null;
  readonly hi: number | null;
  /** Two-sided, from Welch's test on the logarithms; null with too few. */
  readonly p: number | null;
  readonly says: 'real' | 'not-told-apart' | 'too-few';
}

/** A difference counts as real when chance alone would show it in fewer than 5 of 100 comparisons. */
const CHANCE = 0.05;

/**
 * Ratio of the speeds of two groups of repeats, with the interval of Welch's test on the logarithms, so that rates and
 * times give the same result. Source: B. L. Welch, Biometrika 34 (1947), 28-35. Worked example: 100 against 120
 * frames/s is 20 % faster, 120 % of; from the other side, 100 is 16.7 % lost.
 *
 * @param a repeats of the base, each above 0, length at least 1
 * @param b repeats of the other side, same unit, length at least 1
 * @param lowerIsBetter true for times: speed is their inverse
 * @returns ratio b over a with its 95 % interval and p, null with fewer than two repeats a side
 */
export function compareRuns(
  a: readonly number[],
  b: readonly number[],
  lowerIsBetter = false,
): RunComparison {
  const logs = (list: readonly number[]) =>
    list.map((v) => (lowerIsBetter ? -Math.log(v) : Math.log(v)));
  const la = logs(a);
  const lb = logs(b);
  const w = welch(la, lb);
  return {
    a: meanOf(a),
    b: meanOf(b),
    of: Math.exp(mean(lb) - mean(la)),
    lo: w ? Math.exp(w.lo) : null,
    hi: w ? Math.exp(w.hi) : null,
    p: w?.p ?? null,
    says: w === null ? 'too-few' : w.p < CHANCE ? 'real' : 'not-told-apart',
  };
}

/**
 * The three percentages of a ratio that are mixed up.
 *
 * @param of speed as a share of the base's speed
 * @returns % faster, % of, % lost
 * @example threeWays(2.78) // => { faster: 178, of: 278, lost: -178 }
 */
export function threeWays(of: number): { faster: number; of: number; lost: number } {
  return { faster: (of - 1) * 100, of: of * 100, lost: (1 - of) * 100 };
}

export const MEANINGS = ['faster', 'of', 'lost'] as const;
export type Meaning = (typeof MEANINGS)[number];

/**
 * Finds the reading of a stated percentage that fits two stated numbers: faster (b / a - 1), of (b / a) or lost
 * (1 - b / a), with either number as the base.
 *
 * @param a first number
 * @param b second number, same unit
 * @param percent the stated percentage
 * @param decimals decimals the percentage was stated with; whole numbers are taken as rounded
 * @returns readings that fit, with their exact percentage
 */
export function statedPercent(
  a: number,
  b: number,
  percent: number,
  decimals = 0,
): { meaning: Meaning; base: 'a' | 'b'; exact: number }[] {
  const slack = (v: number) => (Number.isInteger(v) ? 0.5 : 0.05);
  const room = 0.5 * 10 ** -decimals;
  const ways: readonly { meaning: Meaning; of: (x: number, y: number) => number }[] = [
    { meaning: 'faster', of: (x, y) => (y / x - 1) * 100 },
    { meaning: 'of', of: (x, y) => (y / x) * 100 },
    { meaning: 'lost', of: (x, y) => (1 - y / x) * 100 },
  ];
  const one = (x: number, y: number, base: 'a' | 'b') =>
    ways.flatMap(({ meaning, of }) => {
      const exact = of(x, y);
      const ends = [of(x - slack(x), y + slack(y)), of(x + slack(x), y - slack(y))];
      const lo = Math.min(...ends) - room;
      const hi = Math.max(...ends) + room;
      return percent >= lo && percent <= hi && exact > 0 ? [{ meaning, base, exact }] : [];
    });
  return [...one(a, b, 'a'), ...one(b, a, 'b')];
}
