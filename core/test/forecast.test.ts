import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  type Asked,
  calibrate,
  cellsOf,
  forecast,
  type Forecast,
  type FrameParams,
  frameStats,
  frameTerms,
  type RigFacts,
  roughnessOf,
  simulateFrames,
  SMOOTH,
  type TitleModel,
} from '../src/runs';
import { runsOf, seeded, trueMs, WIDE, type LinkKind, type Truth } from './make-cells';

const P: FrameParams = {
  cpuMs: 6,
  cardMs: 7,
  exponent: 0.85,
  trafficMB: 12,
  streamed: 0.3,
  trips: 200,
  kappa: 0.7,
  workingGB: 0,
  touched: 0.02,
};
const RIG = { downGbps: 26, upGbps: 25.3, latencyUs: 2.2, memoryGB: 8 };
const QHD = { pixels: 3686400, panel: false, capFps: null };

describe('frames drawn by chance', () => {
  it('steady frames are the closed form, and a cap holds them', () => {
    const ms = frameTerms(P, RIG, QHD).ms;
    expect([...simulateFrames(P, RIG, QHD, SMOOTH, 50, 1)]).toEqual(
      Array(50).fill(Math.fround(ms)),
    );
    const capped = simulateFrames(P, RIG, { ...QHD, capFps: 30 }, SMOOTH, 5, 1);
    expect([...capped]).toEqual(Array(5).fill(Math.fround(1000 / 30)));
  });

  it('are the same for the same seed and others for another', () => {
    const rough = { jitter: 0.08, burstsPerS: 0.5, burstMB: 100 };
    const draw = (seed: number) => [...simulateFrames(P, RIG, QHD, rough, 400, seed)];
    expect(draw(0.25)).toEqual(draw(0.25));
    expect(draw(0.25)).not.toEqual(draw(0.75));
  });

  it('the mean is the closed form where one stage dominates', () => {
    const one = { ...P, cpuMs: 1, streamed: 0 };
    const frames = simulateFrames(
      one,
      RIG,
      QHD,
      { jitter: 0.1, burstsPerS: 0, burstMB: 0 },
      40_000,
      0.5,
    );
    const mean = frames.reduce((a, b) => a + b, 0) / frames.length;
    // A log-normal of mean 1; the error of the mean of 40 000 is 0.05 %.
    expect(Math.abs(mean / frameTerms(one, RIG, QHD).ms - 1)).toBeLessThan(0.003);
  });

  it('bursts enter the streamed stage, so lows stay with a faster card', () => {
    const rough = { jitter: 0.03, burstsPerS: 2, burstMB: 200 };
    const of = (cardMs: number) =>
      frameStats(
        simulateFrames({ ...P, cpuMs: 2, cardMs, streamed: 0 }, RIG, QHD, rough, 6000, 0.3),
      );
    const slow = of(7);
    const fast = of(4);
    expect(fast.averageFps / slow.averageFps).toBeGreaterThan(1.3);
    expect(fast.low01.at / slow.low01.at).toBeLessThan(1.05);
  });

  it('roughness is read back from what it made', () => {
    const frames = simulateFrames(
      { ...P, cpuMs: 1, trafficMB: 0.01, trips: 0 },
      RIG,
      QHD,
      { jitter: 0.09, burstsPerS: 0, burstMB: 0 },
      8000,
      0.7,
    );
    expect(roughnessOf(frameStats(frames), 26).jitter).toBeCloseTo(0.09, 2);
  });
});

const rigFacts = (card: string, link: LinkKind, more: Partial<RigFacts> = {}): RigFacts => {
  const [run] = runsOf({ card, link, ms: [1] });
  return { ...(run as { rig: RigFacts }).rig, ...more };
};
const ASKED: Asked = {
  pixels: 3686400,
  panel: false,
  capFps: null,
  powerMode: '',
  preset: 'High',
  rayTracing: false,
  look: null,
};
const START_MODEL: TitleModel = {
  id: 't',
  name: 'Title',
  params: { cpuMs: 6, cardMs: 8, trafficMB: 10, workingGB: 4 },
  fit: null,
};
const known = (f: ReturnType<typeof forecast>): Forecast => {
  if ('missing' in f) throw new Error(`missing: ${f.missing.join()}`);
  return f;
};

describe('a forecast from start values', () => {
  const index = (v: number) => ({ lo: v, hi: v });
  it('needs the link and both indices, and names what is missing', () => {
    expect(
      forecast({ ...START_MODEL, params: null }, rigFacts('c', 'tunnel'), ASKED),
    ).toMatchObject({ missing: ['title'] });
    expect(forecast(START_MODEL, rigFacts('c', 'tunnel'), ASKED)).toMatchObject({
      missing: ['host', 'card'],
    });
    expect(forecast(START_MODEL, rigFacts('c', 'tunnel', { down: null }), ASKED)).toMatchObject({
      missing: ['link'],
    });
  });

  it('is the closed form in its middle, and scales with the index', () => {
    const at = (v: number) =>
      known(
        forecast(
          START_MODEL,
          rigFacts('c', 'tunnel', { hostIndex: index(100), cardIndex: index(v) }),
          ASKED,
        ),
      );
    const f = at(100);
    expect(f.basis).toBe('profile');
    expect(f.ms.lo).toBeLessThan(f.ms.mid);
    expect(f.ms.mid).toBeLessThan(f.ms.hi);
    expect(f.fps.mid).toBeCloseTo(1000 / f.ms.mid, 9);
    expect(at(50).terms.card).toBeCloseTo(2 * f.terms.card, 9);
  });

  it('holds every completion of what is not known exactly', () => {
    const range = (lo: number, hi: number) => ({ lo, hi });
    const wide = rigFacts('c', 'tunnel', {
      hostIndex: range(80, 120),
      cardIndex: range(90, 140),
      down: range(16, 26),
      up: range(15, 25),
      memoryGB: range(6, 12),
    });
    const whole = known(forecast(START_MODEL, wide, ASKED));
    const inside = (r: { lo: number; hi: number }) =>
      fc.double({ min: r.lo, max: r.hi, noNaN: true });
    fc.assert(
      fc.property(
        inside(wide.hostIndex!),
        inside(wide.cardIndex!),
        inside(wide.down!),
        inside(wide.up!),
        inside(wide.memoryGB!),
        (h, c, d, u, m) => {
          const one = {
            ...wide,
            hostIndex: index(h),
            cardIndex: index(c),
            down: index(d),
            up: index(u),
            memoryGB: index(m),
          };
          const f = known(forecast(START_MODEL, one, ASKED));
          expect(f.ms.lo).toBeGreaterThanOrEqual(whole.ms.lo - 1e-9);
          expect(f.ms.hi).toBeLessThanOrEqual(whole.ms.hi + 1e-9);
        },
      ),
    );
  });
});

describe('a forecast from a fit', () => {
  const TRUTH: Truth = {
    hosts: { host: 7 },
    cards: { small: 8, big: 4.2 },
    trafficMB: 14,
    exponent: 0.8,
  };
  const runs = (links: readonly LinkKind[], sizes: readonly string[], noise: number, seed = 1) => {
    const random = seeded(seed);
    return cellsOf(
      Object.keys(TRUTH.cards).flatMap((card) =>
        links.flatMap((link) =>
          sizes.flatMap((resolution) => {
            const [w, h] = resolution.split('x').map(Number) as [number, number];
            const ms = trueMs(TRUTH, 'host', card, link, w, h);
            const cardIndex = card === 'big' ? 190 : 100;
            return runsOf({
              card,
              link,
              resolution,
              cardIndex,
              sameProcessor: 'yes',
              ms: [1, 2, 3].map(() => ms * (1 + noise * random.normal())),
            });
          }),
        ),
      ),
    );
  };
  const model = (fit: TitleModel['fit']): TitleModel => ({
    id: 't',
    name: 'Title',
    params: null,
    fit,
  });

  it('predicts a link, resolution and panel never run, within its band', () => {
    let inside = 0;
    let n = 0;
    for (let seed = 1; seed <= 6; seed++) {
      const m = model(calibrate(runs(['slot', 'tunnel'], ['1920x1080', '3840x2160'], 0.015, seed)));
      for (const [card, link, w, h] of [
        ['small', 'direct', 2560, 1440],
        ['big', 'half', 1920, 1080],
        ['big', 'direct', 3840, 2160],
      ] as const) {
        const f = known(forecast(m, rigFacts(card, link), { ...ASKED, pixels: w * h }));
        const truth = trueMs(TRUTH, 'host', card, link, w, h);
        expect(Math.abs(f.ms.mid / truth - 1), `${card} ${link} ${h}`).toBeLessThan(0.06);
        if (f.ms.lo <= truth && truth <= f.ms.hi) inside++;
        n++;
        expect(f.basis).toBe('measured');
      }
    }
    expect(inside / n).toBeGreaterThanOrEqual(0.9);
  });

  it('reaches another card by its index, and none without', () => {
    const m = model(
      calibrate(runs(['slot', 'tunnel'], ['1920x1080', '2560x1440', '3840x2160'], 0)),
    );
    const f = known(
      forecast(m, rigFacts('third', 'tunnel', { cardIndex: { lo: 200, hi: 200 } }), {
        ...ASKED,
        pixels: 8294400,
      }),
    );
    expect(f.basis).toBe('near');
    expect(f.terms.card).toBeCloseTo(((4.2 * 190) / 200) * 4 ** 0.8, 1);
    expect(forecast(m, rigFacts('third', 'tunnel'), ASKED)).toMatchObject({ missing: ['card'] });
    expect(forecast(m, rigFacts('small', 'tunnel'), { ...ASKED, look: 'other' })).toMatchObject({
      missing: ['look'],
    });
  });

  it('is wider for another link when fitted behind one alone', () => {
    const m = model(calibrate(runs(['tunnel'], ['1920x1080', '2560x1440', '3840x2160'], 0.01)));
    const own = known(forecast(m, rigFacts('small', 'tunnel'), { ...ASKED, pixels: 8294400 }));
    const other = known(forecast(m, rigFacts('small', 'half'), { ...ASKED, pixels: 8294400 }));
    const share = (f: Forecast) => (f.ms.hi - f.ms.lo) / f.ms.mid;
    expect(share(own)).toBeLessThan(0.2);
    expect(share(other)).toBeGreaterThan(share(own) + 0.03);
    const truth = trueMs(TRUTH, 'host', 'small', 'half', 3840, 2160);
    expect(other.ms.lo).toBeLessThanOrEqual(truth);
    expect(truth).toBeLessThanOrEqual(other.ms.hi);
    expect(other.assumed).toContain('traffic');
    expect(WIDE.half).toBeLessThan(WIDE.tunnel);
  });

  it('does not use a fit that was refused', () => {
    const fit = calibrate(runs(['tunnel'], ['1920x1080'], 0).slice(0, 1));
    expect(fit?.refused).toBe('too-few');
    expect(forecast(model(fit), rigFacts('small', 'tunnel'), ASKED)).toMatchObject({
      missing: ['title'],
    });
  });
});
