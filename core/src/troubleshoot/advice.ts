import { CAUSE_IDS, type CauseId, type SymptomId, type TestId } from '../base';
import {
  type Answer,
  type Observations,
  NO_OBSERVATIONS,
  posterior,
  type RankedCause,
  suspects,
} from './bayes';
import type { Net } from './chain-net';
import { CAUSES } from './net/causes';
import { type Place, PLACES } from './net/types';
import { FIX_AT, nextTests, type Offer, WORTHWHILE_BITS } from './next';

/** With these a picture comes first: nothing can be read from a screen that is black or a host that stands still. */
export const PICTURE_FIRST: readonly SymptomId[] = [
  'crash-on-plug',
  'no-picture',
  'freeze-under-load',
  'host-dead',
];

export interface TroubleAdvice {
  readonly suspects: readonly RankedCause[];
  readonly offers: readonly Offer[];
  /** What to do now: test, fix, or nothing left that tells. */
  readonly now: 'test' | 'fix' | 'stuck';
  readonly top: RankedCause;
}

/**
 * What to try next. A safe test while it tells enough and no cause is likely enough to be mended at once; then the
 * fix of the likeliest; where that is "none of these" and no test tells anything, there is nothing left to try.
 * @param net causes, symptoms and tests of a chain
 * @param clues symptoms seen and tests answered
 * @param refused tests that are not to be offered
 * @param fixAt share from which a cause is mended at once
 * @returns ranked causes and the next test or fix
 */
export function advise(
  net: Net,
  clues: Observations,
  refused: ReadonlySet<TestId> = new Set(),
  fixAt = FIX_AT,
): TroubleAdvice {
  const p = posterior(net, clues);
  const all = suspects(net, p);
  const offers = nextTests(net, clues, p, refused);
  const top = all[0] ?? { cause: CAUSE_IDS[CAUSE_IDS.length - 1] as CauseId, p: 1 };
  const tells = offers.length > 0 && (offers[0]?.bits ?? 0) >= WORTHWHILE_BITS;
  const mendable = top.cause !== 'none-of-these';
  const now =
    mendable && (top.p >= fixAt || !tells) ? 'fix' : tells || offers.length > 0 ? 'test' : 'stuck';
  return { suspects: all, offers, now, top };
}

/**
 * Causes of a symptom, likeliest first, with what a reading answers counted.
 * @param net causes, symptoms and tests of a chain
 * @param symptom what is seen
 * @param answers tests a reading answers
 * @returns causes; those ruled out are left out
 */
export function rankedCauses(
  net: Net,
  symptom: SymptomId,
  answers: readonly Answer[] = [],
): CauseId[] {
  const p = posterior(net, { ...NO_OBSERVATIONS, symptoms: [symptom], answers });
  return suspects(net, p).map((s) => s.cause);
}

/**
 * Posterior of each part and joint of the strip.
 * @param list ranked causes
 * @returns shares by place, elsewhere last; they add up to 1
 */
export function byPlace(list: readonly RankedCause[]): Readonly<Record<Place, number>> {
  const sums = Object.fromEntries(PLACES.map((p) => [p, 0])) as Record<Place, number>;
  for (const { cause, p } of list) sums[CAUSES[cause].at] += p;
  return sums;
}

/**
 * How much of the posterior belongs to the one title, and how much to the whole chain.
 * @param list ranked causes
 * @returns a share from 0 to 1
 */
export function titleShare(list: readonly RankedCause[]): number {
  return list.reduce((sum, { cause, p }) => (CAUSES[cause].perTitle ? sum + p : sum), 0);
}

/**
 * Whole percents that add up to 100: what is left goes to the largest remainders.
 *
 * Source: the largest-remainder method (Hare quota), from memory.
 * @param shares that add up to 1
 * @returns whole percents in the same order
 * @example wholePercents([1 / 3, 1 / 3, 1 / 3]) // => [34, 33, 33]
 */
export function wholePercents(shares: readonly number[]): number[] {
  const floors = shares.map((s) => Math.floor(s * 100));
  const left = 100 - floors.reduce((a, b) => a + b, 0);
  const order = shares
    .map((s, i) => ({ i, rest: s * 100 - (floors[i] ?? 0) }))
    .sort((a, b) => b.rest - a.rest);
  const extra = new Set(order.slice(0, Math.max(0, left)).map((o) => o.i));
  return floors.map((f, i) => (extra.has(i) ? f + 1 : f));
}
