import { invalid } from '../platform/http/problem';
import { at, count, type Load } from '../platform/db/bundle-tools';
import { idFromFile } from '../platform/db/ids';
import { keepStated } from './stated';

/** Claims and what is said of titles, out of a bundle. */
export async function loadStated(l: Load): Promise<void> {
  const made = { origin: l.origin, at: l.now, by: l.by };
  for (const [i, { id, withdrawn, ...body }] of l.bundle.claims.entries()) {
    const kept = keepStated('claims', idFromFile(id), body, { withdrawn }, made);
    count(l, await kept.catch((e: unknown) => at(`claims/${i}`, e)), 'claims');
  }
  for (const [i, { id, titleId, withdrawn, ...body }] of l.bundle.titleNotes.entries()) {
    const here = l.titles.get(idFromFile(titleId));
    if (!here) throw invalid(`titleNotes/${i}/titleId`, `The file holds no title "${titleId}"`);
    const kept = keepStated(
      'title_notes',
      idFromFile(id),
      body,
      { titleId: here, withdrawn },
      made,
    );
    count(l, await kept.catch((e: unknown) => at(`titleNotes/${i}`, e)), 'titleNotes');
  }
}
