import type { VerdictState } from './types';

/**
 * What was seen against a prediction, or null when it agrees or predicts nothing. A single failure counts, but a prediction is
 * contradicted only when more than half of the log disagrees.
 */
export function contradicted(
  predicted: VerdictState,
  seen: { readonly worked: number; readonly failed: number },
): { readonly predicted: 'work' | 'fail'; readonly seen: number } | null {
  if (predicted === 'unknown') return null;
  const word = predicted === 'blocked' ? 'fail' : 'work';
  const against = word === 'work' ? seen.failed : seen.worked;
  return against * 2 > seen.worked + seen.failed ? { predicted: word, seen: against } : null;
}
