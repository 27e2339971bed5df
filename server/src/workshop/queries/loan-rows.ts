import { partName } from '@ruddy/core/chain';
import { LEND_KINDS } from '@ruddy/core/workshop';
import type { Lendable, LoanRow } from '@ruddy/core/workshop/contract';
import { select } from '../../platform/db/database';

/** Live setups that name a piece. */
const LIVE_IN = `coalesce((SELECT jsonb_agg(DISTINCT jsonb_build_object('id', s.id, 'name', s.name)) FROM setup_slots t JOIN setups s ON s.id = t.setup_id
  WHERE t.item_id = i.id AND s.state = 'live'), '[]')`;

interface Spec {
  maker: string;
  model: string;
  variant: string;
}
type Row = Omit<LoanRow, 'part'> & { spec: Spec };

/** Loans with their pieces, members and setups. `where` holds no words of people; those are bound. */
export async function loanRows(where: string, bind: unknown[]): Promise<LoanRow[]> {
  const found = await select<Row>(
    `SELECT l.id, l.item_id AS "itemId", i.label, p.id AS "partId", p.kind, p.spec, l.member_id AS "memberId", m.name AS member,
       CASE WHEN u.id IS NULL THEN NULL ELSE jsonb_build_object('id', u.id, 'name', u.name) END AS setup,
       l.asked_on::text AS "askedOn", l.from_on::text AS "fromOn", l.due_on::text AS "dueOn", l.condition_out AS "conditionOut",
       l.along, l.note, l.checked, l.returned_on::text AS "returnedOn", l.back, l.withdrawn, l.rev, l.origin,
       coalesce((SELECT jsonb_agg(jsonb_build_object('loanId', n.id, 'member', nm.name) ORDER BY n.asked_on, n.id) FROM loans n
         JOIN members nm ON nm.id = n.member_id WHERE n.item_id = l.item_id AND n.from_on IS NULL AND NOT n.withdrawn AND n.id <> l.id), '[]') AS next,
       ${LIVE_IN} AS "liveIn"
     FROM loans l JOIN items i ON i.id = l.item_id JOIN parts p ON p.id = i.part_id JOIN members m ON m.id = l.member_id
       LEFT JOIN setups u ON u.id = l.setup_id
     WHERE ${where}`,
    bind,
  );
  return found.map(({ spec, ...r }) => ({ ...r, part: partName(spec) }));
}

/** Every piece that can leave the room, by label, with where it is. */
export async function listLendable(): Promise<Lendable[]> {
  const found = await select<Omit<Lendable, 'part'> & { spec: Spec }>(
    `SELECT i.id, i.label, p.id AS "partId", p.kind, p.spec, i.condition,
       (SELECT m.name FROM loans l JOIN members m ON m.id = l.member_id WHERE l.item_id = i.id AND l.from_on IS NOT NULL AND l.returned_on IS NULL) AS with,
       ${LIVE_IN} AS "liveIn"
     FROM items i JOIN parts p ON p.id = i.part_id WHERE i.how <> 'gone' AND p.kind = ANY($1::text[]) ORDER BY lower(i.label), i.id LIMIT 2000`,
    [LEND_KINDS],
  );
  return found.map(({ spec, ...r }) => ({ ...r, part: partName(spec) }));
}
