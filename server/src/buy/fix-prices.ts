import { costOf } from '@ruddy/core/buy';
import type { Chain } from '@ruddy/core/chain';
import type { FixRow, SetupChange } from '@ruddy/core/plan/contract';
import { NO_COST } from '@ruddy/core/setups';
import type { Services } from '../platform/http/route';
import { costGroundsFor } from './prices';

/** What the part of each fix costs: the same judgement of offers and pieces as the cost of a plan. */
export async function pricesOfFixes(
  s: Services,
  chain: Chain,
  changes: readonly SetupChange[],
): Promise<FixRow['price'][]> {
  const parts = changes.flatMap((c, i) => (c.part ? [{ slot: String(i), id: c.part.id }] : []));
  if (parts.length === 0) return changes.map(() => null);
  const grounds = await costGroundsFor(s, { parts });
  // Every fix by itself: a piece is not used up by another fix.
  return changes.map((c, i) => {
    const part = grounds.parts.find((p) => p.slot === String(i));
    if (!c.part || !part) return null;
    const names = new Map(Object.entries(grounds.names));
    const [line] = costOf({
      ...grounds,
      names,
      parts: [part],
      allInOne: [],
      named: {},
      chain,
      settings: NO_COST,
    }).lines;
    if (!line) return null;
    const { price } = line;
    return {
      owned: line.state === 'owned',
      minor: price?.minor ?? null,
      currency: price?.currency ?? null,
      onDate: price?.onDate ?? null,
    };
  });
}
