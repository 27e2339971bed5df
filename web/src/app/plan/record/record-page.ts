import type { Observable } from 'rxjs';
import type { BringUp } from '@ruddy/core/bring-up/contract';
import { NgTemplateOutlet } from '@angular/common';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatButtonToggleModule } from '@angular/material/button-toggle';
import { Router, RouterLink } from '@angular/router';
import { sinceGood } from '@ruddy/core/bring-up';
import { sinceWords } from '@ruddy/core/bring-up/text';
import type { SetupEvent } from '@ruddy/core/compatibility/contract';
import { installedWords } from '@ruddy/core/setups/text';
import type { RunEntry } from '@ruddy/core/runs/contract';
import { Fold } from '../../platform/kit/fold';
import { RunsData } from '../../runs/runs';
import { Acts } from '../../platform/kit/ask';
import { BringUpRun } from '../../bring-up/bring-up-run';
import { LinkReadings } from '../../bring-up/link-readings';
import { SetupEditor } from '../../setups/setup-editor';
import { SetupsData } from '../../setups/setups';
import { pluralize, day } from '../../platform/shared/format';
import { AsOnPanel } from './as-on-panel';
import { NoteForm, type Mending } from './note-form';
import { OutcomeForm, type Correction } from './outcome-form';
import { batchRuns, runFigures } from './run-batches';
import { FILTERS, linesOf, type Group, type Line } from './record-lines';
import { PinsPanel } from './pins-panel';
import { TakeBack } from './take-back';
import { UsedPanel } from '../../compatibility/used-panel';

const STRIKABLE: readonly string[] = ['reading', 'version', 'ended', 'good', 'run', 'used'];

/** Record: what happened with this setup, and the place to log the next thing. */
@Component({
  imports: [
    NgTemplateOutlet,
    AsOnPanel,
    Fold,
    OutcomeForm,
    NoteForm,
    PinsPanel,
    TakeBack,
    UsedPanel,
    MatButtonModule,
    MatButtonToggleModule,
    RouterLink,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './record-page.html',
  styleUrl: './record-page.scss',
})
export class RecordPage {
  readonly #data = inject(SetupsData);
  readonly #router = inject(Router);
  readonly #acts = inject(Acts);
  readonly #run = inject(BringUpRun);
  readonly #readings = inject(LinkReadings);
  readonly #runs = inject(RunsData);
  readonly editor = inject(SetupEditor);
  readonly show = input<string>();
  /** Set when the page was opened to log an outcome: its form gets the focus. */
  readonly log = input<string>();
  readonly outcomeForm = viewChild(OutcomeForm);
  readonly events = signal<SetupEvent[] | null>(null);
  readonly problem = signal<string | null>(null);
  readonly correcting = signal<Correction | null>(null);
  readonly mending = signal<Mending | null>(null);
  readonly day = day;
  readonly filter = computed(() => Object.keys(FILTERS).find((f) => f === this.show()) ?? 'all');
  readonly id = computed(() => this.editor.stored()?.id ?? null);
  readonly lines = computed(() => linesOf(this.events() ?? [], (id) => this.#run.title(id)));
  /** Runs of the setup, for their figures; the record itself does not hold them. */
  readonly runs = signal<readonly RunEntry[]>([]);
  readonly figures = computed(() => new Map(this.runs().map((r) => [r.id, runFigures(r)])));
  readonly shown = computed(() =>
    batchRuns(
      this.lines().filter((l) => this.#in(l, this.filter())),
      this.runs(),
    ),
  );
  readonly filters = computed(() =>
    Object.entries(FILTERS).map(([key, name]) => ({
      key,
      name,
      n: this.lines().filter((l) => this.#in(l, key)).length,
    })),
  );
  readonly headline = computed(() => {
    const counting = this.lines()
      .filter((l) => l.outcome)
      .flatMap(currentLines);
    const last = counting[0];
    if (this.events() === null) return 'Reading the record …';
    if (!last) return '0 outcomes logged for this setup yet.';
    return `${pluralize(counting.length, 'outcome')} logged; the newest, ${this.on(last)}: ${last.what.toLowerCase()}.`;
  });
  readonly goodWords = computed(() => {
    const good = this.#run.stored()?.good;
    if (this.#run.stored() === null) return 'Reading …';
    if (!good)
      return 'Not marked yet. Mark it when all is well: after an update, what changed is the first question.';
    const versions = installedWords(good.installed);
    return `${day(good.at.slice(0, 10))}: ${versions || 'versions not noted'}. ${this.since().length === 0 ? 'Nothing changed since.' : 'Changed since:'}`;
  });
  readonly goodOn = computed(() => this.#run.stored()?.good?.at.slice(0, 10) ?? null);
  readonly since = computed(() => {
    const good = this.#run.stored()?.good;
    const j = this.editor.judgement();
    return good && j ? sinceGood(good, j.chain).map(sinceWords) : [];
  });

  constructor() {
    effect(() => {
      const id = this.id();
      if (id) untracked(() => this.#load(id));
    });
    effect(() => {
      const form = this.outcomeForm();
      if (form && this.log() !== undefined) untracked(() => form.show());
    });
  }

  /** A bad outcome is an outcome and a fault. */
  #in(l: Line, filter: string): boolean {
    return (
      filter === 'all' ||
      l.group === (filter as Group) ||
      (filter === 'outcome' && l.outcome !== null)
    );
  }

  on(l: Line): string {
    return day(l.event.happenedAt.slice(0, 10));
  }

  choose(filter: string): void {
    void this.#router.navigate([], {
      queryParams: { show: filter === 'all' ? null : filter },
      queryParamsHandling: 'merge',
      replaceUrl: true,
    });
  }

  stored(): void {
    this.correcting.set(null);
    this.editor.refresh();
    this.#again();
  }

  used(): void {
    this.#again();
  }

  noted(items: SetupEvent[]): void {
    this.mending.set(null);
    this.events.set(items);
  }

  correct(l: Line): void {
    if (!l.outcome) return;
    this.correcting.set({
      id: l.event.id,
      outcome: l.outcome,
      happenedOn: l.event.happenedAt.slice(0, 10),
    });
    this.outcomeForm()?.show();
  }

  mend(l: Line): void {
    this.mending.set({ id: l.event.id, text: l.what });
  }

  strikable(l: Line): boolean {
    return STRIKABLE.includes(l.event.kind);
  }

  strike(l: Line, reason: string): void {
    this.#fact(
      (id) => this.#data.retract(id, { corrects: l.event.id, reason }),
      'Deleted; both stay on record.',
    );
  }

  keepGood(): void {
    this.#fact((id) => this.#data.markGood(id), 'Marked as the last known good.');
  }

  #fact(store: (id: string) => Observable<BringUp>, words: string): void {
    const id = this.id();
    if (!id) return;
    this.#acts.run(store(id), {
      done: words,
      then: () => {
        this.#run.reload();
        this.#readings.reload();
        this.#again();
      },
    });
  }

  #again(): void {
    const id = this.id();
    if (id) this.#load(id);
  }

  #load(id: string): void {
    this.#acts.read(this.#data.record(id), {
      line: this.problem,
      then: (r) => this.events.set(r.items),
    });
    this.#acts.read(this.#runs.all({ setupId: id }), {
      line: this.problem,
      failed: 'Figures of the runs:',
      then: (runs) => this.runs.set(runs),
    });
  }
}

/** The outcome of a line that counts: its newest correction, or itself. */
function currentLines(l: Line): Line[] {
  return l.corrections.length === 0 ? [l] : l.corrections.flatMap(currentLines);
}
