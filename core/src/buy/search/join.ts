import type { Best } from './best';
import type { Front } from './front';
import type { LeftOut } from './left-out';
import { behind, BIT, FAILS } from './reasons';
import { SEEN, unprovenBit } from './seen';
import type { Limits, Weights } from './types';

/** Bits and excess of every card, in one array each: what the inner loop reads in order. */
export interface Wide {
  readonly bits: Int32Array;
  readonly over: Float32Array;
}
/** One row of combinations: everything but the card is decided. */
export interface Joined {
  readonly bits: number;
  readonly minor: number;
  readonly over: number;
  readonly wish: number;
  /** Number of the combination with the first card. */
  readonly first: number;
  readonly pair: Wide & { readonly minor: Float64Array };
  readonly link: Wide;
  readonly power: Wide;
  readonly rest: Int32Array;
  /** Frames/s by frame asked for and card: below 0 where nothing can be said, NaN where `frame` was not asked yet. */
  readonly fps: readonly Float64Array[];
  readonly frame: (ask: number, card: number) => number;
  readonly seen: Uint8Array | null;
}
export interface Sinks {
  readonly fronts: readonly Front[];
  readonly left: LeftOut;
  readonly best: Best;
  /** What would be kept but was seen to fail: shown apart, never among what is recommended. */
  readonly refuted: Best;
}

const { budget: BUDGET, target: TARGET } = BIT;
/** What is kept or not, without a more or less: it counts as missed by all of it. */
const WHOLE = (
  [
    'link',
    'software',
    'unsure',
    'no-frames',
    'no-price',
    'repackaged',
    'unproven',
    'soldered',
  ] as const
).reduce((all, r) => all | BIT[r], 0);

/** What was seen to work weighs less than a third more frames: it orders what is nearly alike. */
const SEEN_SHARE = 0.2;
/** Half-weight points of money and frames where no budget or target is set. */
const HALF = { minor: 100_000, fps: 60 } as const;

/** By how much a combination misses: all of a limit that has no more or less, and the shares of budget and target. */
function excess(fails: number, ofBudget: number, ofTarget: number): number {
  const whole = fails & WHOLE ? 1 : 0;
  const money = fails & BUDGET ? ofBudget - 1 : 0;
  const frames = fails & TARGET ? ofTarget - 1 : 0;
  return whole + money + frames;
}

/** Offers a combination to the fronts of the other frames asked for; frames are computed where they are first needed. */
function offerOthers(
  row: Joined,
  fronts: readonly Front[],
  card: number,
  minor: number,
  index: number,
): void {
  for (let k = 1; k < row.fps.length; k++) {
    const list = row.fps[k] as Float64Array;
    let fps = list[card] as number;
    if (fps !== fps) fps = list[card] = row.frame(k, card);
    if (fps > 0) (fronts[k] as Front).offer(minor, fps, index);
  }
}

/**
 * Joins one row with every card: prices are added, reason masks joined by "or", frames/s looked up. Combinations within all
 * limits go to the fronts and the order, others to the rejection counts. Hot loop of a search: plain arrays read in
 * order, no allocation.
 *
 * @param row partial evaluations and prices of route, dock, supply and screen
 * @param l limits of the search
 * @param w weights of the order
 * @param sinks fronts, rejection counts and best lists; modified
 * @returns nothing
 */
export function joinRow(
  row: Joined,
  l: Limits,
  w: Weights,
  { fronts, left, best, refuted }: Sinks,
): void {
  const { bits: pairBits, minor: pairMinor, over: pairOver } = row.pair;
  const { bits: linkBits } = row.link;
  const { bits: powerBits, over: powerOver } = row.power;
  const { rest, seen, first } = row;
  const n = pairBits.length;
  const budget = l.budgetMinor ?? Infinity;
  const target = l.targetFps ?? 0;
  const halfMinor = l.budgetMinor ?? HALF.minor;
  const halfFps = l.targetFps ?? HALF.fps;
  const main = row.fps[0] as Float64Array;
  const { bits: rowBits, minor: rowMinor, over: rowOver } = row;
  const { proven } = l;
  const { counts, over: nearest } = left;
  const decides = fronts[0] as Front;
  for (let c = 0; c < n; c++) {
    const minor = rowMinor + (pairMinor[c] as number);
    const fps = main[c] as number;
    let bits =
      rowBits |
      (pairBits[c] as number) |
      (linkBits[c] as number) |
      (powerBits[c] as number) |
      (rest[c] as number);
    if (minor > budget) bits |= BUDGET;
    // Where no frames can be told, none are too few.
    if (fps < target && fps >= 0) bits |= TARGET;
    const known = seen === null ? 0 : (seen[c] as number);
    if (proven) bits |= unprovenBit(known);
    const fails = bits & FAILS;
    if (fails !== 0) {
      const least = rowOver + (pairOver[c] as number) + (powerOver[c] as number);
      counts[fails] = (counts[fails] as number) + 1;
      if (least >= (nearest[fails] as number)) continue;
      left.near(fails, least + excess(fails, minor / budget, target / fps), first + c);
      continue;
    }
    const index = first + c;
    const value =
      (w.frames * fps) / (fps + halfFps) +
      (w.money * halfMinor) / (halfMinor + minor) +
      row.wish -
      behind(bits);
    if (known & SEEN.against) {
      refuted.offer(c, value, 0, index);
      continue;
    }
    decides.offer(minor, fps, index);
    offerOthers(row, fronts, c, minor, index);
    best.offer(c, value, known === 0 ? 0 : SEEN_SHARE * w.proven, index);
  }
}
