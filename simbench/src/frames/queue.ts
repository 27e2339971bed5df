import { chanceOf } from './chance';
import type { MadeRig } from './rig';

/** One run of a rig. */
export interface Ask {
  readonly width: number;
  readonly height: number;
  readonly seconds: number;
  /** Which repeat: the same number gives the same frames. */
  readonly repeat: number;
  readonly panel?: boolean;
  /** Another link than the rig's own. */
  readonly gbps?: number;
  /** Stages made longer or shorter by a factor, to find what the frame hangs on. */
  readonly scale?: Partial<Record<'cpu' | 'card' | 'link' | 'back', number>>;
}
export interface MadeRun {
  /** ms from picture to picture. */
  readonly frames: Float32Array;
  readonly busyMs: number;
  readonly totalMs: number;
  readonly clock: number;
}

/** Repeats differ by about this share as a whole: warm rooms, other sessions. */
const REPEAT = 0.006;

/**
 * Frames through a queue. The processor readies a frame and hands it on; it may be `depth` frames ahead of the card. What crosses the
 * link before drawing holds both sides up; what is streamed crosses beside it. The card draws one frame after another at the clock of the
 * moment. Nothing here adds stages up: the mean frame comes out of who waits for whom.
 */
export function runRig(rig: MadeRig, ask: Ask): MadeRun {
  const c = chanceOf(rig.seed * 7919 + ask.repeat * 104729 + ask.width);
  const rate = ask.gbps ?? rig.linkGbps;
  const size = (ask.width * ask.height) / (1920 * 1080);
  const { scale = {}, panel = false } = ask;
  const mood = 1 + REPEAT * c.normal();
  const draw = rig.cardMs * size ** rig.exponent * (scale.card ?? 1) * mood;
  const work = rig.cpuMs * (scale.cpu ?? 1) * mood;
  const grown = rig.odd === 'growing-toll' ? size ** 0.5 : 1;
  const sent = ((rig.trafficMB * 8) / rate) * (scale.link ?? 1) * grown;
  const streamed = rig.odd === 'streamed' ? 0.85 * sent : 0;
  const wait =
    sent -
    streamed +
    ((rig.trips * (ask.gbps && ask.gbps > 50 ? 1 : rig.latencyUs)) / 1000) * (scale.link ?? 1);
  const way = panel
    ? ((rig.kappa * ask.width * ask.height * 32e-6) / rig.upGbps) * (scale.back ?? 1)
    : 0;
  const rough = () => Math.exp(rig.jitter * c.normal() - rig.jitter ** 2 / 2);

  const shown: number[] = [];
  let cpuFree = 0;
  let linkFree = 0;
  let cardFree = 0;
  let busyMs = 0;
  let state = 0;
  let nextState = rig.clockMs;
  let clockSum = 0;
  let burstAt = rig.burstsPerS > 0 ? (-1000 * Math.log(1 - c.next())) / rig.burstsPerS : Infinity;
  const end = ask.seconds * 1000;
  let lastStart = -Infinity;
  for (let k = 0; ; k++) {
    const full = shown[k - rig.depth - 1] ?? 0;
    let start = Math.max(cpuFree, full);
    if (rig.capFps) start = Math.max(start, lastStart + 1000 / rig.capFps);
    lastStart = start;
    while (start >= nextState) {
      state =
        rig.odd === 'throttling' && start > end / 3 ? 2 : Math.floor(c.next() * rig.clocks.length);
      nextState += rig.clockMs * (0.5 + c.next());
    }
    const clock =
      (rig.clocks[state] ?? 1) * (rig.odd === 'throttling' && start > end / 3 ? 0.8 : 1);
    let mine = work * rough();
    if (start >= burstAt) {
      mine += rig.burstMs;
      burstAt += (-1000 * Math.log(1 - c.next())) / rig.burstsPerS;
    }
    // What blocks is waited for by both, in their own time lines.
    const blocked = (wait + way) * rough();
    const ready = start + mine + blocked;
    cpuFree = ready;
    const through = streamed > 0 ? Math.max(ready, linkFree) + streamed * rough() : ready;
    linkFree = streamed > 0 ? through : linkFree;
    // The data of this frame were on their way while the processor waited; the card loses as long before it may draw.
    const own = (draw * rough()) / clock;
    const from = Math.max(through - blocked, cardFree) + blocked;
    const done = (rig.odd === 'serial' ? Math.max(through, cardFree) : from) + own;
    cardFree = done;
    if (rig.odd === 'serial') cpuFree = done;
    busyMs += own;
    clockSum += clock;
    shown.push(done);
    if (done >= end) break;
  }
  const from = Math.min(20, shown.length - 2);
  const frames = Float32Array.from(
    shown.slice(from + 1),
    (t, i) => t - (shown[from + i] as number),
  );
  return {
    frames,
    busyMs,
    totalMs: shown[shown.length - 1] as number,
    clock: clockSum / shown.length,
  };
}
