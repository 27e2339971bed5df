import type { Chain } from '../chain';
import type { CardSpec } from '../parts';
import type { Evaluation } from './types';

/** One step of putting another card into the same dock. */
export interface SwapStep {
  readonly id:
    'off' | 'open' | 'unplug' | 'seat' | 'plug' | 'close' | 'driver' | 'screen' | 'start';
  /** Figures and words of the step. */
  readonly params: Readonly<Record<string, string | number>>;
}

/**
 * The steps from one card to another in the same dock. A step that does not apply is left out.
 * @param chain the chain with the old card
 * @param to the new card
 * @param after the evaluation with it: its power cables are named from the assignment found there
 * @returns steps in order
 */
export function swapSteps(chain: Chain, to: CardSpec, after: Evaluation): SwapStep[] {
  const screws = chain.dock && typeof chain.dock.screws === 'number' ? chain.dock.screws : null;
  const board = chain.dock?.form === 'open-board';
  const from = chain.card;
  const plugs = after.predicted.body.power.feeders.flatMap((f) =>
    f.plugs ? f.plugs.assigned : [],
  );
  const named = plugs.flatMap((p) => (p.by ? [p.by] : [])).sort();
  const driver = !from || from.family !== to.family || from.maker !== to.maker;
  const steps: (SwapStep | null)[] = [
    { id: 'off', params: {} },
    board ? null : { id: 'open', params: screws === null ? {} : { screws } },
    from ? { id: 'unplug', params: { card: `${from.maker} ${from.model}` } } : null,
    {
      id: 'seat',
      params: {
        card: `${to.maker} ${to.model}`,
        bracket: chain.dock?.retention === 'none' ? 'no' : 'yes',
      },
    },
    plugs.length > 0 ? { id: 'plug', params: { cables: named.join(', '), n: named.length } } : null,
    board ? null : { id: 'close', params: {} },
    chain.picture.some((p) => p.by === 'card') ? { id: 'screen', params: {} } : null,
    driver ? { id: 'driver', params: { family: to.family || `${to.maker} ${to.model}` } } : null,
    { id: 'start', params: {} },
  ];
  return steps.filter((s) => s !== null);
}
