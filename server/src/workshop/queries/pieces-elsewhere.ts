import { select } from '../../platform/db/database';
import type { PieceElsewhere } from '@ruddy/core/workshop/contract';

interface Row {
  place: string;
  itemId: string;
  label: string;
  liveIn: PieceElsewhere['liveIn'];
  member: string | null;
  forId: string | null;
  forName: string | null;
}

/** Items of a setup that are also in another active setup, or lent for another purpose. */
export async function piecesElsewhere(setupId: string): Promise<PieceElsewhere[]> {
  const rows = await select<Row>(
    `SELECT t.slot || CASE WHEN t.ord > 0 OR t.slot IN ('path', 'supply', 'screen') THEN '/' || t.ord ELSE '' END AS place, i.id AS "itemId", i.label,
       coalesce((SELECT jsonb_agg(DISTINCT jsonb_build_object('id', s.id, 'name', s.name)) FROM setup_slots o JOIN setups s ON s.id = o.setup_id
         WHERE o.item_id = i.id AND s.state = 'live' AND s.id <> t.setup_id), '[]') AS "liveIn",
       m.name AS member, u.id AS "forId", u.name AS "forName"
     FROM setup_slots t JOIN items i ON i.id = t.item_id
       LEFT JOIN loans l ON l.item_id = i.id AND l.from_on IS NOT NULL AND l.returned_on IS NULL
       LEFT JOIN members m ON m.id = l.member_id LEFT JOIN setups u ON u.id = l.setup_id
     WHERE t.setup_id = $1 ORDER BY t.slot, t.ord`,
    [setupId],
  );
  return rows
    .map(({ member, forId, forName, ...r }) => ({
      ...r,
      lent: member === null ? null : { member, setup: forName, here: forId === setupId },
    }))
    .filter((r) => r.liveIn.length > 0 || (r.lent !== null && !r.lent.here));
}
