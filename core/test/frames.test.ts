import { deviation, mean, quantileSorted } from 'd3-array';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  below,
  decimateMinMax,
  columns,
  CURVE,
  cutFrames,
  extent,
  findCap,
  frameStats,
  hitches,
  hundredDots,
  KEPT,
  percentileCurve,
  period,
  perSecond,
  sceneStart,
  slowestFrames,
  slowestTime,
  sortedTimes,
  stutters,
} from '../src/runs';
import { makeFrames, makeLog } from './make-frames';

const run = fc
  .array(fc.double({ min: 0.5, max: 250, noNaN: true }), { minLength: 1, maxLength: 600 })
  .map((l) => Float32Array.from(l));
const close = (a: number, b: number) =>
  expect(Math.abs(a - b)).toBeLessThanOrEqual(1e-9 * Math.max(1, Math.abs(b)));

describe('figures of a run', () => {
  it('equal those of d3-array to 1e-9 on the rounded values', () => {
    fc.assert(
      fc.property(run, (frames) => {
        const s = frameStats(frames);
        const values = Array.from(frames);
        const sorted = [...values].sort((a, b) => a - b);
        close(s.meanMs, mean(values) as number);
        close(s.averageFps, (1000 * values.length) / values.reduce((a, b) => a + b, 0));
        close(s.sdMs, values.length > 1 ? (deviation(values) as number) : 0);
        for (const [i, p] of KEPT.entries()) close(s.atMs[i]!, quantileSorted(sorted, p) as number);
        close(s.low1.at, 1000 / (quantileSorted(sorted, 0.99) as number));
        const slowest = [...values]
          .sort((a, b) => b - a)
          .slice(0, Math.max(1, Math.floor(values.length / 100)));
        close(s.low1.frames, 1000 / (mean(slowest) as number));
      }),
    );
  });

  // Arithmetic: 1 + 2 + 3 + 4 = 10 ms for four frames.
  it('average is frames over time, not the mean of rates', () => {
    expect(frameStats(Float32Array.of(1, 2, 3, 4)).averageFps).toBeCloseTo(400, 9);
  });

  // Arithmetic: of 100 frames of 10 ms and 1 of 110 ms the slowest 1 % of frames is the one; of 1110 ms, 1 % of the time is 11.1 ms of it.
  it('keeps the two 1 % lows apart, and the one by time', () => {
    const frames = Float64Array.from([...Array.from({ length: 100 }, () => 10), 110]);
    expect(slowestFrames(frames, 0.01)).toBe(110);
    expect(slowestTime(frames, 0.01, 1110)).toBeCloseTo(110, 9);
    expect(frameStats(Float32Array.from(frames)).low1.at).toBeCloseTo(100, 6);
    // Half the time: all of the long frame and 44.5 of the short ones, 555 ms in 45.5 frames.
    expect(slowestTime(frames, 0.5, 1110)).toBeCloseTo(555 / 45.5, 9);
  });

  it('lows are never faster than the average, in either school', () => {
    fc.assert(
      fc.property(run, (frames) => {
        const s = frameStats(frames);
        for (const low of [s.low1.frames, s.low1.time, s.low01.frames])
          expect(low).toBeLessThanOrEqual(s.averageFps * (1 + 1e-9));
      }),
    );
  });

  it('counts a frame in each second it spans, without the last part', () => {
    expect(perSecond(Float32Array.of(500, 1000, 500, 300))).toEqual([1.5, 1.5]);
    expect(perSecond(Float32Array.of(2500))).toEqual([0.4, 0.4]);
    const s = frameStats(Float32Array.from({ length: 50 }, () => 10));
    expect(s.minSecondFps).toBeNull();
  });

  it('counts frames and seconds below 30 and 60', () => {
    const frames = Float32Array.of(10, 20, 40, 100);
    expect(below(frames, 60)).toEqual({ frames: 3, seconds: 0.16 });
    expect(below(frames, 30)).toEqual({ frames: 2, seconds: 0.14 });
  });

  it('sorts times by their bits as by their values', () => {
    fc.assert(
      fc.property(run, (frames) => void expect(sortedTimes(frames)).toEqual(frames.slice().sort())),
    );
  });

  it('a single frame has figures, too', () => {
    const s = frameStats(Float32Array.of(20));
    expect([s.averageFps, s.low1.at, s.sdMs, s.stutters, s.period, s.cap]).toEqual([
      50,
      50,
      0,
      0,
      null,
      null,
    ]);
  });
});

describe('stutters', () => {
  /** Each frame held against the median of its second, the long way. */
  function slowly(frames: Float32Array): number[] {
    const starts = Array.from(frames, (_, i) => frames.slice(0, i).reduce((a, b) => a + b, 0));
    return Array.from(frames.keys()).filter((i) => {
      const near = Array.from(frames)
        .filter((_, k) => Math.abs(starts[k]! - starts[i]!) <= 500)
        .sort((a, b) => a - b);
      return frames[i]! > 2.5 * near[near.length >> 1]!;
    });
  }
  it('are the same as counted the long way', () => {
    const whole = fc
      .array(fc.constantFrom(8, 9, 10, 11, 30, 60, 120, 400), { minLength: 1, maxLength: 300 })
      .map((l) => Float32Array.from(l));
    fc.assert(
      fc.property(whole, (frames) => void expect(stutters(frames)).toEqual(slowly(frames))),
    );
  });

  it('come back in a period that is found, with its strength', () => {
    const { frames } = makeFrames({
      seed: 7,
      meanMs: 11,
      seconds: 60,
      hitch: { everyS: 3.1, ms: 60 },
    });
    const s = frameStats(frames);
    expect(s.period?.seconds).toBeCloseTo(3.1, 1);
    expect(s.period?.strength).toBeGreaterThan(0.9);
  });

  it('chance has no period: at most 5 of 200 runs say so', () => {
    let said = 0;
    for (let seed = 1; seed <= 200; seed++)
      if (period(makeLog(seed, 40).map((t) => t * 1000))) said++;
    expect(said).toBeLessThanOrEqual(5);
  });

  it('that follow at once are one hitch', () => {
    const frames = Float32Array.from([...Array(50).fill(10), 60, 55, ...Array(50).fill(10), 60]);
    expect(hitches(frames, stutters(frames))).toHaveLength(2);
    expect(period([0, 1, 2])).toBeNull();
  });
});

describe('caps and beginnings', () => {
  it('finds a cap, the usual one or the one that was set', () => {
    const capped = makeFrames({ seed: 3, meanMs: 1000 / 60, seconds: 30, jitter: 0.01 }).frames;
    expect(frameStats(capped).cap?.fps).toBe(60);
    const odd = makeFrames({ seed: 3, meanMs: 1000 / 77, seconds: 30, jitter: 0.01 }).frames;
    expect(frameStats(odd).cap).toBeNull();
    expect(frameStats(odd, 77).cap?.fps).toBe(77);
  });

  it('finds no cap in a run around a usual rate', () => {
    const rates = Array.from({ length: 40 }, (_, i) => 60 + 6 * Math.sin(i));
    expect(findCap(rates, [16, 16, 16], 0.01, null)).toBeNull();
  });

  it('takes a free run near a usual rate for none', () => {
    let said = 0;
    for (let seed = 1; seed <= 100; seed++)
      if (
        frameStats(makeFrames({ seed, meanMs: 1000 / 72.2, seconds: 40, jitter: 0.12 }).frames).cap
      )
        said++;
    expect(said).toBeLessThanOrEqual(5);
  });

  it('sees a cap whose frames come late and early in turn', () => {
    const turns = Float32Array.from({ length: 2400 }, (_, i) => 1000 / 60 + (i % 2 === 0 ? 3 : -3));
    expect(frameStats(turns).cap?.fps).toBe(60);
  });

  it('says how long a run starts otherwise', () => {
    expect(sceneStart([30, 34, 33, ...Array<number>(27).fill(80)])).toBe(3);
    expect(sceneStart(Array<number>(30).fill(80))).toBe(0);
    expect(sceneStart([30, 80])).toBe(0);
    // It runs otherwise for longer than a fifth: that is no beginning.
    expect(sceneStart([...Array<number>(15).fill(30), ...Array<number>(15).fill(80)])).toBe(0);
  });

  it('cuts by time', () => {
    const frames = Float32Array.from({ length: 100 }, () => 100);
    expect(cutFrames(frames, 2, null)).toHaveLength(80);
    expect(cutFrames(frames, 2, 3)).toHaveLength(10);
    expect(cutFrames(frames, 20, null)).toHaveLength(0);
    expect(cutFrames(frames, 0, null)).toHaveLength(100);
  });
});

describe('drawing', () => {
  it('never loses the longest or the shortest frame of any stretch', () => {
    fc.assert(
      fc.property(run, fc.nat(), fc.nat(), (frames, a, b) => {
        const p = decimateMinMax(frames);
        const [from, to] = [a % frames.length, b % frames.length].sort((x, y) => x - y) as [
          number,
          number,
        ];
        const part = Array.from(frames.slice(from, to + 1));
        expect(extent(p, from, to + 1)).toEqual([Math.min(...part), Math.max(...part)]);
      }),
    );
  });

  it('every frame is in a column, whatever the width', () => {
    fc.assert(
      fc.property(run, fc.integer({ min: 1, max: 300 }), (frames, width) => {
        const p = decimateMinMax(frames);
        const drawn = columns(p, 0, p.ends.at(-1)!, width).filter((c) => c !== null);
        expect(Math.max(...drawn.map((c) => c.most))).toBe(Math.max(...frames));
        expect(Math.min(...drawn.map((c) => c.least))).toBe(Math.min(...frames));
        for (const c of drawn) expect(c.median >= c.least && c.median <= c.most).toBe(true);
      }),
    );
  });

  it('a hundred dots and the curve rise and stay within the run', () => {
    const sorted = Float32Array.from({ length: 501 }, (_, i) => 10 + i / 10);
    const dots = hundredDots(sorted);
    expect(dots).toHaveLength(100);
    expect(dots[0]).toBeCloseTo(10.25, 4);
    expect(dots[99]).toBeCloseTo(59.75, 4);
    expect(percentileCurve(sorted)).toHaveLength(CURVE.length);
    expect(percentileCurve(sorted).at(-1)).toBe(60);
  });
});
