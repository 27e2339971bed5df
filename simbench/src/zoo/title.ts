import { type Chance, mixedChance } from '../chance';

/**
 * The zoo: titles whose frames are made by mechanisms that the frame model of the core does not have, to see how far its answers hold.
 * Nothing here is shared with that model. All ranges are judgement.
 */
export const MECHANISMS = [
  'queue',
  'serial',
  'chunks',
  'bursts',
  'pacing',
  'thermal',
  'plain',
] as const;
export type Mechanism = (typeof MECHANISMS)[number];

export interface ZooHost {
  readonly id: string;
  /** The index a person would find; null where none is stated. */
  readonly index: number | null;
  /** ms of its processor against one of index 100. */
  readonly slowness: number;
}
export interface ZooCard {
  readonly id: string;
  readonly index: number;
  readonly slowness: number;
  /** What its fixed share differs from the title's. */
  readonly fixedMore: number;
  readonly memoryGB: number;
}
export interface ZooLink {
  readonly id: string;
  /** Tabulated usable Gb/s. */
  readonly down: number;
  readonly up: number;
  readonly latencyMs: number;
  /** True over tabulated time of a byte. */
  readonly slowness: number;
}
export interface ZooLook {
  readonly id: 'high' | 'low' | 'ultra' | 'traced' | 'upscaled';
  readonly card: number;
  readonly processor: number;
  readonly traffic: number;
  /** Share of the width that is drawn. */
  readonly scale: number;
}

/** One title and the house it is run in. */
export interface ZooTitle {
  readonly seed: number;
  readonly mechanism: Mechanism;
  /** ms at an index of 100, the card's at 1920x1080. */
  readonly processorMs: number;
  readonly processorGrowth: number;
  readonly cardMs: number;
  readonly law: 'linear' | 'power' | 'step';
  readonly fixedShare: number;
  readonly power: number;
  readonly step: number;
  readonly trafficMB: number;
  readonly trafficGrowth: number;
  readonly trips: number;
  /** Parts of the link's work on the processor, in drawing, beside both, and while all wait; sum 1. */
  readonly parts: readonly [number, number, number, number];
  readonly returned: number;
  /** Part of the way back that overlaps with the next frame. */
  readonly returnOverlap: number;
  readonly jitter: { readonly processor: number; readonly card: number; readonly kept: number };
  readonly runNoise: number;
  readonly depth: number;
  readonly passes: number;
  readonly buffers: number;
  readonly forked: number;
  readonly bursts: { readonly share: number; readonly mb: number };
  readonly heat: { readonly card: number; readonly processor: number };
  readonly sharpness: number;
  readonly workingGB: number;
  readonly touched: number;
  readonly powerExponent: number;
  readonly hosts: Readonly<Record<'own' | 'other' | 'desktop', ZooHost>>;
  readonly cards: Readonly<Record<'a' | 'b', ZooCard>>;
  readonly links: Readonly<Record<'dock' | 'other' | 'slot', ZooLink>>;
  readonly looks: Readonly<Record<ZooLook['id'], ZooLook>>;
  /** Points by which the card's load meter reads high. */
  readonly meterHigh: number;
}

const logNormal = (c: Chance, middle: number, sd: number) => middle * Math.exp(sd * c.normal());

function makeHost(c: Chance, id: string, lo: number, hi: number, stated: boolean): ZooHost {
  const index = c.between(lo, hi);
  return {
    id,
    index: stated ? index : null,
    slowness: (100 / index) * Math.exp(0.1 * c.normal()),
  };
}

function makeCard(c: Chance, id: string, memoryGB: number): ZooCard {
  const index = 60 * (260 / 60) ** c.next();
  return {
    id,
    index,
    slowness: (100 / index) * Math.exp(0.07 * c.normal()),
    fixedMore: c.between(-0.06, 0.06),
    memoryGB,
  };
}

function makeLink(c: Chance, id: string, lo: number, hi: number, hops: number): ZooLink {
  const down = lo * (hi / lo) ** c.next();
  return {
    id,
    down,
    up: down * 0.97,
    latencyMs: 0.001 + 0.0012 * hops,
    slowness: 1 + 0.05 * c.normal(),
  };
}

/** How each mechanism tends to spread the link's work. */
const LEANING: Readonly<Record<Mechanism, readonly [number, number, number, number]>> = {
  queue: [1, 1, 2, 1],
  serial: [2, 1, 0.5, 2],
  chunks: [1, 2, 2, 1],
  bursts: [1, 1, 2, 1],
  pacing: [1.5, 1, 1, 1.5],
  thermal: [1, 1.5, 1, 1.5],
  plain: [1, 1, 1, 1.5],
};

function makeParts(c: Chance, mechanism: Mechanism): [number, number, number, number] {
  const raw = LEANING[mechanism].map((w) => w * -Math.log(1 - c.next()));
  const sum = raw.reduce((a, b) => a + b, 0);
  return raw.map((w) => w / sum) as [number, number, number, number];
}

function makeLooks(c: Chance): ZooTitle['looks'] {
  const look = (
    id: ZooLook['id'],
    card: number,
    processor: number,
    traffic: number,
    sd: number,
    scale = 1,
  ): ZooLook => ({
    id,
    card: logNormal(c, card, sd),
    processor: logNormal(c, processor, 0.04),
    traffic: logNormal(c, traffic, 0.15),
    scale,
  });
  return {
    high: { id: 'high', card: 1, processor: 1, traffic: 1, scale: 1 },
    low: look('low', 0.62, 0.94, 0.82, 0.17),
    ultra: look('ultra', 1.28, 1.04, 1.18, 0.17),
    traced: look('traced', 1.45, 1.1, 1.25, 0.22),
    upscaled: look('upscaled', 1, 1, 1, 0.08, 2 / 3),
  };
}

/**
 * A title in a house, drawn by chance.
 * @param seed the same seed and mechanism give the same title
 * @param mechanism how its frames are made
 * @returns the title
 */
export function makeZooTitle(seed: number, mechanism: Mechanism): ZooTitle {
  const c = mixedChance(seed * 31 + MECHANISMS.indexOf(mechanism));
  return {
    seed,
    mechanism,
    processorMs: logNormal(c, 7.5, 0.5),
    processorGrowth: Math.max(0, 0.01 + 0.02 * c.normal()),
    cardMs: logNormal(c, 7, 0.6),
    law: c.next() < 0.5 ? 'linear' : c.next() < 0.6 ? 'power' : 'step',
    fixedShare: c.between(0.08, 0.6),
    power: c.between(0.55, 1),
    step: c.between(0.02, 0.15),
    trafficMB: logNormal(c, 8, 0.85),
    trafficGrowth: c.between(-0.02, 0.14),
    trips: c.between(60, 900),
    parts: makeParts(c, mechanism),
    returned: c.between(0.5, 0.95),
    returnOverlap: c.pick([0, 0.5, 1]),
    jitter: {
      processor: c.between(0.05, 0.25),
      card: c.between(0.04, 0.18),
      kept: c.between(0, 0.9),
    },
    runNoise: c.between(0.004, 0.025),
    depth: 1 + Math.floor(3 * c.next()),
    passes: 4 + Math.floor(11 * c.next()),
    buffers: 1 + Math.floor(3 * c.next()),
    forked: c.between(0.1, 0.7),
    bursts: { share: c.between(0.01, 0.08), mb: c.between(10, 60) },
    heat: { card: c.between(0, 0.09), processor: c.between(0, 0.07) },
    sharpness: c.between(2, 14),
    workingGB: c.between(6, 14),
    touched: logNormal(c, 0.02, 0.5),
    powerExponent: c.between(0.5, 0.9),
    hosts: {
      own: makeHost(c, 'own', 55, 150, true),
      other: makeHost(c, 'other', 55, 150, true),
      desktop: makeHost(c, 'desktop', 95, 170, false),
    },
    cards: { a: makeCard(c, 'a', 8), b: makeCard(c, 'b', 12) },
    links: {
      dock: makeLink(c, 'dock', 13.4, 54, 1),
      other: makeLink(c, 'other', 13.4, 54, 1),
      slot: makeLink(c, 'slot', 53, 214, 0),
    },
    looks: makeLooks(c),
    meterHigh: c.next() < 0.12 ? c.between(0, 0.35) : 0,
  };
}
