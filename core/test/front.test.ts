import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  breakEvenHosts,
  Front,
  upperHull,
  kneeOf,
  type SpendingOption,
  stepsOf,
  stopsAt,
  worthOf,
} from '../src/buy';

const cloud = fc.array(
  fc.record({ minor: fc.integer({ min: 0, max: 60 }), fps: fc.integer({ min: 1, max: 60 }) }),
  {
    maxLength: 60,
  },
);
interface Dot {
  minor: number;
  fps: number;
}

/** By definition: kept when nothing costs no more, is as fast and better in one of the two. */
function plainFront(all: readonly Dot[]): Dot[] {
  const kept = all.filter(
    (p) =>
      !all.some(
        (q) => q.minor <= p.minor && q.fps >= p.fps && (q.minor < p.minor || q.fps > p.fps),
      ),
  );
  return [
    ...new Map(kept.map((p) => [`${p.minor}`, { minor: p.minor, fps: p.fps }])).values(),
  ].sort((a, b) => a.minor - b.minor);
}
function frontOf(all: readonly Dot[]) {
  const front = new Front();
  all.forEach((p, i) => front.offer(p.minor, p.fps, i));
  return front.points();
}

describe('front', () => {
  it('equals brute force on random catalogues, lower index of twins', () => {
    fc.assert(
      fc.property(cloud, (all) => {
        const points = frontOf(all);
        expect(points.map(({ minor, fps }) => ({ minor, fps }))).toEqual(plainFront(all));
        for (const p of points)
          expect(p.index).toBe(all.findIndex((q) => q.minor === p.minor && q.fps === p.fps));
      }),
      { numRuns: 400 },
    );
  });

  it('asks who is better only between two exactly alike', () => {
    const front = new Front((a) => a === 7);
    front.offer(10, 50, 3);
    front.offer(10, 50, 7);
    front.offer(10, 49, 9);
    expect(front.points()).toEqual([{ minor: 10, fps: 50, index: 7 }]);
  });

  it('the knee is farthest above the chord, none below three points', () => {
    fc.assert(
      fc.property(cloud, (all) => {
        const points = plainFront(all);
        const knee = kneeOf(points);
        if (points.length < 3) {
          expect(knee).toBeNull();
          return;
        }
        const a = points[0] as Dot;
        const b = points[points.length - 1] as Dot;
        const above = points.map(
          (p) => (p.fps - a.fps) / (b.fps - a.fps) - (p.minor - a.minor) / (b.minor - a.minor),
        );
        const most = Math.max(...above);
        if (most <= 1e-9) {
          expect(knee).toBeNull();
          return;
        }
        expect(above[knee as number]).toBeCloseTo(most, 9);
      }),
      { numRuns: 400 },
    );
  });

  it('the hull lies on the front with ever smaller steps', () => {
    fc.assert(
      fc.property(cloud, (all) => {
        const points = plainFront(all);
        const hull = upperHull(points).map((i) => points[i] as Dot);
        const per = stepsOf(hull, 1).map((s) => s.per100);
        for (let i = 1; i < per.length; i++)
          expect(per[i] as number).toBeLessThan(per[i - 1] as number);
        for (const p of points) {
          const k = hull.findIndex((h, i) => i > 0 && h.minor >= p.minor);
          if (k < 1) continue;
          const a = hull[k - 1] as Dot;
          const b = hull[k] as Dot;
          expect(p.fps).toBeLessThanOrEqual(
            a.fps + ((b.fps - a.fps) * (p.minor - a.minor)) / (b.minor - a.minor) + 1e-9,
          );
        }
      }),
      { numRuns: 300 },
    );
  });

  it('stops paying at the first step below half the one before', () => {
    // Worked by hand, 1 minor = 1: 20, then 10 (half, not less), then 1.5 frames/s for each 100.
    const points = [
      { minor: 0, fps: 40 },
      { minor: 100, fps: 60 },
      { minor: 200, fps: 70 },
      { minor: 400, fps: 73 },
    ];
    expect(stopsAt(points, 1, 2)).toEqual({ after: 2, next: 3, per100: 1.5 });
    expect(stopsAt(points, 1, 1)).toBeNull();
    expect(stopsAt(points.slice(0, 3), 1, 2)).toBeNull();
  });
});

const band = (mid: number) => ({ lo: mid - 4, mid, hi: mid + 4 });
const way = (
  kind: SpendingOption['kind'],
  netMinor: number | null,
  mid: number | null,
  keeps: SpendingOption['keeps'] = ['target'],
): SpendingOption => ({
  kind,
  name: kind,
  netMinor,
  fps: mid === null ? null : band(mid),
  keeps,
});

describe('worth it', () => {
  it('tells the worked example: the cost of a frame gained decides', () => {
    const w = worthOf(way('set', 60_000, 80), [way('keep', 0, 30), way('desktop', 90_000, 95)]);
    expect(w).toMatchObject({ worth: true, by: 'cost-per-frame' });
    expect(w.set.perFrameMinor).toBe(1200);
    expect(w.rival?.perFrameMinor).toBeCloseTo(1384.6, 1);
  });

  it('is not worth it within the band or with a cheaper equal', () => {
    expect(worthOf(way('set', 60_000, 36), [way('keep', 0, 30)])).toMatchObject({
      worth: false,
      by: 'band',
    });
    const cheaper = way('desktop', 50_000, 90);
    expect(worthOf(way('set', 60_000, 80), [cheaper])).toMatchObject({
      worth: false,
      by: 'as-good-for-less',
    });
    // A desktop is not carried about.
    const carried = worthOf(way('set', 60_000, 80, ['target', 'portable']), [cheaper]);
    expect(carried).toMatchObject({ worth: true, by: 'only-way' });
    expect(worthOf(way('set', null, 80), [cheaper])).toMatchObject({ worth: null, by: 'unknown' });
  });

  it('sharing is cheaper from the least n of hosts, by brute force', () => {
    fc.assert(
      fc.property(
        fc.nat(2000),
        fc.nat(400),
        fc.integer({ min: 1, max: 900 }),
        (onceMinor, eachMinor, other) => {
          const n = breakEvenHosts({ onceMinor, eachMinor }, other);
          const cheaper = (k: number) => onceMinor + k * eachMinor < k * other;
          if (n === null) expect(cheaper(5000)).toBe(false);
          else expect(cheaper(n)).toBe(true);
          if (n !== null && n > 1) expect(cheaper(n - 1)).toBe(false);
        },
      ),
    );
    expect(breakEvenHosts({ onceMinor: 900, eachMinor: 40 }, 700)).toBe(2);
  });
});
