import type { FeedEntry } from '@ruddy/core/workshop/contract';
import { select } from '../../platform/db/database';

type Row = Omit<FeedEntry, 'readAt' | 'nextAt'> & { readAt: Date | null; nextAt: Date | null };

/** Feeds by name with how many items each has: one of them, or all. */
export function feedRows(id: string | null): Promise<Row[]> {
  return select<Row>(
    `SELECT id, name, url, near, every_hours AS "everyHours", rev, origin, read_at AS "readAt", next_at AS "nextAt", problem, unchanged,
       (SELECT count(*)::int FROM feed_items i WHERE i.feed_id = f.id) AS items
     FROM feeds f WHERE $1::uuid IS NULL OR id = $1 ORDER BY lower(name), id`,
    [id],
  );
}

/** Takes up to 20 feeds that are due; their next reading is put off, so that no other process takes them too. */
export async function takeDueFeeds(now: Date): Promise<string[]> {
  const due = await select<{ id: string }>(
    `UPDATE feeds SET next_at = $1::timestamptz + interval '10 minutes' WHERE id IN (
       SELECT id FROM feeds WHERE every_hours IS NOT NULL AND next_at <= $1 ORDER BY next_at LIMIT 20 FOR UPDATE SKIP LOCKED) RETURNING id`,
    [now],
  );
  return due.map((d) => d.id);
}
