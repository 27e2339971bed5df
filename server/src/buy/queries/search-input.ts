import type { ScoutInput } from '@ruddy/core/buy';
import type { ScoutAsk } from '@ruddy/core/buy/contract';
import type { AnySpec } from '@ruddy/core/parts';
import { select } from '../../platform/db/database';

export type SearchKind =
  'cable' | 'adapter' | 'dock' | 'card' | 'supply' | 'screen' | 'laptop' | 'desktop';

export interface PartForSearch {
  id: string;
  kind: SearchKind;
  spec: AnySpec;
  owned: boolean;
}

/** Parts in use of these kinds, owned and priced ones first, up to a limit of each kind, and how many of the kind there are. */
export function partsForSearch(
  own: ScoutAsk['own'],
  kinds: readonly SearchKind[],
  limit: number,
): Promise<(PartForSearch & { total: number })[]> {
  return select<PartForSearch & { total: number }>(
    `WITH mine AS (SELECT i.part_id FROM items i WHERE $1 <> 'none' AND i.how <> 'gone' AND ($1 = 'all' OR NOT EXISTS (
         SELECT 1 FROM setup_slots t JOIN setups u ON u.id = t.setup_id WHERE t.item_id = i.id AND u.state IN ('building', 'live')))),
       known AS (SELECT p.id, p.kind, p.spec, p.id IN (SELECT part_id FROM mine) AS owned,
         EXISTS (SELECT 1 FROM prices c WHERE c.part_id = p.id AND c.kind = 'offer' AND c.withdrawn_at IS NULL) AS priced
       FROM parts p WHERE p.kind = ANY ($2::text[]) AND p.retired_at IS NULL)
     SELECT id, kind, spec, owned, total FROM (SELECT *, count(*) OVER (PARTITION BY kind)::int AS total,
       row_number() OVER (PARTITION BY kind ORDER BY owned DESC, priced DESC, id) AS n FROM known) x WHERE n <= $3 ORDER BY kind, id`,
    [own, kinds, limit],
  );
}

/** Keys of the chains of the log that have this host. */
export async function loggedKeysOf(host: string): Promise<string[]> {
  const rows = await select<{ key: string }>(
    'SELECT DISTINCT chain_key AS key FROM log_units WHERE host = $1 LIMIT 5000',
    [host],
  );
  return rows.map((r) => r.key);
}

/** What the units of the log that were seen are made of; hearsay is left out. */
export function unitsSeen(): Promise<ScoutInput['near'][number][]> {
  return select<ScoutInput['near'][number]>(
    'SELECT DISTINCT host, link, dock, card, family FROM log_units WHERE NOT told LIMIT 5000',
  );
}
