import { originAfterChange } from '../platform/db/columns';
import { Transaction } from 'sequelize';
import { createOnce } from '../platform/db/rows';
import { SearchModel } from './models/search';
import { inTransaction } from '../platform/db/transaction';
import type * as z from 'zod';
import {
  scoutAsk,
  type searchBody,
  type SearchEntry,
  type searchPatch,
} from '@ruddy/core/buy/contract';
import { notFound } from '../platform/http/problem';
import { checkRevision, type Actor, type Services } from '../platform/http/route';
import type { Made } from '../parts/items';

const toEntry = (r: SearchModel): SearchEntry => {
  const createdAt = r.createdAt.toISOString();
  const { id, name, rev, origin } = r;
  return {
    id,
    name,
    rev,
    origin,
    ask: scoutAsk.parse(r.ask),
    createdAt,
    on: createdAt.slice(0, 10),
  };
};

/** Searches that were kept, newest first. */
export async function listSearches(): Promise<SearchEntry[]> {
  const rows = await SearchModel.findAll({
    order: [
      ['createdAt', 'DESC'],
      ['id', 'DESC'],
    ],
    limit: 500,
  });
  return rows.map(toEntry);
}

export async function getSearch(id: string): Promise<SearchEntry> {
  const found = await SearchModel.findByPk(id);
  if (!found) throw notFound('search');
  return toEntry(found);
}

/** Keep a search. The same id twice changes nothing. */
export async function addSearch(
  body: z.output<typeof searchBody>,
  made: Made,
): Promise<'stored' | 'same'> {
  const { id, name, ask } = body;
  const { origin, at: createdAt, by: createdBy } = made;
  const isNew = await createOnce(SearchModel, { id, origin, createdAt, createdBy, name, ask });
  return isNew ? 'stored' : 'same';
}

export async function createSearch(s: Services, body: z.output<typeof searchBody>, actor: Actor) {
  const done = await addSearch(body, { origin: 'own', at: s.now(), by: actor.id });
  return { search: await getSearch(body.id), fresh: done === 'stored' };
}

/** Change a kept search; what a person changes becomes theirs. */
export async function patchSearch(
  id: string,
  patch: z.output<typeof searchPatch>,
  revision: number,
) {
  return inTransaction(async () => {
    const row = await SearchModel.findByPk(id, { lock: Transaction.LOCK.UPDATE });
    if (!row) throw notFound('search');
    checkRevision(revision, row.rev, toEntry(row));
    const origin = originAfterChange(row.origin);
    const { name = row.name, ask = row.ask } = patch;
    return toEntry(await row.update({ name, ask, origin, rev: row.rev + 1 }));
  });
}

export async function removeSearch(id: string): Promise<void> {
  if ((await SearchModel.destroy({ where: { id } })) === 0) throw notFound('search');
}
