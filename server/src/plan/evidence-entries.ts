import type * as z from 'zod';
import type { Chain } from '@ruddy/core/chain';
import { nearWeights, SHARED_ATTRIBUTES } from '@ruddy/core/compatibility';
import type { EvidenceAnswer, evidenceBody } from '@ruddy/core/compatibility/contract';
import { expectation } from '@ruddy/core/plan';
import { askedOf, evidenceOf } from './queries/evidence';
import { evidenceRows } from './queries/evidence-rows';
import { toEntry } from './queries/log-entries';
import { ruleReader } from '../setups/rules';

/**
 * The summary every page reads, and the entries behind it: units of exactly this chain first, then the nearest by weight, each with its
 * factors. Weights of the house rules unless others are tried.
 */
export async function askEvidence(
  chain: Chain,
  body: z.output<typeof evidenceBody>,
): Promise<EvidenceAnswer> {
  const weights = {
    ...nearWeights(await ruleReader()),
    ...body.weights,
  } as EvidenceAnswer['weights'];
  const asked = askedOf(chain, weights, body.without);
  const summary = await evidenceOf(asked);
  const rows = await evidenceRows(asked, body.limit);
  return {
    summary,
    expected: expectation(summary, weights.strength),
    weights,
    entries: rows.map((r) => ({
      entry: toEntry(r),
      exact: r.exact,
      shares: SHARED_ATTRIBUTES.filter((k) => r[k]),
      shared: r.shared,
      versions: r.by_versions,
      told: r.by_told,
      weight: r.weight,
    })),
    more: summary.near.n - rows.filter((r) => !r.exact).length,
  };
}
