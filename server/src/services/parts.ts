import { apply } from 'json-merge-patch';
import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import type * as z from 'zod';
import type { Origin, Page, Part, PartBody, PartPatch, partQuery } from '@ruddy/core/api';
import { PART_SCHEMAS, type AnySpec, type HostSpec } from '@ruddy/core/schema';
import { PartModel, PartRevisionModel, SocketModel } from '../db/models';
import { fromZod, HttpProblem, invalid, notFound } from '../http/problem';
import { checkRevision, type Actor, type Services } from '../http/route';
import { contentHash, newId } from './ids';
import { decodeCursor, likePattern, toPage } from './paging';

interface PartRow {
  id: string;
  kind: Part['kind'];
  spec: AnySpec;
  rev: number;
  origin: Origin;
  created_at: Date;
  retired_at: Date | null;
  used_in: number;
  sort: string;
}

const COLUMNS = `p.id, p.kind, p.spec, p.rev, p.origin, p.created_at, p.retired_at,
  (SELECT count(DISTINCT t.setup_id)::int FROM setup_slots t WHERE t.part_id = p.id) AS used_in,
  lower(p.maker) || ' ' || lower(p.model) || ' ' || lower(p.variant) AS sort`;

function toPart(r: PartRow): Part {
  return {
    id: r.id,
    kind: r.kind,
    spec: r.spec,
    rev: r.rev,
    origin: r.origin,
    createdAt: r.created_at.toISOString(),
    retiredAt: r.retired_at?.toISOString() ?? null,
    usedIn: r.used_in,
  } as Part;
}

/** A page of the catalogue by maker, model and variant. */
export async function listParts(db: Sequelize, q: z.output<typeof partQuery>): Promise<Page<Part>> {
  const after = decodeCursor(q.cursor, 2);
  const rows = await db.query<PartRow>(
    `SELECT * FROM (SELECT ${COLUMNS}, p.search FROM parts p) x
     WHERE ($1::text IS NULL OR kind = $1) AND (retired_at IS NULL OR $2)
       AND ($3::text IS NULL OR search ILIKE $3)
       AND ($4::text IS NULL OR (sort, id) > ($4, $5::uuid))
     ORDER BY sort, id LIMIT $6`,
    {
      type: QueryTypes.SELECT,
      bind: [q.kind ?? null, q.retired, q.q ? likePattern(q.q) : null, after?.[0] ?? null, after?.[1] ?? null, q.limit + 1],
    },
  );
  return toPage(rows, q.limit, toPart, (r) => [r.sort, r.id]);
}

/** One part, retired or not. */
export async function getPart(db: Sequelize, id: string, transaction?: Transaction): Promise<Part> {
  const [row] = await db.query<PartRow>(`SELECT ${COLUMNS} FROM parts p WHERE p.id = $1`, {
    type: QueryTypes.SELECT,
    bind: [id],
    transaction,
  });
  if (!row) throw notFound('part');
  return toPart(row);
}

/**
 * Keep the table of sockets true to a host's spec. Ids are permanent: a socket that leaves is
 * retired and its short name is never given to another one; bringing the same name back revives it.
 */
async function syncSockets(
  partId: string,
  spec: HostSpec,
  made: { origin: Origin; at: Date; by: string },
  transaction: Transaction,
): Promise<void> {
  const known = await SocketModel.findAll({ where: { partId }, transaction });
  const wanted = new Set(spec.sockets.map((s) => s.key));
  for (const s of known) {
    const leaves = !wanted.has(s.key);
    if (leaves !== (s.retiredAt !== null)) await s.update({ retiredAt: leaves ? made.at : null }, { transaction });
  }
  const fresh = spec.sockets.filter((s) => !known.some((k) => k.key === s.key));
  await SocketModel.bulkCreate(
    fresh.map((s) => ({ id: newId(), origin: made.origin, createdAt: made.at, createdBy: made.by, partId, key: s.key })),
    { transaction },
  );
}

async function refuseSocketInUse(db: Sequelize, partId: string, spec: HostSpec, transaction: Transaction): Promise<void> {
  const used = await db.query<{ key: string; setup: string }>(
    `SELECT k.key, s.name AS setup FROM setup_slots t JOIN sockets k ON k.id = t.socket_id JOIN setups s ON s.id = t.setup_id WHERE k.part_id = $1`,
    { type: QueryTypes.SELECT, bind: [partId], transaction },
  );
  const gone = used.find((u) => !spec.sockets.some((s) => s.key === u.key));
  if (gone)
    throw invalid('spec/sockets', `Socket "${gone.key}" is used by the setup "${gone.setup}"; choose another port there first`);
}

/** Store a new part with its first revision. A repeated id with the same content is answered, not doubled. */
export async function createPart(
  body: PartBody,
  made: { origin: Origin; at: Date; by: string; retired?: boolean },
  transaction: Transaction,
): Promise<'stored' | 'same'> {
  const existing = await PartModel.findByPk(body.id, { transaction });
  if (existing) {
    if (existing.kind === body.kind && contentHash(existing.spec) === contentHash(body.spec)) return 'same';
    throw new HttpProblem(409, 'Another part has this id', { errors: [{ path: 'id', message: 'Another part has this id' }] });
  }
  await PartModel.create(
    {
      id: body.id,
      origin: made.origin,
      createdAt: made.at,
      createdBy: made.by,
      kind: body.kind,
      spec: body.spec,
      retiredAt: made.retired ? made.at : null,
    },
    { transaction },
  );
  await PartRevisionModel.create(
    { id: newId(), partId: body.id, rev: 1, spec: body.spec, specVersion: 1, at: made.at, by: made.by },
    { transaction },
  );
  if (body.kind === 'host') await syncSockets(body.id, body.spec, made, transaction);
  return 'stored';
}

/** Change a part by a merge patch of its spec, or retire it. What a person changes becomes theirs. */
export async function patchPart(s: Services, id: string, patch: PartPatch, ifMatch: number | null, actor: Actor): Promise<Part> {
  return s.db.transaction(async (transaction) => {
    const row = await PartModel.findByPk(id, { transaction, lock: transaction.LOCK.UPDATE });
    if (!row) throw notFound('part');
    checkRevision(ifMatch, row.rev, await getPart(s.db, id, transaction));
    const at = s.now();
    const merged: unknown = patch.spec ? apply(structuredClone(row.spec), patch.spec) : row.spec;
    const parsed = PART_SCHEMAS[row.kind].safeParse(merged);
    if (!parsed.success) throw fromZod(parsed.error, 'body');
    const spec = parsed.data as AnySpec;
    const origin = row.origin === 'demo' ? 'adopted' : row.origin;
    if (row.kind === 'host') {
      await refuseSocketInUse(s.db, id, spec as HostSpec, transaction);
      await syncSockets(id, spec as HostSpec, { origin, at, by: actor.id }, transaction);
    }
    const retiredAt = patch.retired === undefined ? row.retiredAt : patch.retired ? (row.retiredAt ?? at) : null;
    const rev = row.rev + 1;
    await row.update({ spec, rev, retiredAt, origin }, { transaction });
    await PartRevisionModel.create({ id: newId(), partId: id, rev, spec, specVersion: 1, at, by: actor.id }, { transaction });
    return getPart(s.db, id, transaction);
  });
}
