import type { ShareQuery } from '@ruddy/core/compatibility/contract';
import { logConditions } from '../../plan/queries/log-conditions';
import { select } from '../../platform/db/database';

/** Ids of the entries a filter picks; null for the whole log. */
export async function picked(q: ShareQuery): Promise<string[] | null> {
  const { id, chain, outcome, ...rest } = q;
  const filter = logConditions(rest, 4);
  if (!id && !chain && !outcome && filter.bind.length === 0 && rest.known === undefined)
    return null;
  const rows = await select<{ id: string }>(
    `SELECT e.id FROM log_entries e WHERE ($1::uuid IS NULL OR e.id = $1) AND ($2::text IS NULL OR e.chain_key = $2)
       AND ($3::text IS NULL OR e.outcome = $3) AND ${filter.sql}`,
    [id ?? null, chain ?? null, outcome ?? null, ...filter.bind],
  );
  return rows.map((r) => r.id);
}

/** Photos and serial numbers of these setups: what never leaves in a shared log. */
export async function privateThings(
  setupIds: readonly string[],
): Promise<{ photos: number; serials: number }> {
  const [kept] = await select<{ photos: number; serials: number }>(
    `SELECT (SELECT count(*)::int FROM events WHERE setup_id = ANY ($1::uuid[]) AND private ? 'photo') AS photos,
       (SELECT count(*)::int FROM setup_slots t JOIN items i ON i.id = t.item_id WHERE t.setup_id = ANY ($1::uuid[]) AND i.private ->> 'serial' <> '') AS serials`,
    [setupIds],
  );
  return kept ?? { photos: 0, serials: 0 };
}
