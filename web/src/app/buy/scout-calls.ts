import {
  cheapestEqual,
  comboOf,
  type Equal,
  type Limits,
  Ranking,
  resultOf,
  type RowIds,
  type RowView,
  type ScoutResult,
  Views,
  type Weights,
} from '@ruddy/core/buy';
import type { ScoutGrounds } from '@ruddy/core/buy/contract';

/** How long it works before it shows what is there and listens whether to stop. */
const SLICE_MS = 60;

/** What the worker can do: search, search again with other limits, stop, and answer about what it found. */
export function scoutCalls() {
  let ranking: Ranking | null = null;
  let views: Views | null = null;
  let turn = 0;

  async function run(next: Ranking, on: (r: ScoutResult) => void): Promise<'done' | 'stopped'> {
    const mine = (turn += 1);
    ranking = next;
    let shown = (views = new Views(next, false));
    for (;;) {
      const done = next.step(performance.now() + SLICE_MS, () => performance.now());
      if (mine !== turn) return 'stopped';
      on(resultOf(next, shown));
      if (done && shown.refined) return 'done';
      if (done) views = shown = new Views(next, true);
      // A breath, so that a call to stop is heard.
      await new Promise((go) => setTimeout(go, 0));
      if (mine !== turn) return 'stopped';
    }
  }

  return {
    start(grounds: ScoutGrounds, on: (r: ScoutResult) => void): Promise<'done' | 'stopped'> {
      return run(new Ranking(grounds.input), on);
    },
    /** The same parts with other limits or weights: what is known of them is used again. */
    again(
      limits: Limits,
      weights: Weights,
      on: (r: ScoutResult) => void,
    ): Promise<'done' | 'stopped'> {
      if (!ranking) return Promise.resolve('stopped');
      return run(new Ranking({ ...ranking.input, limits, weights }, ranking), on);
    },
    stop(): void {
      turn += 1;
    },
    look(ids: readonly RowIds[]): (RowView | null)[] {
      const r = ranking;
      const v = views;
      if (!r || !v) return ids.map(() => null);
      return ids.map((x) => {
        const combo = comboOf(r, x);
        return combo && v.of(r.indexAt(combo));
      });
    },
    equal(ids: RowIds, percent: number): Equal[] {
      const combo = ranking && comboOf(ranking, ids);
      return combo && ranking && views ? cheapestEqual(ranking, views, combo, percent) : [];
    },
  };
}
export type ScoutCalls = ReturnType<typeof scoutCalls>;
