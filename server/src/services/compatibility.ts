import { QueryTypes } from 'sequelize';
import type { CompatQuery, CompatRow, CompatSort, Page } from '@ruddy/core/api';
import { contradicted, evaluate } from '@ruddy/core/plan';
import type { Chain } from '@ruddy/core/schema';
import { chainNames } from '@ruddy/core/setup';
import { headline } from '@ruddy/core/texts';
import { bare } from '@ruddy/core/units';
import type { Services } from '../http/route';
import { standingUnits } from './evidence';
import { groundsFor, type Grounds } from './context';
import { decodeCursor, likePattern, toPage } from './paging';

/** Every sort is a text, so that one cursor serves all. */
const SORTS: Record<CompatSort, string> = {
  newest: 'c.newest::text',
  host: `lower(l.chain #>> '{host,maker}' || ' ' || (l.chain #>> '{host,model}'))`,
  port: `coalesce(c.chain_key::jsonb ->> 2, '')`,
  dock: `lower(coalesce(l.chain #>> '{dock,maker}', '') || ' ' || coalesce(l.chain #>> '{dock,model}', ''))`,
  card: `lower(coalesce(l.chain #>> '{card,maker}', '') || ' ' || coalesce(l.chain #>> '{card,model}', ''))`,
  n: `to_char(c.n, 'FM000000000')`,
  share: `to_char(c.worked::float / c.n, 'FM0.000000')`,
};

/** Chains of the log, each with what its units say and its newest status. */
const CHAINS = `WITH ${standingUnits('e.chain_key IS NOT NULL')}, c AS (
    SELECT chain_key, count(*)::int AS n, count(*) FILTER (WHERE outcome IN ('works', 'care'))::int AS worked, max(happened_on) AS newest
    FROM units GROUP BY chain_key
  ), l AS (
    SELECT DISTINCT ON (chain_key) chain_key, chain, versions, outcome, happened_on FROM standing
    ORDER BY chain_key, happened_on DESC, recorded_at DESC, seq DESC
  )`;

const FILTER = `($1::text IS NULL OR EXISTS (
      SELECT 1 FROM standing s JOIN setups u ON u.id = s.setup_id WHERE s.chain_key = c.chain_key
        AND lower(u.name || ' ' || s.chain::text || ' ' || array_to_string(s.symptoms, ' ') || ' ' || array_to_string(s.fixes, ' ')) LIKE lower($1)))
    AND ($2::text IS NULL OR l.outcome = $2) AND ($3::text IS NULL OR c.chain_key::jsonb ->> 2 = $3)`;

interface Row {
  chain_key: string;
  chain: Chain;
  n: number;
  worked: number;
  newest: string;
  outcome: CompatRow['now']['outcome'];
  versions: CompatRow['now']['versions'];
  since: string;
  older: number;
  entries: number;
  setups: CompatRow['setups'];
  sort: string;
}

function toRow(r: Row, grounds: Grounds): CompatRow {
  const failed = r.n - r.worked;
  const e = evaluate({ chain: r.chain, context: grounds });
  const { state } = e.predicted.verdict;
  const names = chainNames(r.chain);
  return {
    key: r.chain_key,
    ...names,
    standard: String((JSON.parse(r.chain_key) as string[])[2] ?? ''),
    predicted: { verdict: state, sentence: headline(e), down: bare(e.predicted.link.usable?.down) },
    seen: { n: r.n, worked: r.worked, failed },
    contradicted: contradicted(state, { worked: r.worked, failed }) !== null,
    now: { outcome: r.outcome, on: r.newest, since: r.since, versions: r.versions },
    older: r.older,
    entries: r.entries,
    setups: r.setups,
  };
}

/** A page of the chains that were logged: predicted and seen apart, sorted and filtered in the database. */
export async function listCompatibility(s: Services, q: CompatQuery): Promise<Page<CompatRow> & { total: number }> {
  const after = decodeCursor(q.cursor, 2);
  const [sort, order, beyond] = [SORTS[q.sort], q.dir === 'asc' ? 'ASC' : 'DESC', q.dir === 'asc' ? '>' : '<'];
  const filter = [q.q ? likePattern(q.q) : null, q.outcome ?? null, q.standard ?? null];
  const rows = await s.db.query<Row>(
    `${CHAINS} SELECT x.*,
       (SELECT min(happened_on)::text FROM standing s WHERE s.chain_key = x.chain_key AND s.versions = x.versions AND s.outcome = x.outcome) AS since,
       (SELECT count(DISTINCT versions)::int - 1 FROM standing s WHERE s.chain_key = x.chain_key) AS older,
       (SELECT count(*)::int FROM standing s WHERE s.chain_key = x.chain_key) AS entries,
       (SELECT jsonb_agg(DISTINCT jsonb_build_object('id', u.id, 'name', u.name)) FROM standing s JOIN setups u ON u.id = s.setup_id
         WHERE s.chain_key = x.chain_key) AS setups
     FROM (SELECT c.chain_key, c.n, c.worked, c.newest::text AS newest, l.chain, l.versions, l.outcome, ${sort} AS sort
           FROM c JOIN l USING (chain_key) WHERE ${FILTER}) x
     WHERE ($4::text IS NULL OR (sort COLLATE "C", chain_key COLLATE "C") ${beyond} ($4, $5))
     ORDER BY sort COLLATE "C" ${order}, chain_key COLLATE "C" ${order} LIMIT $6`,
    { type: QueryTypes.SELECT, bind: [...filter, after?.[0] ?? null, after?.[1] ?? null, q.limit + 1] },
  );
  const [count] = await s.db.query<{ total: number }>(
    `${CHAINS} SELECT count(*)::int AS total FROM c JOIN l USING (chain_key) WHERE ${FILTER}`,
    { type: QueryTypes.SELECT, bind: filter },
  );
  const grounds = await groundsFor(
    s,
    rows.map((r) => r.chain),
  );
  const page = toPage(
    rows,
    q.limit,
    (r) => toRow(r, grounds),
    (r) => [r.sort, r.chain_key],
  );
  return { ...page, total: count?.total ?? 0 };
}
