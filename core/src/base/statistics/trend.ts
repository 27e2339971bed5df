// The package has no types of its own; whoever compiles this file needs these few.
// eslint-disable-next-line @typescript-eslint/triple-slash-reference
/// <reference path="./jstat.d.ts" />
import jstat from 'jstat';

/** Chance that a row of n different values without any trend has at least this many more rises than falls. */
function exactTail(n: number, s: number): number {
  // ways[i]: orders of the first m values with i pairs that fall; one value more puts 0 to m-1 new falling pairs in.
  let ways = [1];
  for (let m = 2; m <= n; m++) {
    const next = new Array<number>(ways.length + m - 1).fill(0);
    for (const [i, w] of ways.entries())
      for (let k = 0; k < m; k++) next[i + k] = (next[i + k] ?? 0) + w;
    ways = next;
  }
  const pairs = (n * (n - 1)) / 2;
  const total = ways.reduce((a, b) => a + b, 0);
  const most = Math.floor((pairs - s) / 2);
  return ways.slice(0, most + 1).reduce((a, b) => a + b, 0) / total;
}

/** Upper tail of the standard normal distribution. Computed by the package jstat. */
const upperTail = (z: number) => jstat.jStat.normal.cdf(-z, 0, 1);

export interface Trend {
  /** Points it is told from. */
  readonly n: number;
  /** Rises less falls over all pairs. */
  readonly s: number;
  /** Chance of at least so strong a trend either way where there is none. */
  readonly p: number;
  /** Median of the slopes of all pairs, in units of y per unit of x. */
  readonly slope: number;
}

/** Longest row for which the chances are counted out; beyond it, and with ties, the normal approximation serves. */
const EXACT_UP_TO = 10;

/**
 * Is there a trend in figures taken one after another? Mann and Kendall's test, two-sided: counted out for up
 * to ten different values, beyond by the normal approximation corrected for ties and continuity. The slope is
 * the median over all pairs.
 *
 * Sources: H. B. Mann, Econometrica 13 (1945), 245-259; P. K. Sen, JASA 63 (1968), 1379-1389.
 * @param points x in any order and with any steps, y in any unit; not modified
 * @returns the trend, slope in units of y per unit of x; null of fewer than three points or of one x only
 * @example trend([{ x: 1, y: 1 }, { x: 2, y: 2 }, { x: 3, y: 3 }, { x: 4, y: 4 }]) // => { n: 4, s: 6, p: 0.0833, slope: 1 }
 */
export function trend(points: readonly { readonly x: number; readonly y: number }[]): Trend | null {
  const list = [...points].sort((a, b) => a.x - b.x);
  const n = list.length;
  let s = 0;
  const slopes: number[] = [];
  for (const [i, a] of list.entries())
    for (const b of list.slice(i + 1)) {
      if (a.x === b.x) continue;
      s += Math.sign(b.y - a.y);
      slopes.push((b.y - a.y) / (b.x - a.x));
    }
  if (n < 3 || slopes.length === 0) return null;
  return { n, s, p: Math.min(1, 2 * tailOf(list, Math.abs(s))), slope: median(slopes) };
}

function tailOf(list: readonly { x: number; y: number }[], s: number): number {
  const n = list.length;
  const groups = (key: 'x' | 'y') => {
    const counts = new Map<number, number>();
    for (const p of list) counts.set(p[key], (counts.get(p[key]) ?? 0) + 1);
    return [...counts.values()].filter((t) => t > 1);
  };
  const tx = groups('x');
  const ty = groups('y');
  if (tx.length + ty.length === 0 && n <= EXACT_UP_TO) return exactTail(n, s);
  const part = (t: number) => t * (t - 1) * (2 * t + 5);
  const sum = (counts: readonly number[], f: (t: number) => number) =>
    counts.reduce((a, t) => a + f(t), 0);
  const pairs = (t: number) => t * (t - 1);
  const triples = (t: number) => t * (t - 1) * (t - 2);
  // Kendall's variance with ties on both sides (M. G. Kendall, Rank Correlation Methods, 4th edition, section 4.4).
  const variance =
    (part(n) - sum(tx, part) - sum(ty, part)) / 18 +
    (sum(tx, triples) * sum(ty, triples)) / (9 * triples(n)) +
    (sum(tx, pairs) * sum(ty, pairs)) / (2 * pairs(n));
  return variance <= 0 ? 0.5 : upperTail((s - 1) / Math.sqrt(variance));
}

/**
 * The middle value; of an even number of values, halfway between the two in the middle.
 * @param values any unit, at least one; not modified
 * @returns the median in the unit of `values`
 * @throws {RangeError} if `values` is empty
 * @example median([8, 1, 4, 2]) // => 3
 */
export function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const mid = Math.floor(sorted.length / 2);
  const low = sorted[mid - 1];
  const high = sorted[mid];
  if (high === undefined) throw new RangeError('the median of nothing');
  return sorted.length % 2 === 1 || low === undefined ? high : (low + high) / 2;
}
