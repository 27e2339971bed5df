import type { OwnedPiece } from '@ruddy/core/buy';
import { select } from '../../platform/db/database';

/** Pieces at hand of some parts, and the other live setup that names each, if any. */
export function piecesOf(
  partIds: readonly string[],
  setupId: string | null,
): Promise<OwnedPiece[]> {
  return select<OwnedPiece>(
    `SELECT i.id, i.part_id AS "partId", i.label, i.how, (
         SELECT min(s.name) FROM setup_slots t JOIN setups s ON s.id = t.setup_id
         WHERE t.item_id = i.id AND s.state IN ('building', 'live') AND ($2::uuid IS NULL OR s.id <> $2)) AS "usedIn"
     FROM items i WHERE i.part_id = ANY($1::uuid[]) AND i.how <> 'gone' ORDER BY lower(i.label), i.id`,
    [partIds, setupId],
  );
}
