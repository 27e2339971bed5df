import { describe, expect, it } from 'vitest';
import { cvtReduced, DP_GBPS, HDMI_GBPS, peaks, SUPPLY_PEAKS } from '../src/chain';
import { EFFICIENCY, wallDrawW } from '../src/chain/power/efficiency';
import { align, elasticity } from '../src/runs';
import { card, supply } from './make';

// Values from memory of the documents named; each is written here by hand, apart from the tables of the core.
describe('display links of four lanes', () => {
  // DisplayPort 2.1: 8b/10b up to HBR3; 128b/132b with 0.27 % of overhead for UHBR.
  it.each([
    ['hbr', 2.7 * 4 * 0.8],
    ['hbr2', 5.4 * 4 * 0.8],
    ['hbr3', 8.1 * 4 * 0.8],
    ['uhbr10', 10 * 4 * (128 / 132) * 0.9975],
    ['uhbr13', 13.5 * 4 * (128 / 132) * 0.9975],
    ['uhbr20', 20 * 4 * (128 / 132) * 0.9975],
  ] as const)('%s carries %f Gb/s', (level, gbps) => {
    expect(Math.abs(DP_GBPS[level] - gbps)).toBeLessThan(0.02);
  });

  // HDMI 2.1: TMDS with 8b/10b, fixed rate links with 16b/18b.
  it.each([
    ['1.4', 3.4 * 3 * 0.8],
    ['2.0', 6 * 3 * 0.8],
    ['frl-18', 18 * (16 / 18)],
    ['frl-24', 24 * (16 / 18)],
    ['frl-32', 32 * (16 / 18)],
    ['frl-40', 40 * (16 / 18)],
    ['frl-48', 48 * (16 / 18)],
  ] as const)('%s carries %f Gb/s', (level, gbps) => {
    expect(Math.abs(HDMI_GBPS[level] - gbps)).toBeLessThan(0.05);
  });
});

describe('reduced blanking, version 1', () => {
  // VESA Display Monitor Timing 1.13, modes marked "reduced blanking" that CVT makes, at 60 Hz: MHz and totals.
  it.each([
    [1280, 768, 68.25, 1440, 790],
    [1280, 800, 71, 1440, 823],
    [1400, 1050, 101, 1560, 1080],
    [1440, 900, 88.75, 1600, 926],
    [1680, 1050, 119, 1840, 1080],
    [1920, 1200, 154, 2080, 1235],
    [2560, 1600, 268.5, 2720, 1646],
  ])('%i x %i: %f MHz', (width, height, mhz, horizontal, vertical) => {
    expect(cvtReduced(width, height, 60)).toEqual({
      pixelMHz: mhz,
      horizontalTotal: horizontal,
      verticalTotal: vertical,
    });
  });

  // CVT 1.1, section 5.4: rate times totals, rounded down to 0.25 MHz; a width is rounded down to a multiple of 8. Debian's cvt divides
  // by a line period it rounded before, and rounds 1366 up, so it prints one step less or more: 63.75, 90.75 and 72.25 MHz.
  it.each([
    [1280, 720, 64, 1440, 741],
    [1280, 1024, 91, 1440, 1054],
    [1366, 768, 72, 1520, 790],
  ])('%i x %i: %f MHz', (width, height, mhz, horizontal, vertical) => {
    expect((60 * horizontal * vertical) / 1e6 - mhz).toBeGreaterThanOrEqual(0);
    expect((60 * horizontal * vertical) / 1e6 - mhz).toBeLessThan(0.25);
    expect(cvtReduced(width, height, 60).pixelMHz).toBe(mhz);
  });
});

describe('80 PLUS', () => {
  // The tables of the programme: 115 V internal and 230 V EU internal, % at 20, 50 and 100 % of the rating.
  it('has the least efficiency of each mark', () => {
    expect(EFFICIENCY).toEqual({
      115: {
        white: [80, 80, 80],
        bronze: [82, 85, 82],
        silver: [85, 88, 85],
        gold: [87, 90, 87],
        platinum: [90, 92, 89],
        titanium: [92, 94, 90],
      },
      230: {
        white: [82, 85, 82],
        bronze: [85, 88, 85],
        silver: [87, 90, 87],
        gold: [90, 92, 89],
        platinum: [92, 94, 90],
        titanium: [94, 96, 94],
      },
    });
  });

  it.each([115, 230] as const)('Titanium at %i V keeps 90 %% at a tenth', (mains) => {
    expect(wallDrawW(60, 600, 'titanium', mains)).toBeCloseTo(60 / 0.9, 6);
    // Below it the watts lost stay: 6.67 of 66.67.
    expect(wallDrawW(30, 600, 'titanium', mains)).toBeCloseTo(30 + 60 / 0.9 - 60, 6);
    expect(wallDrawW(90, 600, 'titanium', 230)).toBeCloseTo(90 / 0.92, 6);
  });
});

describe('peaks of a supply', () => {
  const w = (n: number) => ({ lo: n, hi: n });
  const has = (watts: number) =>
    peaks(card({ plugs8Pin: 2 }), w(300), w(20), supply({ supplyStandard: 'atx3' }), w(watts)).map(
      (p) => p.have.lo / watts,
    );

  // ATX 3.0 design guide, power excursions above 450 W: 200, 180, 160 and 120 % for 0.1, 1, 10 and 100 ms.
  it('ATX 3 above 450 W bears peaks, 450 W does not promise', () => {
    expect(SUPPLY_PEAKS.atx3).toEqual([2, 1.8, 1.6, 1.2]);
    expect(has(451).map((x) => Math.round(x * 100) / 100)).toEqual([2, 1.8, 1.6, 1.2]);
    expect(has(450).map((x) => Math.round(x * 100) / 100)).toEqual([1.3, 1.3, 1.3, 1.1]);
  });
});

describe('frames', () => {
  // sqrt(1/1 + 1/4) * 0.01 / ln 1.05.
  it('unequal repeats: each side counts with its own number', () => {
    const e = elasticity(
      { speeds: [100], clock: 2000 },
      { speeds: [105, 105, 105, 105], clock: 2100 },
      0.01,
    );
    expect(e.sd).toBeCloseTo((0.01 * Math.sqrt(1 + 1 / 4)) / Math.log(1.05), 9);
  });

  it('a log that begins after its frames moves by less', () => {
    // Frames of 10 ms for 30 s, then of 20 ms; the sensor falls at 20 s of its own clock, which begins at 3 s.
    const frames = Float32Array.from([...Array(3000).fill(10), ...Array(1500).fill(20)]);
    const lane = {
      sensor: 'card-w' as const,
      dtMs: 1000,
      values: Float32Array.from({ length: 50 }, (_, i) => (i < 20 ? 200 : 120) + (i % 3)),
    };
    expect(align(frames, { ...lane, t0Ms: 0 })?.offsetMs).toBe(10_000);
    expect(align(frames, { ...lane, t0Ms: 3000 })?.offsetMs).toBe(7000);
  });
});
