import { execute, select } from '../platform/db/database';
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

type Row = Omit<SearchEntry, 'createdAt' | 'on'> & { createdAt: Date };
const toEntry = (r: Row): SearchEntry => {
  const createdAt = r.createdAt.toISOString();
  return { ...r, ask: scoutAsk.parse(r.ask), createdAt, on: createdAt.slice(0, 10) };
};

/** Searches that were kept, newest first. */
export async function listSearches(id: string | null = null): Promise<SearchEntry[]> {
  const rows = await select<Row>(
    `SELECT id, name, ask, rev, origin, created_at AS "createdAt" FROM searches WHERE $1::uuid IS NULL OR id = $1 ORDER BY created_at DESC, id DESC LIMIT 500`,
    [id],
  );
  return rows.map(toEntry);
}

export async function getSearch(id: string): Promise<SearchEntry> {
  const [found] = await listSearches(id);
  if (!found) throw notFound('search');
  return found;
}

/** Keep a search. The same id twice changes nothing. */
export async function addSearch(
  body: z.output<typeof searchBody>,
  made: Made,
): Promise<'stored' | 'same'> {
  const fresh = await select(
    `INSERT INTO searches (id, origin, created_at, created_by, name, ask) VALUES ($1, $2, $3, $4, $5, $6) ON CONFLICT (id) DO NOTHING RETURNING id`,
    [body.id, made.origin, made.at, made.by, body.name, JSON.stringify(body.ask)],
  );
  return fresh.length > 0 ? 'stored' : 'same';
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
    await select('SELECT 1 FROM searches WHERE id = $1 FOR UPDATE', [id]);
    const stored = await getSearch(id);
    checkRevision(revision, stored.rev, stored);
    await execute(
      `UPDATE searches SET name = $2, ask = $3, rev = rev + 1, origin = CASE origin WHEN 'demo' THEN 'adopted' ELSE origin END WHERE id = $1`,
      [id, patch.name ?? stored.name, JSON.stringify(patch.ask ?? stored.ask)],
    );
    return getSearch(id);
  });
}

export async function removeSearch(id: string): Promise<void> {
  const gone = await select('DELETE FROM searches WHERE id = $1 RETURNING id', [id]);
  if (gone.length === 0) throw notFound('search');
}
