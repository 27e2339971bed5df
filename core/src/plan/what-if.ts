import type { Chain } from '../chain';
import { evaluate } from './evaluate';
import type { EvaluateInput, Evaluation } from './types';

/** A change of whole slots: the slots named are replaced, the others stay. */
export type ChainPatch = Partial<Chain>;

export interface WhatIf {
  readonly before: Evaluation;
  readonly after: Evaluation;
  readonly changed: {
    readonly verdict: boolean;
    readonly pinch: boolean;
    /** Middle of the usable rate after minus before, Gb/s down; null when either is not known. */
    readonly usableGbps: number | null;
  };
}

function middle(e: Evaluation): number | null {
  const down = e.predicted.link.usable?.down;
  return down ? (down.lo + down.hi) / 2 : null;
}

/**
 * Judges a chain before and after a change; neither is stored.
 * @param input chain and context
 * @param patch the change
 * @returns both evaluations and what changed
 */
export function whatIf(input: EvaluateInput, patch: ChainPatch): WhatIf {
  const before = evaluate(input);
  const after = evaluate({ ...input, chain: { ...input.chain, ...patch } });
  const a = middle(before);
  const b = middle(after);
  const p = before.predicted.link.pinch;
  const q = after.predicted.link.pinch;
  return {
    before,
    after,
    changed: {
      verdict: before.predicted.verdict.state !== after.predicted.verdict.state,
      pinch: p.part !== q.part || p.hops.join() !== q.hops.join(),
      usableGbps: a === null || b === null ? null : b - a,
    },
  };
}
