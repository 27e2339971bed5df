import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { FormControl, FormGroup, ReactiveFormsModule } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatSelectModule } from '@angular/material/select';
import { v7 } from 'uuid';
import { type Outcome, OUTCOMES } from '@ruddy/core/base';
import { PROVENANCE_LABELS, PROVENANCES, VERSION_LABELS } from '@ruddy/core/compatibility';
import { outcomeBody } from '@ruddy/core/compatibility/contract';
import type { ApiError } from '../../platform/api/api-client';
import { SetupsData } from '../../setups/setups';
import { ServerClock } from '../../platform/shared/server-clock';
import { WordAsks } from '../../platform/shared/word-asks';

export const OUTCOME_WORDS: Record<Outcome, string> = {
  works: 'Works',
  care: 'Works with care',
  unreliable: 'Unreliable',
  fails: 'Fails',
};

export interface Correction {
  id: string;
  outcome: Outcome;
  happenedOn: string;
}

const VERSION_KEYS = Object.keys(VERSION_LABELS) as (keyof typeof VERSION_LABELS)[];

/** Log what happened: result, day, versions, what was seen and tried, and how it is known. */
@Component({
  selector: 'rb-outcome-form',
  imports: [
    ReactiveFormsModule,
    MatButtonModule,
    MatFormFieldModule,
    MatInputModule,
    MatSelectModule,
    WordAsks,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './outcome-form.html',
  styleUrl: './outcome-form.scss',
})
export class OutcomeForm {
  readonly #data = inject(SetupsData);
  readonly #clock = inject(ServerClock);
  readonly setupId = input.required<string>();
  readonly corrects = input<Correction | null>(null);
  readonly stored = output();
  readonly left = output();

  readonly outcomes = OUTCOMES;
  readonly words = OUTCOME_WORDS;
  readonly provenances = PROVENANCES;
  readonly provenanceWords = PROVENANCE_LABELS;
  readonly versionKeys = VERSION_KEYS;
  readonly versionWords = VERSION_LABELS;
  readonly sending = signal(false);
  readonly errors = signal<ReadonlyMap<string, string>>(new Map());
  readonly problem = computed(() => {
    const all = [...this.errors().values()];
    return all.length === 0
      ? null
      : `Nothing stored. ${all[0] ?? ''}${all.length > 1 ? `; ${all.length - 1} more` : ''}`;
  });
  /** Made once a form: sending it twice stores it once. */
  #id = v7();

  readonly form = new FormGroup({
    outcome: new FormControl<Outcome | ''>('', { nonNullable: true }),
    happenedOn: new FormControl(this.#clock.today(), { nonNullable: true }),
    symptoms: new FormControl('', { nonNullable: true }),
    fixes: new FormControl('', { nonNullable: true }),
    provenance: new FormControl<(typeof PROVENANCES)[number]>('own', { nonNullable: true }),
    confidence: new FormControl('100', { nonNullable: true }),
    note: new FormControl('', { nonNullable: true }),
    versions: new FormGroup(
      Object.fromEntries(VERSION_KEYS.map((k) => [k, new FormControl('', { nonNullable: true })])),
    ),
  });

  readonly noteWords = toSignal(this.form.controls.note.valueChanges, { initialValue: '' });

  constructor() {
    effect(() => {
      const c = this.corrects();
      if (c)
        untracked(() => this.form.patchValue({ outcome: c.outcome, happenedOn: c.happenedOn }));
    });
  }

  send(event: Event): void {
    event.preventDefault();
    const v = this.form.getRawValue();
    const lines = (s: string) =>
      s
        .split('\n')
        .map((l) => l.trim())
        .filter((l) => l !== '');
    const percent = Number(v.confidence.replace(',', '.'));
    const parsed = outcomeBody.safeParse({
      id: this.#id,
      outcome: v.outcome,
      happenedOn: v.happenedOn,
      versions: Object.fromEntries(Object.entries(v.versions).filter(([, s]) => s.trim() !== '')),
      symptoms: lines(v.symptoms),
      fixes: lines(v.fixes),
      provenance: v.provenance,
      confidence: percent / 100,
      note: v.note,
      corrects: this.corrects()?.id ?? null,
    });
    if (!parsed.success) {
      const named: Record<string, string> = {
        outcome: 'Outcome: choose one of the four',
        confidence: 'Confidence: from 0 to 100 %',
        happenedOn: 'Day: a date like 2026-11-03',
      };
      this.errors.set(
        new Map(
          parsed.error.issues.map((i) => [
            String(i.path[0] ?? ''),
            named[String(i.path[0])] ?? i.message,
          ]),
        ),
      );
      return;
    }
    this.errors.set(new Map());
    this.sending.set(true);
    this.#data
      .addOutcome(this.setupId(), parsed.data as Parameters<SetupsData['addOutcome']>[1])
      .subscribe({
        next: () => {
          this.sending.set(false);
          this.#id = v7();
          this.form.reset();
          this.form.patchValue({ happenedOn: this.#clock.today() });
          this.stored.emit();
        },
        error: (e: ApiError) => {
          this.sending.set(false);
          this.errors.set(
            new Map(
              e.problem.errors?.map((x) => [x.path, x.message] as const) ?? [
                ['', e.problem.detail ? `${e.problem.title}. ${e.problem.detail}` : e.message],
              ],
            ),
          );
        },
      });
  }
}
