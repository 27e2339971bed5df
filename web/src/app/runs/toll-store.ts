import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { firstValueFrom } from 'rxjs';
import {
  alarmsOf,
  cellsOf,
  evidenceOf,
  type LimiterEvidence,
  middleRig,
  pairsOf,
  readBack,
  type RunGroup,
  tollAt,
  tollsOf,
} from '@ruddy/core/runs';
import type { Predictions, RunEntry } from '@ruddy/core/runs/contract';
import type { ApiError } from '../platform/api/api-client';
import { RunsData } from './runs';
import { RunStore } from './run-store';

/** The most titles that are asked for at once. */
const MAX_TITLES = 200;

/**
 * What runs say together: pairs, link overheads, alarms. It reads every run of the titles of this setup, whichever setup they are of.
 */
@Injectable()
export class TollStore {
  readonly #store = inject(RunStore);
  readonly #data = inject(RunsData);
  /** Runs of all setups; null until they are read. */
  readonly all = signal<readonly RunEntry[] | null>(null);
  readonly problem = signal<string | null>(null);
  readonly predictions = signal<Predictions | null>(null);

  readonly setupId = computed(() => this.#store.runs()?.[0]?.setupId ?? '');
  readonly first = computed(() => this.#store.shown()[0]?.run ?? null);
  readonly #titles = computed(() =>
    [...new Set((this.#store.runs() ?? []).map((r) => r.titleId))]
      .sort()
      .slice(0, MAX_TITLES)
      .join(),
  );
  readonly cells = computed(() => cellsOf(this.all() ?? []));
  readonly pairs = computed(() => pairsOf(this.cells()));
  readonly tolls = computed(() => tollsOf(this.pairs().pairs, this.setupId()));
  /** The cell of the run that is looked at. */
  readonly cell = computed((): RunGroup | null => {
    const id = this.first()?.id;
    return this.cells().find((c) => c.runs.some((r) => r.id === id)) ?? null;
  });
  /** The toll of its title in its look. */
  readonly toll = computed(() => {
    const first = this.first();
    const found = this.tolls().find((t) => t.titleId === first?.titleId) ?? null;
    const gbps = first && !first.rig.slot ? middleRig(first.rig)?.downGbps : undefined;
    return found && gbps ? tollAt(found, gbps) : found;
  });
  /** Pairs of panel and outside screen of its title on this setup. */
  readonly back = computed(() => {
    const own = this.pairs().pairs.filter(
      (p) => p.b.first.setupId === this.setupId() && p.b.first.titleId === this.first()?.titleId,
    );
    return readBack(own);
  });
  /** What can be seen in the runs themselves, each with its number; the overhead of the link stands elsewhere. */
  readonly signs = computed((): readonly LimiterEvidence[] => {
    const cell = this.cell();
    if (!cell) return [];
    return evidenceOf(cell, this.cells());
  });
  /** A pair of runs measures the link of the run that is looked at. */
  readonly measured = computed(() => this.toll() !== null);
  readonly alarms = computed(() => {
    const cell = this.cell();
    return cell ? alarmsOf(cell, this.cells(), this.toll()) : [];
  });
  constructor() {
    effect(() => {
      const titles = this.#titles();
      // Read so that tolls are read again when a run is stored.
      this.#store.runs();
      if (titles !== '') untracked(() => void this.#read(titles));
    });
  }

  setupName(id: string): string {
    return this.all()?.find((r) => r.setupId === id)?.setupName ?? '';
  }

  async #read(titleIds: string): Promise<void> {
    const setupId = this.setupId();
    try {
      const [all, predictions] = await Promise.all([
        firstValueFrom(this.#data.all({ titleIds })),
        firstValueFrom(this.#data.predictions(setupId)),
      ]);
      if (setupId !== this.setupId()) return;
      this.all.set(all);
      this.predictions.set(predictions);
      this.problem.set(null);
    } catch (e) {
      this.problem.set(`Runs of other setups could not be read: ${(e as ApiError).message}`);
    }
  }
}
