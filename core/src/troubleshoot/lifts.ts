import type { CauseId } from '../base';
import { type Evaluation, FINDING_KINDS } from '../plan';
import type { PriorMultiplier } from './chain-net';

/** How much likelier. Judgement, no published source: a note is a hint, what blocks or needs care is more. */
const TIMES = { blocks: 5, care: 4, note: 2 } as const;

/**
 * What an entered screen makes likelier, before any part is known.
 * @param said where the screen is; null where nothing is entered
 * @returns causes with their multipliers
 */
export function priorMultipliersOfEntered(
  said: { readonly screen: 'card' | 'panel' | 'hub' | null } | null,
): PriorMultiplier[] {
  if (said?.screen === 'panel') return [{ cause: 'panel-return', times: 3, code: 'said' }];
  return said?.screen === 'hub' ? [{ cause: 'screen-input', times: 2, code: 'said' }] : [];
}

/**
 * Causes that the evaluation of a chain makes likelier; the strongest finding counts once for each cause.
 * @param evaluation of the chain
 * @returns causes with their multipliers and findings
 */
export function priorMultipliers(evaluation: Evaluation): PriorMultiplier[] {
  const all = evaluation.findings.flatMap((f): PriorMultiplier[] => {
    const { cause } = FINDING_KINDS[f.code];
    return cause ? [{ cause, times: TIMES[f.severity], code: f.code }] : [];
  });
  const best = new Map<CauseId, PriorMultiplier>();
  for (const l of all) if ((best.get(l.cause)?.times ?? 0) < l.times) best.set(l.cause, l);
  return [...best.values()];
}
