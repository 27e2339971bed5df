import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  signal,
  untracked,
} from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { catchError, debounceTime, map, of, Subject, switchMap } from 'rxjs';
import type { Chain } from '@ruddy/core/chain';
import {
  PROVENANCE_LABELS,
  SHARED_ATTRIBUTES,
  type SharedAttribute,
} from '@ruddy/core/compatibility';
import type { EvidenceAnswer, WeightedEntryView } from '@ruddy/core/compatibility/contract';
import {
  evidenceWords,
  expectationWords,
  SHARE_WORDS,
  sharesWords,
} from '@ruddy/core/compatibility/text';
import type { ApiError } from '../platform/api/api-client';
import { LogData } from './log';
import { OUTCOME_WORDS } from '../plan/record/outcome-form';
import { versionWords } from '../plan/record/version-words';
import { day } from '../platform/shared/format';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';
import { Fold } from '../platform/kit/fold';
import { MatButtonModule } from '@angular/material/button';
import { Rows } from '../platform/kit/rows';
import { Cell } from '../platform/kit/cell';
import type { ShortColumn } from '../platform/kit/columns';

const PAGE = 20;
type Tried = Partial<EvidenceAnswer['weights']>;
const WEIGHTS: readonly { key: keyof Tried; label: string; max: number }[] = [
  ...SHARED_ATTRIBUTES.map((s: SharedAttribute) => ({ key: s, label: SHARE_WORDS[s], max: 1 })),
  { key: 'changed', label: 'changed versions keep', max: 1 },
  { key: 'strength', label: 'near ones weigh at most, entries', max: 100 },
];
const pc = (v: number) => `${(v * 100).toFixed(0)} %`;

/**
 * What the log says of a chain: counts with their interval, what is to be expected, and the entries behind both, each with the factors
 * it counts by. Weights can be tried otherwise and an entry left out; nothing of that is stored.
 */
@Component({
  selector: 'rb-evidence-panel',
  imports: [Cell, Field, Rows, MatButtonModule, Fold, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './evidence-panel.html',
  styleUrl: './evidence-panel.scss',
})
export class EvidencePanel {
  readonly evidencePanelColumns: readonly ShortColumn[] = [
    { key: 'day', name: 'Day' },
    { key: 'outcome', name: 'Outcome' },
    { key: 'chain', name: 'Chain' },
    { key: 'shares', name: 'Shares' },
    { key: 'versions', name: 'Versions' },
    { key: 'known', name: 'Known' },
    { key: 'counts', name: 'Counts' },
    { key: 'whatIf', name: 'What if', silent: true },
  ];
  readonly #log = inject(LogData);
  readonly #ask = new Subject<void>();
  readonly chain = input.required<Chain>();
  readonly open = signal(false);
  readonly answer = signal<EvidenceAnswer | null>(null);
  readonly problem = signal<string | null>(null);
  readonly tried = signal<Tried>({});
  /** The entry that is left out, with what was said before. */
  readonly without = signal<{ id: string; words: string; before: string } | null>(null);
  readonly shown = signal(PAGE);
  readonly outcomes = OUTCOME_WORDS;
  readonly provenance = PROVENANCE_LABELS;
  readonly day = day;
  readonly versions = versionWords;
  readonly shares = sharesWords;

  readonly fields = computed(() => {
    const weights = this.answer()?.weights;
    return WEIGHTS.map(({ key, label, max }) => ({
      key,
      meta: {
        label,
        input: 'number',
        min: 0,
        max,
        placeholder: String(weights?.[key] ?? ''),
      } satisfies FieldMeta,
    }));
  });
  readonly said = computed(() => {
    const a = this.answer();
    return a ? evidenceWords(a.summary) : 'Asking the log …';
  });
  readonly expected = computed(() => {
    const a = this.answer();
    return a ? expectationWords(a.expected, a.summary) : '';
  });
  readonly groups = computed(() => {
    const all = this.answer()?.entries ?? [];
    return [
      { name: 'Exactly this chain', rows: all.filter((e) => e.exact) },
      { name: 'Near ones, by what they share', rows: all.filter((e) => !e.exact) },
    ];
  });
  readonly trying = computed(() => Object.keys(this.tried()).length > 0);

  constructor() {
    effect(() => {
      this.chain();
      untracked(() => {
        this.without.set(null);
        if (this.open()) this.#ask.next();
      });
    });
    this.#ask
      .pipe(
        debounceTime(150),
        switchMap(() =>
          this.#log
            .evidence(this.chain(), {
              weights: this.tried(),
              without: this.without()?.id ?? null,
              limit: this.shown(),
            })
            .pipe(
              map((answer) => ({ answer, problem: null })),
              catchError((e: ApiError) => of({ answer: null, problem: e.message })),
            ),
        ),
        takeUntilDestroyed(),
      )
      .subscribe(({ answer, problem }) => {
        if (answer) this.answer.set(answer);
        this.problem.set(problem);
      });
  }

  toggled(open: boolean): void {
    this.open.set(open);
    if (open) this.#ask.next();
  }

  /** How an entry counts, every factor named. */
  factors(e: WeightedEntryView): string {
    const parts = [e.exact ? '1' : e.shared.toFixed(2)];
    if (e.versions !== 1) parts.push(`${e.versions.toFixed(2)} versions changed`);
    if (e.told !== 1) parts.push(`${e.told.toFixed(2)} reported by others`);
    return parts.length === 1
      ? e.weight.toFixed(2)
      : `${parts.join(' × ')} = ${e.weight.toFixed(2)}`;
  }

  leaveOut(e: WeightedEntryView): void {
    const words = `${this.outcomes[e.entry.outcome]}, ${day(e.entry.happenedOn)}, ${e.entry.chain.host}`;
    this.without.set({ id: e.entry.id, words, before: `${this.said()} ${this.expected()}` });
    this.#ask.next();
  }

  takeIn(): void {
    this.without.set(null);
    this.#ask.next();
  }

  more(): void {
    this.shown.set(200);
    this.#ask.next();
  }

  /** Tries a weight; null as the house rules have it. */
  weight(key: keyof Tried, value: number | null): void {
    this.tried.update((t) => {
      const { [key]: gone, ...rest } = t;
      void gone;
      return value === null ? rest : { ...rest, [key]: value };
    });
    this.#ask.next();
  }

  asHouse(): void {
    this.tried.set({});
    this.#ask.next();
  }

  readonly percent = pc;
}
