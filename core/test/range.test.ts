import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  contains,
  exact,
  union,
  isOpen,
  minOf,
  type Range,
  ratio,
  relativeWidth,
  rising,
  toRange,
} from '../src/base';

const ends = fc.tuple(
  fc.double({ min: 0, max: 1000, noNaN: true }),
  fc.double({ min: 0, max: 1000, noNaN: true }),
);
const range = ends.map(([a, b]): Range => ({ lo: Math.min(a, b), hi: Math.max(a, b) }));
const inside = range.chain((r) =>
  fc.tuple(
    fc.constant(r),
    fc.double({ min: 0, max: 1, noNaN: true }).map((t) => r.lo + t * (r.hi - r.lo)),
  ),
);

describe('interval arithmetic (Moore 1966)', () => {
  it('holds the result of every pair of values inside its operands', () => {
    fc.assert(
      fc.property(inside, inside, ([a, x], [b, y]) => {
        expect(contains(minOf(a, b), exact(Math.min(x, y)))).toBe(true);
        expect(contains(union(a, b), exact(x))).toBe(true);
        // Rounding grows with the quotient, so the slack does too.
        if (b.lo > 0)
          expect(contains(ratio(a, b), exact(x / y), 1e-9 * Math.max(1, x / y))).toBe(true);
        expect(
          contains(
            rising(a, (v) => v * 2 + 1),
            exact(x * 2 + 1),
          ),
        ).toBe(true);
      }),
    );
  });

  it('tells open numbers from known ones', () => {
    expect(isOpen(null)).toBe(true);
    expect(isOpen({ lo: 2, hi: 4 })).toBe(true);
    expect(isOpen({ lo: 4, hi: 4 })).toBe(false);
    expect(isOpen(4)).toBe(false);
    expect(toRange(null, { lo: 1, hi: 16 })).toEqual({ lo: 1, hi: 16 });
    expect(toRange(4, { lo: 1, hi: 16 })).toEqual({ lo: 4, hi: 4 });
  });

  it('measures how little is known', () => {
    expect(relativeWidth({ lo: 9, hi: 11 })).toBeCloseTo(0.2);
    expect(relativeWidth(exact(7))).toBe(0);
    expect(() => minOf()).toThrow(RangeError);
    expect(() => union()).toThrow(RangeError);
  });
});
