import { inject, Injectable, signal } from '@angular/core';
import type { StatedFigureEntry } from '@ruddy/core/runs/contract';
import { Acts } from '../platform/kit/ask';
import { RunsData } from './runs';

/** What people say beside runs: figures stated with a setup or of the titles it runs, and runs that cannot be made on it. */
@Injectable()
export class StatedStore {
  readonly #data = inject(RunsData);
  readonly #acts = inject(Acts);
  readonly figures = signal<readonly StatedFigureEntry[]>([]);
  /** Experiments of the advice, by id. */
  readonly impossible = signal<ReadonlySet<string>>(new Set());
  readonly problem = signal<string | null>(null);
  #setupId = '';

  load(setupId: string): void {
    this.#setupId = setupId;
    this.reload();
    this.#acts.read(this.#data.impossible(setupId), {
      line: this.problem,
      failed: 'Runs that cannot be made:',
      then: (ids) => this.#of(setupId, () => this.impossible.set(new Set(ids))),
    });
  }

  reload(): void {
    const setupId = this.#setupId;
    this.#acts.read(this.#data.stated(setupId), {
      line: this.problem,
      failed: 'Stated figures:',
      then: (list) => this.#of(setupId, () => this.figures.set(list)),
    });
  }

  /** An answer of the setup before is not taken. */
  #of(setupId: string, take: () => void): void {
    if (setupId === this.#setupId) take();
  }

  remove(id: string): void {
    this.#acts.run(this.#data.unstate(id), {
      line: this.problem,
      failed: 'Not removed.',
      done: 'Removed: it counts no more.',
      then: () => this.figures.update((list) => list.filter((f) => f.id !== id)),
    });
  }

  /** Remembers that a run of the advice cannot be made here, or that it can. */
  setImpossible(experiment: string, impossible: boolean): void {
    this.#acts.run(this.#data.setImpossible(this.#setupId, { experiment, impossible }), {
      line: this.problem,
      then: (ids) => this.impossible.set(new Set(ids)),
    });
  }
}
