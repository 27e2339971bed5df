import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { firstValueFrom } from 'rxjs';
import {
  classifyRuns,
  groupRuns,
  pairsOf,
  type RunGroup,
  type RunSign,
  signsOf,
} from '@ruddy/core/runs';
import type { RunEntry, SettledForecasts } from '@ruddy/core/runs/contract';
import type { ApiError } from '../platform/api/api-client';
import { RunsData } from './runs';
import { RunStore } from './run-store';

/** The most titles that are asked for at once. */
const MAX_TITLES = 200;

/**
 * What runs say together: groups of repeats, measured pairs, signs. It reads every run of the titles of this setup, whichever setup they are of.
 */
@Injectable()
export class TitleRuns {
  readonly #store = inject(RunStore);
  readonly #data = inject(RunsData);
  /** Runs of all setups; null until they are read. */
  readonly all = signal<readonly RunEntry[] | null>(null);
  readonly problem = signal<string | null>(null);
  readonly settled = signal<SettledForecasts | null>(null);

  readonly setupId = computed(() => this.#store.runs()?.[0]?.setupId ?? '');
  readonly first = computed(() => this.#store.shown()[0]?.run ?? null);
  readonly #titles = computed(() =>
    [...new Set((this.#store.runs() ?? []).map((r) => r.titleId))]
      .sort()
      .slice(0, MAX_TITLES)
      .join(),
  );
  readonly classes = computed(() => classifyRuns(this.all() ?? []));
  readonly groups = computed(() => groupRuns(this.all() ?? [], this.classes()));
  readonly pairs = computed(() => pairsOf(this.groups()));
  /** The group of the run that is looked at. */
  readonly group = computed((): RunGroup | null => {
    const id = this.first()?.id;
    const has = (list: readonly { id: string }[]) => list.some((r) => r.id === id);
    return this.groups().find((g) => has(g.runs) || has(g.apart)) ?? null;
  });
  /** A pair of runs measures the link of the run that is looked at. */
  readonly measured = computed(() => {
    const group = this.group();
    return this.pairs().pairs.some((p) => p.kind !== 'panel' && (p.a === group || p.b === group));
  });
  /** What can be seen in the runs themselves, each with its number; the overhead of the link stands elsewhere. */
  readonly signs = computed((): readonly RunSign[] => {
    const group = this.group();
    return group ? signsOf(group, this.groups()) : [];
  });

  constructor() {
    effect(() => {
      const titles = this.#titles();
      // Read so that they are read again when a run is stored.
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
      const [all, settled] = await Promise.all([
        firstValueFrom(this.#data.all({ titleIds })),
        firstValueFrom(this.#data.settled(setupId)),
      ]);
      if (setupId !== this.setupId()) return;
      this.all.set(all);
      this.settled.set(settled);
      this.problem.set(null);
    } catch (e) {
      this.problem.set(`Runs of other setups could not be read: ${(e as ApiError).message}`);
    }
  }
}
