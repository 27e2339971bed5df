import { type FrameCell, FULL_HD_PIXELS } from './cell';
import type { FrameParameters, ParameterSpace } from './parameters';
import { rateOf } from './priors';

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

/** A cell in the numbers that the equations need. */
export interface CompiledCell {
  readonly host: number;
  readonly card: number;
  readonly link: number;
  readonly look: number;
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

const placeOf = (list: readonly { readonly id: string }[], id: string) =>
  list.findIndex((x) => x.id === id);

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

/** Room for the times of a frame. */
export function emptyTimes(): StageTimes {
  return { processor: 0, card: 0, link: 0, overflow: 0, panel: 0, pipeline: 0, free: 0 };
}

const part = (ratio: number, sharpness: number) =>
  ratio < NEGLIGIBLE ? 0 : Math.exp(sharpness * Math.log(ratio));

/** A maximum that is softened by stages of nearly the same length: (u^q + v^q + w^q)^(1/q). */
function softMaximum(u: number, v: number, w: number, sharpness: number): number {
  const longest = Math.max(u, v, w);
  const sum =
    part(u / longest, sharpness) + part(v / longest, sharpness) + part(w / longest, sharpness);
  return longest * Math.exp(Math.log(sum) / sharpness);
}

/**
 * The time of a frame: processor, card and the part of the link's work that passes beside them overlap as far as the title's pipeline
 * lets them; what all wait for, memory that does not fit and the way back to a panel come on top.
 *
 * Source: common practice, no published source; held by simulated titles and by practitioners' figures in the tests.
 * @param p parameters of the title and of what it runs on
 * @param c the cell
 * @param into filled with the times in ms
 * @returns the whole frame without a cap, ms
 */
export function frameTime(p: FrameParameters, c: CompiledCell, into: StageTimes): number {
  const processor =
    p.processorMs *
    p.host[c.host]! *
    (1 + p.processorGrowth * c.more) *
    p.lookProcessor[c.look]! *
    c.processorFactor;
  const grown = p.fixedShare + (1 - p.fixedShare) * Math.exp(p.pixelPower * c.drawnLn);
  let card = p.cardMs * p.card[c.card]! * grown * p.lookCard[c.look]!;
  if (c.cardPower !== 1) card *= Math.exp(-p.powerExponent * Math.log(c.cardPower));
  const perMB = p.link[c.link]! * c.msPerMB;
  const sent = p.trafficMB * Math.max(0.1, 1 + p.trafficGrowth * c.more) * p.lookTraffic[c.look]!;
  const link = perMB * sent + p.roundTrips * c.latencyMs;
  const lacking = c.usableGB === null ? 0 : Math.max(0, p.workingGB * c.workingShare - c.usableGB);
  const overflow = lacking === 0 ? 0 : MB_PER_GB * p.touched * lacking * perMB;
  const panel = c.pictureMs === 0 ? 0 : p.link[c.link]! * p.returnCopy * c.pictureMs;
  const pipeline = softMaximum(
    processor + p.onProcessor * link,
    card + p.onCard * link,
    p.beside * link,
    p.sharpness,
  );
  into.processor = processor;
  into.card = card;
  into.link = link;
  into.overflow = overflow;
  into.panel = panel;
  into.pipeline = pipeline;
  into.free = pipeline + p.waited * link + overflow + panel;
  return into.free;
}

/** Shares of a frame by stage; their sum is 1. Refilled in place. */
export interface StageShares {
  processor: number;
  card: number;
  link: number;
  panel: number;
}

/** Room for the shares of a frame. */
export function emptyShares(): StageShares {
  return { processor: 0, card: 0, link: 0, panel: 0 };
}

/**
 * How many percent a frame gets shorter for each percent that a stage gets faster, of the frame without a cap. The soft maximum is
 * homogeneous of degree 1, so that the shares sum to 1 (Euler's theorem).
 * @param p parameters of the title and of what it runs on
 * @param t times of the frame, as `frameTime` fills them
 * @param into filled with the shares, 0 to 1
 */
export function stageShares(p: FrameParameters, t: StageTimes, into: StageShares): void {
  const q = p.sharpness - 1;
  const slope = (stage: number) =>
    t.pipeline === 0 ? 0 : Math.exp(q * Math.log(Math.max(1e-12, stage / t.pipeline)));
  const ofProcessor = slope(t.processor + p.onProcessor * t.link);
  const ofCard = slope(t.card + p.onCard * t.link);
  const ofBeside = slope(p.beside * t.link);
  into.processor = (t.processor * ofProcessor) / t.free;
  into.card = (t.card * ofCard) / t.free;
  into.panel = t.panel / t.free;
  into.link = Math.max(0, 1 - into.processor - into.card - into.panel);
}
