import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import { NO_TALLY, type Tally } from '@ruddy/core/log';

/**
 * The log as it counts, as two common table expressions over the entries `where` picks (of `e`). `standing`: entries that were not
 * corrected. `units`: of each setup and set of versions the newest, so that ten retries of one evening count once.
 */
export function standingUnits(where: string): string {
  return `standing AS (
    SELECT e.*, v.seq FROM log_entries e JOIN events v ON v.id = e.id
    WHERE ${where} AND NOT EXISTS (SELECT 1 FROM log_entries x WHERE x.supersedes = e.id)
  ), units AS (
    SELECT DISTINCT ON (chain_key, setup_id, versions) chain_key, outcome, happened_on FROM standing
    ORDER BY chain_key, setup_id, versions, happened_on DESC, seq DESC
  )`;
}

/**
 * Outcomes counted per chain key. The unit is a setup with its newest outcome per set of versions,
 * so that ten retries of one evening count once; corrected entries do not count.
 */
export async function tallies(db: Sequelize, keys: readonly string[], transaction?: Transaction): Promise<Map<string, Tally>> {
  if (keys.length === 0) return new Map();
  const rows = await db.query<{ chain_key: string } & Omit<Tally, 'newest'> & { newest: string }>(
    `WITH ${standingUnits('e.chain_key = ANY($1::text[])')} SELECT chain_key, count(*)::int AS n,
       count(*) FILTER (WHERE outcome = 'works')::int AS works, count(*) FILTER (WHERE outcome = 'care')::int AS care,
       count(*) FILTER (WHERE outcome = 'unreliable')::int AS unreliable, count(*) FILTER (WHERE outcome = 'fails')::int AS fails,
       max(happened_on)::text AS newest
     FROM units
     GROUP BY chain_key`,
    { type: QueryTypes.SELECT, bind: [keys], transaction },
  );
  return new Map(rows.map(({ chain_key, ...t }) => [chain_key, t]));
}

/** The tally of one chain; nothing logged gives zeros. */
export async function tallyOf(db: Sequelize, key: string | null): Promise<Tally> {
  if (key === null) return NO_TALLY;
  return (await tallies(db, [key])).get(key) ?? NO_TALLY;
}
