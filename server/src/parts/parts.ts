import { select } from '../platform/db/database';
import { inTransaction } from '../platform/db/transaction';
import { apply } from 'json-merge-patch';
import { Op, Transaction } from 'sequelize';
import type * as z from 'zod';
import { checked } from '@ruddy/core/base';
import type { Origin, Page } from '@ruddy/core/base/contract';
import { partName } from '@ruddy/core/chain';
import { type AnySpec, type HostSpec, PART_SCHEMAS, type SourceMap } from '@ruddy/core/parts';
import type {
  bulkBody,
  Part,
  PartBody,
  PartPatch,
  partQuery,
  Revision,
} from '@ruddy/core/parts/contract';
import { PartModel } from './models/part';
import { PartRevisionModel } from './models/part-revision';
import { SocketModel } from './models/socket';
import { fromZod, HttpProblem, invalid, notFound } from '../platform/http/problem';
import { checkRevision, type Actor, type Services } from '../platform/http/route';
import { contentHash, newId } from '../platform/db/ids';
import { decodeCursor, likePattern, toPage } from '../platform/db/paging';

interface PartRow {
  id: string;
  kind: Part['kind'];
  spec: AnySpec;
  sources: SourceMap;
  rev: number;
  origin: Origin;
  created_at: Date;
  retired_at: Date | null;
  used_in: number;
  pieces: number;
  sort: string;
}

const COLUMNS = `p.id, p.kind, p.spec, p.sources, p.rev, p.origin, p.created_at, p.retired_at,
  (SELECT count(DISTINCT t.setup_id)::int FROM setup_slots t WHERE t.part_id = p.id) AS used_in,
  (SELECT count(*)::int FROM items i WHERE i.part_id = p.id AND i.how <> 'gone') AS pieces,
  lower(p.maker) || ' ' || lower(p.model) || ' ' || lower(p.variant) AS sort`;

function toPart(r: PartRow): Part {
  return {
    id: r.id,
    kind: r.kind,
    spec: r.spec,
    sources: r.sources,
    rev: r.rev,
    origin: r.origin,
    createdAt: r.created_at.toISOString(),
    retiredAt: r.retired_at?.toISOString() ?? null,
    usedIn: r.used_in,
    pieces: r.pieces,
  } as Part;
}

/** A page of the catalogue by maker, model and variant, with how many there are in all. */
export async function listParts(
  q: z.output<typeof partQuery>,
): Promise<Page<Part> & { total: number }> {
  const after = decodeCursor(q.cursor, 2);
  const [attr, word] = q.where?.split(':') ?? [null, null];
  const filter = `($1::text IS NULL OR p.kind = $1) AND (p.retired_at IS NULL OR $2) AND ($3::text IS NULL OR p.search ILIKE $3)
     AND (NOT $4 OR EXISTS (SELECT 1 FROM items i WHERE i.part_id = p.id AND i.how <> 'gone'))
     AND ($5::text IS NULL OR p.spec ->> $5 = $6 OR EXISTS (
       SELECT 1 FROM jsonb_array_elements(CASE WHEN p.kind = 'host' THEN p.spec -> 'sockets' ELSE '[]' END) k WHERE k ->> $5 = $6))`;
  const bind = [q.kind ?? null, q.retired, q.q ? likePattern(q.q) : null, q.owned, attr, word];
  const [counted] = await select<{ n: number }>(
    `SELECT count(*)::int AS n FROM parts p WHERE ${filter}`,
    bind,
  );
  // The page is found by the index on names first; what is counted beside each part is counted for that page only.
  const rows = await select<PartRow>(
    `SELECT ${COLUMNS} FROM parts p WHERE ${filter}
       AND ($7::text IS NULL OR (lower(p.maker) || ' ' || lower(p.model) || ' ' || lower(p.variant), p.id) > ($7, $8::uuid))
     ORDER BY sort, p.id LIMIT $9`,
    [...bind, after?.[0] ?? null, after?.[1] ?? null, q.limit + 1],
  );
  return { ...toPage(rows, q.limit, toPart, (r) => [r.sort, r.id]), total: counted?.n ?? 0 };
}

/** One part, retired or not. */
export async function getPart(id: string): Promise<Part> {
  const [row] = await select<PartRow>(`SELECT ${COLUMNS} FROM parts p WHERE p.id = $1`, [id]);
  if (!row) throw notFound('part');
  return toPart(row);
}

/**
 * Keep the table of sockets true to a host's spec. Ids are permanent: a socket that leaves is
 * retired and its short name is never given to another one; bringing the same name back revives it.
 */
export async function syncSockets(
  partId: string,
  spec: HostSpec,
  made: { origin: Origin; at: Date; by: string },
): Promise<void> {
  const known = await SocketModel.findAll({ where: { partId } });
  const wanted = new Set(spec.sockets.map((s) => s.key));
  for (const s of known) {
    const leaves = !wanted.has(s.key);
    if (leaves !== (s.retiredAt !== null)) await s.update({ retiredAt: leaves ? made.at : null });
  }
  const fresh = spec.sockets.filter((s) => !known.some((k) => k.key === s.key));
  await SocketModel.bulkCreate(
    fresh.map((s) => ({
      id: newId(),
      origin: made.origin,
      createdAt: made.at,
      createdBy: made.by,
      partId,
      key: s.key,
    })),
  );
}

async function refuseSocketInUse(partId: string, spec: HostSpec): Promise<void> {
  const used = await select<{ key: string; setup: string }>(
    `SELECT k.key, s.name AS setup FROM setup_slots t JOIN sockets k ON k.id = t.socket_id JOIN setups s ON s.id = t.setup_id WHERE k.part_id = $1`,
    [partId],
  );
  const gone = used.find((u) => !spec.sockets.some((s) => s.key === u.key));
  if (gone)
    throw invalid(
      'spec/sockets',
      `Socket "${gone.key}" is used by the setup "${gone.setup}"; choose another port there first`,
    );
}

/** Store a new part with its first revision. A repeated id with the same content is answered, not doubled. */
export async function createPart(
  body: PartBody,
  made: { origin: Origin; at: Date; by: string; retired?: boolean },
): Promise<'stored' | 'same'> {
  const existing = await PartModel.findByPk(body.id);
  if (existing) {
    if (existing.kind === body.kind && contentHash(existing.spec) === contentHash(body.spec))
      return 'same';
    throw new HttpProblem(409, 'Another part has this id', {
      errors: [{ path: 'id', message: 'Another part has this id' }],
    });
  }
  await PartModel.create({
    id: body.id,
    origin: made.origin,
    createdAt: made.at,
    createdBy: made.by,
    kind: body.kind,
    spec: body.spec,
    sources: body.sources,
    retiredAt: made.retired ? made.at : null,
  });
  await PartRevisionModel.create({
    id: newId(),
    partId: body.id,
    rev: 1,
    spec: body.spec,
    specVersion: 1,
    sources: body.sources,
    retired: made.retired === true,
    at: made.at,
    by: made.by,
  });
  if (body.kind === 'host') await syncSockets(body.id, body.spec, made);
  return 'stored';
}

interface Change {
  patch: PartPatch;
  at: Date;
  actor: Actor;
}

/** Apply a change to a locked row and keep the revision. What a person changes becomes theirs. */
async function applyChange(row: PartModel, { patch, at, actor }: Change): Promise<void> {
  const merged: unknown = patch.spec ? apply(structuredClone(row.spec), patch.spec) : row.spec;
  const parsed = checked(PART_SCHEMAS[row.kind], merged);
  if (!parsed.success) throw fromZod(parsed.error, 'body');
  const spec = parsed.data as AnySpec;
  const origin = row.origin === 'demo' ? 'adopted' : row.origin;
  if (row.kind === 'host') {
    await refuseSocketInUse(row.id, spec as HostSpec);
    await syncSockets(row.id, spec as HostSpec, { origin, at, by: actor.id });
  }
  const retiredAt =
    patch.retired === undefined ? row.retiredAt : patch.retired ? (row.retiredAt ?? at) : null;
  const rev = row.rev + 1;
  const sources = patch.sources ?? row.sources;
  await row.update({ spec, sources, rev, retiredAt, origin });
  await PartRevisionModel.create({
    id: newId(),
    partId: row.id,
    rev,
    spec,
    specVersion: 1,
    sources,
    retired: retiredAt !== null,
    at,
    by: actor.id,
  });
}

/** Change a part by a merge patch of its spec, retire it, or say where its values came from. */
export async function patchPart(
  s: Services,
  id: string,
  patch: PartPatch,
  revision: number,
  actor: Actor,
): Promise<Part> {
  return inTransaction(async () => {
    const row = await PartModel.findByPk(id, { lock: Transaction.LOCK.UPDATE });
    if (!row) throw notFound('part');
    checkRevision(revision, row.rev, await getPart(id));
    await applyChange(row, { patch, at: s.now(), actor });
    return getPart(id);
  });
}

/** The same change to many parts, all or none: the first that refuses it is named and nothing is stored. */
export async function patchMany(
  s: Services,
  body: z.output<typeof bulkBody>,
  actor: Actor,
): Promise<{ changed: number }> {
  return inTransaction(async () => {
    const ids = [...new Set(body.ids)];
    const rows = await PartModel.findAll({
      where: { id: { [Op.in]: ids } },
      order: [['id', 'ASC']],
      lock: Transaction.LOCK.UPDATE,
    });
    if (rows.length < ids.length) throw notFound('part');
    for (const row of rows) {
      // Of many parts each keeps its own sources; what is said of the changed attribute goes over them.
      const sources = { ...row.sources, ...body.patch.sources };
      const change = { patch: { ...body.patch, sources }, at: s.now(), actor };
      await applyChange(row, change).catch((error: unknown) => {
        const named =
          error instanceof HttpProblem
            ? `${partName(row.spec)}: ${error.more.detail ?? error.title}`
            : null;
        if (named !== null)
          throw new HttpProblem(422, 'Nothing stored', {
            detail: named,
            errors: [{ path: row.id, message: named }],
          });
        throw error;
      });
    }
    return { changed: rows.length };
  });
}

/** The past of a part, newest first. */
export async function revisionsOf(id: string): Promise<Revision[]> {
  await getPart(id);
  const rows = await select<Omit<Revision, 'at'> & { at: Date }>(
    `SELECT r.rev, r.at, m.name AS by, r.spec, r.sources, r.retired FROM part_revisions r JOIN members m ON m.id = r.by
     WHERE r.part_id = $1 ORDER BY r.rev DESC LIMIT 200`,
    [id],
  );
  return rows.map((r) => ({ ...r, at: r.at.toISOString() }));
}
