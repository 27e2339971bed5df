import { chanceOf } from '../chance';
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

type Chance = ReturnType<typeof chanceOf>;

/** ms of each stage of a frame at this size, before the spread from frame to frame. */
interface StageTimes {
  readonly draw: number;
  readonly work: number;
  /** What both sides wait for: traffic, round trips, and the copy back to a panel. */
  readonly blocking: number;
}

function stageTimes(rig: MadeRig, ask: Ask, mood: number): StageTimes {
  const rate = ask.gbps ?? rig.linkGbps;
  const size = (ask.width * ask.height) / (1920 * 1080);
  const sent = (rig.trafficMB * 8) / rate;
  const tripUs = ask.gbps && ask.gbps > 50 ? 1 : rig.latencyUs;
  const trips = (rig.trips * tripUs) / 1000;
  const copy = (rig.kappa * ask.width * ask.height * 32e-6) / rig.upGbps;
  const back = ask.panel ? copy : 0;
  return {
    draw: rig.cardMs * size ** rig.exponent * mood,
    work: rig.cpuMs * mood,
    blocking: sent + trips + back,
  };
}

/** The clock of the card: it jumps between its states. */
function clockOf(rig: MadeRig, c: Chance): (start: number) => number {
  let state = 0;
  let next = rig.clockMs;
  return (start) => {
    while (start >= next) {
      state = Math.floor(c.next() * rig.clocks.length);
      next += rig.clockMs * (0.5 + c.next());
    }
    return rig.clocks[state] ?? 1;
  };
}

/** Extra work of the processor now and then, ms: shader compilation and loading come in bursts. */
function burstsOf(rig: MadeRig, c: Chance): (start: number) => number {
  const gap = () => (-1000 * Math.log(1 - c.next())) / rig.burstsPerS;
  let at = rig.burstsPerS > 0 ? gap() : Infinity;
  return (start) => {
    if (start < at) return 0;
    at += gap();
    return rig.burstMs;
  };
}

/** Times from picture to picture, the first ones left out: the queue fills there. */
function between(shown: readonly number[]): Float32Array {
  const from = Math.min(20, shown.length - 2);
  return Float32Array.from(shown.slice(from + 1), (t, i) => t - (shown[from + i] as number));
}

/**
 * Frames through a queue. The processor readies a frame and hands it on; it may be `depth` frames ahead of the card. What crosses the
 * link before drawing holds both sides up. The card draws one frame after another at the clock of the
 * moment. Nothing here adds stages up: the mean frame comes out of who waits for whom.
 */
export function runRig(rig: MadeRig, ask: Ask): MadeRun {
  const c = chanceOf(rig.seed * 7919 + ask.repeat * 104729 + ask.width);
  const { draw, work, blocking } = stageTimes(rig, ask, 1 + REPEAT * c.normal());
  const rough = () => Math.exp(rig.jitter * c.normal() - rig.jitter ** 2 / 2);
  const end = ask.seconds * 1000;
  const clockAt = clockOf(rig, c);
  const burstAt = burstsOf(rig, c);
  const shown: number[] = [];
  let cpuFree = 0;
  let cardFree = 0;
  let busyMs = 0;
  let clockSum = 0;
  let lastStart = -Infinity;
  for (let k = 0; ; k++) {
    const full = shown[k - rig.depth - 1] ?? 0;
    const paced = rig.capFps ? lastStart + 1000 / rig.capFps : -Infinity;
    const start = Math.max(cpuFree, full, paced);
    lastStart = start;
    const clock = clockAt(start);
    const mine = work * rough() + burstAt(start);
    // What blocks is waited for by both, in their own time lines.
    const blocked = blocking * rough();
    const ready = start + mine + blocked;
    cpuFree = ready;
    // The data of this frame were on their way while the processor waited; the card loses as long before it may draw.
    const own = (draw * rough()) / clock;
    const done = Math.max(ready - blocked, cardFree) + blocked + own;
    cardFree = done;
    busyMs += own;
    clockSum += clock;
    shown.push(done);
    if (done >= end) break;
  }
  return {
    frames: between(shown),
    busyMs,
    totalMs: shown[shown.length - 1] as number,
    clock: clockSum / shown.length,
  };
}
