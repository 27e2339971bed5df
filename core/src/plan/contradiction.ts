import { wilson } from '../base';
import type { VerdictState } from './types';

export interface Against {
  readonly predicted: 'work' | 'fail';
  /** How many times it was seen otherwise. */
  readonly seen: number;
  /** The 95 % interval of what was seen excludes the prediction; otherwise so few entries could still be chance. */
  readonly sure: boolean;
}

/**
 * What was seen against a prediction. A single failure counts, but a prediction is gone against only where more than
 * half of the log disagrees, and contradicted for sure where Wilson's interval lies whole on the other side of one
 * half: four failures in a row do that, three do not.
 * @param predicted the verdict
 * @param seen outcomes that were seen
 * @returns the contradiction; null where it agrees or predicts nothing
 */
export function contradicted(
  predicted: VerdictState,
  seen: { readonly worked: number; readonly failed: number },
): Against | null {
  if (predicted === 'unknown') return null;
  const word = predicted === 'blocked' ? 'fail' : 'work';
  const against = word === 'work' ? seen.failed : seen.worked;
  const n = seen.worked + seen.failed;
  return against * 2 > n
    ? { predicted: word, seen: against, sure: wilson(against, n).lo > 0.5 }
    : null;
}
