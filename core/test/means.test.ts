import { quantileSorted } from 'd3-array';
import fc from 'fast-check';
import * as simple from 'simple-statistics';
import { describe, expect, it } from 'vitest';
import {
  minDetectableChange,
  meanOf,
  quantile,
  repeatsNeeded,
  tChance,
  tQuantile,
  welch,
} from '../src/base';

const values = fc.array(fc.double({ min: 0.01, max: 1e4, noNaN: true }), {
  minLength: 1,
  maxLength: 400,
});

describe('quantile', () => {
  it('equals the type 7 quantile of d3-array to 1e-9', () => {
    fc.assert(
      fc.property(values, fc.double({ min: 0, max: 1, noNaN: true }), (list, p) => {
        const sorted = Float64Array.from(list).sort();
        expect(
          Math.abs(quantile(sorted, p) - (quantileSorted(Array.from(sorted), p) as number)),
        ).toBeLessThan(1e-9 * 1e4);
      }),
    );
    expect(quantile([1, 2, 4, 8], 0.5)).toBe(3);
    expect(quantile([], 0.5)).toBeNaN();
  });
});

describe('means', () => {
  it('equals mean and standard deviation of simple-statistics', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 1, max: 1e4, noNaN: true }), { minLength: 2, maxLength: 50 }),
        (list) => {
          const m = meanOf(list);
          expect(Math.abs(m.mean / simple.mean(list) - 1)).toBeLessThan(1e-9);
          expect(Math.abs((m.sd ?? NaN) - simple.sampleStandardDeviation(list))).toBeLessThan(1e-7);
        },
      ),
    );
    // By hand: t of 2 degrees of freedom is 4.3027, its product with 1 / sqrt(3) 2.4841.
    const three = meanOf([1, 2, 3]);
    expect(three.lo).toBeCloseTo(2 - 2.4841, 4);
    expect(three.hi).toBeCloseTo(2 + 2.4841, 4);
    expect(meanOf([7])).toEqual({ n: 1, mean: 7, sd: null, lo: null, hi: null });
  });

  // Student's t at 97.5 %: any table of the distribution, e.g. NIST/SEMATECH e-Handbook of Statistical Methods, 1.3.6.7.2 (from memory).
  it('gives the t of the tables', () => {
    for (const [df, t] of [
      [1, 12.706],
      [2, 4.303],
      [5, 2.571],
      [10, 2.228],
      [30, 2.042],
      [100, 1.984],
    ] as const)
      expect(tQuantile(0.025, df)).toBeCloseTo(t, 3);
    expect(tChance(2.228, 10)).toBeCloseTo(0.05, 4);
    expect(tChance(0, 4)).toBeCloseTo(1, 12);
  });
});

describe("Welch's test", () => {
  // Student, Biometrika 6 (1908), extra hours of sleep; the result as the documentation of R's data set "sleep" prints it (from memory).
  it("gives the published result on Student's sleep data", () => {
    const first = [0.7, -1.6, -0.2, -1.2, -0.1, 3.4, 3.7, 0.8, 0.0, 2.0];
    const second = [1.9, 0.8, 1.1, 0.1, -0.1, 4.4, 5.5, 1.6, 4.6, 3.4];
    const w = welch(second, first);
    expect(w?.t).toBeCloseTo(-1.8608, 4);
    expect(w?.df).toBeCloseTo(17.776, 3);
    expect(w?.p).toBeCloseTo(0.07939, 5);
    expect(w?.lo).toBeCloseTo(-3.3654832, 6);
    expect(w?.hi).toBeCloseTo(0.2054832, 6);
  });

  it('needs two values a side, and no scatter decides by the means', () => {
    expect(welch([1], [1, 2])).toBeNull();
    expect(welch([1, 2], [1])).toBeNull();
    expect(welch([5, 5], [5, 5])).toEqual({ t: 0, df: 2, p: 1, difference: 0, lo: 0, hi: 0 });
    expect(welch([5, 5], [6, 6, 6])).toMatchObject({ t: Infinity, df: 3, p: 0, difference: 1 });
    expect(welch([6, 6], [5, 5])).toMatchObject({ t: -Infinity, p: 0, difference: -1 });
  });

  it('does not pool variances: the wider side keeps its own', () => {
    const narrow = [10, 10.1, 9.9, 10, 10.1, 9.9, 10, 10];
    const wide = [12, 8, 15];
    expect(welch(narrow, wide)?.df).toBeLessThan(3);
  });
});

describe('repeats needed', () => {
  // J. Cohen (1988), table 2.4.1, two-sided 5 %, power 80 % (from memory).
  it.each([
    [0.5, 64],
    [0.8, 26],
    [1, 17],
  ])('a difference of %f standard deviations takes %i a side', (d, n) => {
    expect(repeatsNeeded(1, d)).toBe(n);
  });
  it('never says fewer than two, and stops at the most', () => {
    expect(repeatsNeeded(0.0001, 0.1)).toBe(2);
    expect(repeatsNeeded(1, 0.001, 50)).toBeNull();
    const just = minDetectableChange(1, 20);
    expect(repeatsNeeded(1, just)).toBe(20);
    expect(repeatsNeeded(1, just, 20)).toBe(20);
    expect(repeatsNeeded(1, just * 0.999, 20)).toBeNull();
    // What 17 a side just tell apart is one standard deviation, by the same table; here with t of 32 degrees of freedom: 2.0369 + 0.8530.
    expect(minDetectableChange(1, 17)).toBeCloseTo((2.0369 + 0.853) * Math.sqrt(2 / 17), 3);
  });
});
