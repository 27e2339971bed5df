import { describe, expect, it } from 'vitest';
import {
  ALARM_IDS,
  type AlarmId,
  alarmsOf,
  groupRuns,
  elasticity,
  frameStats,
  pairsOf,
  type RunGroup,
  type RunSeen,
  signsOf,
} from '../src/runs';
import { makeFrames } from './make-frames';
import { runsOf, type RunAsk } from './make-groups';

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
  groupRuns(all).find((c) => c.first.id === runs[0]?.id) as RunGroup;

describe('signs in the runs', () => {
  it('come with their numbers: flat sizes, load, watts', () => {
    const own = withFrames({}, 12, { sensors: { 'card-load': 55, 'card-w': 120 } });
    const all = [...own, ...withFrames({ resolution: '2560x1440' }, 12.3)];
    const lines = signsOf(first(own, all), groupRuns(all));
    expect(lines.map((l) => l.code)).toEqual(['flat-sizes', 'card-load', 'card-watts']);
    expect(lines[0]).toMatchObject({ from: '1920x1080', to: '2560x1440' });
    expect(lines[0]?.code === 'flat-sizes' && lines[0].ratio).toBeCloseTo(1.025, 3);
    expect(lines[1]).toMatchObject({ low: true });
    expect(lines[2]).toMatchObject({ watts: 120, of: 200, low: true });
  });

  it('put a slow memory clock before everything', () => {
    const own = withFrames({}, 12, { sensors: { 'memory-mhz': 405, 'card-load': 99 } });
    const lines = signsOf(first(own, own), groupRuns(own));
    expect(lines[0]).toEqual({ code: 'memory-clock', mhz: 405, usual: 1750 });
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
    throttled: () => [
      withFrames({}, 12).map((r) => ({
        ...r,
        stats: { ...r.stats!, slowing: { fromFps: 90, toFps: 75 } },
        sensors: {
          'card-mhz': { mean: 1800, p95: 2100, most: 2150, thirds: { first: 2100, last: 1600 } },
        },
      })),
      [],
    ],
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
      const cells = groupRuns([...own, ...others]);
      const cell = first(own, [...own, ...others]);
      // 26 Gb/s carry 52 MB in 16 ms.
      const overhead = { lo: id === 'beyond-traffic' ? 16 : 1, mid: 17, hi: 18 };
      const raised = alarmsOf(cell, cells, pairsOf(cells).pairs, overhead);
      const one = raised.find((a) => a.id === id);
      expect(one?.runs).toEqual(expect.arrayContaining([own[0]!.id]));
    });
  it('faster through the link than in a slot of the same machine', () => {
    const groups = groupRuns([
      ...withFrames({}, 9),
      ...withFrames({ link: 'slot', sameProcessor: 'yes' }, 12),
    ]);
    const { pairs } = pairsOf(groups);
    expect(alarmsOf(groups[0]!, groups, pairs, null)).toMatchObject([
      { id: 'impossible', params: { sensor: 'link', value: expect.closeTo(3, 1) as number } },
    ]);
  });
  it('none on a plain run', () => {
    const own = withFrames({}, 11.3, {
      sensors: { 'card-load': 98, 'card-w': 190, 'memory-mhz': 1748 },
    });
    expect(alarmsOf(first(own, own), groupRuns(own), [], null)).toEqual([]);
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
