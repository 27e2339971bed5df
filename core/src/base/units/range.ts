/**
 * Interval arithmetic. A `Range` is a closed interval; a known value has `lo === hi`.
 * Every operation returns an interval that contains the result for every pair of
 * values inside its operands, so a result computed with unknowns still holds the truth.
 *
 * Source: R. E. Moore, Interval Analysis, 1966 (the rules for /, least, hull and rising functions).
 */
export interface Range {
  readonly lo: number;
  readonly hi: number;
}

/** A number as a person may state it: known, between two limits, or asked but not known. */
export type Num = number | Range | null;

/** The interval that holds exactly one value. */
export function exact(value: number): Range {
  return { lo: value, hi: value };
}

/** Only the two ends of something that is an interval and more; null when there is none. */
export function bare(r: Range | null | undefined): Range | null {
  return r ? { lo: r.lo, hi: r.hi } : null;
}

/** True when the interval holds one value. */
export function isExact(r: Range): boolean {
  return r.lo === r.hi;
}

/** A stated number as an interval; `domain` is used when it is not known. */
export function toRange(value: Num | undefined, domain: Range): Range {
  if (value === null || value === undefined) return domain;
  return typeof value === 'number' ? exact(value) : value;
}

/** True when a stated number leaves room: not known, or between two different limits. */
export function isOpen(value: Num | undefined): boolean {
  return value === null || value === undefined || (typeof value !== 'number' && !isExact(value));
}

/** The least of several intervals, end by end. Throws RangeError when given none. */
export function minOf(...rs: readonly Range[]): Range {
  if (rs.length === 0) throw new RangeError('minOf needs at least one interval');
  return { lo: Math.min(...rs.map((r) => r.lo)), hi: Math.min(...rs.map((r) => r.hi)) };
}

/** The smallest interval that holds all given ones. Throws RangeError when given none. */
export function union(...rs: readonly Range[]): Range {
  if (rs.length === 0) throw new RangeError('hull needs at least one interval');
  return { lo: Math.min(...rs.map((r) => r.lo)), hi: Math.max(...rs.map((r) => r.hi)) };
}

/** Apply a function that never falls as its argument grows. */
export function rising(r: Range, f: (x: number) => number): Range {
  return { lo: f(r.lo), hi: f(r.hi) };
}

/** a / b for intervals that are not negative; a zero divisor gives an endless upper end. */
export function ratio(a: Range, b: Range): Range {
  return { lo: b.hi === 0 ? 0 : a.lo / b.hi, hi: b.lo === 0 ? Infinity : a.hi / b.lo };
}

/** True when `inner` lies within `outer`, with room for rounding in the last digits. */
export function contains(outer: Range, inner: Range, slack = 1e-9): boolean {
  return outer.lo <= inner.lo + slack && inner.hi <= outer.hi + slack;
}

/** Halfway between the ends. */
export function middleOf(r: Range): number {
  return (r.lo + r.hi) / 2;
}

/** Width over the middle, a plain measure of how little is known; 0 when exact. */
export function relativeWidth(r: Range): number {
  const middle = middleOf(r);
  return middle === 0 ? 0 : (r.hi - r.lo) / middle;
}
