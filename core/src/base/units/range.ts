/**
 * Interval arithmetic. A `Range` is a closed interval; a known value has `lo === hi`.
 * Every operation returns an interval that contains the result for every pair of
 * values inside its operands, so a result computed with unknowns still holds the truth.
 *
 * Source: R. E. Moore, Interval Analysis, 1966 (the rules for /, least, union and rising functions).
 */
export interface Range {
  readonly lo: number;
  readonly hi: number;
}

/** A number as a person may state it: known, between two limits, or asked but not known. */
export type Num = number | Range | null;

/**
 * The interval that holds one value.
 * @param value any unit
 * @returns an interval whose ends are the same
 * @example exact(4) // => { lo: 4, hi: 4 }
 */
export function exact(value: number): Range {
  return { lo: value, hi: value };
}

/**
 * The two ends alone of something that is an interval and more.
 * @param r an interval, or something with its two ends
 * @returns a plain interval; null of none
 * @example bare({ lo: 1, hi: 2, note: 'x' }) // => { lo: 1, hi: 2 }
 */
export function bare(r: Range | null | undefined): Range | null {
  return r ? { lo: r.lo, hi: r.hi } : null;
}

/**
 * Does an interval hold one value only?
 * @param r an interval
 * @returns true where both ends are the same
 * @example isExact({ lo: 4, hi: 4 }) // => true
 */
export function isExact(r: Range): boolean {
  return r.lo === r.hi;
}

/**
 * A stated number as an interval, with everything it can be where it is not stated.
 * @param value a number, an interval, or null
 * @param domain what stands for it where it is not stated
 * @returns an interval
 * @example toRange(null, { lo: 1, hi: 16 }) // => { lo: 1, hi: 16 }
 */
export function toRange(value: Num | undefined, domain: Range): Range {
  if (value === null || value === undefined) return domain;
  return typeof value === 'number' ? exact(value) : value;
}

/**
 * Does a stated number leave room?
 * @param value a number, an interval, or null
 * @returns true where it is not stated, or between two different limits
 * @example isOpen({ lo: 1, hi: 2 }) // => true
 */
export function isOpen(value: Num | undefined): boolean {
  return value === null || value === undefined || (typeof value !== 'number' && !isExact(value));
}

/**
 * The least of several intervals, end by end.
 * @param rs at least one interval, in one unit
 * @returns the interval of the least
 * @throws {RangeError} if none is given
 * @example minOf({ lo: 1, hi: 9 }, { lo: 2, hi: 3 }) // => { lo: 1, hi: 3 }
 */
export function minOf(...rs: readonly Range[]): Range {
  if (rs.length === 0) throw new RangeError('minOf needs at least one interval');
  return { lo: Math.min(...rs.map((r) => r.lo)), hi: Math.min(...rs.map((r) => r.hi)) };
}

/**
 * The smallest interval that holds all given ones.
 * @param rs at least one interval, in one unit
 * @returns from the lowest end to the highest
 * @throws {RangeError} if none is given
 * @example union({ lo: 1, hi: 2 }, { lo: 5, hi: 6 }) // => { lo: 1, hi: 6 }
 */
export function union(...rs: readonly Range[]): Range {
  if (rs.length === 0) throw new RangeError('union needs at least one interval');
  return { lo: Math.min(...rs.map((r) => r.lo)), hi: Math.max(...rs.map((r) => r.hi)) };
}

/**
 * A function of an interval.
 * @param r the argument
 * @param f a function that never falls as its argument grows
 * @returns the interval of its values
 * @example rising({ lo: 1, hi: 3 }, (x) => x * x) // => { lo: 1, hi: 9 }
 */
export function rising(r: Range, f: (x: number) => number): Range {
  return { lo: f(r.lo), hi: f(r.hi) };
}

/**
 * Quotient of intervals that are not negative.
 * @param a what is divided, from 0
 * @param b the divisor, from 0
 * @returns a / b; the upper end is endless where the divisor may be 0
 * @example ratio({ lo: 10, hi: 20 }, { lo: 2, hi: 5 }) // => { lo: 2, hi: 10 }
 */
export function ratio(a: Range, b: Range): Range {
  return { lo: b.hi === 0 ? 0 : a.lo / b.hi, hi: b.lo === 0 ? Infinity : a.hi / b.lo };
}

/**
 * Does one interval lie within another?
 * @param outer the wider one
 * @param inner the narrower one, in the same unit
 * @param slack room for rounding in the last digits, in the same unit
 * @returns true where it does
 * @example contains({ lo: 0, hi: 10 }, { lo: 2, hi: 10 }) // => true
 */
export function contains(outer: Range, inner: Range, slack = 1e-9): boolean {
  return outer.lo <= inner.lo + slack && inner.hi <= outer.hi + slack;
}

/**
 * Halfway between the ends.
 * @param r an interval with finite ends
 * @returns the middle in its unit
 * @example middleOf({ lo: 2, hi: 4 }) // => 3
 */
export function middleOf(r: Range): number {
  return (r.lo + r.hi) / 2;
}

/**
 * Width over the middle: a plain measure of how little is known.
 * @param r an interval with finite ends
 * @returns a share; 0 where the interval is exact or lies round 0
 * @example relativeWidth({ lo: 3, hi: 5 }) // => 0.5
 */
export function relativeWidth(r: Range): number {
  const middle = middleOf(r);
  return middle === 0 ? 0 : (r.hi - r.lo) / middle;
}
