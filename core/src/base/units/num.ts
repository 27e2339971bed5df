import { isExact, type Num, type Range } from './range';

/** A stated number as an interval; `null` when nobody stated it, so that nothing is concluded from it. */
export function stated(value: Num | undefined): Range | null {
  if (value === null || value === undefined) return null;
  return typeof value === 'number' ? { lo: value, hi: value } : value;
}

export const plus = (...rs: readonly Range[]): Range => ({
  lo: rs.reduce((s, r) => s + r.lo, 0),
  hi: rs.reduce((s, r) => s + r.hi, 0),
});
/** a − b for intervals. */
export const minus = (a: Range, b: Range): Range => ({ lo: a.lo - b.hi, hi: a.hi - b.lo });
export const times = (r: Range, k: number): Range =>
  k >= 0 ? { lo: r.lo * k, hi: r.hi * k } : { lo: r.hi * k, hi: r.lo * k };

/** Does a need fit what is there? `may` when it hangs on where in their intervals they lie; `null` when either is not stated. */
export type Fits = 'yes' | 'may' | 'no';
export function fits(need: Range | null, have: Range | null): Fits | null {
  if (!need || !have) return null;
  if (need.hi <= have.lo) return 'yes';
  return need.lo > have.hi ? 'no' : 'may';
}

/** The attributes among these that nobody stated, or stated as an interval. */
export function openOf(values: Readonly<Record<string, Num | undefined>>): string[] {
  return Object.entries(values).flatMap(([path, v]) => {
    const r = stated(v);
    return r === null || !isExact(r) ? [path] : [];
  });
}
