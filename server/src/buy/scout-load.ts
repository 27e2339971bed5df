import { invalid } from '../platform/http/problem';
import { at, count, type Load } from '../platform/db/bundle-tools';
import { idFromFile } from '../platform/db/ids';
import { addSearch } from './searches';

/** Kept searches, out of a bundle. */
export async function loadSearches(l: Load): Promise<void> {
  const made = { origin: l.origin, at: l.now, by: l.by };
  for (const [i, s] of l.bundle.searches.entries()) {
    const part = (id: string, place: string) => {
      const here = l.parts.get(id);
      if (!here) throw invalid(`searches/${i}/ask/${place}`, `The file holds no part "${id}"`);
      return here;
    };
    const orNone = (id: string | null, place: string) => (id === null ? null : part(id, place));
    const { ask } = s;
    const titleId = l.titles.get(idFromFile(ask.titleId));
    if (!titleId)
      throw invalid(`searches/${i}/ask/titleId`, `The file holds no title "${ask.titleId}"`);
    const here = {
      ...ask,
      titleId,
      hostId: part(ask.hostId, 'hostId'),
      setupId: ask.setupId === null ? null : idFromFile(ask.setupId),
      screens: ask.screens.map((id) => part(id, 'screens')),
      pins: ask.pins.map((p) => ({
        ...p,
        path: p.path.map((id) => part(id, 'pins')),
        card: part(p.card, 'pins'),
        dock: orNone(p.dock, 'pins'),
        supply: orNone(p.supply, 'pins'),
        screen: orNone(p.screen, 'pins'),
      })),
    };
    const kept = addSearch({ id: idFromFile(s.id), name: s.name, ask: here }, made);
    count(l, await kept.catch((e: unknown) => at(`searches/${i}`, e)), 'searches');
  }
}
