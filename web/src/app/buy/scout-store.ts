import { inject, Injectable, InjectionToken, signal, type OnDestroy } from '@angular/core';
import { proxy, wrap, type Remote } from 'comlink';
import { firstValueFrom } from 'rxjs';
import type { Equal, RowIds, RowView, ScoutResult } from '@ruddy/core/buy';
import type { ScoutAsk, ScoutAskInput, ScoutGrounds } from '@ruddy/core/buy/contract';
import { ApiError } from '../platform/api/api-client';
import { ScoutData } from './scout';
import type { ScoutCalls } from './scout-calls';

/** Makes the worker; tests put the calls themselves in its place. */
export const SCOUT_WORKER = new InjectionToken<
  () => { calls: Remote<ScoutCalls>; end: () => void }
>('scout worker', {
  factory: () => () => {
    const worker = new Worker(new URL('./scout.worker', import.meta.url), { type: 'module' });
    return { calls: wrap<ScoutCalls>(worker), end: () => worker.terminate() };
  },
});

/** What of an ask only changes limits or the order: the parts stay as they are. */
function sameParts(a: ScoutAskInput, b: ScoutAskInput): boolean {
  const bare = (x: ScoutAskInput) =>
    JSON.stringify({ ...x, limits: null, weights: null, pins: null });
  return bare(a) === bare(b) && a.limits?.unsure === b.limits?.unsure;
}

/** One search: asked of the server once, worked on in a worker, shown while it works, stopped when somebody says so. */
@Injectable()
export class ScoutStore implements OnDestroy {
  readonly #data = inject(ScoutData);
  readonly #make = inject(SCOUT_WORKER);
  #worker: { calls: Remote<ScoutCalls>; end: () => void } | null = null;
  #asked: ScoutAskInput | null = null;
  #turn = 0;
  readonly grounds = signal<ScoutGrounds | null>(null);
  readonly result = signal<ScoutResult | null>(null);
  readonly working = signal(false);
  readonly stopped = signal(false);
  readonly problem = signal<string | null>(null);
  readonly pinned = signal<readonly (RowView | null)[]>([]);
  readonly equal = signal<readonly Equal[]>([]);

  async search(ask: ScoutAsk): Promise<void> {
    const turn = (this.#turn += 1);
    this.#worker ??= this.#make();
    const { calls } = this.#worker;
    const again = this.#asked !== null && this.grounds() !== null && sameParts(this.#asked, ask);
    this.problem.set(null);
    this.stopped.set(false);
    this.working.set(true);
    this.equal.set([]);
    const on = proxy((r: ScoutResult) => {
      if (turn === this.#turn) this.result.set(r);
    });
    try {
      if (!again) {
        this.#asked = null;
        const grounds = await firstValueFrom(this.#data.grounds(ask));
        if (turn !== this.#turn) return;
        this.grounds.set(grounds);
        this.#asked = ask;
        await calls.start(grounds, on);
      } else await calls.again(ask.limits, ask.weights, on);
      if (turn === this.#turn) this.pinned.set(await calls.look(ask.pins as RowIds[]));
    } catch (error) {
      if (turn === this.#turn)
        this.problem.set(
          error instanceof ApiError ? error.message : `The search failed: ${String(error)}`,
        );
    } finally {
      if (turn === this.#turn) this.working.set(false);
    }
  }

  /** The next search reads the catalogue again. */
  forget(): void {
    this.#asked = null;
  }

  stop(): void {
    if (!this.working()) return;
    this.#turn += 1;
    void this.#worker?.calls.stop();
    this.working.set(false);
    this.stopped.set(true);
  }

  async look(pins: readonly RowIds[]): Promise<void> {
    const turn = this.#turn;
    const rows = await this.#worker?.calls.look(pins);
    if (turn === this.#turn && rows) this.pinned.set(rows);
  }

  /** Cheaper cards on the same path that are as fast within a share. */
  async compare(ids: RowIds, percent: number): Promise<void> {
    const found = await this.#worker?.calls.equal(ids, percent);
    this.equal.set(found ?? []);
  }

  ngOnDestroy(): void {
    this.#turn += 1;
    this.#worker?.end();
    this.#worker = null;
  }
}
