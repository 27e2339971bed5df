import { parentPort, workerData } from 'node:worker_threads';
import { comboOf, Ranking, resultOf, type RowIds, type ScoutInput, Views } from '@ruddy/core/buy';

/** A search in a thread of its own: the server goes on answering. It is ended from outside when nobody waits any more. */
const { input, pins } = workerData as { input: ScoutInput; pins: readonly RowIds[] };
const ranking = new Ranking(input);
ranking.step(Infinity, () => 0);
const views = new Views(ranking);
const pinned = pins.map((ids) => {
  const combo = comboOf(ranking, ids);
  return combo && views.of(ranking.indexAt(combo));
});
parentPort?.postMessage({ result: resultOf(ranking, views), pinned });
