import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  ALARM_IDS,
  type AlarmId,
  alarmsOf,
  cellsOf,
  decidingSwap,
  elasticity,
  evidenceOf,
  frameStats,
  judgeShares,
  nameLimiter,
  type Observed,
  observedOf,
  pairsOf,
  readLimiter,
  type RunGroup,
  type RunSeen,
  tollsOf,
} from '../src/runs';
import { makeFrames } from './make-frames';
import { runsOf, type RunAsk } from './make-cells';

const SEEN: Observed = {
  ms: 10,
  jitter: 0.05,
  sizes: [],
  toll: null,
  backMs: 0,
  load: null,
  watts: null,
};
const near = (mid: number) => ({ mid, sd: 0.1 });
/** Runs whose frames are really there, with what meters showed beside them. */
function withFrames(
  ask: Omit<RunAsk, 'ms'>,
  meanMs: number,
  more: {
    sensors?: Record<string, number>;
    hitch?: { everyS: number; ms: number };
    jitter?: number;
    n?: number;
  } = {},
): RunSeen[] {
  const list = Array.from({ length: more.n ?? 3 }, (_, i) => meanMs * (1 + 0.004 * (i - 1)));
  return runsOf({ ...ask, ms: list }).map((r, i) => ({
    ...r,
    kind: 'frames' as const,
    result: null,
    stats: frameStats(
      makeFrames({
        seed: i + 3,
        meanMs: list[i] ?? meanMs,
        seconds: 30,
        jitter: more.jitter ?? 0.15,
        ...(more.hitch && { hitch: more.hitch }),
      }).frames,
    ),
    sensors: more.sensors
      ? Object.fromEntries(
          Object.entries(more.sensors).map(([k, v]) => [k, { mean: v, p95: v, most: v }]),
        )
      : null,
    rig: { ...r.rig, boardW: { lo: 200, hi: 200 }, memoryMHz: { lo: 1750, hi: 1750 } },
  }));
}
const first = (runs: readonly RunSeen[], all: readonly RunSeen[]) =>
  cellsOf(all).find((c) => c.first.id === runs[0]?.id) as RunGroup;

function limiterOf(own: RunSeen[]) {
  const cell = first(own, own);
  const cells = cellsOf(own);
  const seen = observedOf(cell, cells, null, null);
  return readLimiter({ cell, cells, toll: null, seen, judged: judgeShares(seen), others: [] });
}

describe('shares of the stages', () => {
  it('sum to 1, lie inside their intervals, and are never below nothing', () => {
    const share = fc.double({ min: 0.05, max: 0.6, noNaN: true });
    fc.assert(
      fc.property(
        share,
        share,
        fc.double({ min: 0.3, max: 1, noNaN: true }),
        (toll, grow, load) => {
          const sizes = [{ ratio: 0.5625, ms: 10 * (1 - grow / 2) }];
          const j = judgeShares({ ...SEEN, toll: near(toll * 10), sizes, load });
          if (!j) return;
          const all = Object.values(j.shares);
          expect(all.reduce((s, x) => s + x.mid, 0)).toBeCloseTo(1, 6);
          for (const s of all) {
            expect(s.lo).toBeGreaterThanOrEqual(0);
            expect(s.lo).toBeLessThanOrEqual(s.mid + 1e-9);
            expect(s.mid).toBeLessThanOrEqual(s.hi + 1e-9);
          }
        },
      ),
      { numRuns: 40 },
    );
  });

  it('names card, processor or link by how time grows with pixels', () => {
    const grown = (power: number, toll: number) =>
      [0.5625, 2.25].map((ratio) => ({
        ratio,
        ms: (10 - toll) * (power === 0 ? 1 : ratio ** power) + toll,
      }));
    const of = (power: number, toll: number) => {
      const j = judgeShares({
        ...SEEN,
        sizes: power === 0 ? [{ ratio: 0.5625, ms: 10 }] : grown(power, toll),
        toll: near(toll),
      });
      return j && nameLimiter(j);
    };
    expect(of(0.85, 1)).toMatchObject({ says: 'named', stage: 'card' });
    expect(of(0, 1)).toMatchObject({ says: 'named', stage: 'cpu' });
    expect(of(0.85, 6.5)).toMatchObject({ says: 'named', stage: 'link' });
  });

  it('cannot tell processor from link on flat frames without a pair', () => {
    const j = judgeShares({ ...SEEN, sizes: [{ ratio: 0.5625, ms: 9.98 }], load: 0.5 });
    const named = j && nameLimiter(j);
    expect(named?.says).toBe('cannot-tell');
    expect(named?.says === 'cannot-tell' && [...named.between].sort()).toEqual(['cpu', 'link']);
  });

  it('says that two are alike where they are', () => {
    const j = judgeShares({ ...SEEN, toll: near(5), sizes: [{ ratio: 0.5625, ms: 9.99 }] });
    expect(j && nameLimiter(j)).toMatchObject({ says: 'cannot-tell', alike: true });
  });

  it('does not call alike what is only not known', () => {
    const j = judgeShares({ ...SEEN, sizes: [{ ratio: 0.5625, ms: 9.98 }], load: 0.5 });
    expect(j && nameLimiter(j)).toMatchObject({ says: 'cannot-tell', alike: false });
    const wide = { mid: 0.5, lo: 0.1, hi: 0.9 };
    const judged = j && {
      ...j,
      shares: { ...j.shares, cpu: wide, link: { ...wide, mid: 0.46 } },
      largest: { ...j.largest, cpu: 0.9 },
    };
    expect(judged && nameLimiter(judged)).toMatchObject({ says: 'cannot-tell', alike: false });
  });

  it('ignores an impossible frame: a link overhead longer than the frame', () => {
    expect(judgeShares({ ...SEEN, toll: { mid: 40, sd: 0.1 } })).toBeNull();
  });
});

describe('the swap that decides', () => {
  const c = first([], []) ?? (cellsOf(runsOf({ ms: [10] }))[0] as RunGroup);
  const swept = cellsOf([
    ...runsOf({ ms: [10] }),
    ...runsOf({ resolution: '3840x2160', ms: [10.1] }),
  ]);
  it('names the test that decides: another resolution, or the link', () => {
    expect(decidingSwap(['card', 'cpu'], c, [c], [])).toMatchObject({ what: 'sizes', minutes: 1 });
    expect(decidingSwap(['cpu', 'link'], c, [c], ['setup-b'])).toMatchObject({
      what: 'link',
      setupId: 'setup-b',
    });
    expect(decidingSwap(['link', 'cpu'], c, [c], [])).toMatchObject({ what: 'slot' });
    expect(decidingSwap(['back', 'link'], c, [c], [])).toMatchObject({ what: 'screen' });
    expect(decidingSwap(['card', 'cpu'], swept[0] as RunGroup, swept, [])).toMatchObject({
      what: 'power',
    });
  });
});

describe('evidence', () => {
  it('comes with its numbers: flat sizes, load, watts, link overhead', () => {
    const own = withFrames({}, 12, { sensors: { 'card-load': 55, 'card-w': 120 } });
    const all = [...own, ...withFrames({ resolution: '2560x1440' }, 12.3)];
    const lines = evidenceOf(first(own, all), cellsOf(all), null, 0);
    expect(lines.map((l) => l.code)).toEqual(['no-pair', 'flat-sizes', 'card-load', 'card-watts']);
    expect(lines[1]).toMatchObject({ from: '1920x1080', to: '2560x1440' });
    expect(lines[1]?.code === 'flat-sizes' && lines[1].ratio).toBeCloseTo(1.025, 3);
    expect(lines[2]).toMatchObject({ low: true });
    expect(lines[3]).toMatchObject({ watts: 120, of: 200, low: true });
  });

  it('puts a slow memory clock before everything, and takes advice from it', () => {
    const own = withFrames({}, 12, { sensors: { 'memory-mhz': 405, 'card-load': 99 } });
    const l = limiterOf(own);
    expect(l?.evidence[0]).toEqual({ code: 'memory-clock', mhz: 405, usual: 1750 });
    expect(l?.advice).toBe('memory');
  });

  it('says a limit is the limit', () => {
    const own = withFrames({}, 1000 / 60, { jitter: 0.002, n: 1 });
    const l = limiterOf(own);
    expect(l?.named).toMatchObject({ says: 'named', stage: 'cap' });
    expect(l?.judged.shares.cap.mid).toBe(1);
  });
});

describe('alarms are raised where they should be', () => {
  const cases: Record<AlarmId, () => [RunSeen[], RunSeen[]]> = {
    'rank-inversion': () => {
      const own = withFrames({ card: 'big', cardIndex: 140 }, 13);
      return [own, withFrames({ card: 'small', cardIndex: 100 }, 12)];
    },
    'worse-than-inside': () => [
      withFrames({}, 14),
      withFrames({ deviceSet: 'inside', card: 'card' }, 12),
    ],
    'flat-lows': () => {
      const hitch = { everyS: 0.25, ms: 40 };
      return [
        withFrames({ card: 'big' }, 8, { hitch }),
        withFrames({ card: 'small' }, 12, { hitch }),
      ];
    },
    starved: () => [withFrames({}, 12, { sensors: { 'card-load': 60, 'card-w': 110 } }), []],
    cap: () => [withFrames({}, 1000 / 72, { jitter: 0.002, n: 1 }), []],
    'memory-clock': () => [withFrames({}, 12, { sensors: { 'memory-mhz': 810 } }), []],
    'periodic-hitch': () => [withFrames({}, 10, { hitch: { everyS: 3, ms: 60 } }), []],
    impossible: () => [withFrames({}, 12, { sensors: { 'card-w': 900 } }), []],
    'beyond-traffic': () => [
      withFrames({}, 26),
      withFrames({ link: 'slot', sameProcessor: 'yes' }, 9),
    ],
  };
  for (const id of ALARM_IDS)
    it(id, () => {
      const [own, others] = cases[id]();
      const cells = cellsOf([...own, ...others]);
      const cell = first(own, [...own, ...others]);
      const toll = tollsOf(pairsOf(cells).pairs, cell.first.setupId)[0] ?? null;
      expect(alarmsOf(cell, cells, toll).map((a) => a.id)).toContain(id);
    });
  it('none on a plain run', () => {
    const own = withFrames({}, 11.3, {
      sensors: { 'card-load': 98, 'card-w': 190, 'memory-mhz': 1748 },
    });
    expect(alarmsOf(first(own, own), cellsOf(own), null)).toEqual([]);
  });
});

describe('how much of a clock arrives', () => {
  it('clock +7.7 % and score +2.5 % is 0.33 (common practice)', () => {
    const e = elasticity({ speeds: [100], clock: 2000 }, { speeds: [102.5], clock: 2154 }, 0.005);
    expect(e.e).toBeCloseTo(0.33, 2);
    // sqrt(2) * 0.005 / ln 1.077.
    expect(e.sd).toBeCloseTo((Math.SQRT2 * 0.005) / Math.log(1.077), 9);
    expect(e.says).toBe('part');
    expect(
      elasticity({ speeds: [100], clock: 2000 }, { speeds: [101.35], clock: 2027 }, 0.002),
    ).toMatchObject({
      says: 'card',
      e: expect.closeTo(1, 9) as number,
    });
  });
  it('gives no verdict within scatter or without a change of clock', () => {
    expect(
      elasticity({ speeds: [100], clock: 2000 }, { speeds: [101.35], clock: 2027 }, 0.02).says,
    ).toBe('too-uncertain');
    expect(
      elasticity({ speeds: [100], clock: 2000 }, { speeds: [104], clock: 2002 }, 0.001).says,
    ).toBe('same-clock');
  });
  it('narrows with repeats, by their root', () => {
    const one = elasticity({ speeds: [100], clock: 2000 }, { speeds: [105], clock: 2100 }, 0.01);
    const four = elasticity(
      { speeds: [100, 100, 100, 100], clock: 2000 },
      { speeds: [105, 105, 105, 105], clock: 2100 },
      0.01,
    );
    expect(four.sd).toBeCloseTo(one.sd / 2, 9);
  });
});
