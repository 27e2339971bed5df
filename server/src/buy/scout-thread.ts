import { comboOf, Ranking, resultOf, type RowIds, type ScoutInput, Views } from '@ruddy/core/buy';

/** The whole search, and how the pinned chains stand in it. */
export function search(ask: { readonly input: ScoutInput; readonly pins: readonly RowIds[] }) {
  const ranking = new Ranking(ask.input);
  ranking.step(Infinity, () => 0);
  const views = new Views(ranking, true);
  const pinned = ask.pins.map((ids) => {
    const combo = comboOf(ranking, ids);
    return combo && views.of(ranking.indexAt(combo));
  });
  return { result: resultOf(ranking, views), pinned };
}
