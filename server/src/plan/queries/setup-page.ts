import type * as z from 'zod';
import type { Outcome } from '@ruddy/core/base';
import type { SearchHit, setupQuery, SetupSort } from '@ruddy/core/plan/contract';
import { select } from '../../platform/db/database';
import { likePattern } from '../../platform/db/paging';

/** The newest outcome of each of these setups that nothing corrects. */
export async function lastOutcomes(
  ids: readonly string[],
): Promise<Map<string, { outcome: Outcome; on: string }>> {
  const rows = await select<{ setup_id: string; outcome: Outcome; on: string }>(
    `SELECT DISTINCT ON (e.setup_id) e.setup_id, outcome, happened_on::text AS on FROM log_entries e JOIN events v ON v.id = e.id
     WHERE e.setup_id = ANY($1::uuid[]) AND NOT EXISTS (SELECT 1 FROM log_entries c WHERE c.supersedes = e.id)
     ORDER BY e.setup_id, happened_on DESC, v.seq DESC`,
    [ids],
  );
  return new Map(rows.map(({ setup_id, ...r }) => [setup_id, r]));
}

/** Sort value of each order as text, so that a cursor can hold it. */
const SORT_VALUE: Readonly<Record<SetupSort, string>> = {
  name: 'lower(name)',
  state: 'state',
  changed: `to_char(saved_at AT TIME ZONE 'UTC', 'YYYY-MM-DD HH24:MI:SS.US')`,
};

/** Ids of setups in the asked order after a place in it: one more than the limit. */
export function setupPage(
  q: z.output<typeof setupQuery>,
  after: readonly (string | number)[] | null,
): Promise<{ id: string; sort: string }[]> {
  const value = SORT_VALUE[q.sort];
  const beyond = q.dir === 'asc' ? '>' : '<';
  const dir = q.dir === 'asc' ? 'ASC' : 'DESC';
  return select<{ id: string; sort: string }>(
    `SELECT id, ${value} AS sort FROM setups
     WHERE ($1::text IS NULL OR name ILIKE $1) AND ($2::text IS NULL OR state = $2) AND (state <> 'retired' OR $3 OR $2 = 'retired')
       AND ($4::text IS NULL OR (${value}, id) ${beyond} ($4, $5::uuid))
     ORDER BY ${value} ${dir}, id ${dir} LIMIT $6`,
    [
      q.q ? likePattern(q.q) : null,
      q.state ?? null,
      q.retired,
      after?.[0] ?? null,
      after?.[1] ?? null,
      q.limit + 1,
    ],
  );
}

interface HitRow {
  id: string;
  kind: SearchHit['kind'];
  name: string;
  spec: { maker: string; model: string; variant: string } | null;
  state: string | null;
}

/** Setups and parts in use whose name holds the words, setups first. */
export function hitsOf(q: string, limit: number): Promise<HitRow[]> {
  return select<HitRow>(
    `(SELECT id, 'setup' AS kind, name, NULL::jsonb AS spec, state FROM setups WHERE name ILIKE $1 ORDER BY lower(name) LIMIT $2)
     UNION ALL
     (SELECT id, kind, model AS name, spec, NULL AS state FROM parts WHERE search ILIKE $1 AND retired_at IS NULL ORDER BY search LIMIT $2)`,
    [likePattern(q), limit],
  );
}
