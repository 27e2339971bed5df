import { CAUSE_IDS, type CauseId, SYMPTOM_IDS } from '../base';
import { type CaseCount, figureKey, type FigureKey, weightKey } from './tables';
import type { Episode } from './trouble';

/** A stretch that ended with its cause found. */
export type ClosedCase = Episode & { readonly found: CauseId };
export const isFound = (s: Episode): s is ClosedCase => s.found !== null;

/**
 * Counts of closed searches for the tables. Each episode that ended with its cause is one case: the cause is counted
 * against all cases, a symptom by whether it was seen, a test by how it was answered where it was made.
 * @param stretches episodes of searches
 * @returns k of n by the name of the parameter
 */
export function countsOf(stretches: readonly Episode[]): Record<FigureKey, CaseCount> {
  const counts: Record<FigureKey, { k: number; n: number }> = {};
  const cases = stretches.filter(isFound);
  const add = (key: FigureKey, yes: boolean) => {
    const c = (counts[key] ??= { k: 0, n: 0 });
    c.n++;
    if (yes) c.k++;
  };
  for (const { symptoms, answers, found } of cases) {
    for (const cause of CAUSE_IDS) add(weightKey(cause), cause === found);
    for (const s of SYMPTOM_IDS) add(figureKey('symptom', s, found), symptoms.includes(s));
    for (const a of answers) add(figureKey('test', a.test, found), a.yes);
  }
  return counts;
}

/**
 * How many cases counts come from.
 * @param counts k of n by the name of the parameter
 * @returns cases
 */
export function casesIn(counts: Readonly<Record<FigureKey, CaseCount>>): number {
  return Object.entries(counts).reduce(
    (sum, [key, c]) => (key.startsWith('cause/') ? sum + c.k : sum),
    0,
  );
}
