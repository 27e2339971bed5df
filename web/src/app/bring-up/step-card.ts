import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  input,
  output,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { ActivatedRoute, Router, RouterLink } from '@angular/router';
import type { SymptomId } from '@ruddy/core/base';
import { sinceGood, type StepFacts, type StepStatus } from '@ruddy/core/bring-up';
import type { ReadingEntry } from '@ruddy/core/bring-up/contract';
import { CAUTION_TEXTS, sinceWords, STEP_WORDS } from '@ruddy/core/bring-up/text';
import {
  answersOf,
  type ChainObservation,
  failsAt,
  priorMultipliers,
  netFor,
  rankedCauses,
  seenOf,
} from '@ruddy/core/troubleshoot';
import { CAUSE_WORDS, SYMPTOM_WORDS } from '@ruddy/core/troubleshoot/text';
import { BringUpRun } from './bring-up-run';
import { LinkReadings } from './link-readings';
import { Choice } from '../platform/kit/choice';
import { pluralize } from '../platform/shared/format';
import { HeldPanel } from './held-panel';
import { OpeningPanel } from './opening-panel';
import { ReadingFields } from './reading-fields';
import { StepDrafts } from './step-draft';
import { StepFields } from './step-fields';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';

const REASONS = ['done before', 'not needed here', 'no tool at hand', 'later'].map((r) => ({
  value: r,
  label: r,
}));

/** So many causes stand at a failed step; the search knows them all. */
const USUAL = 5;

type Of = 'spans' | 'down' | 'up' | 'counts';
const READS: Record<Of, (e: ReadingEntry) => boolean> = {
  spans: (e) => e.seen.lanes !== null || e.seen.gen !== null || e.seen.routerGbps !== null,
  down: (e) => e.reading.copy?.direction === 'down',
  up: (e) => e.reading.copy?.direction === 'up',
  counts: (e) => e.reading.counts !== null,
};

/** One step in large type: caution, what to do, what must be seen, what to try if not, and what came of it. */
@Component({
  selector: 'rb-step-card',
  imports: [
    Choice,
    Field,
    HeldPanel,
    MatButtonModule,
    OpeningPanel,
    ReadingFields,
    RouterLink,
    StepFields,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './step-card.html',
  styleUrl: './step-card.scss',
})
export class StepCard {
  readonly run = inject(BringUpRun);
  readonly drafts = inject(StepDrafts);
  readonly readings = inject(LinkReadings);
  readonly #router = inject(Router);
  readonly #route = inject(ActivatedRoute);
  readonly standing = input.required<StepStatus>();
  readonly facts = input.required<StepFacts>();
  readonly number = input.required<number>();
  /** Steps that are done with it, in the short form. */
  readonly folded = input<readonly StepStatus[]>([]);
  /** Its number in the form that is shown; its place in the full list otherwise. */
  readonly label = input<number | null>(null);
  readonly back = output();
  readonly another = output();
  /** Something was noted at this step. */
  readonly noted = output();
  readonly asking = signal<'failed' | 'skipped' | null>(null);
  /** What was seen, or why the step is left out, in words of one's own. */
  readonly own = signal('');
  readonly seenMeta: FieldMeta = { label: 'Seen, in words', input: 'text', max: 300 };
  readonly whyMeta: FieldMeta = { label: 'Why, in words', input: 'text', max: 300 };
  readonly problem = signal<string | null>(null);
  readonly title = viewChild<ElementRef<HTMLElement>>('title');
  readonly fields = viewChild(ReadingFields);
  readonly cautions = CAUTION_TEXTS;
  readonly reasons = REASONS;

  readonly words = computed(() => STEP_WORDS[this.standing().step.id](this.facts()));
  readonly ahead = computed(() => {
    const places = [...this.openFolded(), this.standing()].map((s) =>
      this.run.list().findIndex((x) => x.step.id === s.step.id),
    );
    return Math.min(...places) > this.run.progress().at && this.standing().state === 'open';
  });
  /** What is folded under it and not settled yet, in words. */
  readonly openFolded = computed(() => this.folded().filter((s) => s.state === 'open'));
  readonly withIt = computed(() =>
    this.openFolded().map((s) => ({
      standing: s,
      cautions: s.step.cautions,
      words: STEP_WORDS[s.step.id](this.facts()),
    })),
  );
  readonly canUndo = computed(() => this.#undoable() !== null);
  readonly reading = computed<Of | null>(() => {
    const field = this.standing().step.fields.find((f) => f.kind === 'reading');
    return field?.kind === 'reading' ? field.of : null;
  });
  readonly taken = computed(() => {
    const of = this.reading();
    const attempt = this.run.attempt()?.id;
    return of === null
      ? []
      : (this.readings.entries() ?? []).filter((e) => e.attempt === attempt && READS[of](e));
  });
  readonly takenWords = computed(() => {
    const [first] = this.taken();
    return first
      ? `${pluralize(this.taken().length, 'reading')} in this attempt; the newest: ${first.sentence}`
      : '0 readings of this kind in this attempt yet.';
  });
  readonly symptoms = computed(() =>
    this.standing().step.symptoms.map((s) => ({ value: s as string, label: SYMPTOM_WORDS[s] })),
  );
  readonly failedWords = computed(() => {
    const e = this.standing().event;
    return e?.symptom ? SYMPTOM_WORDS[e.symptom].toLowerCase() : (e?.reason ?? '');
  });
  readonly causes = computed(() => {
    const symptom = this.standing().event?.symptom;
    if (!symptom) return [];
    const seen = this.seen();
    const { chain, evaluation } = this.facts();
    const answers = seen ? answersOf(seen, this.readings.check()) : [];
    return rankedCauses(netFor(chain, undefined, priorMultipliers(evaluation)), symptom, answers)
      .slice(0, USUAL)
      .map((c) => CAUSE_WORDS[c]);
  });
  /** What the newest reading of this attempt shows; null when none has a report. */
  readonly seen = computed<ChainObservation | null>(() => {
    const attempt = this.run.attempt()?.id;
    const newest = (this.readings.entries() ?? []).find(
      (e) => e.attempt === attempt && e.reading.report,
    );
    const report = this.readings.draft()?.report ?? newest?.reading.report;
    const { kind } = this.facts().evaluation.predicted.link;
    return report ? { ...seenOf(report, kind), allOff: this.facts().order === 'all-off' } : null;
  });
  /** What that reading says is wrong at this step. */
  readonly likely = computed(() => {
    const seen = this.seen();
    return seen ? failsAt(this.standing().step.id, { seen, check: this.readings.check() }) : null;
  });
  readonly symptomWords = SYMPTOM_WORDS;
  readonly since = computed(() => {
    const good = this.run.stored()?.good;
    return good ? sinceGood(good, this.facts().chain).map(sinceWords) : [];
  });

  readonly #id = computed(() => this.standing().step.id);

  constructor() {
    // Another step: what was asked or refused at the one before is not about it.
    effect(() => {
      this.#id();
      untracked(() => {
        this.asking.set(null);
        this.problem.set(null);
      });
    });
  }

  focus(): void {
    this.title()?.nativeElement.focus();
  }

  ask(what: 'failed' | 'skipped'): void {
    if (this.standing().state !== 'open' || this.ahead() || !this.run.attempt()) return;
    this.problem.set(null);
    this.own.set('');
    this.asking.set(what);
    queueMicrotask(() => document.querySelector<HTMLElement>('rb-step-card .ask button')?.focus());
  }

  done(): void {
    const s = this.standing();
    if (s.state === 'done' || this.ahead() || !this.run.attempt()) return;
    if (this.reading() !== null && this.taken().length === 0)
      return this.problem.set(
        'Not noted: take the reading and store it first, or skip the step with a reason.',
      );
    const met = this.drafts.met(s.step);
    if (s.step.fields.some((f) => f.kind === 'outcome') && !met.outcome)
      return this.problem.set('Not noted: say how it went, one of the four.');
    const folded = this.openFolded().map((x) => ({
      step: x.step.id,
      state: 'done' as const,
      ...this.drafts.met(x.step),
    }));
    this.#note(...folded, { step: s.step.id, state: 'done', ...met, ends: this.#last() });
  }

  fail(symptom: string | null): void {
    if (symptom === null) return;
    const step = this.standing().step.id;
    this.#note({ step, state: 'failed', symptom: symptom as SymptomId });
    void this.#router.navigate(['..', 'troubleshoot'], {
      relativeTo: this.#route,
      queryParams: { see: symptom, from: `step:${step}` },
    });
  }

  failInWords(words: string): void {
    if (words.trim() === '')
      return this.problem.set('Not noted: choose what was seen, or say it in words.');
    this.#note({ step: this.standing().step.id, state: 'failed', reason: words.trim() });
  }

  skip(reason: string | null): void {
    const words = (reason ?? '').trim();
    if (words === '') return this.problem.set('Not noted: say why this step is left out.');
    this.#note({
      step: this.standing().step.id,
      state: 'skipped',
      reason: words,
      ends: this.#last(),
    });
  }

  undo(): void {
    const step = this.#undoable();
    if (step) this.#note({ step, state: 'undone' });
  }

  /** With this step everything is settled. */
  #last(): boolean {
    const mine = [this.standing(), ...this.openFolded()].map((s) => s.step.id);
    return this.run
      .list()
      .every((s) => mine.includes(s.step.id) || s.state === 'done' || s.state === 'skipped');
  }

  /** This step when something stands at it, otherwise the last one of the attempt at which something stands. */
  #undoable() {
    const s = this.standing();
    if (!this.run.attempt()) return null;
    if (s.state !== 'open') return s.step.id;
    const mine = this.run.list().filter((x) => x.state !== 'open' && x.from === null && x.event);
    const last = mine.reduce<StepStatus | null>(
      (a, b) => (a?.event && b.event && a.event.at > b.event.at ? a : b),
      null,
    );
    return last?.step.id ?? null;
  }

  #note(...sent: Parameters<BringUpRun['note']>[0][]): void {
    this.problem.set(null);
    this.asking.set(null);
    for (const s of sent) this.run.note(s);
    this.noted.emit();
  }
}
