import { Op, Transaction } from 'sequelize';
import { adopted, nextRevision } from '../platform/db/columns';
import { FeedModel } from './models/feed';
import { FeedItemModel } from './models/feed-item';
import { feedRows, takeDueFeeds } from './queries/feed-rows';
import { inTransaction } from '../platform/db/transaction';
import type * as z from 'zod';
import type { feedBody, FeedEntry, feedPatch } from '@ruddy/core/workshop/contract';
import { FeedProblem } from './feeds/address';
import { fetchFeed, type FetchAsk, type Fetched } from './feeds/fetch';
import { readText } from '../platform/files/file-work';
import type { feedAnswer } from './feeds/read';
import { HttpProblem, invalid, notFound } from '../platform/http/problem';
import { checkRevision, type Actor, type Services } from '../platform/http/route';
import { newId } from '../platform/db/ids';
import type { Made } from '../parts/items';

const HOUR_MS = 3_600_000;

/** Feeds with how their last reading went. */
export async function listFeeds(id: string | null = null): Promise<FeedEntry[]> {
  const rows = await feedRows(id);
  return rows.map((r) => ({
    ...r,
    readAt: r.readAt?.toISOString() ?? null,
    nextAt: r.nextAt?.toISOString() ?? null,
  }));
}

export async function getFeed(id: string): Promise<FeedEntry> {
  const [found] = await listFeeds(id);
  if (!found) throw notFound('feed');
  return found;
}

/** Remember a feed. The same id twice changes nothing; an address stands once. */
export async function addFeed(
  b: z.output<typeof feedBody>,
  made: Made,
): Promise<'stored' | 'same'> {
  const known = await FeedModel.findOne({ where: { [Op.or]: [{ id: b.id }, { url: b.url }] } });
  if (known && (known.id === b.id || made.origin !== 'own')) return 'same';
  if (known) throw invalid('url', 'Address: a feed with this address is there already');
  await FeedModel.create({
    id: b.id,
    origin: made.origin,
    createdAt: made.at,
    createdBy: made.by,
    name: b.name,
    url: b.url,
    near: b.near,
    everyHours: b.everyHours,
    nextAt: b.everyHours === null ? null : made.at,
  });
  return 'stored';
}

export async function createFeed(s: Services, body: z.output<typeof feedBody>, actor: Actor) {
  const done = await addFeed(body, { origin: 'own', at: s.now(), by: actor.id });
  return { feed: await getFeed(body.id), fresh: done === 'stored' };
}

/** Change a feed. Another address is another source: what a server said of the old one no longer counts. */
export async function patchFeed(
  s: Services,
  id: string,
  p: z.output<typeof feedPatch>,
  revision: number,
) {
  return inTransaction(async () => {
    await FeedModel.findByPk(id, { lock: Transaction.LOCK.UPDATE });
    const old = await getFeed(id);
    checkRevision(revision, old.rev, old);
    const next = { ...old, ...p };
    const twin = await FeedModel.findOne({ where: { url: next.url, id: { [Op.ne]: id } } });
    if (twin) throw invalid('url', 'Address: a feed with this address is there already');
    await FeedModel.update(
      {
        name: next.name,
        url: next.url,
        near: next.near,
        everyHours: next.everyHours,
        nextAt: next.everyHours === null ? null : s.now(),
        rev: nextRevision(),
        origin: adopted(),
        ...(next.url !== old.url && { etag: '', modified: '' }),
      },
      { where: { id } },
    );
    return getFeed(id);
  });
}

export async function removeFeed(id: string): Promise<void> {
  if ((await FeedModel.destroy({ where: { id } })) === 0) throw notFound('feed');
}

/** Items of a feed, read in a thread: the text is somebody else's. */
async function readItems(s: Services, text: string) {
  const answer = await readText<ReturnType<typeof feedAnswer>>(s, 'feed', text).catch(
    (error: unknown) => {
      if (error instanceof HttpProblem) throw new FeedProblem(`Not read: ${error.title}`);
      throw error;
    },
  );
  if ('refused' in answer) throw new FeedProblem(answer.refused);
  return answer.items;
}

/** Read one feed now. What went wrong is kept with it in words; items that were read before are renewed, none is lost. */
export async function readNow(
  s: Services,
  id: string,
  fetch: (ask: FetchAsk) => Promise<Fetched> = fetchFeed,
): Promise<FeedEntry> {
  const feed = await FeedModel.findByPk(id);
  if (!feed) throw notFound('feed');
  const at = s.now();
  const next = feed.everyHours === null ? null : new Date(at.getTime() + feed.everyHours * HOUR_MS);
  const note = (problem: string, unchanged: boolean) =>
    feed.update({ readAt: at, nextAt: next, problem, unchanged });
  try {
    const got = await fetch(feed);
    if (got.state === 'same') await note('', true);
    else {
      const items = await readItems(s, got.text);
      await inTransaction(async () => {
        await FeedItemModel.bulkCreate(
          lastOfEach(items).map((body) => ({
            id: newId(),
            feedId: id,
            key: body.key,
            body,
            publishedAt: body.publishedAt === null ? null : new Date(body.publishedAt),
            readAt: at,
          })),
          { updateOnDuplicate: ['body', 'publishedAt'], conflictAttributes: ['feedId', 'key'] },
        );
        await feed.update({ etag: got.etag.slice(0, 500), modified: got.modified.slice(0, 100) });
        await note('', false);
      });
    }
  } catch (error) {
    if (!(error instanceof FeedProblem)) throw error;
    await note(error.message.slice(0, 500), false);
  }
  return getFeed(id);
}

/** One item for each key: an insert cannot touch a row twice. */
function lastOfEach<T extends { key: string }>(items: readonly T[]): T[] {
  return [...new Map(items.map((i) => [i.key, i])).values()];
}

/** Read the feeds that are due, one after another. Of several processes each feed is taken by one. */
export async function readDue(s: Services): Promise<number> {
  const due = await takeDueFeeds(s.now());
  for (const id of due) await readNow(s, id);
  return due.length;
}

const TICK_MS = 60_000;
/** Look every minute for feeds that are due; the answer stops it. */
export function scheduleFeeds(s: Services): () => Promise<void> {
  let working: Promise<unknown> = Promise.resolve();
  const tick = () => {
    working = working.then(() => readDue(s)).catch((e: unknown) => s.unexpected?.(e));
  };
  const first = setTimeout(tick, 1000);
  const timer = setInterval(tick, TICK_MS);
  return async () => {
    clearTimeout(first);
    clearInterval(timer);
    await working;
  };
}
