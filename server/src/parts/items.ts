import { select } from '../platform/db/database';
import { inTransaction } from '../platform/db/transaction';
import { Transaction } from 'sequelize';
import type * as z from 'zod';
import type { Origin } from '@ruddy/core/base/contract';
import { type AnySpec, type Differs, differsProblems, type PartKind } from '@ruddy/core/parts';
import type {
  FactBody,
  FactEntry,
  ItemBody,
  ItemEntry,
  itemPatch,
  RegisterRow,
} from '@ruddy/core/parts/contract';
import { ItemFactModel } from './models/item-fact';
import { ItemModel } from './models/item';
import { invalid, notFound, refuseFuture } from '../platform/http/problem';
import { checkRevision, type Actor, type Services } from '../platform/http/route';

export interface Made {
  origin: Origin;
  at: Date;
  by: string;
}

/** The best rate read through a piece: what somebody noted on it, or a reading of a setup that names it. Readings that were corrected do not count. */
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

async function entries(where: string, bind: unknown[]): Promise<ItemEntry[]> {
  const rows = await select<ItemRow>(
    `SELECT ${COLUMNS} FROM items i WHERE ${where} ORDER BY lower(i.label), i.id`,
    bind,
  );
  const ids = [rows.map((r) => r.id)];
  const facts = await select<Omit<FactEntry, 'recordedAt'> & { recordedAt: Date }>(
    `SELECT id, item_id AS "itemId", kind, happened_on::text AS "happenedOn", (body ->> 'gbps')::float AS gbps, body ->> 'role' AS role,
       body ->> 'words' AS words, origin, created_at AS "recordedAt" FROM item_facts WHERE item_id = ANY($1::uuid[]) ORDER BY happened_on DESC, id DESC`,
    ids,
  );
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
      facts: facts
        .filter((f) => f.itemId === r.id)
        .map((f) => ({ ...f, recordedAt: f.recordedAt.toISOString() })),
      usedIn: used
        .filter((u) => u.item === r.id)
        .map(({ id, name, state }) => ({ id, name, state })),
      best: top ? { gbps: top.gbps, on: top.on, where: top.where } : null,
    };
  });
}

/** The pieces of a part, by label. */
export function itemsOf(partId: string): Promise<ItemEntry[]> {
  return entries('i.part_id = $1', [partId]);
}

/** One piece. */
export async function getItem(id: string): Promise<ItemEntry> {
  const [item] = await entries('i.id = $1', [id]);
  if (!item) throw notFound('piece');
  return item;
}

/** The part of a piece must be there, and what the piece differs in must be something a piece can differ in. */
async function checkPart(body: { partId: string; differs?: Differs | undefined }): Promise<void> {
  const [row] = await select<{ kind: PartKind; spec: AnySpec }>(
    'SELECT kind, spec FROM parts WHERE id = $1',
    [body.partId],
  );
  if (!row) throw invalid('partId', 'No part has this id');
  const [wrong] = differsProblems(row.kind, row.spec, body.differs ?? {});
  if (wrong) throw invalid(`differs/${wrong.attr}`, wrong.why);
}

/** Write a piece down. A repeated id is answered, not doubled. */
export async function createItem(
  { serial, ...body }: ItemBody,
  made: Made,
): Promise<'stored' | 'same'> {
  if (await ItemModel.findByPk(body.id)) return 'same';
  await checkPart(body);
  await ItemModel.create({
    ...body,
    private: serial ? { serial } : {},
    origin: made.origin,
    createdAt: made.at,
    createdBy: made.by,
  });
  return 'stored';
}

/** Change what is written of a piece. What a person changes becomes theirs. */
export async function patchItem(
  id: string,
  { serial, ...patch }: z.output<typeof itemPatch>,
  revision: number,
): Promise<ItemEntry> {
  return inTransaction(async () => {
    const row = await ItemModel.findByPk(id, { lock: Transaction.LOCK.UPDATE });
    if (!row) throw notFound('piece');
    checkRevision(revision, row.rev, await getItem(id));
    if (patch.differs) await checkPart({ partId: row.partId, differs: patch.differs });
    const given = serial === undefined ? {} : { private: serial ? { serial } : {} };
    const origin = row.origin === 'demo' ? ('adopted' as const) : row.origin;
    await row.update({ ...patch, ...given, origin, rev: row.rev + 1 });
    return getItem(id);
  });
}

/** Note something seen on a piece; never changed afterwards. A repeated id is answered, not doubled. */
export async function addFact(body: FactBody, made: Made, where = ''): Promise<'stored' | 'same'> {
  if (await ItemFactModel.findByPk(body.id)) return 'same';
  if (!(await ItemModel.findByPk(body.itemId)))
    throw invalid(`${where}itemId`, 'No piece has this id');
  const { id, itemId, kind, happenedOn, gbps, role, words } = body;
  await ItemFactModel.create({
    id,
    itemId,
    kind,
    happenedOn,
    body: { gbps, role, words },
    origin: made.origin,
    createdAt: made.at,
    createdBy: made.by,
  });
  return 'stored';
}

/** Note something on a piece and answer with the piece. */
export async function noteFact(s: Services, body: FactBody, actor: Actor): Promise<ItemEntry> {
  refuseFuture('happenedOn', body.happenedOn, s.now());
  await inTransaction(() => addFact(body, { origin: 'own', at: s.now(), by: actor.id }));
  return getItem(body.itemId);
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
