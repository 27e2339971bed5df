import { originAfterChange } from '../platform/db/columns';
import { getPart, socketsInUse } from './queries/part-rows';
import { inTransaction } from '../platform/db/transaction';
import { apply } from 'json-merge-patch';
import { Op, Transaction } from 'sequelize';
import type * as z from 'zod';
import { checked } from '@ruddy/core/base';
import type { Origin } from '@ruddy/core/base/contract';
import { partName } from '@ruddy/core/chain';
import { type AnySpec, type HostSpec, PART_SCHEMAS } from '@ruddy/core/parts';
import type { bulkBody, Part, PartBody, PartPatch, Revision } from '@ruddy/core/parts/contract';
import { PartModel } from './models/part';
import { PartRevisionModel } from './models/part-revision';
import { SocketModel } from './models/socket';
import { fromZod, HttpProblem, invalid, notFound } from '../platform/http/problem';
import { checkRevision, type Actor, type Services } from '../platform/http/route';
import { contentHash, newId } from '../platform/db/ids';

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
  const used = await socketsInUse(partId);
  const gone = used.find((u) => !spec.sockets.some((s) => s.key === u.key));
  if (gone)
    throw invalid(
      'spec/sockets',
      `Port "${gone.key}" is used by the setup "${gone.setup}"; choose another port there first`,
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
  const origin = originAfterChange(row.origin);
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
          throw new HttpProblem(422, 'Not saved', {
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
  const rows = await PartRevisionModel.findAll({
    where: { partId: id },
    include: 'author',
    order: [['rev', 'DESC']],
    limit: 200,
  });
  return rows.map((r) => ({
    rev: r.rev,
    at: r.at.toISOString(),
    by: r.author?.name ?? '',
    spec: r.spec,
    sources: r.sources,
    retired: r.retired,
  }));
}
