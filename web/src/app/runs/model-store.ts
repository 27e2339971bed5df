import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { catchError, of } from 'rxjs';
import {
  type AtHand,
  cellOfRun,
  eightyBand,
  evidenceOfRuns,
  evidenceOfStated,
  experimentsAround,
  type FrameCell,
  FULL_HD_PIXELS,
  linkOfRig,
  meanMsOf,
  type ModelAnswer,
  type ModelQuestion,
  pixelsOf,
  statedTitle,
  type StatedTitle,
} from '@ruddy/core/runs';
import type { RunEntry } from '@ruddy/core/runs/contract';
import { RunOverhead } from '../chain/run-overhead';
import { CaptureWork, Stopped } from './capture-work';
import { RunsData } from './runs';
import { StatedStore } from './stated-store';
import { TitleRuns } from './title-runs';

/** Sizes whose frames are forecast, on the screen at the card and on the host's panel. */
export const FORECAST_SIZES = ['1280x800', '1920x1080', '2560x1440', '3840x2160'] as const;
const sizes = FORECAST_SIZES.map((name) => ({ name, pixels: pixelsOf(name) ?? FULL_HD_PIXELS }));

function atHand(run: RunEntry, here: FrameCell, all: readonly RunEntry[]): AtHand {
  const own = all.filter((r) => r.rig.host === run.rig.host && !r.rig.slot);
  const links = new Map(
    own
      .filter((r) => r.setupId !== run.setupId && r.rig.card === run.rig.card)
      .map((r) => [r.setupId, { setupId: r.setupId, name: r.setupName, link: linkOfRig(r.rig) }]),
  );
  const cards = new Map(
    own
      .filter((r) => r.titleId === run.titleId)
      .map((r) => cellOfRun(r, null).card)
      .filter((c) => !c.integrated)
      .map((c) => [c.id, c]),
  );
  const panel = own.some((r) => r.settings.screenPath === 'panel');
  const others = own.flatMap((r) => {
    const pixels = pixelsOf(r.settings.resolution);
    return pixels === null || pixels === here.pixels
      ? []
      : [{ name: r.settings.resolution, pixels }];
  });
  const named = new Map([...sizes, ...others].map((s) => [s.pixels, s]));
  return {
    sizes: [...named.values()],
    panel,
    links: [...links.values()],
    cards: [...cards.values()],
  };
}

/** What the posterior of the title that is looked at says: frames at other sizes, what limits, and what to run next. */
@Injectable()
export class ModelStore {
  readonly #runs = inject(TitleRuns);
  readonly #stated = inject(StatedStore);
  readonly #work = inject(CaptureWork);
  readonly #strip = inject(RunOverhead, { optional: true });
  readonly #profiles = toSignal(
    inject(RunsData)
      .profiles()
      .pipe(catchError(() => of([]))),
    {
      initialValue: [],
    },
  );
  /** Evidence that is left out, by id, to see what hangs on it. */
  readonly leftOut = signal<ReadonlySet<string>>(new Set());
  readonly problem = signal<string | null>(null);
  readonly #answered = signal<{ run: string; key: string; answer: ModelAnswer } | null>(null);

  readonly #ofTitle = computed(() => {
    const first = this.#runs.first();
    return (this.#runs.all() ?? []).filter((r) => r.titleId === first?.titleId);
  });
  readonly evidence = computed(() => {
    const { evidence, unused } = evidenceOfRuns(this.#ofTitle());
    const titleId = this.#runs.first()?.titleId;
    const figures = this.#stated.figures().filter((f) => f.titleId === titleId);
    return { evidence: [...evidence, ...figures.map(evidenceOfStated)], unused };
  });
  /** The cell of the run that is looked at; null where it has no frames or no resolution. */
  readonly here = computed((): FrameCell | null => {
    const first = this.#runs.first();
    const known = first && meanMsOf(first) !== null && pixelsOf(first.settings.resolution) !== null;
    return known ? cellOfRun(first, this.#runs.classes().get(first.id)?.capFps ?? null) : null;
  });
  readonly #startValues = computed((): StatedTitle | null => {
    const profile = this.#profiles().find((p) => p.id === this.#runs.first()?.titleId);
    return statedTitle(profile?.params ?? null);
  });
  /** Cells of the table of forecasts: each size on the screen at the card, then on the panel. */
  readonly asked = computed(() => {
    const here = this.here();
    if (!here) return [];
    const crossed = !here.card.integrated;
    return [false, ...(crossed ? [true] : [])].flatMap((panel) =>
      sizes.map((s) => ({
        size: s.name,
        panel,
        cell: { ...here, pixels: s.pixels, panel, capFps: null },
      })),
    );
  });
  readonly #question = computed((): ModelQuestion | null => {
    const here = this.here();
    const run = this.#runs.first();
    if (!here || !run || this.#runs.all() === null) return null;
    return {
      titleId: run.titleId,
      evidence: this.evidence().evidence.filter((e) => !this.leftOut().has(e.id)),
      stated: this.#startValues(),
      here,
      cells: this.asked().map((a) => a.cell),
      experiments: experimentsAround(here, atHand(run, here, this.#ofTitle())).filter(
        (e) => !this.#stated.impossible().has(e.id),
      ),
      refined: false,
    };
  });
  readonly #key = computed(() => JSON.stringify(this.#question()));
  /** The newest answer for the run that is looked at; it stays while a changed question is computed. */
  readonly answer = computed(() => {
    const found = this.#answered();
    return found && found.run === this.#runs.first()?.id ? found.answer : null;
  });
  /** The answer to the question as it stands is not there yet. */
  readonly working = computed(
    () =>
      this.#question() !== null && this.#answered()?.key !== this.#key() && this.problem() === null,
  );
  /** What the link costs the run that is looked at; null in a slot, inside the processor, and until it is computed. */
  readonly overhead = computed(() =>
    this.#runs.first()?.rig.slot ? null : (this.answer()?.overhead ?? null),
  );
  /** The thorough answer to the question as it stands is still computed. */
  readonly busy = computed(() => this.working() || this.answer()?.refined === false);

  constructor() {
    effect(() => {
      const first = this.#runs.first();
      const overhead = this.overhead();
      this.#strip?.shown.set(
        first && !first.rig.slot && this.here()?.card.integrated !== true
          ? {
              title: first.title,
              link: overhead && eightyBand(overhead.ms),
              back: overhead?.panelMs ? eightyBand(overhead.panelMs) : null,
            }
          : null,
      );
    });
    effect(() => {
      const key = this.#key();
      const question = this.#question();
      if (question) untracked(() => void this.#ask(key, question));
    });
  }

  /** The first answer takes tenths of a second, the thorough one up to a few seconds with many runs: both in the worker. */
  async #ask(key: string, question: ModelQuestion): Promise<void> {
    this.problem.set(null);
    try {
      for (const refined of [false, true]) {
        if (key !== this.#key()) return;
        const answer = await this.#work.run((w) => w.answer({ ...question, refined }));
        const run = this.#runs.first()?.id ?? '';
        if (key === this.#key()) this.#answered.set({ run, key, answer });
      }
    } catch (e) {
      if (!(e instanceof Stopped))
        this.problem.set(`The forecast could not be computed: ${(e as Error).message}`);
    }
  }

  /** Leaves a piece of evidence out, or takes it in again. */
  toggle(id: string, used: boolean): void {
    const next = new Set(this.leftOut());
    if (used) next.delete(id);
    else next.add(id);
    this.leftOut.set(next);
  }
}
