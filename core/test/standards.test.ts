import { describe, expect, it } from 'vitest';
import { RULES } from '../src/base';
import { lane, pcieRawGbps, trainedWidth, transportGbps, usableGbps } from '../src/chain';

const packet = (n: number) => ({
  payload: { down: n, up: n },
  header: { down: 20, up: 24 },
  headerTunnel: 4,
  allowancePercent: 2,
});

describe('PL-05 rates of the standards', () => {
  // Source: PCI Express Base Specification: transfer rates 2.5, 5, 8, 16, 32 GT/s; 8b/10b for the
  // first two generations, 128b/130b for the next three.
  it.each([
    [1, 1, 2.0],
    [2, 4, 16.0],
    [3, 1, 7.877],
    [3, 4, 31.508],
    [4, 4, 63.015],
    [4, 8, 126.031],
    [3, 16, 126.031],
    [5, 4, 126.031],
  ])('PCIe Gen%i ×%i carries %f Gb/s raw', (gen, lanes, gbps) => {
    expect(pcieRawGbps(gen, lanes)).toBeCloseTo(gbps, 2);
  });

  it('Gen3 ×4 is 3.94 GB/s and Gen3 ×1 is 0.985 GB/s', () => {
    expect(pcieRawGbps(3, 4) / 8).toBeCloseTo(3.94, 2);
    expect(pcieRawGbps(3, 1) / 8).toBeCloseTo(0.985, 3);
  });

  it('trains to the widest width that is wired', () => {
    expect([1, 2, 3, 4, 6, 8, 15, 16].map(trainedWidth)).toEqual([1, 2, 2, 4, 4, 8, 8, 16]);
  });

  it('refuses a generation that is not in the table', () => {
    expect(() => lane(9)).toThrow(/generation 9/);
  });

  // Source: USB4 Specification: Gen 2 10 Gb/s with 64b/66b, Gen 3 20 Gb/s with 128b/132b, two lanes.
  it.each([
    ['usb4-20', 19.39],
    ['usb4-40', 38.79],
    ['thunderbolt-4', 38.79],
    ['usb-c', 0],
  ] as const)('%s transports %f Gb/s each way', (standard, gbps) => {
    expect(transportGbps(standard)).toBeCloseTo(gbps, 2);
  });

  // Arithmetic over header sizes from memory of the PCI Express Base Specification, worked by hand.
  it.each([
    ['Gen3 ×4', 3, 4, 128, '26.7/26.0'],
    ['Gen3 ×2', 3, 2, 128, '13.4/13.0'],
    ['Gen3 ×1', 3, 1, 128, '6.7/6.5'],
    ['Gen4 ×4', 4, 4, 128, '53.4/52.0'],
    ['Gen4 ×4', 4, 4, 256, '57.3/56.5'],
  ])('%s direct at payload %#: usable down and up', (_name, gen, lanes, payload, both) => {
    const p = packet(payload);
    const raw = pcieRawGbps(gen, lanes);
    expect(
      `${usableGbps(raw, 'down', 0, p).toFixed(1)}/${usableGbps(raw, 'up', 0, p).toFixed(1)}`,
    ).toBe(both);
  });

  it('every house rule has unit, reason, source and default in limits', () => {
    for (const [id, r] of Object.entries(RULES)) {
      expect(r.reason, id).not.toBe('');
      expect(r.source, id).not.toBe('');
      expect(r.default, id).toBeGreaterThanOrEqual(r.min);
      expect(r.default, id).toBeLessThanOrEqual(r.max);
    }
  });
});
