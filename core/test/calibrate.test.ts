import { describe, expect, it } from 'vitest';
import { calibrate, cellsOf, type Fit, fitCell, leastSquares, searchLayouts } from '../src/runs';
import { fromFit } from '../src/runs/model/from-fit';
import { rigOf, runsOf, seeded, trueMs, type LinkKind, type Truth } from './make-cells';

const SIZES = [
  [1920, 1080],
  [2560, 1440],
  [3840, 2160],
] as const;
const TRUTH: Truth = {
  hosts: { left: 7, right: 9.5 },
  cards: { small: 8, big: 4.2 },
  trafficMB: 14,
  exponent: 0.8,
};

interface Make {
  seed?: number;
  noise?: number;
  links?: readonly LinkKind[];
  sizes?: readonly (readonly [number, number])[];
  ms?: (host: string, card: string, link: LinkKind, w: number, h: number) => number;
}
function made(
  t: Truth,
  { seed = 1, noise = 0, links = ['slot', 'direct', 'tunnel'], sizes = SIZES, ms }: Make = {},
) {
  const random = seeded(seed);
  const time = ms ?? ((host, card, link, w, h) => trueMs(t, host, card, link, w, h));
  const runs = Object.keys(t.hosts).flatMap((host) =>
    Object.keys(t.cards).flatMap((card) =>
      links.flatMap((link) =>
        sizes.flatMap(([w, h]) =>
          runsOf({
            host,
            card,
            link,
            resolution: `${w}x${h}`,
            sameProcessor: 'yes',
            ms: Array.from(
              { length: 3 },
              () => time(host, card, link, w, h) * (1 + noise * random.normal()),
            ),
          }),
        ),
      ),
    ),
  );
  return cellsOf(runs);
}
const term = (f: Fit | null, kind: string, of = '') =>
  f?.terms.find((t) => t.kind === kind && t.of === of);
const reference = (f: Fit | null, card: string) => {
  const c = f?.main.cards[card];
  return c ? c.mid * (2073600 / c.atPixels) ** (f?.main.exponent ?? 0) : NaN;
};

/** The traffic that a forecast gets from a calibration: what overlaps with drawing, and what waits. */
function handedOn(fit: Fit) {
  const asked = { pixels: 1920 * 1080, panel: false, capFps: null, powerMode: '', preset: '' };
  const ready = fromFit(fit, 0, rigOf('left', 'small'), {
    ...asked,
    rayTracing: false,
    look: null,
  });
  if (Array.isArray(ready)) throw new Error(`missing: ${ready.join()}`);
  const { trafficMB, streamed } = ready.main;
  return { streamedMB: trafficMB * streamed, waitingMB: trafficMB * (1 - streamed) };
}

describe('least squares by the library', () => {
  it('solves a worked example and refuses columns that depend on one another', () => {
    // Worked by hand: y = 1 + 2x through (0, 1), (1, 3), (2, 5).
    const s = leastSquares(
      [
        [1, 0],
        [1, 1],
        [1, 2],
      ],
      [1, 3, 5],
    );
    expect(s.x?.[0]).toBeCloseTo(1, 9);
    expect(s.x?.[1]).toBeCloseTo(2, 9);
    const double = [
      [1, 2],
      [2, 4],
      [3, 6],
    ];
    expect(leastSquares(double, [1, 2, 3])).toEqual({ x: null, why: 'rank' });
  });

  it('gives the intervals of a worked example of simple regression', () => {
    // Anscombe, The American Statistician 27 (1973), first set: slope 0.5001, standard error 0.1179, intercept 3.0001 (from memory).
    const x = [10, 8, 13, 9, 11, 14, 6, 4, 12, 7, 5];
    const y = [8.04, 6.95, 7.58, 8.81, 8.33, 9.96, 7.24, 4.26, 10.84, 4.82, 5.68];
    const s = leastSquares(
      x.map((v) => [1, v]),
      y,
    );
    if (s.x === null) throw new Error(s.why);
    expect(s.x[0]).toBeCloseTo(3.0001, 3);
    expect(s.x[1]).toBeCloseTo(0.5001, 3);
    expect(Math.sqrt((s.sse / 9) * (s.inverse[1]?.[1] ?? 0))).toBeCloseTo(0.1179, 3);
  });
});

describe('calibration', () => {
  it('finds a truth without noise to the third digit', () => {
    const f = calibrate(made(TRUTH));
    expect(f?.refused).toBeNull();
    expect(term(f, 'traffic')?.value).toBeCloseTo(14, 1);
    expect(term(f, 'host', 'left')?.value).toBeCloseTo(7, 2);
    expect(term(f, 'exponent')?.value).toBeCloseTo(0.8, 2);
    expect(reference(f, 'big')).toBeCloseTo(4.2, 2);
  });

  it('recovers the truth within 5 % at 2 % noise', () => {
    let inside = 0;
    let n = 0;
    for (let seed = 1; seed <= 8; seed++) {
      const f = calibrate(made(TRUTH, { seed, noise: 0.02 }));
      const found = {
        traffic: term(f, 'traffic'),
        left: term(f, 'host', 'left'),
        right: term(f, 'host', 'right'),
      };
      const truth = { traffic: 14, left: 7, right: 9.5 };
      for (const [k, t] of Object.entries(found)) {
        const value = truth[k as keyof typeof truth];
        expect(Math.abs((t?.value ?? 0) / value - 1), `${k} of seed ${seed}`).toBeLessThan(0.05);
        n++;
        if ((t?.lo ?? value) <= value && (t?.hi ?? value) >= value) inside++;
      }
      expect(Math.abs(reference(f, 'small') / 8 - 1)).toBeLessThan(0.05);
      expect(f?.left.rms).toBeLessThan(f?.left.constantRms ?? 0);
    }
    // 95 of 100; of 24 more than four outside come in 2 of 100 such tests, and these seeds are fixed.
    expect(n - inside).toBeLessThanOrEqual(4);
  });

  it('comes to the same from each of its three starts', () => {
    const cells = made(TRUTH, { seed: 3, noise: 0.02 }).flatMap((c) => fitCell(c) ?? []);
    const held = { trafficMB: null, trips: 0, exponent: null };
    const best = [0, 1, 0.5].map(
      (start) =>
        searchLayouts(cells, held, undefined, [start])[0]?.solution.values.trafficMB ?? NaN,
    );
    for (const b of best) expect(Math.abs(b / 14 - 1)).toBeLessThan(0.05);
  });

  it('does not tell traffic from stages behind one link', () => {
    const f = calibrate(made(TRUTH, { links: ['tunnel'] }));
    expect(term(f, 'traffic')?.state).toBe('inseparable');
    expect(f?.refused).toBeNull();
    expect(
      Math.max(...(f?.residuals ?? []).map((r) => Math.abs(r.fittedMs / r.ms - 1))),
    ).toBeLessThan(0.02);
    const traffics = new Set(f?.others.map((o) => o.trafficMB));
    expect(traffics.size).toBeGreaterThan(1);
  });

  it('finds the streamed share only with two cards behind one link', () => {
    // 26 Gb/s: 18 MB streamed take 5.5 ms and hold both cards at the lowest size; behind a slot nothing does.
    const t: Truth = {
      hosts: { left: 3.2 },
      cards: { small: 4.6, big: 3.4 },
      trafficMB: 4,
      exponent: 0.8,
    };
    const ms = (host: string, card: string, link: LinkKind, w: number, h: number) => {
      const bare = trueMs({ ...t, trafficMB: 0 }, host, card, link, w, h);
      const rate = { slot: 252, direct: 57.3, tunnel: 26, half: 16 }[link];
      return Math.max(bare, (18 * 8) / rate) + (4 * 8) / rate;
    };
    const f = calibrate(made(t, { ms, sizes: [[1280, 720], ...SIZES] }));
    expect(f?.main.streamedMB).toBeGreaterThan(16);
    expect(f?.main.streamedMB).toBeLessThan(20);
    expect(handedOn(f as Fit)).toEqual({
      streamedMB: expect.closeTo(f?.main.streamedMB ?? 0, 6) as number,
      waitingMB: expect.closeTo(f?.main.trafficMB ?? 0, 6) as number,
    });
    expect(calibrate(made({ ...t, cards: { small: 4.6 } }, { ms }))?.main.streamedMB).toBe(0);
  });

  it('is refused when one constant predicts better, or cells are few', () => {
    // A toll that is the same on every link, and runs of other titles' scatter: traffic cannot be what it is.
    const flat = made(TRUTH, {
      links: ['slot', 'direct', 'tunnel', 'half'],
      ms: (host, card, link, w, h) =>
        trueMs({ ...TRUTH, trafficMB: 0 }, host, card, 'slot', w, h) + (link === 'slot' ? 0 : 5),
    });
    expect(calibrate(flat)?.refused).toBe('worse-than-constant');
    expect(
      calibrate(made(TRUTH, { links: ['tunnel'], sizes: [SIZES[0]] }).slice(0, 2))?.refused,
    ).toBe('too-few');
  });

  it('takes the look of most cells and leaves out limited ones', () => {
    const cells = made(TRUTH);
    const odd = cellsOf(runsOf({ host: 'left', card: 'small', preset: 'Low', ms: [4, 4.1] }));
    expect(calibrate([...cells, ...odd])?.cells).toBe(cells.length);
    const first = cells[0];
    if (!first) throw new Error('no cells');
    expect(fitCell({ ...first, capped: true })).toBeNull();
    expect(fitCell({ ...first, generated: true })).toBeNull();
  });
});
