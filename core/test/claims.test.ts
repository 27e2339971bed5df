import { describe, expect, it } from 'vitest';
import { wilson } from '../src/base';
import {
  type Claim,
  judgeClaim,
  type Measurement,
  ofPairs,
  registerFromRuns,
} from '../src/compatibility';
import { pairsOf } from '../src/runs';
import { groupOf } from './make-groups';

const lost = (
  value: number,
  resolution: string,
  more: Partial<Measurement['tags']> = {},
): Measurement => ({
  value,
  on: '2026-05-01',
  tags: { resolution, standard: 'USB4 40', title: 'Peat Rally', ...more },
  setupId: null,
  words: `Peat Rally at ${resolution}`,
});
const claim = (over: Partial<Claim> = {}): Claim => ({
  measure: 'lost',
  lo: 15,
  hi: 25,
  where: [],
  ...over,
});

describe('CO-06 what measurements say of a claim', () => {
  it('counts where a claim holds, with interval, and where never', () => {
    const all = [18, 22, 24, 16]
      .map((v) => lost(v, '1440p'))
      .concat([39, 41, 35].map((v) => lost(v, '1080p')));
    const j = judgeClaim(claim(), all);
    expect([j.within, j.n]).toEqual([4, 7]);
    expect(j.share).toEqual(wilson(4, 7));
    expect(j.never).toEqual([{ tag: 'resolution', value: '1080p', n: 3 }]);
    expect(j.state).toBe('open');
    expect(j.against.map((m) => m.value)).toEqual([39, 41, 35]);
    expect(j.seen).toEqual({ lo: 16, mid: 24, hi: 41 });
  });

  it('nothing measured says nothing, one measurement proves little', () => {
    expect(judgeClaim(claim(), [])).toMatchObject({
      n: 0,
      state: 'none',
      seen: null,
      share: { lo: 0, hi: 1 },
    });
    expect(judgeClaim(claim(), [lost(20, '1440p')])).toMatchObject({
      n: 1,
      within: 1,
      state: 'one',
    });
  });

  it('holds or fails only when the interval lies on one side', () => {
    const of = (inside: number, outside: number) =>
      judgeClaim(claim(), [
        ...Array.from({ length: inside }, () => lost(20, '1440p')),
        ...Array.from({ length: outside }, () => lost(50, '1440p')),
      ]).state;
    expect(of(5, 0)).toBe('holds');
    expect(of(4, 1)).toBe('open');
    expect(of(0, 5)).toBe('fails');
    expect(of(3, 3)).toBe('open');
  });

  it('conditions narrow it, whatever their case; open ends are open', () => {
    const all = [lost(20, '1440p'), lost(60, '1440p', { standard: 'OCuLink' }), lost(5, '2160p')];
    expect(judgeClaim(claim({ where: [{ tag: 'standard', has: 'usb4' }] }), all)).toMatchObject({
      n: 2,
      within: 1,
    });
    expect(judgeClaim(claim({ lo: null, hi: 30 }), all)).toMatchObject({ n: 3, within: 2 });
    expect(judgeClaim(claim({ lo: 30, hi: null }), all)).toMatchObject({ within: 1 });
    expect(judgeClaim(claim({ where: [{ tag: 'dock', has: 'D-4' }] }), all).n).toBe(0);
  });

  it('a share of setups is held against the interval of that share', () => {
    const works = (yes: number, no: number) => [
      ...Array.from({ length: yes }, () => lost(100, '')),
      ...Array.from({ length: no }, () => lost(0, '')),
    ];
    const most = claim({ measure: 'works', lo: 90, hi: null });
    expect(judgeClaim(most, works(4, 0))).toMatchObject({ state: 'open', within: 4, n: 4 });
    expect(judgeClaim(most, works(60, 0)).state).toBe('holds');
    expect(judgeClaim(most, works(5, 15)).state).toBe('fails');
    expect(judgeClaim(most, [])).toMatchObject({ state: 'none' });
  });
});

describe('measurements out of runs', () => {
  const slot = groupOf({ link: 'slot', ms: [8, 8, 8], sameProcessor: 'yes' });
  const foreign = groupOf({ link: 'slot', ms: [6, 6, 6] });
  const link = groupOf({ ms: [10, 10, 10] });
  const panel = groupOf({ ms: [12.5, 12.5], panel: true });

  it('10 ms against 8 lose 20 %; another processor tells that only', () => {
    const { pairs } = pairsOf([slot, link]);
    expect(ofPairs(pairs, 'lost')[0]?.value).toBeCloseTo(20, 9);
    expect(ofPairs(pairs, 'toll')[0]?.value).toBeCloseTo(2, 9);
    expect(ofPairs(pairs, 'panel')).toEqual([]);
    const other = pairsOf([foreign, link]).pairs;
    expect(ofPairs(other, 'lost')[0]).toMatchObject({
      words: expect.stringContaining('another processor'),
    });
    expect(ofPairs(other, 'toll')).toEqual([]);
  });

  it('12.5 ms on the panel against 10 lose 20 %', () => {
    expect(ofPairs(pairsOf([link, panel]).pairs, 'panel')[0]?.value).toBeCloseTo(20, 9);
  });
});

describe('CO-10 what runs say of a title', () => {
  const none = new Map<string, number>();
  const outside = groupOf({ ms: [10, 10, 10] });

  it('worth it from 1.15 times the own graphics, no gain below', () => {
    const own = (ms: number) => groupOf({ ms: [ms, ms], deviceSet: 'inside' });
    expect(registerFromRuns([outside, own(30)], [], none)).toMatchObject([
      { say: 'worth', n: 5, words: '3.00 times the host\u0027s own graphics at 1920x1080' },
    ]);
    expect(registerFromRuns([outside, own(11)], [], none)).toMatchObject([{ say: 'no-gain' }]);
    expect(registerFromRuns([outside], [], none)).toEqual([]);
    expect(
      registerFromRuns(
        [outside, groupOf({ ms: [30], deviceSet: 'inside', title: 'other' })],
        [],
        none,
      ),
    ).toEqual([]);
  });

  it('needs an outside screen where the panel costs 15 % or more', () => {
    const on = (ms: number) => {
      const cells = [outside, groupOf({ ms: [ms, ms], panel: true })];
      return registerFromRuns(cells, pairsOf(cells).pairs, none).map((f) => f.say);
    };
    expect(on(12)).toEqual(['outside-screen']);
    expect(on(11)).toEqual([]);
  });

  it('hunger for memory follows what was stated', () => {
    const id = outside.first.titleId;
    const rig = { ...outside.first.rig, memoryGB: { lo: 8, hi: 8 } };
    const here = { ...outside, first: { ...outside.first, rig } };
    const say = (workingGB: number) =>
      registerFromRuns([here], [], new Map([[id, workingGB]])).map((f) => f.say);
    expect(say(9)).toEqual(['memory']);
    expect(say(8)).toEqual([]);
  });
});
