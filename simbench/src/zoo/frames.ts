import { type Chance, mixedChance } from '../chance';
import type { ZooCard, ZooHost, ZooLink, ZooLook, ZooTitle } from './title';

/** What is run: a picture of some size on some of the house's things. */
export interface ZooScene {
  readonly host: keyof ZooTitle['hosts'];
  readonly card: keyof ZooTitle['cards'];
  readonly link: keyof ZooTitle['links'];
  readonly look: ZooLook['id'];
  readonly pixels: number;
  readonly panel: boolean;
  readonly capFps: number | null;
  readonly processorClock: number;
  readonly cardPower: number;
  /** The title's working set counts: the card's memory may be too small. */
  readonly memory: boolean;
}
/** Stages made faster by a factor, to find the true share of each. */
export type Faster = Partial<Record<ZooStage, number>>;
export const ZOO_STAGES = ['processor', 'card', 'link', 'panel'] as const;
export type ZooStage = (typeof ZOO_STAGES)[number];

const FRAMES = 1500;
const WARM_UP = 60;
const FULL_HD = 1920 * 1080;
const BIG_PICTURE = 4.5e6;

/** ms of each stage before the scatter from frame to frame. */
interface Nominal {
  readonly processor: number;
  readonly card: number;
  /** On the processor, in drawing, beside both, while all wait. */
  readonly link: readonly [number, number, number, number];
  readonly back: number;
  /** ms of one more MB over the link. */
  readonly perMB: number;
}

function growth(w: ZooTitle, card: ZooCard, pixels: number): number {
  const x = pixels / FULL_HD;
  const fixed = Math.min(0.9, Math.max(0, w.fixedShare + card.fixedMore));
  if (w.law === 'power') return x ** w.power;
  const linear = fixed + (1 - fixed) * x;
  return w.law === 'step' && pixels > BIG_PICTURE ? linear * (1 + w.step) : linear;
}

function nominal(w: ZooTitle, s: ZooScene, faster: Faster): Nominal {
  const host: ZooHost = w.hosts[s.host];
  const card = w.cards[s.card];
  const link: ZooLink = w.links[s.link];
  const look = w.looks[s.look];
  const x = s.pixels / FULL_HD;
  const drawn = look.scale < 1 ? s.pixels * (look.scale ** 2 + 0.1) : s.pixels;
  const linkSpeed = faster.link ?? 1;
  const perMB = (8 * link.slowness) / link.down / linkSpeed;
  const sent = w.trafficMB * (1 + w.trafficGrowth * (x - 1)) * look.traffic;
  const over = s.memory ? Math.max(0, w.workingGB * (0.8 + 0.2 * x) - 0.9 * card.memoryGB) : 0;
  const work = sent * perMB + (w.trips * link.latencyMs) / linkSpeed;
  const picture = (4 * s.pixels) / 1e6;
  const back = s.panel ? (w.returned * picture * 8 * link.slowness) / link.up : 0;
  const [onProcessor, onCard, beside, waited] = w.parts;
  return {
    processor:
      (w.processorMs * host.slowness * (1 + w.processorGrowth * (x - 1)) * look.processor) /
      s.processorClock /
      (faster.processor ?? 1),
    card:
      (w.cardMs * card.slowness * growth(w, card, drawn) * look.card) /
      s.cardPower ** w.powerExponent /
      (faster.card ?? 1),
    link: [
      onProcessor * work,
      onCard * work,
      beside * work,
      waited * work + 1000 * w.touched * over * perMB,
    ],
    back: back / (faster.panel ?? 1),
    perMB,
  };
}

/** ms of one frame's stages. */
interface Frame {
  readonly processor: number;
  readonly card: number;
  readonly beside: number;
  readonly waited: number;
  /** Way back that overlaps with the next frame; what does not is in `card`. */
  readonly back: number;
}

/** Frames with their scatter, which stays for some frames; the same for every change of the nominal times. */
function framesOf(w: ZooTitle, n: Nominal, c: Chance): () => Frame {
  let processorState = 0;
  let cardState = 0;
  const { kept } = w.jitter;
  const fresh = Math.sqrt(1 - kept * kept);
  return () => {
    processorState = kept * processorState + fresh * c.normal();
    cardState = kept * cardState + fresh * c.normal();
    const chance = c.next();
    const extra = w.mechanism === 'bursts' && chance < w.bursts.share ? w.bursts.mb * n.perMB : 0;
    const [onProcessor, onCard, beside, waited] = n.link;
    const p = w.jitter.processor;
    const g = w.jitter.card;
    return {
      processor:
        n.processor * Math.exp(p * processorState - (p * p) / 2) + onProcessor + extra * w.parts[0],
      card:
        n.card * Math.exp(g * cardState - (g * g) / 2) +
        onCard +
        extra * w.parts[1] +
        (1 - w.returnOverlap) * n.back,
      beside: beside + extra * w.parts[2],
      waited: waited + extra * w.parts[3],
      back: w.returnOverlap * n.back,
    };
  };
}

/** Gives the time from one picture to the next, ms. */
type Maker = (next: () => Frame) => () => number;

/** The processor works up to `depth` frames ahead; copy engine, card and the copy back each take one frame after another. */
const queued =
  (depth: number): Maker =>
  (next) => {
    const shown: number[] = [];
    let processor = 0;
    let copied = 0;
    let drawn = 0;
    let back = 0;
    let paused = 0;
    let last = 0;
    return () => {
      const f = next();
      const room = shown[shown.length - depth] ?? 0;
      processor = Math.max(processor, room) + f.processor;
      copied = Math.max(copied, processor) + f.beside;
      drawn = Math.max(drawn, copied) + f.card;
      back = Math.max(back, drawn) + f.back;
      shown.push(back);
      if (shown.length > depth) shown.shift();
      paused = f.waited;
      const ms = back - last + paused;
      last = back;
      return ms;
    };
  };

/** One thing after the other, but for a share of the next frame's work that is done while the card draws. */
const serial =
  (forked: number): Maker =>
  (next) => {
    let f = next();
    return () => {
      const after = next();
      const own = (1 - forked) * f.processor + Math.max(f.card, forked * after.processor);
      const ms = Math.max(own, f.beside) + f.waited + f.back;
      f = after;
      return ms;
    };
  };

/** A frame in passes, each through processor, upload and drawing, with few staging buffers between them. */
const chunked =
  (passes: number, buffers: number): Maker =>
  (next) => {
    const drawnAt: number[] = [];
    let processor = 0;
    let uploaded = 0;
    let drawn = 0;
    let last = 0;
    return () => {
      const f = next();
      for (let i = 0; i < passes; i++) {
        const free = drawnAt[drawnAt.length - buffers] ?? 0;
        processor = Math.max(processor, free) + f.processor / passes;
        uploaded = Math.max(uploaded, processor) + f.beside / passes;
        drawn = Math.max(drawn, uploaded) + f.card / passes;
        drawnAt.push(drawn);
        if (drawnAt.length > buffers) drawnAt.shift();
      }
      const ms = drawn - last + f.waited + f.back;
      last = drawn;
      return ms;
    };
  };

/** A closed form: the stages overlap as a soft maximum. */
const plain =
  (q: number): Maker =>
  (next) =>
  () => {
    const f = next();
    const top = Math.max(f.processor, f.card, f.beside);
    const sum =
      (f.processor / top) ** q + (f.card / top) ** q + (Math.max(1e-9, f.beside) / top) ** q;
    return top * sum ** (1 / q) + f.waited + f.back;
  };

function makerOf(w: ZooTitle): Maker {
  if (w.mechanism === 'serial') return serial(w.forked);
  if (w.mechanism === 'chunks') return chunked(w.passes, w.buffers);
  if (w.mechanism === 'plain') return plain(w.sharpness);
  return queued(w.mechanism === 'pacing' ? 1 : w.depth);
}

/** Share of the running mean below which paced frames are held back. */
const PACED = 0.985;

function meanOf(next: () => number, paced: boolean): number {
  let running = 0;
  let sum = 0;
  for (let i = 0; i < FRAMES + WARM_UP; i++) {
    let ms = next();
    running = i === 0 ? ms : running + (ms - running) / Math.min(i + 1, 120);
    if (paced) ms = Math.max(ms, PACED * running);
    if (i >= WARM_UP) sum += ms;
  }
  return sum / FRAMES;
}

/** What a scene's frames take, and how long the card draws. */
export interface ZooTruth {
  readonly ms: number;
  readonly cardMs: number;
}

/**
 * The true mean frame time of a scene.
 * @param w the title
 * @param s the scene
 * @param faster stages that are faster by a factor
 * @returns ms of a frame, and of the card alone
 */
export function truthOf(w: ZooTitle, s: ZooScene, faster: Faster = {}): ZooTruth {
  const run = (n: Nominal) =>
    meanOf(makerOf(w)(framesOf(w, n, mixedChance(w.seed))), w.mechanism === 'pacing');
  let n = nominal(w, s, faster);
  let ms = run(n);
  if (w.mechanism === 'thermal') {
    // Both get slower by how much of the time they work.
    const card = 1 + w.heat.card * Math.min(1, n.card / ms);
    const processor = 1 + w.heat.processor * Math.min(1, n.processor / ms);
    n = { ...n, card: n.card * card, processor: n.processor * processor };
    ms = run(n);
  }
  const cap = s.capFps === null ? 0 : 1000 / s.capFps;
  return { ms: Math.max(ms, cap), cardMs: n.card + n.link[1] };
}

const NUDGE = 0.04;

/**
 * True shares of a scene: what 1 % more speed of each stage brings, by common random numbers.
 * @param w the title
 * @param s the scene
 * @returns shares, scaled to a sum of 1
 */
export function trueShares(w: ZooTitle, s: ZooScene): Record<ZooStage, number> {
  const free = { ...s, capFps: null };
  const raw = ZOO_STAGES.map((stage) => {
    const slow = truthOf(w, free, { [stage]: 1 - NUDGE }).ms;
    const fast = truthOf(w, free, { [stage]: 1 + NUDGE }).ms;
    return Math.max(0, Math.log(slow / fast) / Math.log((1 + NUDGE) / (1 - NUDGE)));
  });
  const sum = raw.reduce((a, b) => a + b, 0);
  return Object.fromEntries(ZOO_STAGES.map((stage, i) => [stage, raw[i]! / sum])) as Record<
    ZooStage,
    number
  >;
}

/**
 * What one run of a scene shows: the mean with its scatter from run to run, and the card's load as its meter reads it.
 * @param w the title
 * @param s the scene
 * @param repeat which repeat
 * @returns ms of a frame, and a load from 0 to 1
 */
export function measure(w: ZooTitle, s: ZooScene, repeat: number): { ms: number; load: number } {
  // A run scatters as a whole before a limit cuts it.
  const truth = truthOf(w, { ...s, capFps: null });
  const c = mixedChance(w.seed * 977 + repeat * 7919 + hashOf(s));
  const cap = s.capFps === null ? 0 : 1000 / s.capFps;
  const ms = Math.max(cap, truth.ms * Math.exp(w.runNoise * c.normal()));
  const load = Math.min(1, truth.cardMs / ms + w.meterHigh + 0.03 * c.normal());
  return { ms, load: Math.max(0.02, load) };
}

function hashOf(s: ZooScene): number {
  let hash = 0;
  for (const x of JSON.stringify(s)) hash = (Math.imul(hash, 31) + x.charCodeAt(0)) | 0;
  return hash;
}
