import { select } from '../platform/db/database';
import type * as z from 'zod';
import type { Chain } from '@ruddy/core/chain';
import { nearWeights, SHARED_ATTRIBUTES, type SharedAttribute } from '@ruddy/core/compatibility';
import type { EvidenceAnswer, evidenceBody } from '@ruddy/core/compatibility/contract';
import { expectation } from '@ruddy/core/plan';
import { askedOf, evidenceOf, weightedUnits, weightedBind } from './evidence';
import { ENTRY_STATE, toEntry, type EntryRow } from './log-list';
import { ruleReader } from '../setups/rules';

type Row = EntryRow &
  Record<SharedAttribute, boolean> &
  Record<'shared' | 'by_versions' | 'by_told' | 'weight', number> & { exact: boolean };
/** Units of exactly the chain that are shown at most. */
const EXACT_SHOWN = 200;

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
  const bind = weightedBind(asked);
  const rows = await select<Row>(
    `WITH ${weightedUnits(asked.without !== null)}, picked AS (
       (SELECT * FROM weighed WHERE exact ORDER BY happened_on DESC, seq DESC LIMIT ${EXACT_SHOWN})
       UNION ALL
       (SELECT * FROM weighed WHERE NOT exact AND weight > 0 ORDER BY weight DESC, happened_on DESC, entry_id DESC LIMIT $16)
     )
     SELECT ${ENTRY_STATE}, w.exact, w.shared, w.by_versions, w.by_told, w.weight, (w.host = $1::text) IS TRUE AS host,
       (w.link = $2::text) IS TRUE AS link, (w.dock = $3::text) IS TRUE AS dock, (w.family = $4::text) IS TRUE AS family
     FROM picked w JOIN log_entries e ON e.id = w.entry_id
     ORDER BY w.exact DESC, w.weight DESC, e.happened_on DESC, e.seq DESC, e.id DESC`,
    [...bind, body.limit],
  );
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
