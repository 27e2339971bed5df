import type { SharedAttribute } from '@ruddy/core/compatibility';
import { select } from '../../platform/db/database';
import { type Asked, weightedBind, weightedUnits } from './evidence';
import { ENTRY_STATE, type EntryRow } from './log-entries';

export type EvidenceRow = EntryRow &
  Record<SharedAttribute, boolean> &
  Record<'shared' | 'by_versions' | 'by_told' | 'weight', number> & { exact: boolean };
/** Units of exactly the chain that are shown at most. */
const EXACT_SHOWN = 200;

/** The entries behind a summary: units of exactly the chain first, then the `near` nearest by weight, each with its factors. */
export function evidenceRows(asked: Asked, near: number): Promise<EvidenceRow[]> {
  return select<EvidenceRow>(
    `WITH ${weightedUnits(asked.without !== null)}, picked AS (
       (SELECT * FROM weighed WHERE exact ORDER BY happened_on DESC, seq DESC LIMIT ${EXACT_SHOWN})
       UNION ALL
       (SELECT * FROM weighed WHERE NOT exact AND weight > 0 ORDER BY weight DESC, happened_on DESC, entry_id DESC LIMIT $16)
     )
     SELECT ${ENTRY_STATE}, w.exact, w.shared, w.by_versions, w.by_told, w.weight, (w.host = $1::text) IS TRUE AS host,
       (w.link = $2::text) IS TRUE AS link, (w.dock = $3::text) IS TRUE AS dock, (w.family = $4::text) IS TRUE AS family
     FROM picked w JOIN log_entries e ON e.id = w.entry_id
     ORDER BY w.exact DESC, w.weight DESC, e.happened_on DESC, e.seq DESC, e.id DESC`,
    [...weightedBind(asked), near],
  );
}
