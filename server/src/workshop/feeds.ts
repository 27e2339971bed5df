import { execute, select } from '../platform/db/database';
import { inTransaction } from '../platform/db/transaction';
import type * as z from 'zod';
import type { feedBody, FeedEntry, feedPatch } from '@ruddy/core/workshop/contract';
import { FeedProblem } from './feeds/address';
import { fetchFeed, type FetchAsk, type Fetched } from './feeds/fetch';
import { readFeed } from './feeds/read';
import { invalid, notFound } from '../platform/http/problem';
import { checkRevision, type Actor, type Services } from '../platform/http/route';
import { newId } from '../platform/db/ids';
import type { Made } from '../parts/items';

type Row = Omit<FeedEntry, 'readAt' | 'nextAt'> & { readAt: Date | null; nextAt: Date | null };
const HOUR_MS = 3_600_000;

/** Feeds with how their last reading went. */
export async function listFeeds(id: string | null = null): Promise<FeedEntry[]> {
  const rows = await select<Row>(
    `SELECT id, name, url, near, every_hours AS "everyHours", rev, origin, read_at AS "readAt", next_at AS "nextAt", problem, unchanged,
       (SELECT count(*)::int FROM feed_items i WHERE i.feed_id = f.id) AS items
     FROM feeds f WHERE $1::uuid IS NULL OR id = $1 ORDER BY lower(name), id`,
    [id],
  );
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
  const [known] = await select<{ id: string }>('SELECT id FROM feeds WHERE id = $1 OR url = $2', [
    b.id,
    b.url,
  ]);
  if (known && (known.id === b.id || made.origin !== 'own')) return 'same';
  if (known) throw invalid('url', 'Address: a feed with this address is there already');
  const next = b.everyHours === null ? null : made.at;
  await execute(
    `INSERT INTO feeds (id, origin, created_at, created_by, name, url, near, every_hours, next_at) VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9)`,
    [b.id, made.origin, made.at, made.by, b.name, b.url, b.near, b.everyHours, next],
  );
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
    await select('SELECT 1 FROM feeds WHERE id = $1 FOR UPDATE', [id]);
    const old = await getFeed(id);
    checkRevision(revision, old.rev, old);
    const next = { ...old, ...p };
    const [twin] = await select('SELECT 1 FROM feeds WHERE url = $1 AND id <> $2', [next.url, id]);
    if (twin) throw invalid('url', 'Address: a feed with this address is there already');
    const moved = next.url !== old.url;
    await execute(
      `UPDATE feeds SET name = $2, url = $3, near = $4, every_hours = $5, next_at = $6, rev = rev + 1,
         origin = CASE origin WHEN 'demo' THEN 'adopted' ELSE origin END,
         etag = CASE WHEN $7 THEN '' ELSE etag END, modified = CASE WHEN $7 THEN '' ELSE modified END WHERE id = $1`,
      [
        id,
        next.name,
        next.url,
        next.near,
        next.everyHours,
        next.everyHours === null ? null : s.now(),
        moved,
      ],
    );
    return getFeed(id);
  });
}

export async function removeFeed(id: string): Promise<void> {
  const gone = await select('DELETE FROM feeds WHERE id = $1 RETURNING id', [id]);
  if (gone.length === 0) throw notFound('feed');
}

/** Read one feed now. What went wrong is kept with it in words; items that were read before are renewed, none is lost. */
export async function readNow(
  s: Services,
  id: string,
  fetch: (ask: FetchAsk) => Promise<Fetched> = fetchFeed,
): Promise<FeedEntry> {
  const [feed] = await select<FetchAsk & { everyHours: number | null }>(
    'SELECT url, near, etag, modified, every_hours AS "everyHours" FROM feeds WHERE id = $1',
    [id],
  );
  if (!feed) throw notFound('feed');
  const at = s.now();
  const next = feed.everyHours === null ? null : new Date(at.getTime() + feed.everyHours * HOUR_MS);
  const note = (problem: string, unchanged: boolean) =>
    execute(
      'UPDATE feeds SET read_at = $2, next_at = $3, problem = $4, unchanged = $5 WHERE id = $1',
      [id, at, next, problem, unchanged],
    );
  try {
    const got = await fetch(feed);
    if (got.state === 'same') await note('', true);
    else {
      const items = readFeed(got.text);
      await inTransaction(async () => {
        await execute(
          `INSERT INTO feed_items (id, feed_id, key, body, published_at, read_at)
           SELECT x.id, $1, x.key, x.body, (x.body ->> 'publishedAt')::timestamptz, $2
           FROM jsonb_to_recordset($3::jsonb) AS x(id uuid, key text, body jsonb)
           ON CONFLICT (feed_id, key) DO UPDATE SET body = excluded.body, published_at = excluded.published_at`,
          [
            id,
            at,
            JSON.stringify(lastOfEach(items).map((body) => ({ id: newId(), key: body.key, body }))),
          ],
        );
        await execute('UPDATE feeds SET etag = $2, modified = $3 WHERE id = $1', [
          id,
          got.etag.slice(0, 500),
          got.modified.slice(0, 100),
        ]);
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
  const due = await select<{ id: string }>(
    `UPDATE feeds SET next_at = $1::timestamptz + interval '10 minutes' WHERE id IN (
       SELECT id FROM feeds WHERE every_hours IS NOT NULL AND next_at <= $1 ORDER BY next_at LIMIT 20 FOR UPDATE SKIP LOCKED) RETURNING id`,
    [s.now()],
  );
  for (const { id } of due) await readNow(s, id);
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
