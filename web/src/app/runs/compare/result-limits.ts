import { inject, Injectable, signal } from '@angular/core';
import { firstValueFrom } from 'rxjs';
import {
  cellOfRun,
  evidenceOfRuns,
  evidenceOfStated,
  type FrameEvidence,
  meanMsOf,
  pixelsOf,
  type RunClass,
  statedTitle,
  type StatedTitle,
} from '@ruddy/core/runs';
import type { RunEntry } from '@ruddy/core/runs/contract';
import { limitedByText } from '@ruddy/core/runs/text';
import { CaptureWork, Stopped } from '../capture-work';
import { RunsData } from '../runs';

/** What the runs of a comparison are weighed with: every run of their titles, and what each is. */
export interface LimitsAsk {
  /** A run for each cell of the table. */
  readonly of: readonly RunEntry[];
  readonly runs: readonly RunEntry[];
  readonly classes: ReadonlyMap<string, RunClass>;
}

/** What is known of a title: its evidence and what was stated of it at the start. */
interface Known {
  readonly evidence: readonly FrameEvidence[];
  readonly stated: StatedTitle | null;
}

const hasFrames = (r: RunEntry) => meanMsOf(r) !== null && pixelsOf(r.settings.resolution) !== null;

/** What limits each cell of a comparison, computed one after another beside the page from the same evidence as on Runs. */
@Injectable()
export class ResultLimits {
  readonly #work = inject(CaptureWork);
  readonly #data = inject(RunsData);
  /** In a few words, by the id of the run. */
  readonly words = signal<ReadonlyMap<string, string>>(new Map());
  readonly progress = signal<{ readonly done: number; readonly of: number } | null>(null);
  readonly problem = signal<string | null>(null);

  async compute(ask: LimitsAsk): Promise<void> {
    const list = ask.of.filter(hasFrames);
    this.problem.set(null);
    this.progress.set({ done: 0, of: list.length });
    try {
      const known = await this.#known(ask);
      for (const [done, run] of list.entries()) {
        const words = await this.#limit(run, ask, known.get(run.titleId));
        this.words.update((all) => new Map(all).set(run.id, words));
        this.progress.set({ done: done + 1, of: list.length });
      }
    } catch (e) {
      if (!(e instanceof Stopped)) this.problem.set(`What limits: ${(e as Error).message}`);
    } finally {
      this.progress.set(null);
    }
  }

  stop(): void {
    this.#work.stop();
  }

  async #known({ of, runs }: LimitsAsk): Promise<ReadonlyMap<string, Known>> {
    const profiles = await firstValueFrom(this.#data.profiles());
    const setups = [...new Set(of.map((r) => r.setupId))];
    const figures = await Promise.all(setups.map((id) => firstValueFrom(this.#data.stated(id))));
    const stated = [...new Map(figures.flat().map((f) => [f.id, f])).values()];
    return new Map(
      [...new Set(of.map((r) => r.titleId))].map((titleId) => {
        const own = runs.filter((r) => r.titleId === titleId);
        const said = stated.filter((f) => f.titleId === titleId).map(evidenceOfStated);
        const profile = profiles.find((p) => p.id === titleId);
        const evidence = [...evidenceOfRuns(own).evidence, ...said];
        return [titleId, { evidence, stated: statedTitle(profile?.params ?? null) }];
      }),
    );
  }

  async #limit(run: RunEntry, { classes }: LimitsAsk, known: Known | undefined): Promise<string> {
    const here = cellOfRun(run, classes.get(run.id)?.capFps ?? null);
    const question = {
      titleId: run.titleId,
      evidence: known?.evidence ?? [],
      stated: known?.stated ?? null,
      here,
      cells: [],
      experiments: [],
      refined: false,
    };
    const answer = await this.#work.run((w) => w.answer(question));
    return limitedByText(answer.limiter, answer.refined);
  }
}
