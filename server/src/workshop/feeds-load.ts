import { at, count, type Load } from '../platform/db/bundle-tools';
import { idFromFile } from '../platform/db/ids';
import { addFeed } from './feeds';

/** Feeds, out of a bundle. */
export async function loadFeeds(l: Load): Promise<void> {
  const made = { origin: l.origin, at: l.now, by: l.by };
  for (const [i, f] of l.bundle.feeds.entries()) {
    const kept = addFeed({ ...f, id: idFromFile(f.id) }, made);
    count(l, await kept.catch((e: unknown) => at(`feeds/${i}`, e)), 'feeds');
  }
}
