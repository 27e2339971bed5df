import {
  computed,
  inject,
  Injectable,
  InjectionToken,
  signal,
  type OnDestroy,
} from '@angular/core';
import { wrap, type Remote } from 'comlink';
import { cellContradicts, type CellPredicted, type CellSeen } from '@ruddy/core/compatibility';
import type { GridAnswer, GridAxes } from '@ruddy/core/compatibility/contract';
import { LogData, type GridAsk } from './log';
import type { GridCalls } from './grid-calls';
import { Acts } from '../platform/kit/ask';

/** Makes the worker; tests put the calls themselves in its place. */
export const GRID_WORKER = new InjectionToken<() => { calls: Remote<GridCalls>; end: () => void }>(
  'grid worker',
  {
    factory: () => () => {
      const worker = new Worker(new URL('./grid.worker', import.meta.url), { type: 'module' });
      return { calls: wrap<GridCalls>(worker), end: () => worker.terminate() };
    },
  },
);

/** Cells that are predicted at once: few enough that putting them on the page is a short task. */
const BATCH = 24;

/**
 * One grid: what the server knows of it, and what is predicted cell by cell in a worker: cells that were seen first, then those asked
 * for. A cell is known by row times columns plus column.
 */
@Injectable()
export class GridStore implements OnDestroy {
  readonly #acts = inject(Acts);
  readonly #log = inject(LogData);
  readonly #make = inject(GRID_WORKER);
  #worker: { calls: Remote<GridCalls>; end: () => void } | null = null;
  readonly answer = signal<GridAnswer | null>(null);
  readonly problem = signal<string | null>(null);
  /** Grows with every batch that is in. */
  readonly #version = signal(0);
  #predicted: (CellPredicted | undefined)[] = [];
  #seen = new Map<number, CellSeen>();
  #queue: number[] = [];
  #asked = new Set<number>();
  #working = false;
  /** Counts grids, so that an answer of an older one is dropped. */
  #turn = 0;

  readonly columns = computed(() => this.answer()?.cols.length ?? 0);
  /** Seen cells whose interval excludes the prediction; grows while cells come in. */
  readonly contradictions = computed(() => {
    this.#version();
    return [...this.#seen].filter(([i, s]) => {
      const p = this.#predicted[i];
      return p !== undefined && cellContradicts(p, s);
    }).length;
  });
  readonly seenCells = computed(() => (this.answer() ? this.#seen.size : 0));

  load(ask: GridAsk): void {
    const turn = (this.#turn += 1);
    this.#acts.read(this.#log.grid(ask), {
      line: this.problem,
      then: (a) => {
        if (turn === this.#turn) void this.#take(a, ask.axes as GridAxes, turn);
      },
    });
  }

  async #take(a: GridAnswer, axes: GridAxes, turn: number): Promise<void> {
    this.#worker ??= this.#make();
    this.#predicted = new Array<CellPredicted | undefined>(a.rows.length * a.cols.length);
    this.#seen = new Map(
      a.seen.map(([r, c, n, worked, told, newest]) => [
        r * a.cols.length + c,
        { n, worked, told, newest },
      ]),
    );
    this.#queue = [];
    this.#asked = new Set();
    const { rows, cols, third, grounds } = a;
    await this.#worker.calls.take({ rows, cols, third, grounds }, axes);
    if (turn !== this.#turn) return;
    this.problem.set(null);
    this.answer.set(a);
    this.ask([...this.#seen.keys()]);
  }

  predicted(i: number): CellPredicted | null {
    this.#version();
    return this.#predicted[i] ?? null;
  }

  seen(i: number): CellSeen | null {
    return this.#seen.get(i) ?? null;
  }

  /** Ask for cells; those in view go before what waits. */
  ask(cells: readonly number[]): void {
    const fresh = cells.filter((i) => this.#predicted[i] === undefined && !this.#asked.has(i));
    if (fresh.length === 0) return;
    this.#queue.unshift(...fresh);
    for (const i of fresh) this.#asked.add(i);
    void this.#work();
  }

  async #work(): Promise<void> {
    if (this.#working) return;
    this.#working = true;
    const columns = this.columns() || 1;
    while (this.#queue.length > 0 && this.#worker) {
      const turn = this.#turn;
      const list = this.#queue.splice(0, BATCH);
      try {
        const found = await this.#worker.calls.predict(
          list.map((i) => [Math.floor(i / columns), i % columns] as const),
        );
        if (turn !== this.#turn) break;
        list.forEach((i, k) => (this.#predicted[i] = found[k]));
        this.#version.update((v) => v + 1);
      } catch (error) {
        this.problem.set(`The cells could not be predicted: ${String(error)}`);
        break;
      }
    }
    this.#working = false;
    if (this.#queue.length > 0 && this.problem() === null) void this.#work();
  }

  ngOnDestroy(): void {
    this.#turn += 1;
    this.#worker?.end();
    this.#worker = null;
  }
}
