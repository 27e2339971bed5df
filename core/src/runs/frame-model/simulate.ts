import { randomExponential, randomLcg, randomNormal } from 'd3-random';
import type { FrameStats } from '../statistics/summary';
import { MS_OF_MB_AT_GBPS } from './frame-time';
import type { MedianFrame } from './median-frame';

/** How unevenly a title runs. All 0: every frame is the same. */
export interface Roughness {
  /** Scatter of each stage from frame to frame, as a share. */
  readonly jitter: number;
  /** Bursts of assets a second, and what each sends, MB. */
  readonly burstsPerS: number;
  readonly burstMB: number;
}
export const SMOOTH: Roughness = { jitter: 0, burstsPerS: 0, burstMB: 0 };

/**
 * Frames drawn by chance from a seed: every stage scatters log-normally about its own time, and bursts of assets come like Poisson events.
 * A burst crosses the link beside drawing, so that slow frames can stay where they are while the average grows.
 * @param frame stages of the frame in the middle
 * @param rough how unevenly the title runs
 * @param n how many frames
 * @param seed 0 to 1; the same seed gives the same frames
 * @returns ms of each frame; without roughness each is exactly the frame in the middle
 */
export function simulateFrames(
  frame: MedianFrame,
  rough: Roughness,
  n: number,
  seed: number,
): Float32Array {
  const source = randomLcg(seed);
  const { jitter } = rough;
  // A log-normal of mean 1.
  const normal = randomNormal.source(source)(0, jitter);
  const gap =
    rough.burstsPerS > 0 ? randomExponential.source(source)(rough.burstsPerS / 1000) : null;
  const burstMs = (rough.burstMB * MS_OF_MB_AT_GBPS) / frame.downGbps;
  const lower = (jitter * jitter) / 2;
  const scatter = () => (jitter > 0 ? Math.exp(normal() - lower) : 1);
  const out = new Float32Array(n);
  let at = 0;
  let due = gap ? gap() : Infinity;
  for (let i = 0; i < n; i++) {
    const processor = frame.processorMs * scatter();
    const card = frame.cardMs * scatter();
    const link = frame.linkMs * scatter();
    let streamed = 0;
    for (; at >= due; due += (gap as () => number)()) streamed += burstMs;
    const ms = Math.max(Math.max(processor, card, streamed) + link + frame.panelMs, frame.capMs);
    out[i] = ms;
    at += ms;
  }
  return out;
}

/** Start value of the scatter where no run of the title is at hand (common practice, no published source). */
const USUAL_JITTER = 0.07;

/**
 * How rough a run was, for simulating others like it: the middle half of its frames gives the scatter, its stutters the bursts.
 * @param s figures of the run; null for what is usual
 * @param downGbps usable rate of the link it ran over, Gb/s
 * @returns roughness for `simulateFrames`
 */
export function roughnessOf(s: FrameStats | null, downGbps: number): Roughness {
  if (!s) return { jitter: USUAL_JITTER, burstsPerS: 0, burstMB: 0 };
  const low = s.atMs[2] ?? 0;
  const middle = s.atMs[3] ?? 1;
  const high = s.atMs[4] ?? 0;
  const stutterMs = s.stutters > 0 ? (s.stutterShare * s.seconds * 1000) / s.stutters : 0;
  return {
    // The middle half of a normal distribution is 1.349 standard deviations wide.
    jitter: (high - low) / middle / 1.349,
    burstsPerS: s.stutters / s.seconds,
    burstMB: (stutterMs * downGbps) / MS_OF_MB_AT_GBPS,
  };
}
