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

/** One set of parameters in the units of the equations. Refilled in place: a posterior computes many thousands. */
export interface FrameParameters {
  processorMs: number;
  processorGrowth: number;
  cardMs: number;
  fixedShare: number;
  pixelPower: number;
  trafficMB: number;
  trafficGrowth: number;
  roundTrips: number;
  /** Parts of the link's work on the processor's thread, inside drawing, beside both, and waited for by all; sum 1. */
  onProcessor: number;
  onCard: number;
  beside: number;
  waited: number;
  sharpness: number;
  returnCopy: number;
  /** GB; 0 where nothing is stated. */
  workingGB: number;
  touched: number;
  powerExponent: number;
  /** Factors on stage times, by place in the space. */
  readonly host: Float64Array;
  readonly card: Float64Array;
  readonly link: Float64Array;
  readonly lookCard: Float64Array;
  readonly lookProcessor: Float64Array;
  readonly lookTraffic: Float64Array;
}

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

/** Numbers that every particle has. */
const AT = {
  processorMs: 0,
  processorGrowth: 1,
  cardMs: 2,
  fixedShare: 3,
  pixelPower: 4,
  trafficMB: 5,
  trafficGrowth: 6,
  roundTrips: 7,
  linkLogits: 8,
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
  const overflows =
    stated.workingGB !== null && cells.some((c) => !c.card.integrated && c.card.memoryGB !== null);
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
 * Room for one set of parameters.
 * @param space the space it is of
 * @returns a set to be filled by `deriver`
 */
export function emptyParameters(space: ParameterSpace): FrameParameters {
  return {
    processorMs: 0,
    processorGrowth: 0,
    cardMs: 0,
    fixedShare: 0,
    pixelPower: 0,
    trafficMB: 0,
    trafficGrowth: 0,
    roundTrips: 0,
    onProcessor: 0,
    onCard: 0,
    beside: 0,
    waited: 0,
    sharpness: 0,
    returnCopy: 0,
    workingGB: 0,
    touched: 0,
    powerExponent: PRIORS.powerExponent.centre,
    host: new Float64Array(space.hosts.length),
    card: new Float64Array(space.cards.length),
    link: new Float64Array(space.links.length),
    lookCard: new Float64Array(space.looks.length).fill(1),
    lookProcessor: new Float64Array(space.looks.length).fill(1),
    lookTraffic: new Float64Array(space.looks.length).fill(1),
  };
}

/** Fills a set of parameters from the standard normal numbers of a particle. */
export type Deriver = (z: Float64Array, from: number, into: FrameParameters) => void;

/**
 * The way from standard normal numbers to parameters.
 * @param space the space of the particles
 * @returns a function that reads `space.size` numbers of `z` from `from` on
 */
export function deriver(space: ParameterSpace): Deriver {
  const { stated, hosts, cards, links, looks, memoryAt, powerAt } = space;
  const processorMs = statedOr(stated.processorMs, PRIORS.processorMs);
  const cardMs = statedOr(stated.cardMs, PRIORS.cardMs);
  const trafficMB = statedOr(stated.trafficMB, PRIORS.trafficMB);
  const working = workingPrior(stated.workingGB);
  const [toProcessor, toCard, toBeside] = LINK_LOGITS as [Prior, Prior, Prior];
  const reference = looks[0]?.look;
  const lookMaps = looks.map((l) => ({
    at: l.at,
    priors: reference ? lookPriors(l.look, reference) : null,
  }));
  return (z, from, p) => {
    const plain = (prior: Prior, at: number) => prior.centre + prior.sd * z[from + at]!;
    p.processorMs = Math.exp(plain(processorMs, AT.processorMs));
    p.processorGrowth = plain(PRIORS.processorGrowth, AT.processorGrowth);
    p.cardMs = Math.exp(plain(cardMs, AT.cardMs));
    p.fixedShare = 1 / (1 + Math.exp(-plain(PRIORS.fixedShare, AT.fixedShare)));
    p.pixelPower = plain(PRIORS.pixelPower, AT.pixelPower);
    p.trafficMB = Math.exp(plain(trafficMB, AT.trafficMB));
    p.trafficGrowth = plain(PRIORS.trafficGrowth, AT.trafficGrowth);
    p.roundTrips = Math.exp(plain(PRIORS.roundTrips, AT.roundTrips));
    p.sharpness = 1 + Math.exp(plain(PRIORS.sharpness, AT.sharpness));
    p.returnCopy = Math.exp(plain(PRIORS.returnCopy, AT.returnCopy));
    const a = Math.exp(plain(toProcessor, AT.linkLogits));
    const b = Math.exp(plain(toCard, AT.linkLogits + 1));
    const c = Math.exp(plain(toBeside, AT.linkLogits + 2));
    const sum = a + b + c + Math.exp(WAIT_LOGIT);
    p.onProcessor = a / sum;
    p.onCard = b / sum;
    p.beside = c / sum;
    p.waited = 1 - (a + b + c) / sum;
    for (let i = 0; i < hosts.length; i++)
      p.host[i] = Math.exp(plain(hosts[i]!.prior, hosts[i]!.at));
    for (let i = 0; i < cards.length; i++)
      p.card[i] = Math.exp(plain(cards[i]!.prior, cards[i]!.at));
    for (let i = 0; i < links.length; i++)
      p.link[i] = Math.exp(plain(links[i]!.prior, links[i]!.at));
    for (let i = 1; i < lookMaps.length; i++) {
      const { at, priors } = lookMaps[i]!;
      if (at === null || !priors) continue;
      p.lookCard[i] = Math.exp(plain(priors.card, at));
      p.lookProcessor[i] = Math.exp(plain(priors.processor, at + 1));
      p.lookTraffic[i] = Math.exp(plain(priors.traffic, at + 2));
    }
    if (memoryAt !== null && working) {
      p.workingGB = Math.exp(plain(working, memoryAt));
      p.touched = Math.exp(plain(PRIORS.touched, memoryAt + 1));
    }
    if (powerAt !== null) p.powerExponent = plain(PRIORS.powerExponent, powerAt);
  };
}
