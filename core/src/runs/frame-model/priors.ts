import type { Range } from '../../base';
import type { FrameLook, PresetGroup } from './cell';

/** A normal distribution; of parameters above 0, of their natural logarithm. */
export interface Prior {
  readonly centre: number;
  readonly sd: number;
}

/**
 * Priors of a title, the same for every title: judgement, held by simulated titles of several mechanisms (docs/how-it-computes.md).
 * Logarithms but for the growths, the power and the exponent; the fixed share is a logit.
 */
export const PRIORS = {
  /** ms of the processor for a frame on a host of index 100: 30 to 450 frames/s cover 95 %. */
  processorMs: { centre: Math.log(7.5), sd: 0.65 },
  /** Growth of the processor's time for each further 1920x1080 of the picture: little. */
  processorGrowth: { centre: 0.01, sd: 0.02 },
  /** ms of a card of index 100 for a frame of 1920x1080. */
  cardMs: { centre: Math.log(7.5), sd: 0.75 },
  /** Share of the card's time that does not grow with the picture: shadows, geometry, passes of a fixed size. */
  fixedShare: { centre: -0.8, sd: 0.95 },
  /** Power of the pixels by which the rest grows. */
  pixelPower: { centre: 0.95, sd: 0.07 },
  /** MB to the card for a frame of 1920x1080, and their growth for each further 1920x1080. */
  trafficMB: { centre: Math.log(8), sd: 0.9 },
  trafficGrowth: { centre: 0.04, sd: 0.05 },
  /** Times a frame in which one side waits for the other over the link. */
  roundTrips: { centre: Math.log(250), sd: 0.9 },
  /** Sharpness of the maximum over the stages, less 1: stages one after the other are at 1, side by side far above. */
  sharpness: { centre: Math.log(5), sd: 0.7 },
  /** Part of the picture that goes back to a panel. */
  returnCopy: { centre: Math.log(0.72), sd: 0.3 },
  /** Share of what does not fit the card's memory that a frame touches. */
  touched: { centre: Math.log(0.02), sd: 0.7 },
  /** A card held to a share of its power keeps this power of the share as speed. */
  powerExponent: { centre: 0.7, sd: 0.15 },
} as const satisfies Record<string, Prior>;

/** How the link's work is spread over processor, card, beside both, and all waiting: logits, the last one fixed. Nobody knows. */
export const LINK_LOGITS: readonly Prior[] = [
  { centre: -0.3, sd: 1.4 },
  { centre: -0.3, sd: 1.4 },
  { centre: -0.2, sd: 1.4 },
];
export const WAIT_LOGIT = 0.6;

/** How far the index of a host or card misses a title, as ln; and how far a stage without an index may lie (judgement). */
const HOST_SD = { index: 0.12, none: 0.4 } as const;
const CARD_SD = { index: 0.09, none: 0.5 } as const;
/** Tables of link rates are good to about 5 % (judgement). */
const LINK_SD = 0.05;
/** The ends of a stated interval lie as far apart as 90 % of a normal distribution. */
const INTERVAL_SDS = 3.3;
/** Gb/s of a link of which nothing is known. */
const ANY_RATE: Range = { lo: 6, hi: 60 };
/** What a person states of a title replaces the centre of its prior, with this spread of ln (judgement). */
const STATED_SD = 0.25;
const WORKING_SD = 0.3;
const REFERENCE_INDEX = 100;

/** Factors of a look on card, processor and traffic. */
interface LookFactors {
  readonly card: number;
  readonly processor: number;
  readonly traffic: number;
  /** Spread of ln of the card's factor. */
  readonly sd: number;
}
/** Against "high" (judgement). */
const PRESETS: Readonly<Record<PresetGroup, LookFactors>> = {
  low: { card: 0.6, processor: 0.93, traffic: 0.8, sd: 0.2 },
  medium: { card: 0.8, processor: 0.97, traffic: 0.9, sd: 0.15 },
  high: { card: 1, processor: 1, traffic: 1, sd: 0.2 },
  ultra: { card: 1.3, processor: 1.05, traffic: 1.2, sd: 0.2 },
  other: { card: 1, processor: 1, traffic: 1, sd: 0.35 },
};
/** What ray tracing adds to a preset (judgement). */
const RAY_TRACING: LookFactors = { card: 1.4, processor: 1.1, traffic: 1.3, sd: 0.25 };
/** The same preset at another scale: what upscaling itself costs is open (judgement). */
const SAME_PRESET_SD = 0.1;
const LOOK_PROCESSOR_SD = 0.05;
const LOOK_TRAFFIC_SD = 0.2;

const middleLn = (r: Range) => (Math.log(r.lo) + Math.log(r.hi)) / 2;
const sdLn = (r: Range) => Math.log(r.hi / r.lo) / INTERVAL_SDS;

function stagePrior(index: Range | null, sd: { index: number; none: number }): Prior {
  if (!index) return { centre: 0, sd: sd.none };
  return {
    centre: Math.log(REFERENCE_INDEX) - middleLn(index),
    sd: Math.hypot(sd.index, sdLn(index)),
  };
}

/**
 * Factor of a host on the time of the processor's stage, as ln.
 * @param index single-thread index, 100 is the reference; null where none is stated
 * @returns the prior of the factor
 * @example hostPrior({ lo: 100, hi: 100 }) // => { centre: 0, sd: 0.12 }
 */
export function hostPrior(index: Range | null): Prior {
  return stagePrior(index, HOST_SD);
}

/**
 * Factor of a card on the time of the card's stage, as ln.
 * @param index frame index, 100 is the reference; null where none is stated
 * @returns the prior of the factor
 * @example cardPrior({ lo: 100, hi: 100 }) // => { centre: 0, sd: 0.09 }
 */
export function cardPrior(index: Range | null): Prior {
  return stagePrior(index, CARD_SD);
}

/**
 * Usable rate of a link as the equations take it.
 * @param rate Gb/s; null where nothing is known
 * @returns Gb/s, the geometric middle
 * @example rateOf({ lo: 20, hi: 45 }) // => 30
 */
export function rateOf(rate: Range | null): number {
  return Math.exp(middleLn(rate ?? ANY_RATE));
}

/**
 * True over tabulated time of a byte on a link, as ln.
 * @param down usable rate to the card in Gb/s; null where nothing is known
 * @returns the prior of the factor
 * @example linkPrior({ lo: 26, hi: 26 }) // => { centre: 0, sd: 0.05 }
 */
export function linkPrior(down: Range | null): Prior {
  return { centre: 0, sd: Math.max(LINK_SD, sdLn(down ?? ANY_RATE)) };
}

function factorsOf(look: FrameLook): LookFactors {
  const preset = PRESETS[look.preset];
  if (!look.rayTracing) return preset;
  return {
    card: preset.card * RAY_TRACING.card,
    processor: preset.processor * RAY_TRACING.processor,
    traffic: preset.traffic * RAY_TRACING.traffic,
    sd: Math.hypot(preset.sd, RAY_TRACING.sd),
  };
}

/**
 * Factors of a look on the stages, as ln, against another look.
 * @param look the look that is asked
 * @param reference the look whose factors are 1
 * @returns priors of the factors on card, processor and traffic
 */
export function lookPriors(
  look: FrameLook,
  reference: FrameLook,
): { readonly card: Prior; readonly processor: Prior; readonly traffic: Prior } {
  const own = factorsOf(look);
  const other = factorsOf(reference);
  const samePreset = look.preset === reference.preset && look.rayTracing === reference.rayTracing;
  return {
    card: {
      centre: Math.log(own.card / other.card),
      sd: samePreset && look.preset !== 'other' ? SAME_PRESET_SD : own.sd,
    },
    processor: { centre: Math.log(own.processor / other.processor), sd: LOOK_PROCESSOR_SD },
    traffic: { centre: Math.log(own.traffic / other.traffic), sd: LOOK_TRAFFIC_SD },
  };
}

/** What a person states of a title at a host and a card of index 100 and 1920x1080; null where nothing is stated. */
export interface StatedTitle {
  readonly processorMs: number | null;
  readonly cardMs: number | null;
  readonly trafficMB: number | null;
  /** GB it wants to have in the card's memory. */
  readonly workingGB: number | null;
}
/** What a form asks of a title nobody has measured: at a host and card of index 100, at 1920x1080. */
export interface TitleParams {
  readonly cpuMs: number;
  readonly cardMs: number;
  readonly trafficMB: number;
  readonly workingGB: number;
}

export const NOTHING_STATED: StatedTitle = {
  processorMs: null,
  cardMs: null,
  trafficMB: null,
  workingGB: null,
};

/**
 * Prior of a figure that a person may have stated.
 * @param value what is stated, above 0; null where nothing is
 * @param prior what stands otherwise
 * @returns the prior of ln of the figure
 */
export function statedOr(value: number | null, prior: Prior): Prior {
  return value === null || !(value > 0) ? prior : { centre: Math.log(value), sd: STATED_SD };
}

/**
 * Prior of the working set of a title.
 * @param workingGB what is stated, GB; null where nothing is
 * @returns the prior of ln of it; null where memory cannot be reckoned with
 */
export function workingPrior(workingGB: number | null): Prior | null {
  return workingGB === null || !(workingGB > 0)
    ? null
    : { centre: Math.log(workingGB), sd: WORKING_SD };
}

/**
 * What a form says of a title, as the model takes it: a traffic or working set of 0 says nothing.
 * @param params what was typed; null where nothing was
 * @returns what is stated
 * @example statedTitle({ cpuMs: 8, cardMs: 7, trafficMB: 0, workingGB: 6 })?.trafficMB // => null
 */
export function statedTitle(params: TitleParams | null): StatedTitle | null {
  if (!params) return null;
  const { cpuMs: processorMs, cardMs, trafficMB, workingGB } = params;
  return { processorMs, cardMs, trafficMB: trafficMB || null, workingGB: workingGB || null };
}
