import { inTransaction } from '../platform/db/transaction';
import { QueryTypes, type Sequelize } from 'sequelize';
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
export async function listSearches(
  db: Sequelize,
  id: string | null = null,
): Promise<SearchEntry[]> {
  const rows = await db.query<Row>(
    `SELECT id, name, ask, rev, origin, created_at AS "createdAt" FROM searches WHERE $1::uuid IS NULL OR id = $1 ORDER BY created_at DESC, id DESC LIMIT 500`,
    { type: QueryTypes.SELECT, bind: [id] },
  );
  return rows.map(toEntry);
}

export async function getSearch(db: Sequelize, id: string): Promise<SearchEntry> {
  const [found] = await listSearches(db, id);
  if (!found) throw notFound('search');
  return found;
}

/** Keep a search. The same id twice changes nothing. */
export async function addSearch(
  db: Sequelize,
  body: z.output<typeof searchBody>,
  made: Made,
): Promise<'stored' | 'same'> {
  const fresh = await db.query(
    `INSERT INTO searches (id, origin, created_at, created_by, name, ask) VALUES ($1, $2, $3, $4, $5, $6) ON CONFLICT (id) DO NOTHING RETURNING id`,
    {
      type: QueryTypes.SELECT,
      bind: [body.id, made.origin, made.at, made.by, body.name, JSON.stringify(body.ask)],
    },
  );
  return fresh.length > 0 ? 'stored' : 'same';
}

export async function createSearch(s: Services, body: z.output<typeof searchBody>, actor: Actor) {
  const done = await addSearch(s.db, body, { origin: 'own', at: s.now(), by: actor.id });
  return { search: await getSearch(s.db, body.id), fresh: done === 'stored' };
}

/** Change a kept search; what a person changes becomes theirs. */
export async function patchSearch(
  s: Services,
  id: string,
  patch: z.output<typeof searchPatch>,
  revision: number,
) {
  return inTransaction(s.db, async () => {
    await s.db.query('SELECT 1 FROM searches WHERE id = $1 FOR UPDATE', {
      type: QueryTypes.SELECT,
      bind: [id],
    });
    const stored = await getSearch(s.db, id);
    checkRevision(revision, stored.rev, stored);
    await s.db.query(
      `UPDATE searches SET name = $2, ask = $3, rev = rev + 1, origin = CASE origin WHEN 'demo' THEN 'adopted' ELSE origin END WHERE id = $1`,
      {
        bind: [id, patch.name ?? stored.name, JSON.stringify(patch.ask ?? stored.ask)],
      },
    );
    return getSearch(s.db, id);
  });
}

export async function removeSearch(s: Services, id: string): Promise<void> {
  const gone = await s.db.query('DELETE FROM searches WHERE id = $1 RETURNING id', {
    type: QueryTypes.SELECT,
    bind: [id],
  });
  if (gone.length === 0) throw notFound('search');
}
