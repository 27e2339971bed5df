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
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import {
  FormControl,
  FormGroup,
  type FormGroupDirective,
  ReactiveFormsModule,
} from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { v7 } from 'uuid';
import { type Outcome, OUTCOMES } from '@ruddy/core/base';
import { PROVENANCE_LABELS, type PROVENANCES, VERSION_LABELS } from '@ruddy/core/compatibility';
import { outcomeBody } from '@ruddy/core/compatibility/contract';
import { Acts } from '../../platform/kit/ask';
import { Field } from '../../platform/kit/field';
import { Fold } from '../../platform/kit/fold';
import { optionsOf, type FieldMeta } from '../../platform/kit/meta';
import { readyToSend, zodForm } from '../../platform/kit/problems';
import { day } from '../../platform/shared/format';
import { ServerClock } from '../../platform/shared/server-clock';
import { WordAsks } from '../../platform/shared/word-asks';
import { SetupsData } from '../../setups/setups';

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
const text = () => new FormControl('', { nonNullable: true });
const lines = () => new FormControl<string[]>([], { nonNullable: true });

/** What of the form is not as the request has it. */
interface Raw {
  readonly versions: Readonly<Record<string, string>>;
  readonly confidence: number | null;
}

/** Log what happened: result, day, versions, what was seen and tried, and how it is known. */
@Component({
  selector: 'rb-outcome-form',
  imports: [ReactiveFormsModule, MatButtonModule, WordAsks, Field, Fold],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './outcome-form.html',
  styleUrl: './outcome-form.scss',
})
export class OutcomeForm {
  readonly #data = inject(SetupsData);
  readonly #clock = inject(ServerClock);
  readonly #el = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  readonly acts = inject(Acts);
  readonly setupId = input.required<string>();
  readonly corrects = input<Correction | null>(null);
  readonly stored = output();
  readonly left = output();
  readonly words = OUTCOME_WORDS;
  readonly day = day;
  readonly problem = signal<string | null>(null);
  /** Made once a form: sending it twice stores it once. */
  #id = v7();

  readonly form = new FormGroup(
    {
      outcome: new FormControl<Outcome | null>(null),
      happenedOn: new FormControl<string | null>(this.#clock.today()),
      provenance: new FormControl<(typeof PROVENANCES)[number]>('own', { nonNullable: true }),
      confidence: new FormControl<number | null>(100),
      symptoms: lines(),
      fixes: lines(),
      note: text(),
      versions: new FormGroup(Object.fromEntries(VERSION_KEYS.map((k) => [k, text()]))),
    },
    { validators: zodForm(outcomeBody, (raw: Raw) => bodyOf(raw, this.#id, null)) },
  );
  readonly c = this.form.controls;
  readonly outcome: FieldMeta = {
    label: 'What happened',
    input: 'toggle',
    options: OUTCOMES.map((o) => ({ value: o, label: OUTCOME_WORDS[o] })),
  };
  readonly top: readonly (readonly [string, FieldMeta, FormControl])[] = [
    ['on', { label: 'Date', input: 'day' }, this.c.happenedOn],
    [
      'known',
      { label: 'Source', input: 'choice', options: optionsOf(PROVENANCE_LABELS) },
      this.c.provenance,
    ],
    ['sure', { label: 'Confidence', input: 'number', unit: '%' }, this.c.confidence],
  ];
  readonly seen: FieldMeta = { label: 'Symptoms', input: 'lines' };
  readonly changed: FieldMeta = { label: 'Changes made', input: 'lines' };
  readonly note: FieldMeta = { label: 'Private note', input: 'area' };
  readonly versions = VERSION_KEYS.map((k) => {
    const meta: FieldMeta = { label: VERSION_LABELS[k], input: 'text', placeholder: 'not noted' };
    return [k, meta, this.c.versions.controls[k] ?? text()] as const;
  });
  readonly #raw = toSignal(this.form.valueChanges);
  readonly noted = computed(
    () => Object.values(this.#raw()?.versions ?? {}).filter((v) => v !== '').length,
  );
  readonly noteWords = computed(() => this.#raw()?.note ?? '');

  constructor() {
    effect(() => {
      const c = this.corrects();
      if (c)
        untracked(() => this.form.patchValue({ outcome: c.outcome, happenedOn: c.happenedOn }));
    });
  }

  /** Brings the form into view, with the focus on its first field. */
  show(): void {
    this.#el.scrollIntoView({ block: 'start' });
    this.#el.querySelector<HTMLElement>('button')?.focus({ preventScroll: true });
  }

  send(of: FormGroupDirective): void {
    this.problem.set(null);
    if (!readyToSend(this.form, this.#el))
      return this.problem.set('Not saved. See the marked fields.');
    const body = outcomeBody.parse(
      bodyOf(this.form.getRawValue(), this.#id, this.corrects()?.id ?? null),
    );
    this.acts.send(this.form, this.#data.addOutcome(this.setupId(), body), {
      line: this.problem,
      done: `Logged: ${OUTCOME_WORDS[body.outcome].toLowerCase()}, ${day(body.happenedOn)}.`,
      then: () => {
        this.#id = v7();
        of.resetForm();
        this.form.patchValue({ happenedOn: this.#clock.today(), confidence: 100 });
        this.stored.emit();
      },
    });
  }
}

/** Request body of the form; versions not noted are left out. */
function bodyOf(raw: Raw, id: string, corrects: string | null): unknown {
  const noted = Object.entries(raw.versions).filter(([, s]) => s.trim() !== '');
  return {
    ...raw,
    id,
    corrects,
    versions: Object.fromEntries(noted),
    confidence: raw.confidence === null ? null : raw.confidence / 100,
  };
}
