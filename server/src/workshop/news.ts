import { execute, select } from '../platform/db/database';
import { inTransaction } from '../platform/db/transaction';
import type * as z from 'zod';
import { matchNews, type NewsPart, type Published } from '@ruddy/core/workshop';
import { NEWS_MOST, type NewsEntry, type newsRelease } from '@ruddy/core/workshop/contract';
import { notFound } from '../platform/http/problem';
import type { Actor, Services } from '../platform/http/route';
import { createPart } from '../parts/parts';

interface Row {
  id: string;
  feedId: string;
  feed: string;
  body: Published;
  readAt: Date;
  state: NewsEntry['state'];
  releaseId: string | null;
}

async function partsHere(): Promise<NewsPart[]> {
  return select<NewsPart>(
    `SELECT p.id, p.kind, p.maker, p.model, p.variant, coalesce(p.spec ->> 'family', '') AS family,
       (EXISTS (SELECT 1 FROM items i WHERE i.part_id = p.id AND i.how <> 'gone') OR EXISTS (SELECT 1 FROM setup_slots t
         JOIN setups u ON u.id = t.setup_id WHERE t.part_id = p.id AND u.state IN ('building', 'live'))) AS here
     FROM parts p WHERE p.kind IN ('host', 'dock', 'card', 'system') AND p.retired_at IS NULL ORDER BY p.id LIMIT 5000`,
  );
}

async function loggedSymptoms(): Promise<string[]> {
  const rows = await select<{ symptom: string }>(
    `SELECT symptom FROM (SELECT unnest(symptoms) AS symptom FROM log_entries) x WHERE symptom <> '' GROUP BY 1 ORDER BY count(*) DESC, 1 LIMIT 500`,
  );
  return rows.map((r) => r.symptom);
}

/** News with what of this workshop it concerns, newest first. */
export async function listNews(id: string | null = null): Promise<NewsEntry[]> {
  const rows = await select<Row>(
    `SELECT i.id, i.feed_id AS "feedId", f.name AS feed, i.body, i.read_at AS "readAt", i.state, i.release_id AS "releaseId"
     FROM feed_items i JOIN feeds f ON f.id = i.feed_id WHERE $1::uuid IS NULL OR i.id = $1
     ORDER BY coalesce(i.published_at, i.read_at) DESC, i.id DESC LIMIT ${NEWS_MOST}`,
    [id],
  );
  if (rows.length === 0) return [];
  const [parts, logged] = await Promise.all([partsHere(), loggedSymptoms()]);
  return rows.map(({ body, readAt, ...row }) => {
    const { touches, symptoms, draft } = matchNews(body, parts, logged);
    const { title, url, text, publishedAt } = body;
    return {
      ...row,
      title,
      url,
      text,
      publishedAt,
      readAt: readAt.toISOString(),
      touches: [...touches],
      symptoms: [...symptoms],
      draft,
    };
  });
}

async function getNews(id: string): Promise<NewsEntry> {
  const [found] = await listNews(id);
  if (!found) throw notFound('news');
  return found;
}

export async function markNews(id: string, state: 'new' | 'read'): Promise<NewsEntry> {
  await execute(`UPDATE feed_items SET state = $2 WHERE id = $1 AND state <> 'kept'`, [id, state]);
  return getNews(id);
}

/** Make a release of the catalogue out of an item; once made it is answered again. */
export async function keepRelease(
  s: Services,
  id: string,
  b: z.output<typeof newsRelease>,
  actor: Actor,
): Promise<NewsEntry> {
  const known = await getNews(id);
  if (known.releaseId !== null) return known;
  await inTransaction(async () => {
    const body = { id: b.id, kind: 'release' as const, spec: b.spec, sources: {} };
    await createPart(body, { origin: 'own', at: s.now(), by: actor.id });
    await execute(`UPDATE feed_items SET state = 'kept', release_id = $2 WHERE id = $1`, [
      id,
      b.id,
    ]);
  });
  return getNews(id);
}
