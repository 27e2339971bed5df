import type { FrameCell, FrameLook } from './cell';
import {
  cardPrior,
  hostPrior,
  LINK_LOGITS,
  linkPrior,
  lookPriors,
  type Prior,
  PRIORS,
  type StatedTitle,
  statedOr,
  WAIT_LOGIT,
  workingPrior,
} from './priors';

/** A factor of one host, card or link: which number of a particle it is, and its prior. */
interface Place {
  readonly id: string;
  readonly at: number;
  readonly prior: Prior;
}
/** A look has three numbers from `at` on; the reference look has none. */
interface LookPlace {
  readonly id: string;
  readonly at: number | null;
  readonly look: FrameLook;
}

/** Which number of a particle is which parameter. */
export interface ParameterSpace {
  /** Numbers of a particle. */
  readonly size: number;
  readonly stated: StatedTitle;
  readonly hosts: readonly Place[];
  readonly cards: readonly Place[];
  readonly links: readonly Place[];
  readonly looks: readonly LookPlace[];
  /** Places of parameters that only some cells need; null where none does. */
  readonly memoryAt: number | null;
  readonly powerAt: number | null;
}

/** Numbers that every particle has. Of the logits of the link's parts, the parameters are the parts. */
export const AT = {
  processorMs: 0,
  processorGrowth: 1,
  cardMs: 2,
  fixedShare: 3,
  pixelPower: 4,
  trafficMB: 5,
  trafficGrowth: 6,
  roundTrips: 7,
  onProcessor: 8,
  onCard: 9,
  beside: 10,
  sharpness: 11,
  returnCopy: 12,
} as const;
const COMMON_SIZE = 13;
const LOOK_SIZE = 3;

/** The look that most cells have; of equals the first. */
function commonLook(cells: readonly FrameCell[]): FrameLook | null {
  const counts = new Map<string, number>();
  for (const { look } of cells) counts.set(look.id, (counts.get(look.id) ?? 0) + 1);
  let best: FrameLook | null = null;
  for (const { look } of cells)
    if (!best || counts.get(look.id)! > counts.get(best.id)!) best = look;
  return best;
}

/** Can a working set not fit the card's memory, as far as is known? */
const overflowsAt = (stated: StatedTitle, { card }: FrameCell) =>
  stated.workingGB !== null && !card.integrated && card.memoryGB !== null;

/**
 * The space of a title and what it runs on.
 * @param cells every cell that is known or asked; not modified
 * @param stated what a person states of the title
 * @param base a space to grow from: its places stay, new ones come behind
 * @returns the space
 */
export function parameterSpace(
  cells: readonly FrameCell[],
  stated: StatedTitle,
  base: ParameterSpace | null = null,
): ParameterSpace {
  let size = base?.size ?? COMMON_SIZE;
  const take = (n = 1) => {
    size += n;
    return size - n;
  };
  const grow = <T extends { readonly id: string }>(
    old: readonly Place[],
    things: readonly T[],
    prior: (thing: T) => Prior,
  ) => {
    const all = [...old];
    for (const thing of things)
      if (!all.some((p) => p.id === thing.id))
        all.push({ id: thing.id, at: take(), prior: prior(thing) });
    return all;
  };
  const hosts = grow(
    base?.hosts ?? [],
    cells.map((c) => c.host),
    (h) => hostPrior(h.index),
  );
  const cards = grow(
    base?.cards ?? [],
    cells.map((c) => c.card),
    (c) => cardPrior(c.index),
  );
  const links = grow(
    base?.links ?? [],
    cells.map((c) => c.link),
    (l) => linkPrior(l.down),
  );
  const looks = [...(base?.looks ?? [])];
  const common = commonLook(cells);
  if (looks.length === 0 && common) looks.push({ id: common.id, at: null, look: common });
  for (const { look } of cells)
    if (!looks.some((l) => l.id === look.id))
      looks.push({ id: look.id, at: take(LOOK_SIZE), look });
  const overflows = cells.some((c) => overflowsAt(stated, c));
  return {
    stated,
    hosts,
    cards,
    links,
    looks,
    memoryAt: base?.memoryAt ?? (overflows ? take(2) : null),
    powerAt: base?.powerAt ?? (cells.some((c) => c.cardPower !== 1) ? take() : null),
    size,
  };
}

/**
 * Has a space room for a cell?
 * @param space the space
 * @param cell the cell
 * @returns true where every parameter the cell needs has a place
 */
export function hasPlaces(space: ParameterSpace, cell: FrameCell): boolean {
  const has = (list: readonly { readonly id: string }[], id: string) =>
    list.some((p) => p.id === id);
  return (
    has(space.hosts, cell.host.id) &&
    has(space.cards, cell.card.id) &&
    has(space.links, cell.link.id) &&
    has(space.looks, cell.look.id) &&
    (space.memoryAt !== null || !overflowsAt(space.stated, cell)) &&
    (space.powerAt !== null || cell.cardPower === 1)
  );
}

/**
 * Fills parameters in the units of the equations from the standard normal numbers of a particle. Both have the same places.
 * @param z standard normal numbers, those of the particle from `from` on
 * @param from place of the first
 * @param into parameters, filled from `at` on
 * @param at place of the first
 */
export type Deriver = (z: Float64Array, from: number, into: Float64Array, at: number) => void;

/** Centre and spread of each number of a particle, so that a particle is mapped in one pass. */
function priorsOf(space: ParameterSpace): { centres: Float64Array; sds: Float64Array } {
  const { stated } = space;
  const centres = new Float64Array(space.size);
  const sds = new Float64Array(space.size);
  const put = (at: number, prior: Prior) => {
    centres[at] = prior.centre;
    sds[at] = prior.sd;
  };
  put(AT.processorMs, statedOr(stated.processorMs, PRIORS.processorMs));
  put(AT.processorGrowth, PRIORS.processorGrowth);
  put(AT.cardMs, statedOr(stated.cardMs, PRIORS.cardMs));
  put(AT.fixedShare, PRIORS.fixedShare);
  put(AT.pixelPower, PRIORS.pixelPower);
  put(AT.trafficMB, statedOr(stated.trafficMB, PRIORS.trafficMB));
  put(AT.trafficGrowth, PRIORS.trafficGrowth);
  put(AT.roundTrips, PRIORS.roundTrips);
  LINK_LOGITS.forEach((prior, i) => put(AT.onProcessor + i, prior));
  put(AT.sharpness, PRIORS.sharpness);
  put(AT.returnCopy, PRIORS.returnCopy);
  for (const place of [...space.hosts, ...space.cards, ...space.links]) put(place.at, place.prior);
  const reference = space.looks[0]?.look;
  for (const { at, look } of space.looks) {
    if (at === null || !reference) continue;
    const { card, processor, traffic } = lookPriors(look, reference);
    [card, processor, traffic].forEach((prior, i) => put(at + i, prior));
  }
  const working = workingPrior(stated.workingGB);
  if (space.memoryAt !== null && working) {
    put(space.memoryAt, working);
    put(space.memoryAt + 1, PRIORS.touched);
  }
  if (space.powerAt !== null) put(space.powerAt, PRIORS.powerExponent);
  return { centres, sds };
}

/** Parameters that are not logarithms. */
const PLAIN: readonly number[] = [AT.processorGrowth, AT.pixelPower, AT.trafficGrowth];

/**
 * The way from standard normal numbers to parameters.
 * @param space the space of the particles
 * @returns a function that maps one particle
 */
export function deriver(space: ParameterSpace): Deriver {
  const { size, powerAt } = space;
  const { centres, sds } = priorsOf(space);
  const isPlain = Uint8Array.from({ length: size }, (_, d) =>
    Number(PLAIN.includes(d) || d === powerAt),
  );
  const waiting = Math.exp(WAIT_LOGIT);
  return (z, from, into, at) => {
    for (let d = 0; d < size; d++) {
      const value = centres[d]! + sds[d]! * z[from + d]!;
      into[at + d] = isPlain[d] === 1 ? value : Math.exp(value);
    }
    // Of odds, the share.
    into[at + AT.fixedShare] = into[at + AT.fixedShare]! / (1 + into[at + AT.fixedShare]!);
    into[at + AT.sharpness]! += 1;
    const sum =
      into[at + AT.onProcessor]! + into[at + AT.onCard]! + into[at + AT.beside]! + waiting;
    into[at + AT.onProcessor]! /= sum;
    into[at + AT.onCard]! /= sum;
    into[at + AT.beside]! /= sum;
  };
}
