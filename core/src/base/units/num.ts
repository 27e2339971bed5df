import { isExact, type Num, type Range } from './range';

/**
 * A stated number as an interval.
 * @param value a number, an interval, or null where nobody stated it
 * @returns the interval; null where nothing is stated, so that nothing is concluded from it
 * @example stated(5) // => { lo: 5, hi: 5 }
 */
export function stated(value: Num | undefined): Range | null {
  if (value === null || value === undefined) return null;
  return typeof value === 'number' ? { lo: value, hi: value } : value;
}

/**
 * Sum of intervals.
 * @param rs any number of intervals in one unit
 * @returns their sum; 0 of none
 * @example plus({ lo: 1, hi: 2 }, { lo: 10, hi: 20 }) // => { lo: 11, hi: 22 }
 */
export const plus = (...rs: readonly Range[]): Range => ({
  lo: rs.reduce((s, r) => s + r.lo, 0),
  hi: rs.reduce((s, r) => s + r.hi, 0),
});
/**
 * Difference of intervals.
 * @param a what is taken from
 * @param b what is taken, in the same unit
 * @returns a - b
 * @example minus({ lo: 10, hi: 20 }, { lo: 1, hi: 2 }) // => { lo: 8, hi: 19 }
 */
export const minus = (a: Range, b: Range): Range => ({ lo: a.lo - b.hi, hi: a.hi - b.lo });
/**
 * An interval times a number.
 * @param r the interval
 * @param k the number; a negative one turns the ends round
 * @returns r times k
 * @example times({ lo: 1, hi: 2 }, -3) // => { lo: -6, hi: -3 }
 */
export const times = (r: Range, k: number): Range =>
  k >= 0 ? { lo: r.lo * k, hi: r.hi * k } : { lo: r.hi * k, hi: r.lo * k };

/** Does a need fit what is there? `may` when it hangs on where in their intervals they lie; `null` when either is not stated. */
export type Fits = 'yes' | 'may' | 'no';
/**
 * Does a need fit what is there?
 * @param need what is needed; null where it is not stated
 * @param have what is there, in the same unit; null where it is not stated
 * @returns `may` where it depends on where in their intervals they lie; null where either is not stated
 * @example fits({ lo: 300, hi: 310 }, { lo: 305, hi: 305 }) // => 'may'
 */
export function fits(need: Range | null, have: Range | null): Fits | null {
  if (!need || !have) return null;
  if (need.hi <= have.lo) return 'yes';
  return need.lo > have.hi ? 'no' : 'may';
}

/**
 * Attributes that are unknown or known as an interval only.
 * @param values numbers by the path of their attribute
 * @returns their paths, in the order given
 * @example openOf({ a: 1, b: null, c: { lo: 1, hi: 2 } }) // => ['b', 'c']
 */
export function openOf(values: Readonly<Record<string, Num | undefined>>): string[] {
  return Object.entries(values).flatMap(([path, v]) => {
    const r = stated(v);
    return r === null || !isExact(r) ? [path] : [];
  });
}
