import { quantile, type Range } from '../../base';
import calibration from './calibration.json';
import type { FrameCell } from './cell';
import { drawLn } from './draws';
import { cellsOfEvidence } from './evidence';
import { compileCell } from './frame-time';
import { AT } from './parameters';
import type { FramePosterior } from './posterior';
import { randomSource } from './random';
import {
  type CellView,
  FRAME_STAGES,
  type FrameStage,
  sharesOf,
  STAGE_COUNT,
  viewCell,
} from './view';

/** Draws of each particle's shares, and the spread of what the equations miss of a share (judgement, held by the zoo). */
const SHARE_DRAWS = 4;
const SHARE_SD = 0.07;
const SEED_OF_SHARES = 0x5a4e;
/** Chance from which a limiter is named. */
export const SAY_LIMITER = 0.9;
const MAX_CHANCE = 0.98;
const RAW_CHANCE: Range = { lo: 0.2, hi: 0.995 };
/** Two stages limit about equally: how near, with what chance, and with what chance they are the two largest. */
const EQUAL_WITHIN = 0.15;
const EQUAL_CHANCE = 0.8;
const EQUAL_PAIR_CHANCE = 0.9;
const CAP_CHANCE = 0.95;
/** Links whose rates are closer than this share are one link. */
const SAME_RATE = 0.05;

/** What 1 % more speed of a stage brings, in %: median and 80 % band. */
export interface FrameStageShare {
  readonly stage: FrameStage;
  readonly share: number;
  readonly band: Range;
  /** Chance that it is the largest, as counted; and as it is shown, where it is the likeliest. */
  readonly chance: number;
  readonly shown: number;
}

/** What limits a cell, as far as it may be said. */
export type FrameLimiter =
  | { readonly kind: 'cap'; readonly fps: number; readonly chance: number }
  | {
      readonly kind: 'stage';
      readonly stage: FrameStage;
      readonly chance: number;
      /** MB a frame up to which a processor may be named without a second link rate; null where nothing depends on it. */
      readonly unlessTrafficMB: number | null;
    }
  | {
      readonly kind: 'equal';
      readonly stages: readonly [FrameStage, FrameStage];
      readonly chance: number;
    }
  | { readonly kind: 'open'; readonly likely: readonly FrameStage[] };

export interface LimiterAnswer {
  readonly limiter: FrameLimiter;
  /** Of the frame without a cap, largest first. */
  readonly shares: readonly FrameStageShare[];
}

/**
 * The shown chance of a raw one, from how often such chances held in the zoo.
 * @param raw chance as counted over the particles
 * @returns the chance that is told, at most 0.98
 * @example shownChance(0.99) // => 0.9754
 */
export function shownChance(raw: number): number {
  const p = Math.min(RAW_CHANCE.hi, Math.max(RAW_CHANCE.lo, raw));
  const { slope, offset } = calibration.limiter;
  const logit = slope * Math.log(p / (1 - p)) + offset;
  return Math.min(MAX_CHANCE, 1 / (1 + Math.exp(-logit)));
}

/**
 * Draws of the shares, with what the equations miss of them: each particle counts several times.
 * @param shares shares in the order of `FRAME_STAGES`, particle after particle
 * @param seed the same seed gives the same draws
 * @returns draws in the same order, each summing to 1
 */
export function shareDraws(shares: Float64Array, seed: number): Float64Array {
  const random = randomSource(seed ^ SEED_OF_SHARES);
  const particles = shares.length / STAGE_COUNT;
  const draws = new Float64Array(shares.length * SHARE_DRAWS);
  for (let i = 0, at = 0; i < particles; i++)
    for (let d = 0; d < SHARE_DRAWS; d++, at += STAGE_COUNT) {
      let sum = 0;
      for (let s = 0; s < STAGE_COUNT; s++) {
        const share = shares[i * STAGE_COUNT + s]!;
        // A stage that takes no time in the equations, such as the way back without a panel, stays at nothing.
        const drawn = share === 0 ? 0 : Math.max(0, share + SHARE_SD * random.normal());
        draws[at + s] = drawn;
        sum += drawn;
      }
      for (let s = 0; s < STAGE_COUNT; s++) draws[at + s] = sum === 0 ? 0 : draws[at + s]! / sum;
    }
  return draws;
}

interface Counted {
  readonly chance: number[];
  /** Chance that two stages are the two largest, and that they lie close together. */
  readonly topPair: number[][];
  readonly close: number[][];
}

function countStages(draws: Float64Array): Counted {
  const n = draws.length / STAGE_COUNT;
  const square = () => FRAME_STAGES.map(() => FRAME_STAGES.map(() => 0));
  const chance = FRAME_STAGES.map(() => 0);
  const topPair = square();
  const close = square();
  for (let i = 0; i < draws.length; i += STAGE_COUNT) {
    const order = FRAME_STAGES.map((_, s) => s).sort((a, b) => draws[i + b]! - draws[i + a]!);
    const [first, second] = order as [number, number];
    chance[first]! += 1 / n;
    topPair[Math.min(first, second)]![Math.max(first, second)]! += 1 / n;
    for (let a = 0; a < STAGE_COUNT; a++)
      for (let b = a + 1; b < STAGE_COUNT; b++)
        if (Math.abs(draws[i + a]! - draws[i + b]!) < EQUAL_WITHIN) close[a]![b]! += 1 / n;
  }
  return { chance, topPair, close };
}

/** Does the evidence hold two link rates of one host, or a run at another processor clock? Only then may the link be named. */
function tellsLink(posterior: FramePosterior, cell: FrameCell): boolean {
  const own = posterior.evidence
    .flatMap(cellsOfEvidence)
    .filter((c) => c.host.id === cell.host.id && !c.card.integrated);
  const rates = own.flatMap((c) =>
    c.link.down ? [Math.sqrt(c.link.down.lo * c.link.down.hi)] : [],
  );
  const apart = rates.length > 0 && Math.max(...rates) / Math.min(...rates) > 1 + SAME_RATE;
  return apart || new Set(own.map((c) => c.processorClock)).size > 1;
}

function tellsPanel(posterior: FramePosterior, cell: FrameCell): boolean {
  const own = posterior.evidence.flatMap(cellsOfEvidence).filter((c) => c.host.id === cell.host.id);
  return new Set(own.map((c) => c.panel)).size > 1;
}

/** The fewest stages that hold a chance of 0.9 together. */
function likeliest(chance: readonly number[]): FrameStage[] {
  const order = FRAME_STAGES.map((stage, s) => ({ stage, p: chance[s]! })).sort(
    (a, b) => b.p - a.p,
  );
  let sum = 0;
  return order
    .filter(({ p }) => {
      const before = sum;
      sum += p;
      return before < SAY_LIMITER;
    })
    .map((x) => x.stage);
}

/** MB a frame at which what the link carries beside the other stages would take the whole frame: the median over the particles. */
function trafficToReach(view: CellView): number {
  const { space, parameters } = view.posterior;
  const compiled = compileCell(view.cell, space);
  const reach = Float64Array.from({ length: view.count }, (_, i) => {
    const at = i * space.size;
    const msPerMB = parameters[at + compiled.link]! * compiled.msPerMB;
    return Math.exp(view.ln[i]!) / (msPerMB * parameters[at + AT.beside]!);
  });
  return quantile(reach.sort(), 0.5);
}

function stageShareList(draws: Float64Array, chance: readonly number[]): FrameStageShare[] {
  return FRAME_STAGES.map((stage, s) => {
    const own = Float64Array.from(
      { length: draws.length / STAGE_COUNT },
      (_, i) => draws[i * STAGE_COUNT + s]!,
    ).sort();
    const mean = own.reduce((a, b) => a + b, 0) / own.length;
    const band = { lo: quantile(own, 0.1), hi: quantile(own, 0.9) };
    return { stage, share: mean, band, chance: chance[s]!, shown: shownChance(chance[s]!) };
  }).sort((a, b) => b.share - a.share);
}

function equalStages(c: Counted): FrameLimiter | null {
  for (let a = 0; a < STAGE_COUNT; a++)
    for (let b = a + 1; b < STAGE_COUNT; b++)
      if (c.close[a]![b]! >= EQUAL_CHANCE && c.topPair[a]![b]! >= EQUAL_PAIR_CHANCE)
        return {
          kind: 'equal',
          stages: [FRAME_STAGES[a]!, FRAME_STAGES[b]!],
          chance: Math.min(MAX_CHANCE, c.close[a]![b]!),
        };
  return null;
}

/** May this stage be named from the kind of evidence there is? */
function mayName(stage: FrameStage, posterior: FramePosterior, cell: FrameCell): boolean {
  if (stage === 'link') return tellsLink(posterior, cell);
  return stage !== 'panel' || tellsPanel(posterior, cell);
}

function capHolds(view: CellView): number {
  const { capFps } = view.cell;
  if (capFps === null) return 0;
  const lnCap = Math.log(1000 / capFps);
  const draws = drawLn(view, 'mean');
  return draws.reduce((n, ln) => n + Number(ln < lnCap), 0) / draws.length;
}

/**
 * What limits the frames of a cell, as far as the evidence lets it be said. A stage is named from a chance of 90 % on, and only where
 * the kind of runs there are can tell it from the others; else the likeliest stages are told without a number.
 * @param posterior what is known of the title
 * @param cell the cell that is asked
 * @returns what limits it, and what 1 % more speed of each stage would bring
 */
export function limiterOf(posterior: FramePosterior, cell: FrameCell): LimiterAnswer {
  const view = viewCell(posterior, cell);
  const draws = shareDraws(sharesOf(view), posterior.seed);
  const counted = countStages(draws);
  const shares = stageShareList(draws, counted.chance);
  const held = capHolds(view);
  if (held >= CAP_CHANCE)
    return {
      limiter: { kind: 'cap', fps: cell.capFps!, chance: Math.min(MAX_CHANCE, held) },
      shares,
    };
  const best = counted.chance.indexOf(Math.max(...counted.chance));
  const stage = FRAME_STAGES[best]!;
  const chance = shownChance(counted.chance[best]!);
  if (chance >= SAY_LIMITER && mayName(stage, posterior, cell)) {
    const hidden = stage === 'processor' && !cell.card.integrated && !tellsLink(posterior, cell);
    const unlessTrafficMB = hidden ? trafficToReach(view) : null;
    return { limiter: { kind: 'stage', stage, chance, unlessTrafficMB }, shares };
  }
  return {
    limiter: equalStages(counted) ?? { kind: 'open', likely: likeliest(counted.chance) },
    shares,
  };
}
