import { Op, Transaction } from 'sequelize';
import { createOnce, sameText } from '../platform/db/rows';
import { CsvMappingModel } from './models/csv-mapping';
import { PlannedSessionModel } from './models/planned-session';
import { ProfileModel } from './models/profile';
import { profileRows } from './queries/profile-rows';
import { inTransaction } from '../platform/db/transaction';
import type * as z from 'zod';
import type { Origin } from '@ruddy/core/base/contract';
import {
  type csvMapping,
  type CsvMapping,
  PROFILE_KIND_WORDS,
  type profileBody,
  type ProfileEntry,
  type profilePatch,
  type sessionBody,
  type SessionEntry,
} from '@ruddy/core/runs/contract';
import { HttpProblem, notFound } from '../platform/http/problem';
import { checkRevision } from '../platform/http/route';

interface Made {
  origin: Origin;
  at: Date;
  by: string;
}

/** Titles and work, by name, with how many runs each has. */
export async function listProfiles(): Promise<ProfileEntry[]> {
  return profileRows();
}

/** Change what is said of a title, under the revision the page showed. */
export async function patchProfile(
  id: string,
  patch: z.output<typeof profilePatch>,
  revision: number,
): Promise<ProfileEntry> {
  return inTransaction(async () => {
    const row = await ProfileModel.findByPk(id, { lock: Transaction.LOCK.UPDATE });
    const [now] = await profileRows(id);
    if (!row || !now) throw notFound('title');
    checkRevision(revision, now.rev, now);
    await row.update({ ...patch, rev: row.rev + 1 });
    return (await profileRows(id))[0] as ProfileEntry;
  });
}

/** Add a title or a kind of work. One of the same name and kind is met, not doubled: its id is the answer. */
export async function addProfile(
  p: z.output<typeof profileBody>,
  made: Made,
): Promise<{ id: string; fresh: boolean }> {
  const known = await ProfileModel.findOne({
    where: { [Op.or]: [sameText('name', p.name), { id: p.id }] },
  });
  if (known && known.kind !== p.kind)
    throw new HttpProblem(409, `"${p.name}" is known here as ${PROFILE_KIND_WORDS[known.kind]}`);
  if (known) return { id: known.id, fresh: false };
  await ProfileModel.create({
    id: p.id,
    origin: made.origin,
    createdAt: made.at,
    createdBy: made.by,
    name: p.name,
    kind: p.kind,
    note: p.note,
    year: p.year,
    params: p.params,
    engine: p.engine,
  });
  return { id: p.id, fresh: true };
}

/** How files of known signatures are read, most recently used first. */
export async function listMappings(): Promise<CsvMapping[]> {
  const rows = await CsvMappingModel.findAll({
    order: [['usedAt', 'DESC'], 'signature'],
    limit: 2000,
  });
  return rows.map(({ signature, mapping }) => ({ signature, mapping }));
}

export async function keepMapping(m: z.output<typeof csvMapping>, at: Date): Promise<void> {
  await CsvMappingModel.upsert({ signature: m.signature, mapping: m.mapping, usedAt: at });
}

/** Planned sessions, newest first. */
export async function listSessions(): Promise<SessionEntry[]> {
  const rows = await PlannedSessionModel.findAll({
    order: [
      ['createdAt', 'DESC'],
      ['id', 'DESC'],
    ],
    limit: 500,
  });
  return rows.map((r) => ({
    ...r.body,
    id: r.id,
    createdAt: r.createdAt.toISOString(),
    origin: r.origin,
  }));
}

export async function addSession(
  s: z.output<typeof sessionBody>,
  made: Made,
): Promise<'stored' | 'same'> {
  const { id, ...body } = s;
  const isNew = await createOnce(PlannedSessionModel, {
    id,
    origin: made.origin,
    createdAt: made.at,
    createdBy: made.by,
    body,
  });
  return isNew ? 'stored' : 'same';
}

/** Drop a planned session; runs made for it stay. */
export async function dropSession(id: string): Promise<void> {
  if ((await PlannedSessionModel.destroy({ where: { id } })) === 0) throw notFound('session');
}
