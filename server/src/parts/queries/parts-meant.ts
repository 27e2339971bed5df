import { select } from '../../platform/db/database';
import type { Stored } from '../import-judge';

/** Stored parts of these ids, and those in use that have one of the kinds, makers and models; `key` is the name they collide by. */
export function partsMeant(m: {
  ids: readonly string[];
  kinds: readonly string[];
  makers: readonly string[];
  models: readonly string[];
}): Promise<Stored[]> {
  return select<Stored>(
    `SELECT id, kind, spec, sources, retired_at IS NOT NULL AS retired,
       kind || chr(31) || lower(maker) || chr(31) || lower(model) || chr(31) || lower(variant) AS key
     FROM parts WHERE id = ANY($1::uuid[]) OR (retired_at IS NULL AND kind = ANY($2::text[]) AND lower(maker) = ANY($3::text[]) AND lower(model) = ANY($4::text[]))`,
    [m.ids, m.kinds, m.makers, m.models],
  );
}
