import { inTransaction } from '../platform/db/transaction';
import { QueryTypes } from 'sequelize';
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

async function partsHere(s: Services): Promise<NewsPart[]> {
  return s.db.query<NewsPart>(
    `SELECT p.id, p.kind, p.maker, p.model, p.variant, coalesce(p.spec ->> 'family', '') AS family,
       (EXISTS (SELECT 1 FROM items i WHERE i.part_id = p.id AND i.how <> 'gone') OR EXISTS (SELECT 1 FROM setup_slots t
         JOIN setups u ON u.id = t.setup_id WHERE t.part_id = p.id AND u.state IN ('building', 'live'))) AS here
     FROM parts p WHERE p.kind IN ('host', 'dock', 'card', 'system') AND p.retired_at IS NULL ORDER BY p.id LIMIT 5000`,
    { type: QueryTypes.SELECT },
  );
}

async function loggedSymptoms(s: Services): Promise<string[]> {
  const rows = await s.db.query<{ symptom: string }>(
    `SELECT symptom FROM (SELECT unnest(symptoms) AS symptom FROM log_entries) x WHERE symptom <> '' GROUP BY 1 ORDER BY count(*) DESC, 1 LIMIT 500`,
    { type: QueryTypes.SELECT },
  );
  return rows.map((r) => r.symptom);
}

/** News with what of this workshop it concerns, newest first. */
export async function listNews(s: Services, id: string | null = null): Promise<NewsEntry[]> {
  const rows = await s.db.query<Row>(
    `SELECT i.id, i.feed_id AS "feedId", f.name AS feed, i.body, i.read_at AS "readAt", i.state, i.release_id AS "releaseId"
     FROM feed_items i JOIN feeds f ON f.id = i.feed_id WHERE $1::uuid IS NULL OR i.id = $1
     ORDER BY coalesce(i.published_at, i.read_at) DESC, i.id DESC LIMIT ${NEWS_MOST}`,
    { type: QueryTypes.SELECT, bind: [id] },
  );
  if (rows.length === 0) return [];
  const [parts, logged] = await Promise.all([partsHere(s), loggedSymptoms(s)]);
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

async function getNews(s: Services, id: string): Promise<NewsEntry> {
  const [found] = await listNews(s, id);
  if (!found) throw notFound('news');
  return found;
}

export async function markNews(s: Services, id: string, state: 'new' | 'read'): Promise<NewsEntry> {
  await s.db.query(`UPDATE feed_items SET state = $2 WHERE id = $1 AND state <> 'kept'`, {
    bind: [id, state],
  });
  return getNews(s, id);
}

/** Make a release of the catalogue out of an item; once made it is answered again. */
export async function keepRelease(
  s: Services,
  id: string,
  b: z.output<typeof newsRelease>,
  actor: Actor,
): Promise<NewsEntry> {
  const known = await getNews(s, id);
  if (known.releaseId !== null) return known;
  await inTransaction(s.db, async () => {
    const body = { id: b.id, kind: 'release' as const, spec: b.spec, sources: {} };
    await createPart(body, { origin: 'own', at: s.now(), by: actor.id });
    await s.db.query(`UPDATE feed_items SET state = 'kept', release_id = $2 WHERE id = $1`, {
      bind: [id, b.id],
    });
  });
  return getNews(s, id);
}
