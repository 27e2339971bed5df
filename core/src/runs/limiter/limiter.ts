import { SWAP_MINUTES } from '../comparison/experiment';
import type { RunGroup } from '../model/cells';
import type { TollRead } from '../model/toll';
import { evidenceOf, heldMemory, type LimiterEvidence } from './evidence';
import { otherSizes } from './observed';
import {
  CAPPED,
  type Judged,
  type Named,
  nameLimiter,
  type Observed,
  type StageId,
} from './shares';

/** A thing to change for one run that would tell two stages apart. */
export interface Swap {
  readonly what: 'sizes' | 'screen' | 'link' | 'slot' | 'power';
  readonly minutes: number;
  /** Another setup that has what is needed: named, so that it can be looked up. */
  readonly setupId: string | null;
}
export type LimiterAdvice = 'memory' | 'cap' | StageId | 'alike';

export interface Limiter {
  readonly judged: Judged;
  readonly named: Named;
  readonly evidence: readonly LimiterEvidence[];
  readonly advice: LimiterAdvice;
  /** The cheapest run that would decide; null where the limiter is named. */
  readonly swap: Swap | null;
}

/** A share that may be as large as this is still open. */
const OPEN = 0.3;
const touches = (between: readonly StageId[], ...stages: StageId[]) =>
  stages.every((s) => between.includes(s));

/**
 * The run that decides between two stages for the least work. A card is told from a processor by another resolution; a link from either
 * only by another link or a slot. In: the two, what has been measured, and setups with the same host and card behind another link.
 */
export function decidingSwap(
  between: readonly [StageId, StageId],
  c: RunGroup,
  cells: readonly RunGroup[],
  others: readonly string[],
  cardOpen = between.includes('card'),
): Swap {
  const swept = otherSizes(c, cells).some(
    (o) => o.pixels / c.pixels >= 1.7 || c.pixels / o.pixels >= 1.7,
  );
  const setupId = others[0] ?? null;
  if (touches(between, 'back'))
    return { what: 'screen', minutes: SWAP_MINUTES.screenPath, setupId: null };
  if (!touches(between, 'link')) {
    if (!swept) return { what: 'sizes', minutes: SWAP_MINUTES.resolution, setupId: null };
    return { what: 'power', minutes: SWAP_MINUTES.powerMode, setupId: null };
  }
  // A minute at another size takes the card out of the question, or leaves only it.
  if (cardOpen && !swept) return { what: 'sizes', minutes: SWAP_MINUTES.resolution, setupId: null };
  return setupId !== null
    ? { what: 'link', minutes: SWAP_MINUTES.link, setupId }
    : { what: 'slot', minutes: SWAP_MINUTES.card + SWAP_MINUTES.host, setupId: null };
}

/** What `readLimiter` reads. `seen` and `judged` come first: judging takes longest and may be done elsewhere. */
export interface LimiterInput {
  readonly cell: RunGroup;
  /** Every cell that is known. */
  readonly cells: readonly RunGroup[];
  readonly toll: TollRead | null;
  readonly seen: Observed;
  readonly judged: Judged | null;
  /** Setups with the same host and card behind another link. */
  readonly others: readonly string[];
}

/**
 * What limits a title on a rig: shares of the stages with their intervals, the evidence, what to do, and where it cannot be told the one
 * swap that would. Null where nothing explains what was measured.
 */
export function readLimiter({
  cell,
  cells,
  toll,
  seen,
  judged: free,
  others,
}: LimiterInput): Limiter | null {
  const judged = cell.capped ? CAPPED : free;
  if (!judged) return null;
  const named = nameLimiter(judged);
  const evidence = evidenceOf(cell, cells, toll, seen.backMs);
  const swap =
    named.says === 'cannot-tell' && !named.alike
      ? decidingSwap(named.between, cell, cells, others, judged.shares.card.hi > OPEN)
      : null;
  const advice: LimiterAdvice = heldMemory(cell, cells)
    ? 'memory'
    : named.says === 'named'
      ? named.stage
      : 'alike';
  return { judged, named, evidence, advice, swap };
}
