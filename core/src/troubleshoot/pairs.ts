import type { CauseId } from '../base';
import { type Observations, evidenceTerms } from './bayes';
import type { Net } from './chain-net';
import { TESTS } from './net';

/** Two faults at once are so much rarer than one. Judgement, no published source. */
export const TWO_AT_ONCE = 0.05;

export interface CausePair {
  /** Share of two at once against one alone. */
  readonly share: number;
  /** The likeliest two. */
  readonly causes: readonly [CauseId, CauseId];
}

/** P(positive) where two causes act at once: either shows it, but a cure needs both to be cured. */
function together(a: number, b: number, cured: boolean): number {
  return cured ? a * b : 1 - (1 - a) * (1 - b);
}

/**
 * Are two faults at work? Every pair of causes is weighed like a cause of its own: "either shows it" (noisy or) for
 * what is seen and read, "both must be cured" for swaps.
 *
 * Source: J. Pearl, Probabilistic Reasoning in Intelligent Systems (1988), noisy-or.
 * @param net causes, symptoms and tests of a chain
 * @param clues symptoms seen and tests answered
 * @returns share of all pairs against all single causes, and the likeliest pair; null of fewer than two causes
 */
export function twoAtOnce(net: Net, clues: Observations): CausePair | null {
  const able = net.causes.flatMap((c, i) =>
    c === 'none-of-these' || clues.mended.includes(c) ? [] : [i],
  );
  const seen = evidenceTerms(net, clues).map((w) => {
    const cured = w.kind === 'test' && TESTS[w.id as keyof typeof TESTS].cures === true;
    // Rows of a "no" come turned over: pairs are joined on the positive side.
    const positive = w.kind === 'test' && !w.yes ? w.row.map((x) => 1 - x) : w.row;
    return { ...w, positive, cured };
  });
  const single = able.reduce(
    (sum, i) => sum + seen.reduce((x, { row }) => x * (row[i] ?? 1), net.prior[i] ?? 0),
    0,
  );
  let sum = 0;
  let most = -1;
  let best = null as CausePair['causes'] | null;
  for (let a = 0; a < able.length; a++)
    for (let b = a + 1; b < able.length; b++) {
      const i = able[a] ?? 0;
      const j = able[b] ?? 0;
      let x = (net.prior[i] ?? 0) * (net.prior[j] ?? 0);
      for (const s of seen) {
        const both =
          s.kind === 'fix' ? 1 : together(s.positive[i] ?? 1, s.positive[j] ?? 1, s.cured);
        x *= s.yes || s.kind === 'fix' ? both : 1 - both;
      }
      sum += x;
      if (x > most) {
        most = x;
        best = [net.causes[i] as CauseId, net.causes[j] as CauseId];
      }
    }
  if (!best) return null;
  const two = sum * TWO_AT_ONCE;
  return { share: two / (two + single), causes: best };
}
