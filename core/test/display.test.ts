import { execFileSync } from 'node:child_process';
import { describe, expect, it } from 'vitest';
import { RuleBook } from '../src/base';
import { cvtReduced, DP_GBPS, HDMI_GBPS, pictureFacts, pixelMHz } from '../src/chain';
import { screen, tunnelChain } from './make';

const MODES = [
  [1920, 1080],
  [2560, 1440],
  [3840, 2160],
  [1280, 1024],
  [1920, 1200],
  [3440, 1440],
] as const;

/** Debian's `cvt -r`: clock and totals of the mode line it prints. */
function outside(
  w: number,
  h: number,
  hz: number,
): { mhz: number; horizontal: number; vertical: number } {
  const out = execFileSync('cvt', ['-r', String(w), String(h), String(hz)], { encoding: 'utf8' });
  const f = /Modeline\s+"\S+"\s+([\d.]+)\s+\d+ \d+ \d+ (\d+)\s+\d+ \d+ \d+ (\d+)/.exec(out);
  return { mhz: Number(f?.[1]), horizontal: Number(f?.[2]), vertical: Number(f?.[3]) };
}

describe('PL-09 reduced blanking', () => {
  // Worked examples of the design's table, from memory of VESA CVT 1.1; the last is rounded by the standard's own sheet.
  it.each([
    [1920, 1080, 138.5],
    [2560, 1440, 241.5],
    [3840, 2160, 533.25],
  ])('%i × %i at 60 Hz: %f MHz', (w, h, mhz) => {
    expect(cvtReduced(w, h, 60).pixelMHz).toBeCloseTo(mhz, 6);
  });

  it.each(MODES.flatMap(([w, h]) => [60, 120].map((hz) => [w, h, hz] as const)))(
    "agrees with Debian's cvt -r: %i × %i at %i Hz",
    (w, h, hz) => {
      const ours = cvtReduced(w, h, hz);
      const theirs = outside(w, h, hz);
      expect([ours.horizontalTotal, ours.verticalTotal]).toEqual([
        theirs.horizontal,
        theirs.vertical,
      ]);
      // It rounds the line period before the clock: one step of 0.25 MHz at 60 Hz, two at 120 Hz.
      const apart = Math.abs(ours.pixelMHz - theirs.mhz);
      expect(apart, `ours ${ours.pixelMHz}, cvt ${theirs.mhz} MHz`).toBeLessThanOrEqual(
        0.25 * (hz / 60) + 1e-9,
      );
    },
  );

  it("version 2 blanks less and needs the screen's word", () => {
    expect(cvtReduced(3840, 2160, 60, 2)).toMatchObject({
      horizontalTotal: 3920,
      verticalTotal: 2222,
    });
    expect(cvtReduced(3840, 2160, 60, 2).pixelMHz).toBeLessThan(
      cvtReduced(3840, 2160, 60, 1).pixelMHz,
    );
  });
});

describe('PL-09 what a plug carries', () => {
  const facts = (over: object, card: object, plug: 'hdmi' | 'displayport') => {
    const c = tunnelChain({
      card,
      picture: [{ key: 'a', by: 'card', plug, screen: screen(over) }],
    });
    const rules = new RuleBook({});
    return pictureFacts(c, (id) => rules.get(id))[0]!;
  };
  const uhd = { widthPx: 3840, heightPx: 2160, hz: 60, hdmiLevel: '2.0', dpLevel: 'hbr3' };

  // CTA-861: 2160p60 runs at 594 MHz; 14.26 Gb/s at 24 bit, 17.82 at 30 (from memory).
  it('HDMI takes CTA timing: 2160p60 fits 2.0 at 24 bit only', () => {
    expect(pixelMHz('hdmi', 3840, 2160, 60, 1)).toBe(594);
    const eight = facts({ ...uhd, bits: '24' }, { hdmiLevel: '2.0' }, 'hdmi');
    expect(eight).toMatchObject({ verdict: 'fits', haveGbps: 14.4 });
    expect(eight.needGbps).toBeCloseTo(14.256, 6);
    const ten = facts({ ...uhd, bits: '30' }, { hdmiLevel: '2.0' }, 'hdmi');
    expect(ten.verdict).toBe('too-much');
    expect(ten.needGbps).toBeCloseTo(17.82, 6);
  });

  it('the weaker end decides, and compression is a verdict of its own', () => {
    const fast = { ...uhd, hz: 144, bits: '30' };
    expect(facts(fast, { dpLevel: 'hbr3' }, 'displayport').verdict).toBe('too-much');
    expect(
      facts({ ...fast, compression: 'yes' }, { dpLevel: 'hbr3', compression: 'yes' }, 'displayport')
        .verdict,
    ).toBe('compressed');
    expect(
      facts(
        { ...fast, compression: 'yes' },
        { dpLevel: 'hbr2', compression: 'yes' },
        'displayport',
      ),
    ).toMatchObject({
      verdict: 'too-much',
      weaker: 'out',
    });
  });

  it('unstated values give no verdict and are asked for', () => {
    expect(facts({ hz: null }, { dpLevel: null }, 'displayport')).toMatchObject({
      verdict: null,
      open: ['card/dpLevel', 'picture/a/hz'],
    });
  });

  // 4 lanes × 5.4 Gb/s × 8/10 = 17.28; 4 × 8.1 × 8/10 = 25.92; 3 × 6 × 8/10 = 14.4 (TMDS); encoding arithmetic.
  it('rates after encoding', () => {
    expect([DP_GBPS.hbr, DP_GBPS.hbr2, DP_GBPS.hbr3]).toEqual(
      [2.7, 5.4, 8.1].map((g) => Math.round(4 * g * 80) / 100),
    );
    expect([HDMI_GBPS['1.4'], HDMI_GBPS['2.0']]).toEqual([
      Math.round(3 * 3.4 * 80) / 100,
      Math.round(3 * 6 * 80) / 100,
    ]);
    expect(HDMI_GBPS['frl-48']).toBeCloseTo((48 * 16) / 18, 2);
  });
});
