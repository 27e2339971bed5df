import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { mean } from '../src/base';
import {
  absoluteFactor,
  cellsOf,
  type FrameParams,
  frameTerms,
  pairsOf,
  pictureMB,
  pixelsOf,
  readBack,
  readToll,
  scoreOf,
  tollsOf,
} from '../src/runs';
import { cellOf, runsOf, seeded, WIDE } from './make-cells';

const P: FrameParams = {
  cpuMs: 6,
  cardMs: 7,
  exponent: 0.85,
  trafficMB: 25,
  streamed: 0,
  trips: 0,
  kappa: 0.7,
  workingGB: 0,
  touched: 0.02,
};
const RIG = { downGbps: 26, upGbps: 25.3, latencyUs: 2.2, memoryGB: null };
const FHD = { pixels: 2073600, panel: false, capFps: null };
const pairs = (...cells: Parameters<typeof pairsOf>[0][number][]) => pairsOf(cells).pairs;

describe('what the trade measures (common practice, no published source)', () => {
  const RATES = [
    ['1920x1080', 166, 73, 7.67],
    ['2560x1440', 132, 64, 8.05],
    ['3840x2160', 80, 49, 7.91],
  ] as const;
  const cells = RATES.flatMap(([resolution, slot, link]) => [
    cellOf({ resolution, link: 'slot', sameProcessor: 'yes', ms: [1000 / slot] }),
    cellOf({ resolution, link: 'tunnel', ms: [1000 / link] }),
  ]);

  it('is nearly one time at every resolution: 7.67, 8.05, 7.91 ms', () => {
    const found = pairs(...cells).filter((p) => p.kind === 'slot');
    expect(found.map((p) => p.difference.mid)).toHaveLength(3);
    found.forEach((p, i) => expect(p.difference.mid).toBeCloseTo(RATES[i]?.[3] ?? 0, 1));
  });

  it('predicts the other resolutions from the first within 5 %', () => {
    const toll = 1000 / 73 - 1000 / 166;
    for (const [, slot, link] of RATES)
      expect(Math.abs(1000 / (1000 / slot + toll) / link - 1)).toBeLessThan(0.05);
    const read = readToll(pairs(...cells));
    for (const r of read?.rest ?? [])
      expect(Math.abs(r.predictedMs / r.measuredMs - 1)).toBeLessThan(0.05);
    expect(read?.rest).toHaveLength(3);
  });

  it('panel against outside at 1080p is 2.1 ms, share 0.81', () => {
    const p = pairs(cellOf({ ms: [1000 / 116] }), cellOf({ panel: true, ms: [1000 / 93] }));
    const back = readBack(p);
    expect(back?.mid).toBeCloseTo(2.13, 2);
    expect(pictureMB(2073600)).toBeCloseTo(8.29, 2);
    expect(((back?.mid ?? 0) * RIG.upGbps) / 8 / pictureMB(2073600)).toBeCloseTo(0.81, 2);
    const model = frameTerms({ ...P, kappa: 0.81 }, RIG, { ...FHD, panel: true });
    expect(model.back).toBeCloseTo(2.12, 2);
  });

  it('direct Gen4 ×4 against 40 Gb/s is about 7 MB a frame', () => {
    const a = cellOf({ link: 'direct', ms: [1000 / 127] });
    const b = cellOf({ link: 'tunnel', ms: [1000 / 110] });
    const read = readToll(pairs(a, b));
    expect(read?.basis).toBe('links');
    expect(read?.trafficMB).toBeGreaterThan(6.5);
    expect(read?.trafficMB).toBeLessThan(7.6);
    // Arithmetic: the difference is B * 8 * (1/26 - 1/57.3).
    expect(read?.trafficMB).toBeCloseTo(
      (1000 / 110 - 1000 / 127) / 8 / (1 / WIDE.tunnel - 1 / WIDE.direct),
      6,
    );
  });

  it('dilutes upgrades behind 7.7 ms: 12 % and 28 % (arithmetic)', () => {
    const frames = (draw: number) =>
      1000 / frameTerms({ ...P, cpuMs: 0, cardMs: draw, trafficMB: (7.7 * 26) / 8 }, RIG, FHD).ms;
    const gain = (draw: number, by: number) => (frames(draw / by) / frames(draw) - 1) * 100;
    const at = [6, 8.5, 12.5, 20, 25];
    const small = [4.9, 6.0, 7.1, 8.4, 8.9];
    const big = [10.6, 13.0, 15.7, 18.8, 20.1];
    at.forEach((ms, i) => expect(gain(ms, 1.12)).toBeCloseTo(small[i] ?? 0, 0));
    at.forEach((ms, i) => expect(Math.abs(gain(ms, 1.12) - (small[i] ?? 0))).toBeLessThan(0.06));
    at.forEach((ms, i) => expect(Math.abs(gain(ms, 1.28) - (big[i] ?? 0))).toBeLessThan(0.06));
  });
});

describe('one frame', () => {
  it("is never less than a cap's period, and names it", () => {
    expect(frameTerms(P, RIG, { ...FHD, capFps: 30 })).toMatchObject({
      ms: 1000 / 30,
      regime: 'capped',
    });
    expect(frameTerms(P, RIG, FHD).regime).toBe('toll');
    const streamed = frameTerms({ ...P, streamed: 1, trafficMB: 60 }, RIG, FHD);
    expect(streamed.regime).toBe('saturated');
    // Flat whatever the card.
    expect(frameTerms({ ...P, streamed: 1, trafficMB: 60, cardMs: 3 }, RIG, FHD).ms).toBe(
      streamed.ms,
    );
  });

  it('pays for memory overflow, more at higher resolutions', () => {
    const big = { ...P, workingGB: 9 };
    const at = (pixels: number, memoryGB: number) =>
      frameTerms(big, { ...RIG, memoryGB }, { ...FHD, pixels }).overflow;
    expect(at(2073600, 16)).toBe(0);
    // 9 GB in 0.9 * 8 GB: 1.8 GB over, of which 2 % are touched: 36 MB at 26 Gb/s.
    expect(at(2073600, 8)).toBeCloseTo((36 * 8) / 26, 6);
    expect(at(8294400, 8)).toBeGreaterThan(at(2073600, 8));
  });

  it('never gets faster by a slower link, more traffic or more pixels', () => {
    const pos = (max: number) => fc.double({ min: 0.01, max, noNaN: true });
    fc.assert(
      fc.property(
        pos(40),
        pos(40),
        pos(60),
        pos(60),
        fc.double({ min: 0, max: 1, noNaN: true }),
        pos(3),
        (cpuMs, cardMs, trafficMB, down, streamed, by) => {
          const p = { ...P, cpuMs, cardMs, trafficMB, streamed };
          const rig = { ...RIG, downGbps: down };
          const now = frameTerms(p, rig, FHD).ms;
          expect(
            frameTerms(p, { ...rig, downGbps: down / (1 + by) }, FHD).ms,
          ).toBeGreaterThanOrEqual(now - 1e-9);
          expect(
            frameTerms({ ...p, trafficMB: trafficMB * (1 + by) }, rig, FHD).ms,
          ).toBeGreaterThanOrEqual(now - 1e-9);
          expect(
            frameTerms(p, rig, { ...FHD, pixels: FHD.pixels * (1 + by) }).ms,
          ).toBeGreaterThanOrEqual(now - 1e-9);
        },
      ),
    );
  });

  it('reads pixels of a resolution, and nothing of what is none', () => {
    expect(pixelsOf('2560x1440')).toBe(3686400);
    expect(pixelsOf('')).toBeNull();
  });
});

describe('pairs that measure, and those that do not', () => {
  it('internal against outside graphics is no pair, nor limited runs', () => {
    const inside = cellOf({ deviceSet: 'inside', ms: [30] });
    const outside = cellOf({ ms: [12] });
    expect(pairsOf([inside, outside]).pairs).toEqual([]);
    expect(pairsOf([inside, outside]).not[0]?.why).toBe('inside');
    const slot = { ...cellOf({ link: 'slot', ms: [16.67] }), capped: true };
    expect(pairsOf([slot, outside]).not[0]?.why).toBe('capped');
  });

  it('other presets, cards and titles are never held against one another', () => {
    const a = cellOf({ link: 'slot', ms: [8] });
    for (const other of [
      { preset: 'Low' },
      { card: 'other' },
      { title: 'Other' },
      { resolution: '2560x1440' },
    ])
      expect(pairsOf([a, cellOf({ ...other, ms: [12] })])).toEqual({ pairs: [], not: [] });
  });

  it('overhead against a slot is a difference: the slot pays too', () => {
    expect(absoluteFactor(26, 252)).toBeCloseTo(1 / (1 - 26 / 252), 9);
    const toll = (14 * 8) / 26;
    const read = readToll(
      pairs(
        cellOf({ link: 'slot', sameProcessor: 'yes', ms: [8 + (14 * 8) / 252] }),
        cellOf({ ms: [8 + toll] }),
      ),
    );
    expect(read?.mid).toBeCloseTo(toll, 6);
    expect(read?.trafficMB).toBeCloseTo(14, 6);
    expect(read?.lo).toBeNull();
  });

  it('has an interval that holds the truth 95 times in 100', () => {
    const random = seeded(5);
    const noisy = (ms: number) =>
      Array.from({ length: 4 }, () => ms * (1 + 0.015 * random.normal()));
    const truth = (10 * 8) / 26;
    let held = 0;
    for (let i = 0; i < 200; i++) {
      const a = cellOf({ link: 'slot', sameProcessor: 'yes', ms: noisy(9 + (10 * 8) / 252) });
      const read = readToll(pairs(a, cellOf({ ms: noisy(9 + truth) })));
      if (read && (read.lo ?? Infinity) <= truth && truth <= (read.hi ?? -Infinity)) held++;
    }
    // 190 expected; fewer than 180 or more than 199 would come by chance in fewer than 2 of 1000.
    expect(held).toBeGreaterThanOrEqual(180);
  });

  it('another processor: the highest card-bound resolution shows the link', () => {
    const toll = (12 * 8) / 26;
    const sweep = (cpu: number, link: 'slot' | 'tunnel') =>
      ['1920x1080', '2560x1440', '3840x2160'].map((resolution) => {
        const draw = 5 * ((pixelsOf(resolution) ?? 0) / 2073600) ** 0.85;
        const ms = Math.max(cpu, draw) + (12 * 8) / WIDE[link];
        return cellOf({ resolution, link, sameProcessor: 'no', ms: [ms * 0.999, ms, ms * 1.001] });
      });
    const read = readToll(
      pairs(...sweep(4, 'slot'), ...sweep(9, 'tunnel')).filter((p) => p.kind === 'slot'),
    );
    expect(read?.basis).toBe('highest');
    expect(read?.mid).toBeCloseTo(toll, 2);
    // The slower processor takes 9 - 5 ms more at the lowest resolution, grown by the same factor as the toll.
    expect(read?.hostMs?.mid).toBeCloseTo(4 * absoluteFactor(26, 252), 1);
  });

  it('another processor without a sweep is an interval, never a figure', () => {
    const a = cellOf({ link: 'slot', sameProcessor: 'no', ms: [8, 8.1] });
    const read = readToll(pairs(a, cellOf({ ms: [12, 12.1] })));
    expect(read).toMatchObject({ basis: 'interval', lo: 0, beyondTraffic: false });
    expect(read?.inseparable).toContain('link-processor');
    expect(read?.hi).toBeGreaterThan(4);
  });

  it('says when traffic cannot explain a link overhead, or resolutions differ', () => {
    const of = (resolution: string, slot: number, link: number) => [
      cellOf({
        resolution,
        link: 'slot',
        sameProcessor: 'yes',
        ms: [slot * 0.999, slot, slot * 1.001],
      }),
      cellOf({ resolution, ms: [link * 0.999, link, link * 1.001] }),
    ];
    expect(readToll(pairs(...of('1920x1080', 6, 24)))?.beyondTraffic).toBe(true);
    expect(readToll(pairs(...of('1920x1080', 6, 12), ...of('2560x1440', 9, 15)))?.uneven).toBe(
      false,
    );
    expect(readToll(pairs(...of('1920x1080', 6, 12), ...of('2560x1440', 9, 21)))?.uneven).toBe(
      true,
    );
  });

  it("tells the faster link's overhead, and never averages over titles", () => {
    const cells = ['Title', 'Other'].flatMap((title, i) => [
      cellOf({ title, link: 'direct', setupId: 'fast', ms: [8 + (7 * (i + 1) * 8) / 57.3] }),
      cellOf({ title, link: 'tunnel', setupId: 'slow', ms: [8 + (7 * (i + 1) * 8) / 26] }),
    ]);
    const all = pairsOf(cells).pairs;
    const [slow, fast] = ['slow', 'fast'].map((id) => tollsOf(all, id));
    expect(slow?.map((t) => t.trafficMB)).toEqual([expect.closeTo(7, 6), expect.closeTo(14, 6)]);
    expect(fast?.map((t) => t.mid)).toEqual([
      expect.closeTo(56 / 57.3, 6),
      expect.closeTo(112 / 57.3, 6),
    ]);
  });

  it('takes repeats together and what has no frame time not at all', () => {
    const runs = [...runsOf({ ms: [10, 11, 12] }), ...runsOf({ preset: 'Low', ms: [7] })];
    const none = { ...(runs[0] as (typeof runs)[number]), kind: 'none' as const, result: null };
    const cells = cellsOf([...runs, none]);
    expect(cells.map((c) => c.ms.length)).toEqual([3, 1]);
    expect(mean(cells[0]?.ms ?? [])).toBeCloseTo(11, 9);
  });
});

describe('how well predictions held', () => {
  it('counts those within 5 % and those inside their band', () => {
    const one = (mid: number, measured: number) => ({
      predicted: { mid, lo: mid - 2, hi: mid + 2 },
      measured,
    });
    expect(scoreOf([one(61, 60.2), one(100, 90), one(50, 48.5)])).toMatchObject({
      n: 3,
      within: 2,
      inBand: 2,
    });
    expect(scoreOf([])).toEqual({ n: 0, within: 0, inBand: 0, bias: null });
  });
});
