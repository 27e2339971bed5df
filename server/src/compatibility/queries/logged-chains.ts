import type { Chain } from '@ruddy/core/chain';
import type { NearWeights, SharedAttribute } from '@ruddy/core/compatibility';
import type {
  CompatQuery,
  CompatRow,
  CompatSort,
  LogNames,
} from '@ruddy/core/compatibility/contract';
import { logConditions, NOT_RETRACTED } from '../../plan/queries/log-conditions';
import { select } from '../../platform/db/database';

/** Every sort is a text, so that one cursor serves all. */
const SORTS: Record<CompatSort, string> = {
  newest: 'c.newest::text',
  host: 'l.host',
  port: `split_part(l.link, ' ', 2)`,
  dock: 'l.dock',
  card: 'l.card',
  n: `to_char(c.n, 'FM000000000')`,
  share: `to_char(coalesce(c.worked::float / nullif(c.n, 0), 0), 'FM0.000000')`,
  near: `to_char(s.weight, 'FM0.000000')`,
};

/** Chains of the log: what their units say, the newest of them, and what they share with the parts asked for ($1 to $8). */
const CHAINS = `WITH c AS (
    SELECT chain_key, count(*) FILTER (WHERE NOT told)::int AS n, count(*) FILTER (WHERE worked AND NOT told)::int AS worked,
      count(*) FILTER (WHERE told)::int AS told_n, count(*) FILTER (WHERE worked AND told)::int AS told_worked, coalesce(max(happened_on) FILTER (WHERE NOT told), max(happened_on)) AS newest
    FROM log_units GROUP BY chain_key
  ), l AS (
    -- What was only told is the status of a chain where nobody saw anything of it.
    SELECT DISTINCT ON (chain_key) * FROM log_units ORDER BY chain_key, told, happened_on DESC, seq DESC, entry_id DESC
  ), asked AS (SELECT (SELECT family FROM log_units WHERE card = $3 LIMIT 1) AS family)`;
const JOINED = `c JOIN l USING (chain_key) CROSS JOIN asked CROSS JOIN LATERAL (
    SELECT (l.host = $1::text) IS TRUE AS host, (l.link LIKE '% ' || $4::text) IS TRUE AS link, (l.dock = $2::text) IS TRUE AS dock,
      (l.card = $3::text OR l.family = asked.family) IS TRUE AS family
  ) h CROSS JOIN LATERAL (
    SELECT h.*, h.host::int * $5::float8 + h.link::int * $6::float8 + h.dock::int * $7::float8 + h.family::int * $8::float8 AS weight
  ) s`;

export interface ChainRow {
  total: number;
  chain_key: string;
  chain: Chain;
  link: string;
  n: number;
  worked: number;
  told_n: number;
  told_worked: number;
  newest: string;
  outcome: CompatRow['now']['outcome'];
  versions: CompatRow['now']['versions'];
  since: string;
  older: number;
  entries: number;
  setups: CompatRow['setups'] | null;
  shared: Record<SharedAttribute, boolean> & { weight: number };
  sort: string;
}

const plain = (s: string | undefined) => (s ? s.replace(/\s+/g, ' ').trim().toLowerCase() : null);

/** Chains of the log, sorted and filtered, or ranked by what they share with the parts asked for, after a place in that order. */
export async function loggedChains(
  q: CompatQuery,
  w: NearWeights,
  after: readonly (string | number)[] | null,
): Promise<ChainRow[]> {
  const sort = SORTS[q.sort];
  const order = q.dir === 'asc' ? 'ASC' : 'DESC';
  const beyond = q.dir === 'asc' ? '>' : '<';
  const asked = [
    plain(q.host),
    plain(q.dock),
    plain(q.card),
    q.standard ?? null,
    w.host,
    w.link,
    w.dock,
    w.family,
  ];
  const own = [...asked, q.outcome ?? null];
  const filter = logConditions(q, own.length + 1, !q.near);
  const where = `($9::text IS NULL OR l.outcome = $9) ${q.near ? 'AND s.weight > 0' : ''} ${
    filter.sql === 'true'
      ? ''
      : `AND c.chain_key IN (SELECT e.chain_key FROM log_entries e WHERE e.chain_key IS NOT NULL AND ${NOT_RETRACTED} AND ${filter.sql})`
  }`;
  const bind = [...own, ...filter.bind];
  const [a, b, limit] = [bind.length + 1, bind.length + 2, bind.length + 3].map((i) => `$${i}`);
  return select<ChainRow>(
    `${CHAINS}, x AS MATERIALIZED (
       SELECT c.chain_key, c.n, c.worked, c.told_n, c.told_worked, c.newest::text AS newest, l.entry_id, l.link, l.versions, l.outcome,
         to_jsonb(s) AS shared, ${sort} AS sort FROM ${JOINED} WHERE ${where}
     ), page AS MATERIALIZED (
       SELECT * FROM x WHERE (${a}::text IS NULL OR (sort COLLATE "C", chain_key COLLATE "C") ${beyond} (${a}, ${b}))
       ORDER BY sort COLLATE "C" ${order}, chain_key COLLATE "C" ${order} LIMIT ${limit}
     )
     SELECT t.total, page.*, e.chain, u.*
     FROM (SELECT count(*)::int AS total FROM x) t LEFT JOIN page ON true LEFT JOIN log_entries e ON e.id = page.entry_id
     LEFT JOIN LATERAL (
       SELECT (min(y.happened_on) FILTER (WHERE y.versions = page.versions AND y.outcome = page.outcome))::text AS since,
         count(DISTINCT y.versions)::int - 1 AS older, count(*)::int AS entries,
         (SELECT jsonb_agg(jsonb_build_object('id', t.id, 'name', t.name) ORDER BY t.name) FROM setups t
           WHERE t.id IN (SELECT i.setup_id FROM log_entries i WHERE i.chain_key = page.chain_key)) AS setups
       FROM log_entries y WHERE y.chain_key = page.chain_key AND ${NOT_RETRACTED.replaceAll('e.id', 'y.id')}) u ON true
     ORDER BY page.sort COLLATE "C" ${order}, page.chain_key COLLATE "C" ${order}`,
    [...bind, after?.[0] ?? null, after?.[1] ?? null, q.limit + 1],
  );
}

/** Names of hosts, docks and cards in the log, as written in the newest entry; at most 500 of each. */
export async function namesOfLog(): Promise<LogNames> {
  const of = async (part: 'host' | 'dock' | 'card') => {
    const rows = await select<{ name: string }>(
      `SELECT concat_ws(' ', e.chain #>> '{${part},maker}', e.chain #>> '{${part},model}', nullif(e.chain #>> '{${part},variant}', '')) AS name
       FROM (SELECT DISTINCT ON (${part}) ${part}, entry_id FROM log_units ORDER BY ${part}, happened_on DESC LIMIT 500) u
       JOIN log_entries e ON e.id = u.entry_id WHERE e.chain -> '${part}' <> 'null' ORDER BY 1`,
    );
    return rows.map((r) => r.name);
  };
  const [host, dock, card] = await Promise.all([of('host'), of('dock'), of('card')]);
  return { host, dock, card };
}
