import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { betaShare, eventRate, RULES, wilson } from '../src/base';
import {
  changedVersions,
  entryVersions,
  factorsOf,
  type MatchKey,
  matchOf,
  nearWeights,
  reliability,
} from '../src/compatibility';
import { NOTHING_INSTALLED } from '../src/parts';
import { contradicted, type EvidenceSummary, expectation, NO_EVIDENCE } from '../src/plan';
import { directChain, tunnelChain } from './make';

const W = nearWeights((id) => RULES[id].default);
const of = (e: Partial<EvidenceSummary>): EvidenceSummary => ({ ...NO_EVIDENCE, ...e });

describe('a Beta distribution', () => {
  it('equals the closed forms of Beta(1, n) and Beta(n, 1) (mathematics)', () => {
    for (const n of [0.5, 1, 3, 20, 200]) {
      expect(betaShare(1, n).hi).toBeCloseTo(1 - 0.025 ** (1 / n), 9);
      expect(betaShare(n, 1).lo).toBeCloseTo(0.025 ** (1 / n), 9);
    }
  });

  it('Beta(1/2, 1/2) is the arcsine law, sin^2(pi p / 2) (mathematics)', () => {
    expect(betaShare(0.5, 0.5).lo).toBeCloseTo(Math.sin((Math.PI * 0.025) / 2) ** 2, 9);
    expect(betaShare(0.5, 0.5).mean).toBe(0.5);
  });
});

describe('CO-11 hours between drops', () => {
  it("equals Garwood's table for 1, 5 and 10 events (from memory)", () => {
    const table = [
      [1, 0.0253, 5.572],
      [5, 1.623, 11.668],
      [10, 4.795, 18.39],
    ] as const;
    for (const [k, lo, hi] of table) {
      expect(eventRate(k, 1).lo).toBeCloseTo(lo, 3);
      expect(eventRate(k, 1).hi).toBeCloseTo(hi, 3);
    }
  });

  // Hanley and Lippman-Hand 1983: at most 3 / n, so at least n / 3 hours between two.
  it('no drop in n hours gives at most 3 / n', () => {
    const r = reliability([
      { hours: 100, drops: 0, freezes: 0 },
      { hours: 50, drops: 0, freezes: 0 },
    ]);
    expect(r?.perHour.hi).toBeCloseTo(0.02, 12);
    expect(r?.between).toEqual({ lo: 50, mid: null, hi: null });
  });

  it('drops and freezes count together, hours add, none say nothing', () => {
    const r = reliability([
      { hours: 40, drops: 1, freezes: 0 },
      { hours: 60, drops: 0, freezes: 3 },
    ]);
    expect(r).toMatchObject({ hours: 100, drops: 1, freezes: 3 });
    expect(r?.between.mid).toBe(25);
    expect(reliability([])).toBeNull();
    expect(reliability([{ hours: 0, drops: 2, freezes: 0 }])).toBeNull();
    expect(() => eventRate(1.5, 2)).toThrow(RangeError);
    expect(() => eventRate(-1, 2)).toThrow(RangeError);
    expect(() => eventRate(1, 0)).toThrow(RangeError);
    expect(() => eventRate(1, NaN)).toThrow('1 events in NaN give no rate');
  });
});

describe('what an entry shares with the chain that is asked about', () => {
  const asked = matchOf(tunnelChain());
  const entry = (change: Partial<MatchKey>, more: object = {}) => ({
    match: { ...asked, key: 'other', ...change },
    versions: {},
    told: false,
    confidence: 1,
    ...more,
  });

  it('host 0.3, port 0.3, dock 0.2, family 0.2, the same whole', () => {
    expect(factorsOf(asked, {}, { ...entry({}), match: asked }, W)).toMatchObject({
      shared: 1,
      weight: 1,
    });
    expect(factorsOf(asked, {}, entry({ dock: 'x', family: 'x' }), W)).toMatchObject({
      shares: ['host', 'link'],
      shared: 0.6,
    });
    expect(factorsOf(asked, {}, entry({ host: 'x', link: 'x' }), W).weight).toBeCloseTo(0.4, 12);
    expect(
      factorsOf(asked, {}, entry({ host: 'x', link: 'x', dock: 'x', family: 'x' }), W).weight,
    ).toBe(0);
  });

  it('changed versions halve a weight, hearsay counts by its confidence', () => {
    const older = entry({ dock: 'x', family: 'x' }, { versions: { driver: '1', system: '7' } });
    expect(factorsOf(asked, { driver: '2' }, older, W).weight).toBeCloseTo(0.3, 12);
    expect(factorsOf(asked, { hostFirmware: '2' }, older, W).weight).toBeCloseTo(0.6, 12);
    expect(changedVersions({ driver: '2', system: '7' }, { driver: '1', system: '7' })).toEqual([
      'driver',
    ]);
    const told = entry(
      { host: 'x', link: 'x' },
      { told: true, confidence: 0.5, versions: { driver: '1' } },
    );
    expect(factorsOf(asked, { driver: '2' }, told, W).weight).toBeCloseTo(0.1, 12);
    expect(entryVersions({ ...NOTHING_INSTALLED, driver: '41.2' })).toEqual({ driver: '41.2' });
  });

  it('nothing chosen shares nothing: two empty places are not alike', () => {
    const none = matchOf({ ...tunnelChain(), host: null, socket: null, card: null });
    expect([none.key, none.host, none.family]).toEqual([null, null, null]);
    expect(factorsOf(none, {}, entry({ host: null, family: null }), W).shares).toEqual(['dock']);
  });

  it('a path into a card slot is known by its adapters', () => {
    expect(matchOf(directChain()).key).not.toBeNull();
    const slot = matchOf({ ...directChain(), dock: null, path: directChain().path });
    expect(slot.dock === null || slot.dock.startsWith('no dock')).toBe(true);
    expect(matchOf(tunnelChain({ card: { family: '' } })).family).toBe(matchOf(tunnelChain()).card);
    expect(matchOf(tunnelChain({ card: { family: 'Ash 2' } })).family).toBe('ash 2');
  });
});

describe('what is to be expected', () => {
  it('n = 0: nothing is known, the whole range is open', () => {
    const e = expectation(NO_EVIDENCE, W.strength);
    expect(e).toMatchObject({ mean: 0.5, prior: null, strength: 0 });
    expect(e.hi - e.lo).toBeGreaterThan(0.99);
  });

  it('n = 1 shows its interval: one success is far from certainty', () => {
    const one = expectation(of({ weighted: { worked: 1, failed: 0 } }), W.strength);
    expect(one.mean).toBeCloseTo(0.75, 12);
    expect(one.lo).toBeLessThan(0.2);
    // Wilson for 1 of 1: lower end n / (n + z^2).
    expect(wilson(1, 1).lo).toBeCloseTo(1 / (1 + 1.959964 ** 2), 6);
  });

  it('near entries weigh at most four, failures pull down', () => {
    const near = { n: 500, weight: 300, worked: 300 };
    const e = expectation(of({ weighted: { worked: 0, failed: 8 }, near }), W.strength);
    expect(e).toMatchObject({ prior: 1, strength: 4 });
    expect(e.mean).toBeCloseTo((4 + 0.5) / (4 + 8 + 1), 12);
    expect(expectation(of({ near }), 0).mean).toBe(0.5);
  });

  it('contradictory entries leave it in the middle and wide', () => {
    const e = expectation(
      of({ weighted: { worked: 3, failed: 3 }, near: { n: 2, weight: 1, worked: 0.5 } }),
      W.strength,
    );
    expect(e.mean).toBeCloseTo(0.5, 12);
    expect(e.hi - e.lo).toBeGreaterThan(0.5);
  });

  it('one more success never lowers it, one more failure never raises it', () => {
    const count = fc.integer({ min: 0, max: 40 });
    fc.assert(
      fc.property(
        count,
        count,
        fc.double({ min: 0, max: 20, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (s, f, weight, p) => {
          const near = { n: 3, weight, worked: weight * p };
          const at = (worked: number, failed: number) =>
            expectation(of({ weighted: { worked, failed }, near }), 4);
          const base = at(s, f);
          expect(base.lo).toBeLessThanOrEqual(base.hi);
          expect(at(s + 1, f).mean).toBeGreaterThanOrEqual(base.mean);
          expect(at(s, f + 1).mean).toBeLessThanOrEqual(base.mean);
        },
      ),
    );
  });
});

describe('CO-04 a contradiction for sure', () => {
  it('contradiction needs an interval beside the prediction: four of four (Wilson)', () => {
    expect(contradicted('works', { worked: 0, failed: 3 })).toMatchObject({ seen: 3, sure: false });
    expect(contradicted('works', { worked: 0, failed: 4 })).toMatchObject({ seen: 4, sure: true });
    expect(contradicted('blocked', { worked: 4, failed: 0 })).toMatchObject({
      predicted: 'fail',
      sure: true,
    });
    expect(contradicted('works', { worked: 5, failed: 6 })).toMatchObject({ sure: false });
    expect(contradicted('works', { worked: 4, failed: 4 })).toBeNull();
    expect(contradicted('unknown', { worked: 0, failed: 9 })).toBeNull();
  });
});
