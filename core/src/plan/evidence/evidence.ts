import { betaShare } from '../../base';
import { NO_TALLY, type Tally } from './tally';

/** Units that were counted, and those of them that worked. */
export interface UnitCount {
  readonly n: number;
  readonly worked: number;
}

/**
 * What the log says of a chain, gathered by SQL and small enough to travel with every judgement. The unit is a setup with its newest
 * outcome per set of versions. Seen and told are never one count.
 */
export interface EvidenceSummary {
  /** Seen with exactly this chain, under any versions. */
  readonly exact: Tally;
  /** Seen with exactly this chain, no version noted otherwise than asked. */
  readonly same: UnitCount;
  /** Hearsay of exactly this chain. */
  readonly told: UnitCount;
  /** Exactly this chain, changed versions and hearsay counted for less. */
  readonly weighted: { readonly worked: number; readonly failed: number };
  /** Chains that share something: how many units, their weight, and the weight of those that worked. */
  readonly near: { readonly n: number; readonly weight: number; readonly worked: number };
}

export const NO_EVIDENCE: EvidenceSummary = {
  exact: NO_TALLY,
  same: { n: 0, worked: 0 },
  told: { n: 0, worked: 0 },
  weighted: { worked: 0, failed: 0 },
  near: { n: 0, weight: 0, worked: 0 },
};

export interface Expectation {
  /** Share of chains like this that work, 0 to 1, with its middle 95 %. */
  readonly mean: number;
  readonly lo: number;
  readonly hi: number;
  /** What near entries say alone, 0 to 1; null without any. */
  readonly prior: number | null;
  /** Entries the near ones count as. */
  readonly strength: number;
}

/**
 * What is to be expected of a chain by its own entries and by near ones: near entries form a prior of share p0 =
 * (weight that worked) / (weight) and strength m = min(limit, weight); the exact ones are added to it: Beta(m p0 + s +
 * 1/2, m (1 - p0) + f + 1/2). Shown beside the counts, never instead of them.
 *
 * Source: H. Jeffreys, Proc. R. Soc. A 186 (1946), 453-461, for the two halves; the weights are house rules.
 * @param e counts and weights of the log
 * @param limit strength of the prior at most
 * @returns mean and middle 95 % as shares; Beta(1/2, 1/2) without any entry
 */
export function expectation(e: EvidenceSummary, limit: number): Expectation {
  const strength = Math.min(limit, e.near.weight);
  const prior = e.near.weight > 0 ? e.near.worked / e.near.weight : null;
  const p = prior ?? 0.5;
  const { worked, failed } = e.weighted;
  return {
    ...betaShare(strength * p + worked + 0.5, strength * (1 - p) + failed + 0.5),
    prior,
    strength,
  };
}
