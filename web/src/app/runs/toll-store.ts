import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { firstValueFrom } from 'rxjs';
import {
  alarmsOf,
  cellsOf,
  type Judged,
  middleRig,
  observedOf,
  pairsOf,
  readBack,
  readLimiter,
  type RunGroup,
  tollAt,
  tollsOf,
} from '@ruddy/core/runs';
import type { Predictions, RunEntry } from '@ruddy/core/runs/contract';
import type { ApiError } from '../platform/api/api-client';
import { RunToll } from '../chain/run-toll';
import { RunsData } from './runs';
import { CaptureWork, Stopped } from './capture-work';
import { RunStore } from './run-store';

/** The most titles that are asked for at once. */
const MAX_TITLES = 200;

/**
 * What runs say together: pairs, tolls, what limits, alarms. It reads every run of the titles of this setup, whichever setup they are
 * of, and judges the run that is looked at first.
 */
@Injectable()
export class TollStore {
  readonly #store = inject(RunStore);
  readonly #data = inject(RunsData);
  readonly #work = inject(CaptureWork);
  readonly #strip = inject(RunToll, { optional: true });
  /** Runs of all setups; null until they are read. */
  readonly all = signal<readonly RunEntry[] | null>(null);
  readonly problem = signal<string | null>(null);
  readonly predictions = signal<Predictions | null>(null);
  readonly #judged = signal<{ key: string; judged: Judged | null } | null>(null);

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
  readonly seen = computed(() => {
    const cell = this.cell();
    return cell && observedOf(cell, this.cells(), this.toll(), this.back());
  });
  readonly #key = computed(() => `${this.cell()?.key ?? ''} ${JSON.stringify(this.seen())}`);
  readonly judging = computed(() => this.seen() !== null && this.#judged()?.key !== this.#key());
  /** Setups with the same host and card behind another link. */
  readonly others = computed(() => {
    const cell = this.cell();
    const rig = cell?.first.rig;
    const found = this.cells().filter(
      (c) =>
        c.first.setupId !== this.setupId() &&
        c.first.rig.host === rig?.host &&
        c.first.rig.card === rig?.card,
    );
    return [...new Set(found.map((c) => c.first.setupId))];
  });
  readonly limiter = computed(() => {
    const cell = this.cell();
    const seen = this.seen();
    const j = this.#judged();
    if (!cell || !seen || j?.key !== this.#key()) return null;
    return readLimiter({
      cell,
      cells: this.cells(),
      toll: this.toll(),
      seen,
      judged: j.judged,
      others: this.others(),
    });
  });
  readonly alarms = computed(() => {
    const cell = this.cell();
    return cell ? alarmsOf(cell, this.cells(), this.toll()) : [];
  });
  /** What the same title gives in a desktop slot at the same size, frames/s. */
  readonly slotFps = computed(() => {
    const pair = this.toll()?.pairs.find(
      (p) => p.kind === 'slot' && p.b.pixels === this.cell()?.pixels,
    );
    return pair ? (1000 * pair.a.ms.length) / pair.a.ms.reduce((a, b) => a + b, 0) : null;
  });

  constructor() {
    effect(() => {
      const titles = this.#titles();
      // Read so that tolls are read again when a run is stored.
      this.#store.runs();
      if (titles !== '') untracked(() => void this.#read(titles));
    });
    effect(() => {
      const seen = this.seen();
      const key = this.#key();
      if (seen) untracked(() => void this.#judge(key));
    });
    effect(() => {
      const toll = this.toll();
      const back = this.back();
      const first = this.first();
      this.#strip?.shown.set(
        first && {
          title: first.title,
          link: toll && {
            mid: toll.mid,
            lo: toll.lo,
            hi: toll.hi,
            interval: toll.basis === 'interval',
          },
          back,
        },
      );
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

  /** Judging weighs tens of thousands of ways a rig could be: it is done in the worker. */
  async #judge(key: string): Promise<void> {
    const seen = this.seen();
    if (!seen || this.#judged()?.key === key) return;
    try {
      const judged = await this.#work.run((w) => w.judge(seen));
      if (key === this.#key()) this.#judged.set({ key, judged });
    } catch (e) {
      if (!(e instanceof Stopped))
        this.problem.set(`What limits could not be judged: ${(e as Error).message}`);
    }
  }
}
