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

  it('no success has the end 0 itself, no failure the end 1', () => {
    expect(wilson(0, 20).lo).toBe(0);
    expect(wilson(20, 20).hi).toBe(1);
  });

  it('nothing tried is nothing known; more successes than trials are refused', () => {
    expect(wilson(0, 0)).toEqual({ lo: 0, hi: 1 });
    expect(() => wilson(3, 2)).toThrow(RangeError);
    expect(() => wilson(-1, 2)).toThrow(RangeError);
    expect(() => wilson(NaN, 2)).toThrow('NaN of 2 is no count of successes');
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

  // M. Hollander and D. A. Wolfe, Nonparametric Statistical Methods (1973), p. 187 f., quality of canned tuna: S = 16, p = 0.1194.
  it('a worked example of nine unlike pairs has p = 0.1194', () => {
    const x = [44.4, 45.9, 41.9, 53.3, 44.7, 44.1, 50.7, 45.2, 60.1];
    const y = [2.6, 3.1, 2.5, 5, 3.6, 4, 5.2, 2.8, 3.8];
    const t = trend(x.map((at, i) => ({ x: at, y: y[i]! })));
    expect(t?.s).toBe(16);
    expect(t?.p).toBeCloseTo(0.119438932981, 10);
  });

  // Reference library: R 4.2.2, cor.test(x, y, method = "kendall", exact = FALSE, continuity = TRUE), 12 digits printed.
  it.each([
    ['ties in y', [1, 2, 3, 4, 5, 6], [3, 3, 4, 5, 5, 5], 0.0398243553648],
    [
      'ties in y, twelve values',
      [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12],
      [2, 1, 3, 3, 5, 4, 4, 6, 7, 7, 7, 8],
      0.000174550026703,
    ],
    [
      'pairs at one time, falling',
      [1, 1, 2, 2, 3, 3, 4, 4],
      [5, 4, 4, 4, 3, 2, 2, 1],
      0.00820418242785,
    ],
    [
      'threes on both sides',
      [1, 1, 1, 2, 2, 3, 4, 5, 5],
      [1, 2, 2, 2, 3, 3, 3, 4, 6],
      0.00514642341352,
    ],
    [
      'eleven unlike values',
      [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11],
      [1, 3, 2, 5, 4, 7, 6, 9, 8, 11, 10],
      0.000613905375006,
    ],
    ['a pair of ties on each side', [1, 1, 2, 3, 3, 5], [1, 2, 2, 3, 4, 4], 0.0437796312623],
    ['one value that differs', [1, 2, 3, 4, 5], [1, 1, 1, 1, 2], 0.288844366346],
  ])('%s: p as R computes it', (_, x, y, p) => {
    expect(trend(x.map((at, i) => ({ x: at, y: y[i]! })))?.p).toBeCloseTo(p, 12);
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
    expect(() => median([])).toThrow('the median of nothing');
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
