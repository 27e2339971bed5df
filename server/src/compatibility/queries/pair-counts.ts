import { select } from '../../platform/db/database';
import type { AnySpec } from '@ruddy/core/parts';

type Kind = 'host' | 'dock' | 'card';

/** A part of which an item is owned, or that stands in a setup in use. */
const OWNED = `(EXISTS (SELECT 1 FROM items i WHERE i.part_id = p.id)
  OR EXISTS (SELECT 1 FROM setup_slots t JOIN setups u ON u.id = t.setup_id WHERE t.part_id = p.id AND u.state <> 'retired'))`;

/** Parts of a kind by name, all or the workshop's own, up to a limit, and how many there are. */
export async function partsOfKind(
  kind: Kind,
  own: boolean,
  limit: number,
): Promise<{ rows: { id: string; spec: AnySpec }[]; total: number }> {
  const rows = await select<{ id: string; spec: AnySpec; total: number }>(
    `SELECT p.id, p.spec, count(*) OVER ()::int AS total FROM parts p
     WHERE p.kind = $1 AND p.retired_at IS NULL AND (NOT $2::boolean OR ${OWNED})
     ORDER BY lower(p.maker), lower(p.model), lower(p.variant), p.id LIMIT $3`,
    [kind, own, limit],
  );
  return { rows, total: rows[0]?.total ?? 0 };
}

/** The name among these that most units of the log have; null where it has none. */
export async function mostLogged(kind: Kind, names: readonly string[]): Promise<string | null> {
  const [row] = await select<{ name: string }>(
    `SELECT ${kind} AS name FROM log_units WHERE ${kind} = ANY ($1::text[]) GROUP BY 1 ORDER BY count(*) DESC, 1 LIMIT 1`,
    [names],
  );
  return row?.name ?? null;
}

interface LoggedPair {
  r: string;
  c: string;
  n: number;
  worked: number;
  told: number;
  newest: string;
}

/** Units of the log for every pair of these names, counted; with one third part, or with any. Hearsay is counted apart. */
export function loggedPairs(
  rows: { kind: Kind; names: readonly string[] },
  cols: { kind: Kind; names: readonly string[] },
  third: { kind: Kind; name: string | null },
): Promise<LoggedPair[]> {
  return select<LoggedPair>(
    `SELECT ${rows.kind} AS r, ${cols.kind} AS c, count(*) FILTER (WHERE NOT told)::int AS n,
       count(*) FILTER (WHERE worked AND NOT told)::int AS worked, count(*) FILTER (WHERE told)::int AS told,
       max(happened_on)::text AS newest
     FROM log_units WHERE ${rows.kind} = ANY ($1::text[]) AND ${cols.kind} = ANY ($2::text[]) AND ($3::text IS NULL OR ${third.kind} = $3)
     GROUP BY 1, 2`,
    [rows.names, cols.names, third.name],
  );
}
