import { parentPort, workerData } from 'node:worker_threads';
import { comboOf, Ranking, resultOf, type RowIds, type ScoutInput, Views } from '@ruddy/core/buy';

/** A search in a worker thread, so that the server keeps answering. The job ends the thread when it is cancelled. */
const { input, pins } = workerData as { input: ScoutInput; pins: readonly RowIds[] };
const ranking = new Ranking(input);
ranking.step(Infinity, () => 0);
const views = new Views(ranking, true);
const pinned = pins.map((ids) => {
  const combo = comboOf(ranking, ids);
  return combo && views.of(ranking.indexAt(combo));
});
parentPort?.postMessage({ result: resultOf(ranking, views), pinned });
