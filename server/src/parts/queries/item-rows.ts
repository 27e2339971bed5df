import type { FactEntry, ItemEntry, RegisterRow } from '@ruddy/core/parts/contract';
import { select } from '../../platform/db/database';
import { ItemFactModel } from '../models/item-fact';

/** Best copy rate through an item: noted on it, or read on a setup that names it. Corrected readings do not count. */
const BEST = `SELECT item_id, gbps, "on", "where", row_number() OVER (PARTITION BY item_id ORDER BY gbps DESC, "on" DESC) AS n FROM (
    SELECT f.item_id, (f.body ->> 'gbps')::float AS gbps, f.happened_on::text AS "on", coalesce(nullif(f.body ->> 'words', ''), 'noted by hand') AS "where"
      FROM item_facts f WHERE f.kind = 'measured'
    UNION ALL
    SELECT t.item_id, (e.body ->> 'gbps')::float, (e.happened_at AT TIME ZONE 'UTC')::date::text, s.name
      FROM setup_slots t JOIN setups s ON s.id = t.setup_id JOIN events e ON e.setup_id = t.setup_id
      WHERE t.item_id IS NOT NULL AND e.kind = 'reading' AND jsonb_typeof(e.body -> 'gbps') = 'number' AND e.body ->> 'grade' <> 'impossible'
        AND NOT EXISTS (SELECT 1 FROM events c WHERE c.corrects = e.id)) x`;

type ItemRow = Omit<ItemEntry, 'createdAt' | 'facts' | 'usedIn' | 'best'> & { createdAt: Date };

const COLUMNS = `i.id, i.part_id AS "partId", i.label, i.how, i.owner, i.condition, i.acquired_on::text AS "acquiredOn",
  i.bought_from AS "boughtFrom", i.claim, i.note, i.differs, coalesce(i.private ->> 'serial', '') AS serial, i.rev,
  (SELECT m.name FROM loans l JOIN members m ON m.id = l.member_id WHERE l.item_id = i.id AND l.from_on IS NOT NULL AND l.returned_on IS NULL) AS "lentTo", i.origin, i.created_at AS "createdAt"`;

const toFact = ({
  id,
  itemId,
  kind,
  happenedOn,
  body,
  origin,
  createdAt,
}: ItemFactModel): FactEntry => ({
  id,
  itemId,
  kind,
  happenedOn,
  gbps: body.gbps,
  role: body.role,
  words: body.words,
  origin,
  recordedAt: createdAt.toISOString(),
});

/** Pieces by label with their facts, where they are used and the best rate read through each. `where` holds no words of people. */
export async function itemEntries(where: string, bind: unknown[]): Promise<ItemEntry[]> {
  const rows = await select<ItemRow>(
    `SELECT ${COLUMNS} FROM items i WHERE ${where} ORDER BY lower(i.label), i.id`,
    bind,
  );
  const ids = [rows.map((r) => r.id)];
  const facts = await ItemFactModel.findAll({
    where: { itemId: rows.map((r) => r.id) },
    order: [
      ['happenedOn', 'DESC'],
      ['id', 'DESC'],
    ],
  });
  const used = await select<{ item: string; id: string; name: string; state: string }>(
    `SELECT DISTINCT t.item_id AS item, s.id, s.name, s.state FROM setup_slots t JOIN setups s ON s.id = t.setup_id
     WHERE t.item_id = ANY($1::uuid[]) ORDER BY s.name`,
    ids,
  );
  const best = await select<{ item_id: string; gbps: number; on: string; where: string }>(
    `SELECT * FROM (${BEST}) b WHERE n = 1 AND item_id = ANY($1::uuid[])`,
    ids,
  );
  return rows.map((r) => {
    const top = best.find((b) => b.item_id === r.id);
    return {
      ...r,
      createdAt: r.createdAt.toISOString(),
      facts: facts.filter((f) => f.itemId === r.id).map(toFact),
      usedIn: used
        .filter((u) => u.item === r.id)
        .map(({ id, name, state }) => ({ id, name, state })),
      best: top ? { gbps: top.gbps, on: top.on, where: top.where } : null,
    };
  });
}

/** The cable register: every piece of a cable that is not gone, and cables of which no piece is written down. */
export async function register(): Promise<RegisterRow[]> {
  const rows = await select<
    Omit<RegisterRow, 'best'> & { gbps: number | null; on: string; where: string }
  >(
    `SELECT p.id AS "partId", p.maker || ' ' || p.model || CASE WHEN p.variant <> '' THEN ' ' || p.variant ELSE '' END AS part,
       i.id AS "itemId", coalesce(i.label, '') AS label, coalesce(i.claim, '') AS claim,
       p.spec ->> 'connector' AS connector,
       CASE WHEN jsonb_typeof(p.spec -> 'construction') = 'string' THEN p.spec ->> 'construction' END AS construction,
       p.spec -> 'markedGbps' AS "markedGbps", p.spec -> 'markedW' AS "markedW", p.spec -> 'lengthMm' AS "lengthMm",
       coalesce(i.bought_from, '') AS "boughtFrom", i.acquired_on::text AS "acquiredOn", b.gbps, b."on", b."where"
     FROM parts p LEFT JOIN items i ON i.part_id = p.id AND i.how <> 'gone'
       LEFT JOIN (${BEST}) b ON b.item_id = i.id AND b.n = 1
     WHERE p.kind = 'cable' AND (p.retired_at IS NULL OR i.id IS NOT NULL)
     ORDER BY i.id IS NULL, lower(coalesce(i.label, '')), part, i.id LIMIT 2000`,
  );
  return rows.map(({ gbps, on, where, ...r }) => ({
    ...r,
    best: gbps === null ? null : { gbps, on, where },
  }));
}
