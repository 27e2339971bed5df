import { describe, expect, it } from 'vitest';
import { frameStats, type MedianFrame, roughnessOf, simulateFrames, SMOOTH } from '../src/runs';

const FRAME: MedianFrame = {
  processorMs: 6,
  cardMs: 9,
  linkMs: 3.5,
  panelMs: 0.5,
  capMs: 0,
  downGbps: 26,
};

describe('frames drawn by chance', () => {
  it('steady frames are the middle one, and a cap holds them', () => {
    expect([...simulateFrames(FRAME, SMOOTH, 50, 0.1)]).toEqual(Array(50).fill(13));
    const capped = simulateFrames({ ...FRAME, capMs: 1000 / 30 }, SMOOTH, 5, 0.1);
    expect([...capped]).toEqual(Array(5).fill(Math.fround(1000 / 30)));
  });

  it('are the same for the same seed and others for another', () => {
    const rough = { jitter: 0.08, burstsPerS: 0.5, burstMB: 100 };
    const draw = (seed: number) => [...simulateFrames(FRAME, rough, 400, seed)];
    expect(draw(0.25)).toEqual(draw(0.25));
    expect(draw(0.25)).not.toEqual(draw(0.75));
  });

  it('the mean is the middle where one stage dominates', () => {
    const rough = { jitter: 0.1, burstsPerS: 0, burstMB: 0 };
    const frames = simulateFrames({ ...FRAME, processorMs: 1 }, rough, 40_000, 0.5);
    const mean = frames.reduce((a, b) => a + b, 0) / frames.length;
    // A log-normal of mean 1; the error of the mean of 40 000 is 0.05 %.
    expect(Math.abs(mean / 13 - 1)).toBeLessThan(0.003);
  });

  it('bursts cross beside drawing, so lows stay with a faster card', () => {
    const rough = { jitter: 0.03, burstsPerS: 2, burstMB: 200 };
    const of = (cardMs: number) =>
      frameStats(simulateFrames({ ...FRAME, processorMs: 2, cardMs }, rough, 6000, 0.3));
    const slow = of(9);
    const fast = of(5);
    expect(fast.averageFps / slow.averageFps).toBeGreaterThan(1.3);
    expect(fast.low01.at / slow.low01.at).toBeLessThan(1.05);
  });

  it('roughness is read back from what it made', () => {
    const rough = { jitter: 0.09, burstsPerS: 0, burstMB: 0 };
    const alone = { ...FRAME, processorMs: 1, linkMs: 0, panelMs: 0 };
    const frames = simulateFrames(alone, rough, 8000, 0.7);
    expect(roughnessOf(frameStats(frames), 26).jitter).toBeCloseTo(0.09, 2);
  });
});
