import { type FrameCell, FULL_HD_PIXELS } from './cell';
import { AT, type ParameterSpace } from './parameters';
import { PRIORS, rateOf } from './priors';

/** Milliseconds in which one MB passes at one Gb/s: arithmetic, 8 bits a byte. */
export const MS_OF_MB_AT_GBPS = 8;
/** Bytes of a pixel on its way back to the panel. */
const PIXEL_BYTES = 4;
/** A card keeps about a tenth of its memory for itself (common practice, no published source). */
const USABLE_MEMORY = 0.9;
const MB_PER_GB = 1000;
/** Share of the drawn picture's pixels that upscaling costs on top (judgement). */
const UPSCALING_COST = 0.12;
/** A stage shorter than this share of the longest one adds less than 1 in 1000 at any sharpness above 2.3. */
const NEGLIGIBLE = 0.05;
/** Traffic never shrinks below this share of what it is at 1920x1080. */
const LEAST_TRAFFIC = 0.1;

/** A cell in the numbers that the equations need. */
export interface CompiledCell {
  /** Places of the parameters of what it runs on; -1 for the reference look, and where a parameter is not needed. */
  readonly host: number;
  readonly card: number;
  readonly link: number;
  readonly look: number;
  readonly memory: number;
  readonly power: number;
  /** Pixels as multiples of 1920x1080, less 1; and ln of those that are drawn. */
  readonly more: number;
  readonly drawnLn: number;
  /** Share of the picture whose working set counts. */
  readonly workingShare: number;
  /** ms of one MB to the card at the tabulated rate; 0 where no link is crossed. */
  readonly msPerMB: number;
  readonly latencyMs: number;
  /** ms of a whole picture on its way back; 0 without a panel. */
  readonly pictureMs: number;
  /** GB the card leaves to a title; null where it is not known. */
  readonly usableGB: number | null;
  readonly processorFactor: number;
  readonly cardPower: number;
  /** ms; 0 without a cap. */
  readonly capMs: number;
}

type Placed = readonly { readonly id: string; readonly at: number | null }[];
const placeOf = (list: Placed, id: string) => list.find((x) => x.id === id)?.at ?? -1;

/**
 * A cell in the numbers of a space.
 * @param cell a cell whose host, card, link and look have a place in the space
 * @param space the space
 * @returns the cell as the equations take it
 */
export function compileCell(cell: FrameCell, space: ParameterSpace): CompiledCell {
  const { host, card, link, look } = cell;
  const size = cell.pixels / FULL_HD_PIXELS;
  const drawn = look.scale < 1 ? size * (look.scale ** 2 + UPSCALING_COST) : size;
  const pictureMB = (PIXEL_BYTES * cell.pixels) / 1e6;
  const crossed = !card.integrated;
  return {
    host: placeOf(space.hosts, host.id),
    card: placeOf(space.cards, card.id),
    link: placeOf(space.links, link.id),
    look: placeOf(space.looks, look.id),
    memory: space.memoryAt ?? -1,
    power: space.powerAt ?? -1,
    more: size - 1,
    drawnLn: Math.log(drawn),
    workingShare: 0.85 + 0.15 * size,
    msPerMB: crossed ? MS_OF_MB_AT_GBPS / rateOf(link.down) : 0,
    latencyMs: crossed ? link.latencyMs : 0,
    pictureMs: crossed && cell.panel ? (MS_OF_MB_AT_GBPS * pictureMB) / rateOf(link.up) : 0,
    usableGB: crossed && card.memoryGB !== null ? USABLE_MEMORY * card.memoryGB : null,
    processorFactor: 1 / cell.processorClock,
    cardPower: cell.cardPower,
    capMs: cell.capFps === null ? 0 : 1000 / cell.capFps,
  };
}

/** Times of a frame in ms. Refilled in place. */
export interface StageTimes {
  processor: number;
  card: number;
  /** Traffic and round trips over the link. */
  link: number;
  /** What does not fit the card's memory, over the link. */
  overflow: number;
  /** The picture's way back to a panel. */
  panel: number;
  /** The longest of processor, card and what the link carries beside them, softened by how they overlap. */
  pipeline: number;
  /** The whole frame without a cap. */
  free: number;
}

/**
 * Room for the times of a frame.
 * @returns times, to be filled by `frameTime`
 */
export function emptyTimes(): StageTimes {
  return { processor: 0, card: 0, link: 0, overflow: 0, panel: 0, pipeline: 0, free: 0 };
}

/** What a stage adds to the longest one. */
function part(ratio: number, sharpness: number): number {
  return ratio < NEGLIGIBLE ? 0 : Math.exp(sharpness * Math.log(ratio));
}

/** The longest of three stages, softened by the two others. */
function softened(longest: number, b: number, c: number, sharpness: number): number {
  const more = part(b / longest, sharpness) + part(c / longest, sharpness);
  return more < 1e-9 ? longest : longest * Math.exp(Math.log(1 + more) / sharpness);
}

/** A maximum that is softened by stages of nearly the same length: (u^q + v^q + w^q)^(1/q). */
function softMaximum(u: number, v: number, w: number, sharpness: number): number {
  if (u >= v && u >= w) return softened(u, v, w, sharpness);
  return v >= w ? softened(v, u, w, sharpness) : softened(w, u, v, sharpness);
}

/**
 * The time of a frame: processor, card and the part of the link's work that passes beside them overlap as far as the title's pipeline
 * lets them; what all wait for, memory that does not fit and the way back to a panel come on top.
 *
 * Source: common practice, no published source; held by simulated titles and by practitioners' figures in the tests.
 * @param p parameters, those of a particle from `at` on
 * @param at place of the first
 * @param c the cell
 * @param into filled with the times in ms
 * @returns the whole frame without a cap, ms
 */
export function frameTime(p: Float64Array, at: number, c: CompiledCell, into: StageTimes): number {
  const isReference = c.look === -1;
  const linkFactor = p[at + c.link]!;
  let processor =
    p[at + AT.processorMs]! *
    p[at + c.host]! *
    (1 + p[at + AT.processorGrowth]! * c.more) *
    c.processorFactor;
  const fixed = p[at + AT.fixedShare]!;
  const grown = fixed + (1 - fixed) * Math.exp(p[at + AT.pixelPower]! * c.drawnLn);
  let card = p[at + AT.cardMs]! * p[at + c.card]! * grown;
  if (c.cardPower !== 1)
    card *= c.cardPower ** -(c.power === -1 ? PRIORS.powerExponent.centre : p[at + c.power]!);
  const perMB = linkFactor * c.msPerMB;
  let sent =
    p[at + AT.trafficMB]! * Math.max(LEAST_TRAFFIC, 1 + p[at + AT.trafficGrowth]! * c.more);
  if (!isReference) {
    card *= p[at + c.look]!;
    processor *= p[at + c.look + 1]!;
    sent *= p[at + c.look + 2]!;
  }
  const link = perMB * sent + p[at + AT.roundTrips]! * c.latencyMs;
  const lacking =
    c.usableGB === null || c.memory === -1
      ? 0
      : Math.max(0, p[at + c.memory]! * c.workingShare - c.usableGB);
  const overflow = lacking === 0 ? 0 : MB_PER_GB * p[at + c.memory + 1]! * lacking * perMB;
  const panel = c.pictureMs === 0 ? 0 : linkFactor * p[at + AT.returnCopy]! * c.pictureMs;
  const onProcessor = p[at + AT.onProcessor]!;
  const onCard = p[at + AT.onCard]!;
  const beside = p[at + AT.beside]!;
  const pipeline = softMaximum(
    processor + onProcessor * link,
    card + onCard * link,
    beside * link,
    p[at + AT.sharpness]!,
  );
  into.processor = processor;
  into.card = card;
  into.link = link;
  into.overflow = overflow;
  into.panel = panel;
  into.pipeline = pipeline;
  into.free = pipeline + (1 - onProcessor - onCard - beside) * link + overflow + panel;
  return into.free;
}

/** Shares of a frame by stage; their sum is 1. Refilled in place. */
export interface StageShares {
  processor: number;
  card: number;
  link: number;
  panel: number;
}

/**
 * Room for the shares of a frame.
 * @returns shares, to be filled by `stageShares`
 */
export function emptyShares(): StageShares {
  return { processor: 0, card: 0, link: 0, panel: 0 };
}

/**
 * How many percent a frame gets shorter for each percent that a stage gets faster, of the frame without a cap. The soft maximum is
 * homogeneous of degree 1, so that the shares sum to 1 (Euler's theorem).
 * @param p parameters, those of a particle from `at` on
 * @param at place of the first
 * @param t times of the frame, as `frameTime` fills them
 * @param into filled with the shares, 0 to 1
 */
export function stageShares(p: Float64Array, at: number, t: StageTimes, into: StageShares): void {
  const q = p[at + AT.sharpness]! - 1;
  const slope = (stage: number) =>
    t.pipeline === 0 || stage <= 0 ? 0 : Math.exp(q * Math.log(stage / t.pipeline));
  into.processor = (t.processor * slope(t.processor + p[at + AT.onProcessor]! * t.link)) / t.free;
  into.card = (t.card * slope(t.card + p[at + AT.onCard]! * t.link)) / t.free;
  into.panel = t.panel / t.free;
  into.link = Math.max(0, 1 - into.processor - into.card - into.panel);
}
