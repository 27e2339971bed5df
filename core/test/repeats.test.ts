import { describe, expect, it } from 'vitest';
import { tQuantile } from '../src/base';
import {
  classifyRuns,
  evidenceOfRuns,
  frameStats,
  type FrameStats,
  grid,
  type GridRun,
  groupRuns,
  NO_RUN_SETTINGS,
  resultTable,
  robustScatter,
  scatterOf,
  type RunSeen,
  sensorSeen,
  slowingOf,
  titleScatters,
} from '../src/runs';
import { outlierText, publishedTable, resultNumbers, spreadText } from '../src/runs/text';
import { runsOf, seeded } from './make-groups';

const fps = (...list: number[]) => runsOf({ ms: list.map((v) => 1000 / v) });
const held = (r: RunSeen, at: number | null): RunSeen => ({
  ...r,
  kind: 'frames',
  stats: {
    meanMs: 1000 / r.result!.value,
    averageFps: r.result!.value,
    cap: at === null ? null : { fps: at, share: 0.9 },
  } as FrameStats,
});
const one = (runs: readonly RunSeen[], i: number) => classifyRuns(runs).get(runs[i]!.id)!;

describe('the scatter of repeats', () => {
  it('is the usual 2 % where nothing was repeated', () => {
    expect(robustScatter([[60], [90]])).toEqual({ cv: 0.02, freedom: 0 });
  });
  it('is the standard deviation of many repeats', () => {
    const random = seeded(1);
    const group = () => Array.from({ length: 4 }, () => 60 * Math.exp(0.03 * random.normal()));
    const { cv, freedom } = robustScatter(Array.from({ length: 200 }, group));
    // A few of 800 lie three deviations off.
    expect(freedom).toBeGreaterThan(580);
    expect(cv / 0.03).toBeGreaterThan(0.9);
    expect(cv / 0.03).toBeLessThan(1.05);
  });
  it('is not drawn away by one wrong run in four', () => {
    const random = seeded(2);
    const group = () => [
      ...Array.from({ length: 3 }, () => 60 * Math.exp(0.01 * random.normal())),
      30,
    ];
    const groups = Array.from({ length: 100 }, group);
    expect(robustScatter(groups).cv).toBeLessThan(0.012);
    // With them all it would be twenty times as much.
    expect(scatterOf(groups)).toBeGreaterThan(0.24);
  });
});

describe('the scatter of each title', () => {
  it('stands by itself, the widest first, and single runs have none', () => {
    const found = titleScatters([
      { title: 'Steady', speeds: [60, 60.1, 59.9] },
      { title: 'Wide', speeds: [50, 60, 55, 58] },
      { title: 'Wide', speeds: [100, 118] },
      { title: 'Once', speeds: [80] },
    ]);
    expect(found.map((t) => t.title)).toEqual(['Wide', 'Steady']);
    expect(found[0]!.cv).toBeGreaterThan(3 * found[1]!.cv);
  });
});

describe('a run far from its repeats', () => {
  it('is named with its figures and left out of everything', () => {
    const runs = fps(60.1, 60.3, 41);
    const its = one(runs, 2);
    // By hand: the third is left out of the scatter; the usual 2 % counts as four repeats.
    const apart = Math.log(60.3 / 60.1);
    const cv = Math.sqrt((4 * 0.02 ** 2 + apart ** 2 / 2) / 5);
    expect(its.outlier?.scatter).toMatchObject({ cv: expect.closeTo(cv, 12), freedom: 1 });
    expect(its.outlier?.of).toBeCloseTo(41 / 60.1, 12);
    expect(its.outlier?.z).toBeCloseTo(Math.log(60.1 / 41) / cv, 9);
    expect(its.counts).toBe(false);
    expect(outlierText(its.outlier!, 3)).toContain('32 % below the median of its 3 repeats: 21');
    expect(groupRuns(runs)[0]).toMatchObject({ ms: [1000 / 60.1, 1000 / 60.3], apart: [runs[2]] });
    const { evidence, unused } = evidenceOfRuns(runs);
    expect(unused).toEqual([{ runId: runs[2]!.id, why: 'outlier' }]);
    expect(evidence).toMatchObject([{ ms: [1000 / 60.1, 1000 / 60.3] }]);
  });
  it('is neither of two, and never half of them', () => {
    expect(one(fps(60, 30), 1).outlier).toBeNull();
    expect([...classifyRuns(fps(60, 60, 30, 30)).values()].every((c) => c.counts)).toBe(true);
  });
  it('counts or not as a person says', () => {
    const [a, b, c] = fps(60.1, 60.3, 41) as [RunSeen, RunSeen, RunSeen];
    const say = (r: RunSeen, counts: 'yes' | 'no'): RunSeen => ({
      ...r,
      context: { ...r.context, counts },
    });
    expect(one([a, b, say(c, 'yes')], 2)).toMatchObject({ counts: true, outlier: { scatter: {} } });
    expect(one([say(a, 'no'), b, c], 0).counts).toBe(false);
    expect(evidenceOfRuns([say(a, 'no'), b]).unused).toEqual([{ runId: a.id, why: 'left-out' }]);
  });
  it('is rare among honest repeats, and found when off by 15 %', () => {
    const random = seeded(3);
    const rate = (cv: number, off: number) => {
      let found = 0;
      for (let i = 0; i < 400; i++) {
        const group = (resolution: string, odd: number) =>
          runsOf({
            resolution,
            ms: [0, 1, 2].map((k) => 12 * Math.exp(cv * random.normal()) * (k === 2 ? odd : 1)),
          });
        const sizes = ['1920x1080', '2560x1440', '3840x2160'].map((s) => group(s, 1));
        const own = group('1280x800', off);
        const its = classifyRuns([...sizes.flat(), ...own]).get(own[2]!.id)!;
        found += its.outlier ? 1 : 0;
      }
      return found / 400;
    };
    expect(rate(0.01, 1)).toBeLessThanOrEqual(0.01);
    expect(rate(0.02, 1)).toBeLessThanOrEqual(0.01);
    expect(rate(0.05, 1)).toBeLessThanOrEqual(0.05);
    expect(rate(0.02, 1.15)).toBeGreaterThanOrEqual(0.9);
  });
});

describe('repeats that are none', () => {
  it('are asked for: twelve from 60 to 140 frames/s', () => {
    const runs = fps(...Array.from({ length: 12 }, (_, i) => 60 + (i * 80) / 11));
    const { spread } = one(runs, 0);
    expect(spread).toMatchObject({ lo: expect.closeTo(60, 9), hi: expect.closeTo(140, 9) });
    expect(spreadText(spread!, 'frames/s')).toMatch(/^Repeats reach from 60.0 to 140 frames\/s/);
    const limit = tQuantile(0.01 / 66 / 2, 4);
    expect(spread!.usual).toBeCloseTo(Math.exp(limit * Math.SQRT2 * 0.02), 9);
  });
  it('are not asked for within the usual scatter', () => {
    expect(one(fps(59, 60, 61), 0).spread).toBeNull();
    expect(one(fps(57, 63), 0).spread).toBeNull();
  });
  it('are measured against the other groups of their title', () => {
    const steady = ['2560x1440', '3840x2160', '1280x800'].flatMap((resolution) =>
      runsOf({ resolution, ms: [12, 12.01, 12.02, 11.99] }),
    );
    const own = fps(57, 63);
    expect(classifyRuns([...steady, ...own]).get(own[0]!.id)?.spread?.scatter.freedom).toBe(9);
  });
});

describe('a limit that holds', () => {
  const runs = fps(60, 60, 60);
  const capsOf = (...at: (number | null)[]) => {
    const list = at.map((v, i) => held(runs[i]!, v));
    return list.map((_, i) => one(list, i)).map((c) => [c.capFps, c.heldAlone]);
  };
  it('is what holds most of the repeats', () => {
    expect(capsOf(60, 60, null)).toEqual([
      [60, null],
      [60, null],
      [60, null],
    ]);
  });
  it('does not brand the neighbours of one', () => {
    expect(capsOf(60, null, null)).toEqual([
      [null, 60],
      [null, null],
      [null, null],
    ]);
  });
  it('is believed of one of two where somebody set it', () => {
    const set = (v: number | null, i: number): RunSeen => {
      const r = held(runs[i]!, v);
      return { ...r, settings: { ...NO_RUN_SETTINGS, ...r.settings, capFps: 60 } };
    };
    expect(one([set(60, 0), set(null, 1)], 1).capFps).toBe(60);
    expect(capsOf(60, null)[1]).toEqual([null, null]);
  });
});

describe('a run that gets slower', () => {
  const falling = Array.from({ length: 120 }, (_, i) => 100 - i / 5 + (i % 3));
  it('falls from its first to its last third', () => {
    // The middles of both thirds lie at 19.5 and 99.5 s, one above the line.
    expect(slowingOf(falling, 0)).toEqual({ fromFps: 97.1, toFps: 81.1 });
    expect(slowingOf(falling.slice(0, 50), 0)).toBeNull();
    expect(slowingOf([...falling].reverse(), 0)).toBeNull();
  });
  it('is no slow scene and no scatter', () => {
    const scene = Array.from({ length: 120 }, (_, i) => (i > 40 && i < 60 ? 50 : 100));
    expect(slowingOf(scene, 0)).toBeNull();
    const random = seeded(7);
    const found = Array.from({ length: 300 }, () =>
      slowingOf(
        Array.from({ length: 180 }, () => 100 * Math.exp(0.1 * random.normal())),
        0,
      ),
    ).filter((s) => s !== null);
    expect(found.length).toBeLessThanOrEqual(3);
  });
  it('is throttled only where a clock fell with it', () => {
    const [r] = fps(90) as [RunSeen];
    const frames = Float32Array.from(
      falling.flatMap((v) => Array<number>(Math.round(v)).fill(1000 / v)),
    );
    const slow = (first: number, last: number): RunSeen => ({
      ...r,
      kind: 'frames',
      stats: frameStats(frames),
      sensors: { 'card-mhz': { mean: 1, p95: 1, most: 1, thirds: { first, last } } },
    });
    expect(one([slow(2000, 1600)], 0).throttled).toMatchObject({ sensor: 'card-mhz', clock: 0.8 });
    expect(one([slow(2000, 1990)], 0).throttled).toBeNull();
  });
  it('has sensors with their thirds', () => {
    const seen = sensorSeen(Float32Array.of(9, NaN, 3, 6, 6, 1, 2));
    expect(seen).toMatchObject({ mean: 4.5, most: 9, thirds: { first: 6, last: 1.5 } });
    expect(sensorSeen(Float32Array.of(NaN))).toBeNull();
    expect(sensorSeen(Float32Array.of(1, 2))?.thirds).toBeUndefined();
  });
});

const asGridRun = (r: RunSeen): GridRun => ({
  id: r.id,
  kind: r.kind,
  facts: r.facts,
  values: { average: r.result!.value },
  reason: '',
  seconds: null,
  class: null,
  missing: [],
  norm: false,
});

describe('a cell of a comparison', () => {
  it('takes the mean of the runs that count and names the others', () => {
    const runs = [...fps(60, 60.2, 41), ...runsOf({ ms: [10, 10.1], resolution: '1280x800' })];
    const classes = classifyRuns(runs);
    const table = grid(
      runs.map((r) => ({ ...asGridRun(r), class: classes.get(r.id) ?? null })),
      { rows: ['title'], columns: 'resolution', base: '1920x1080', measure: 'average' },
    );
    const cell = table.cells[0]![0]!;
    expect(cell.values).toEqual([runs[0], runs[1]].map((r) => r!.result!.value));
    expect(cell.apart.map((r) => r.id)).toEqual([runs[2]!.id]);
    expect(cell.notes.map((n) => n.code)).toContain('apart');
  });

  it('is published with what limits it where that was asked', () => {
    const runs = fps(60, 61);
    const ask = { rows: ['title'], columns: 'card', base: 'card', measure: 'average' } as const;
    const table = (limits?: ReadonlyMap<string, string>) =>
      publishedTable(resultTable(runs.map(asGridRun), ask, limits), 'frames/s');
    expect(table().head).not.toContain('what limits');
    const asked = table(new Map([[runs[0]!.id, 'card (95 %)']]));
    const at = asked.head.indexOf('what limits');
    expect(asked.rows.map((r) => r[at])).toEqual(['card (95 %)']);
    expect(asked.rows.every((r) => r.length === asked.head.length)).toBe(true);
    const numbers = resultNumbers(resultTable(runs.map(asGridRun), ask), 'frames/s');
    expect(numbers.rows.every((r) => r.length === numbers.head.length)).toBe(true);
  });
});
