import { col, fn, Op } from 'sequelize';
import { FeedItemModel } from './models/feed-item';
import { loggedSymptoms, partsHere } from './queries/news-matter';
import { inTransaction } from '../platform/db/transaction';
import type * as z from 'zod';
import { matchNews } from '@ruddy/core/workshop';
import { NEWS_MOST, type NewsEntry, type newsRelease } from '@ruddy/core/workshop/contract';
import { notFound } from '../platform/http/problem';
import type { Actor, Services } from '../platform/http/route';
import { createPart } from '../parts/parts';

/** News with what of this workshop it concerns, newest first. */
export async function listNews(id: string | null = null): Promise<NewsEntry[]> {
  const rows = await FeedItemModel.findAll({
    where: id === null ? {} : { id },
    include: 'feed',
    order: [
      [fn('coalesce', col('FeedItemModel.published_at'), col('FeedItemModel.read_at')), 'DESC'],
      ['id', 'DESC'],
    ],
    limit: NEWS_MOST,
  });
  if (rows.length === 0) return [];
  const [parts, logged] = await Promise.all([partsHere(), loggedSymptoms()]);
  return rows.map(({ id: itemId, feedId, feed, body, readAt, state, releaseId }) => {
    const { touches, symptoms, draft } = matchNews(body, parts, logged);
    const { title, url, text, publishedAt } = body;
    return {
      id: itemId,
      feedId,
      feed: feed?.name ?? '',
      state,
      releaseId,
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
  await FeedItemModel.update({ state }, { where: { id, state: { [Op.ne]: 'kept' } } });
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
    await FeedItemModel.update({ state: 'kept', releaseId: b.id }, { where: { id } });
  });
  return getNews(id);
}
