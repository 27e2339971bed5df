import { type ChainRow, loggedChains } from './queries/logged-chains';
import { bare } from '@ruddy/core/base';
import type { Page } from '@ruddy/core/base/contract';
import { chainNames } from '@ruddy/core/chain';
import { nearWeights, SHARED_ATTRIBUTES } from '@ruddy/core/compatibility';
import type { CompatQuery, CompatRow } from '@ruddy/core/compatibility/contract';
import { contradicted, evaluate } from '@ruddy/core/plan';
import { verdictSentence } from '@ruddy/core/plan/text';
import type { Services } from '../platform/http/route';
import { groundsFor, type Grounds } from '../plan/context';
import { decodeCursor, toPage } from '../platform/db/paging';
import { ruleReader } from '../setups/rules';

function toRow(r: ChainRow, grounds: Grounds, near: boolean): CompatRow {
  const failed = r.n - r.worked;
  const e = evaluate({ chain: r.chain, context: grounds });
  const { state } = e.predicted.verdict;
  const against = contradicted(state, { worked: r.worked, failed });
  return {
    key: r.chain_key,
    ...chainNames(r.chain),
    standard: r.link.split(' ')[1] ?? '',
    predicted: {
      verdict: state,
      sentence: verdictSentence(e),
      coverage: e.predicted.coverage,
      down: bare(e.predicted.link.usable?.down),
    },
    seen: { n: r.n, worked: r.worked, failed },
    told: { n: r.told_n, worked: r.told_worked },
    contradicted: against !== null,
    sure: against?.sure ?? false,
    now: { outcome: r.outcome, on: r.newest, since: r.since, versions: r.versions },
    older: r.older,
    entries: r.entries,
    setups: r.setups ?? [],
    shared: near
      ? { parts: SHARED_ATTRIBUTES.filter((p) => r.shared[p]), weight: r.shared.weight }
      : null,
  };
}

/** A page of the chains that were logged: predicted and seen apart, sorted, filtered or ranked by nearness in the database. */
export async function listCompatibility(
  s: Services,
  q: CompatQuery,
): Promise<Page<CompatRow> & { total: number }> {
  const after = decodeCursor(q.cursor, 2);
  const rows = await loggedChains(q, nearWeights(await ruleReader()), after);
  // Without a chain on the page there is still one row: it tells how many there are.
  const total = rows[0]?.total ?? 0;
  const found = rows.filter((r) => r.chain_key !== null);
  const grounds = await groundsFor(
    s,
    found.map((r) => r.chain),
  );
  const page = toPage(
    found,
    q.limit,
    (r) => toRow(r, grounds, q.near),
    (r) => [r.sort, r.chain_key],
  );
  return { ...page, total };
}
