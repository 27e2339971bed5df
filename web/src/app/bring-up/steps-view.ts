import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatButtonToggleModule } from '@angular/material/button-toggle';
import { ActivatedRoute, Router } from '@angular/router';
import type { StepId } from '@ruddy/core/base';
import { SHORT_MOST, shortForm } from '@ruddy/core/bring-up';
import { BringUpRun } from './bring-up-run';
import { pluralize } from '../platform/shared/format';
import { Keys } from '../platform/shell/keys';
import { AttemptLine } from './attempt-line';
import { BeginPanel } from './begin-panel';
import { StepCard } from './step-card';
import { StepDrafts } from './step-draft';
import { StepList } from './step-list';
import { Fold } from '../platform/kit/fold';

/** Where a browser remembers in which form it shows lists of steps. */
const FORM = 'ruddy.steps.form';

/** One step at a time in the middle, the whole list at its left, what happened so far at its right. */
@Component({
  selector: 'rb-steps-view',
  imports: [
    Fold,
    StepList,
    StepCard,
    BeginPanel,
    AttemptLine,
    MatButtonModule,
    MatButtonToggleModule,
  ],
  providers: [StepDrafts],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './steps-view.html',
  styleUrl: './steps-view.scss',
})
export class StepsView {
  readonly run = inject(BringUpRun);
  readonly #drafts = inject(StepDrafts);
  readonly #router = inject(Router);
  readonly #route = inject(ActivatedRoute);
  #brought = false;
  readonly card = viewChild(StepCard);
  readonly looked = signal<StepId | null>(null);
  /** The order is chosen anew for another attempt while one is still open. */
  readonly again = signal(false);
  readonly wide = signal(
    typeof matchMedia === 'undefined' || matchMedia('(min-width: 720px)').matches,
  );

  readonly place = computed(() => {
    const list = this.run.list();
    const looked = this.looked();
    const found = looked === null ? -1 : list.findIndex((s) => s.step.id === looked);
    return found >= 0 ? found : Math.min(this.run.progress().at, list.length - 1);
  });
  readonly most = SHORT_MOST;
  readonly form = signal<'short' | 'full'>(
    localStorage.getItem(FORM) === 'short' ? 'short' : 'full',
  );
  readonly #groups = computed(() => (this.form() === 'short' ? shortForm(this.run.list()) : []));
  /** In the short form the group of the step to do now; a step that failed, or that somebody looks at, stands by itself. */
  readonly group = computed(() => {
    const at = this.run.list()[this.place()];
    if (!at || at.state === 'failed') return null;
    const no = this.#groups().findIndex(
      (g) => g.head === at || (this.looked() === null && g.folded.includes(at)),
    );
    const found = this.#groups()[no];
    // A step that is open again under one that is done stands by itself, too.
    return found && (found.head === at || found.head.state === 'open')
      ? { ...found, no: no + 1 }
      : null;
  });
  readonly shown = computed(() => this.group()?.head ?? this.run.list()[this.place()] ?? null);
  readonly over = computed(
    () => this.run.attempt() !== null && this.run.progress().at === this.run.list().length,
  );
  readonly waiting = computed(() => {
    const n = this.run.outbox.waiting().length;
    if (n === 0 || !this.run.outbox.unreached()) return null;
    return `${pluralize(n, 'note')} kept on this machine: the server is not reached. Go on; it is sent as soon as it answers.`;
  });

  constructor() {
    inject(Keys).bind([
      { key: 'Enter', what: 'The step is done', run: () => this.card()?.done() },
      { key: 'f', what: 'The step failed', run: () => this.card()?.ask('failed') },
      { key: 'k', what: 'Skip the step', run: () => this.card()?.ask('skipped') },
      { key: 'u', what: 'Undo', run: () => this.card()?.undo() },
      { key: 'ArrowUp', what: 'Look at the step before', run: () => this.look(-1) },
      { key: 'ArrowDown', what: 'Look at the step after', run: () => this.look(1) },
      { key: 'p', what: 'Print the list', run: () => this.print() },
      ...[...'0123456789'].map((d) => ({
        key: d,
        what: d === '0' ? 'A digit goes into the reading of this step' : '',
        run: () => this.card()?.fields()?.digit(d),
      })),
    ]);
    effect(() => {
      // Another list begins at its own step.
      this.run.purpose();
      untracked(() => this.looked.set(null));
    });
    effect(() => {
      const stored = this.run.stored();
      const attempt = stored?.attempts.at(-1)?.id;
      const steps = stored?.steps.filter((s) => s.attempt === attempt) ?? [];
      untracked(() => this.#drafts.confirmed(steps));
    });
    effect(() => {
      // On a small screen the step itself is what a person came for.
      const here = this.card() !== undefined && !this.wide();
      if (here && !this.#brought)
        queueMicrotask(() => document.querySelector('rb-steps-view .middle')?.scrollIntoView());
      this.#brought ||= here;
    });
    effect(() => {
      const link =
        this.run.attempt() !== null &&
        (this.shown()?.step.fields.some((f) => f.kind === 'reading') ?? false);
      untracked(() => this.run.atLink.set(link));
    });
  }

  setForm(form: 'short' | 'full'): void {
    this.form.set(form);
    localStorage.setItem(FORM, form);
  }

  look(by: number): void {
    const next = this.run.list()[this.place() + by];
    if (next) this.looked.set(next.step.id);
  }

  go(id: StepId | null): void {
    this.looked.set(id);
    queueMicrotask(() => this.card()?.focus());
  }

  print(): void {
    void this.#router.navigate(['../sheet'], {
      relativeTo: this.#route,
      queryParams: { only: 'steps', list: this.run.purpose() },
    });
  }
}
