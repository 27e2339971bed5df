import { randomExponential, randomLcg, randomNormal } from 'd3-random';
import type { FrameStats } from '../statistics/summary';
import { type FrameParams, type FrameRig, frameTerms, MS_PER_MB_GBPS, type Scene } from './model';

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
 * Frames of a title on a rig, drawn by chance from a seed: every stage scatters log-normally about its own time, and bursts of assets
 * come like Poisson events. A burst enters the streamed stage, not the sum, so that slow frames can stay where they are while the
 * average grows. The same seed gives the same frames; without roughness each is exactly the closed form.
 * In: the model, how many frames. Out: their times in ms.
 */
export function simulateFrames(
  p: FrameParams,
  rig: FrameRig,
  scene: Scene,
  rough: Roughness,
  n: number,
  seed: number,
): Float32Array {
  const t = frameTerms(p, rig, scene);
  const source = randomLcg(seed);
  const { jitter } = rough;
  // A log-normal of mean 1.
  const normal = randomNormal.source(source)(0, jitter);
  const gap =
    rough.burstsPerS > 0 ? randomExponential.source(source)(rough.burstsPerS / 1000) : null;
  const burstMs = (rough.burstMB * MS_PER_MB_GBPS) / rig.downGbps;
  const lower = (jitter * jitter) / 2;
  const rest = t.trips + t.overflow + t.back;
  const out = new Float32Array(n);
  let at = 0;
  let due = gap ? gap() : Infinity;
  for (let i = 0; i < n; i++) {
    let cpu = t.cpu;
    let card = t.card;
    let traffic = t.traffic;
    let streamed = t.streamed;
    if (jitter > 0) {
      cpu *= Math.exp(normal() - lower);
      card *= Math.exp(normal() - lower);
      const sent = Math.exp(normal() - lower);
      traffic *= sent;
      streamed *= sent;
    }
    for (; at >= due; due += (gap as () => number)()) streamed += burstMs;
    const ms = Math.max(Math.max(cpu, card, streamed) + traffic + rest, t.cap);
    out[i] = ms;
    at += ms;
  }
  return out;
}

/** Start value of the scatter where no run of the title is at hand (common practice, no published source). */
const USUAL_JITTER = 0.07;

/**
 * How rough a run was, for simulating others like it: the middle half of its frames gives the scatter, its stutters the bursts.
 * `downGbps`: the link it ran over. Null: what is usual.
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
    burstMB: (stutterMs * downGbps) / MS_PER_MB_GBPS,
  };
}
