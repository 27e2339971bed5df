import { originAfterChange } from '../platform/db/columns';
import type { Bundle } from '@ruddy/core/workshop/contract';
import { PartModel } from './models/part';
import { itemEntries } from './queries/item-rows';
import { inTransaction } from '../platform/db/transaction';
import { Transaction } from 'sequelize';
import type * as z from 'zod';
import type { Origin } from '@ruddy/core/base/contract';
import { type Differs, differsProblems } from '@ruddy/core/parts';
import type { FactBody, ItemBody, ItemEntry, itemPatch } from '@ruddy/core/parts/contract';
import { ItemFactModel } from './models/item-fact';
import { ItemModel } from './models/item';
import { invalid, notFound, refuseFuture } from '../platform/http/problem';
import { checkRevision, type Actor, type Services } from '../platform/http/route';

export interface Made {
  origin: Origin;
  at: Date;
  by: string;
}

/** The pieces of a part, by label. */
export function itemsOf(partId: string): Promise<ItemEntry[]> {
  return itemEntries('i.part_id = $1', [partId]);
}

/** One piece. */
export async function getItem(id: string): Promise<ItemEntry> {
  const [item] = await itemEntries('i.id = $1', [id]);
  if (!item) throw notFound('piece');
  return item;
}

/** The part of a piece must be there, and what the piece differs in must be something a piece can differ in. */
async function checkPart(body: { partId: string; differs?: Differs | undefined }): Promise<void> {
  const row = await PartModel.findByPk(body.partId);
  if (!row) throw invalid('partId', 'No part has this id');
  const [wrong] = differsProblems(row.kind, row.spec, body.differs ?? {});
  if (wrong) throw invalid(`differs/${wrong.attr}`, wrong.why);
}

/** A piece as a bundle holds it. */
export function itemInFile(i: ItemModel): Bundle['items'][number] {
  const { id, partId, label, how, owner, condition, acquiredOn, boughtFrom, claim, note } = i;
  return {
    id,
    partId,
    label,
    how,
    owner,
    condition,
    acquiredOn,
    boughtFrom,
    claim,
    note,
    differs: i.differs,
    serial: i.private.serial ?? '',
  };
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
    const origin = originAfterChange(row.origin);
    await row.update({ ...patch, ...given, origin, rev: row.rev + 1 });
    return getItem(id);
  });
}

/** Note something seen on a piece; never changed afterwards. A repeated id is answered, not doubled. */
export async function addFact(body: FactBody, made: Made, where = ''): Promise<'stored' | 'same'> {
  if (await ItemFactModel.findByPk(body.id)) return 'same';
  if (!(await ItemModel.findByPk(body.itemId)))
    throw invalid(`${where}itemId`, 'No item has this id');
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
