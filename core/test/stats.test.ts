import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { median, trend, wilson } from '../src/base';

describe('Wilson interval', () => {
  // R. G. Newcombe, Statistics in Medicine 17 (1998), 857-872, table I, method 3.
  it.each([
    [81, 263, 0.2553, 0.3662],
    [15, 148, 0.0624, 0.1605],
    [0, 20, 0, 0.1611],
    [1, 29, 0.0061, 0.1718],
  ])('%i of %i', (k, n, lo, hi) => {
    const w = wilson(k, n);
    expect(w.lo).toBeCloseTo(lo, 4);
    expect(w.hi).toBeCloseTo(hi, 4);
  });

  it('nothing tried is nothing known; more successes than trials are refused', () => {
    expect(wilson(0, 0)).toEqual({ lo: 0, hi: 1 });
    expect(() => wilson(3, 2)).toThrow(RangeError);
    expect(() => wilson(-1, 2)).toThrow(RangeError);
    expect(() => wilson(NaN, 2)).toThrow(RangeError);
  });

  it('holds the share, and is the mirror of its counterpart', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 500 }), fc.nat(500), (n, k0) => {
        const k = Math.min(k0, n);
        const a = wilson(k, n);
        const b = wilson(n - k, n);
        expect(a.lo).toBeLessThanOrEqual(k / n);
        expect(a.hi).toBeGreaterThanOrEqual(k / n);
        expect(a.lo).toBeCloseTo(1 - b.hi, 12);
      }),
    );
  });
});

const row = (...ys: number[]) => ys.map((y, x) => ({ x, y }));
/** A row of n with the given number of pairs that fall: each value in turn goes as far back as is still needed. */
function withFalls(n: number, falls: number): number[] {
  const list: number[] = [];
  for (let v = 0, left = falls; v < n; v++) {
    const back = Math.min(left, list.length);
    list.splice(list.length - back, 0, v);
    left -= back;
  }
  return list;
}

describe('trend of a row', () => {
  // Upper tail of Kendall's S: R. O. Gilbert, Statistical Methods for Environmental Pollution Monitoring (1987), table A18, from memory.
  it.each([
    [4, 6, 0.042],
    [4, 4, 0.167],
    [4, 2, 0.375],
    [5, 10, 0.0083],
    [5, 8, 0.042],
    [5, 6, 0.117],
    [8, 16, 0.031],
    [9, 20, 0.022],
  ])('%i values with S = %i', (n, s, tail) => {
    const falls = ((n * (n - 1)) / 2 - s) / 2;
    const t = trend(row(...withFalls(n, falls)));
    expect(t?.s).toBe(s);
    expect((t?.p ?? 0) / 2).toBeCloseTo(tail, 3);
  });

  it('above ten values the approximation meets exact chances: 0.023', () => {
    // Table A18 for n = 10: S = 23 has 0.023; with a tie in y the approximation is used.
    const exact = trend(row(...withFalls(10, 11)));
    expect(exact?.s).toBe(23);
    expect((exact?.p ?? 0) / 2).toBeCloseTo(0.023, 3);
    const longer = trend(row(...withFalls(11, 12)));
    expect((longer?.p ?? 0) / 2).toBeGreaterThan(0.001);
    expect((longer?.p ?? 0) / 2).toBeLessThan(0.01);
  });

  it('the slope is the median over pairs, outliers move nothing', () => {
    expect(trend(row(1, 2, 3, 4, 5))?.slope).toBe(1);
    expect(trend(row(1, 2, 3, 4, 500))?.slope).toBe(1);
    expect(
      trend([
        { x: 0, y: 3 },
        { x: 10, y: 3 },
        { x: 30, y: 9 },
      ])?.slope,
    ).toBeCloseTo(0.2, 12);
  });

  it('says nothing of two points, or of points at one time', () => {
    expect(trend(row(1, 2))).toBeNull();
    expect(trend([1, 2, 3].map((y) => ({ x: 5, y })))).toBeNull();
    expect(trend(row(4, 4, 4, 4))).toMatchObject({ s: 0, p: 1, slope: 0 });
  });

  it('ignores the order given and turns sign with the values', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 0, max: 60 }), fc.integer({ min: 0, max: 9 })), {
          minLength: 3,
          maxLength: 25,
        }),
        (list) => {
          const points = list.map(([x, y]) => ({ x, y }));
          const a = trend(points);
          const b = trend([...points].reverse());
          expect(b?.s).toBe(a?.s);
          if (!a) return;
          expect(a.p).toBeGreaterThan(0);
          expect(a.p).toBeLessThanOrEqual(1);
          const turned = trend(points.map(({ x, y }) => ({ x, y: -y })));
          expect(turned?.s).toBe(a.s === 0 ? turned?.s : -a.s);
          expect(turned?.p).toBeCloseTo(a.p, 12);
        },
      ),
    );
  });

  it('the middle of a list', () => {
    expect([median([3]), median([4, 1]), median([9, 1, 5])]).toEqual([3, 2.5, 5]);
    expect(() => median([])).toThrow(RangeError);
  });
});
