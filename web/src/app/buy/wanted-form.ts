import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  input,
  output,
  untracked,
} from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { FormControl, FormGroup, ReactiveFormsModule, Validators } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import equal from 'fast-deep-equal';
import { CONDITIONS, type Limits, type Weights } from '@ruddy/core/buy';
import { scoutAsk, type ScoutAsk } from '@ruddy/core/buy/contract';
import type { SetupRow } from '@ruddy/core/plan/contract';
import { STANDARD_RESOLUTIONS } from '@ruddy/core/runs';
import type { ProfileEntry } from '@ruddy/core/runs/contract';
import { FORGOTTEN, FORGOTTEN_CODES, type ForgottenCode } from '@ruddy/core/setups';
import { Field } from '../platform/kit/field';
import { Fold } from '../platform/kit/fold';
import { optionsOf, type FieldMeta, type Option } from '../platform/kit/meta';
import { readyToSend, zodForm } from '../platform/kit/problems';
import { FIGURES, FLAGS, freshAsk, limitsSet, NO_LIMITS, USUAL_WEIGHTS, WEIGHTS } from './wanted';

export interface Named {
  readonly id: string;
  readonly name: string;
}

type Raw = Omit<ScoutAsk, 'forgotten' | 'pins' | 'preset'> & {
  forgotten: Record<string, number | null>;
};

const OWN = {
  free: 'Free ones cost nothing',
  all: 'Also those in other active setups',
  none: 'Do not count them',
};
const WEIGHT = ['No', 'Low', 'High', 'Top'].map((label, value) => ({ value, label }));
const named = (list: readonly Named[]): Option[] =>
  list.map((x) => ({ value: x.id, label: x.name }));
const controls = <K extends string, V>(of: Readonly<Record<K, V>>) =>
  Object.fromEntries(
    Object.entries(of).map(([k, v]) => [k, new FormControl(v as V, { nonNullable: true })]),
  ) as Record<K, FormControl<V>>;

/** The ask as the form has it; what it does not show is taken from `before`. */
function askOf(raw: Raw, before: ScoutAsk): ScoutAsk {
  const said = Object.entries(raw.forgotten).filter(([, v]) => v !== null) as [
    ForgottenCode,
    number,
  ][];
  return {
    ...before,
    ...raw,
    currency: raw.currency.trim().toUpperCase(),
    forgotten: Object.fromEntries(said) as ScoutAsk['forgotten'],
  };
}

/** Requirements of a search: host, use, budget, parts owned; further limits folded. In: the ask and what there is to choose from. Out: the changed ask. */
@Component({
  selector: 'rb-wanted-form',
  imports: [ReactiveFormsModule, MatButtonModule, Field, Fold],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './wanted-form.html',
  styleUrl: './wanted-form.scss',
})
export class WantedForm {
  readonly #el = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  readonly ask = input.required<ScoutAsk>();
  readonly hosts = input.required<readonly Named[]>();
  readonly titles = input.required<readonly ProfileEntry[]>();
  readonly setups = input.required<readonly SetupRow[]>();
  readonly screens = input.required<readonly Named[]>();
  readonly working = input(false);
  readonly changed = output<ScoutAsk>();
  readonly begin = output();
  readonly stop = output();

  readonly form = new FormGroup(
    {
      hostId: new FormControl('', { nonNullable: true, validators: Validators.required }),
      setupId: new FormControl<string | null>(null),
      titleId: new FormControl('', { nonNullable: true, validators: Validators.required }),
      ...controls({
        resolution: '2560x1440',
        panel: false,
        currency: 'EUR',
        own: 'free' as ScoutAsk['own'],
      }),
      condition: new FormControl<ScoutAsk['condition']>(null),
      screens: new FormControl<string[]>([], { nonNullable: true }),
      limits: new FormGroup(controls<keyof Limits, number | boolean | null>(NO_LIMITS)),
      weights: new FormGroup(controls<keyof Weights, number>(USUAL_WEIGHTS)),
      forgotten: new FormGroup(
        controls(
          Object.fromEntries(FORGOTTEN_CODES.map((c) => [c, null])) as Record<
            ForgottenCode,
            number | null
          >,
        ),
      ),
    },
    // Validation first runs before an ask came; what the form does not show is always valid.
    { validators: zodForm(scoutAsk, (raw: Raw) => askOf(raw, freshAsk('', '', 'EUR'))) },
  );
  readonly c = this.form.controls;

  readonly where = computed<readonly (readonly [string, FieldMeta, FormControl])[]>(() => [
    ['host', { label: 'Host', input: 'choice', options: named(this.hosts()) }, this.c.hostId],
    [
      'setup',
      {
        label: 'Base setup',
        input: 'choice',
        placeholder: 'not set',
        options: named(this.setups()),
      },
      this.c.setupId,
    ],
    ['title', { label: 'Use', input: 'choice', options: named(this.titles()) }, this.c.titleId],
    [
      'size',
      {
        label: 'Resolution',
        input: 'choice',
        options: STANDARD_RESOLUTIONS.map((r) => ({ value: r, label: r.replace('x', '×') })),
      },
      this.c.resolution,
    ],
  ]);
  readonly panel: FieldMeta = { label: "On the host's own panel", input: 'flag' };
  readonly budget = computed<FieldMeta>(() => ({
    label: 'Budget',
    input: 'money',
    placeholder: 'any',
    unit: this.ask().currency,
  }));
  readonly currency: FieldMeta = { label: 'Currency', input: 'text', max: 3 };
  readonly offers: FieldMeta = {
    label: 'Offers',
    input: 'choice',
    placeholder: 'New or used',
    options: optionsOf(CONDITIONS),
  };
  readonly own: FieldMeta = { label: 'Parts I own', input: 'choice', options: optionsOf(OWN) };
  readonly limits: readonly (readonly [keyof Limits, FieldMeta])[] = [
    ...FIGURES.map(([k, label, unit]) => [k, { label, unit, input: 'number' }] as const),
    ...FLAGS.map(([k, label]) => [k, { label, input: 'flag' }] as const),
  ];
  readonly weights = WEIGHTS.map(
    ([k, label]) => [k, { label, input: 'toggle', options: WEIGHT } as FieldMeta] as const,
  );
  readonly screensMeta = computed<FieldMeta>(() => ({
    label: 'Screens to try',
    input: 'several',
    placeholder: 'as it is',
    options: named(this.screens()),
    help: 'Each is tried in turn; with none the picture stays as it is',
  }));
  readonly forgotten = computed(() =>
    FORGOTTEN_CODES.map((c) => {
      const unit = this.ask().currency;
      const meta: FieldMeta = {
        label: FORGOTTEN[c],
        input: 'money',
        placeholder: 'not counted',
        unit,
      };
      return [c, meta] as const;
    }),
  );
  readonly limitsWords = computed(() => {
    const n = limitsSet(this.ask().limits);
    return n === 0 ? 'none set' : `${n} set`;
  });

  constructor() {
    effect(() => {
      const ask = this.ask();
      untracked(() => {
        if (!equal(this.#read(ask), ask)) this.form.reset(ask, { emitEvent: false });
      });
    });
    this.form.valueChanges.pipe(takeUntilDestroyed()).subscribe(() => {
      if (!this.#readable()) return;
      const ask = this.#read(this.ask());
      const sameHost = ask.hostId === this.ask().hostId;
      this.changed.emit(sameHost ? ask : { ...ask, setupId: null });
    });
  }

  submit(): void {
    if (readyToSend(this.form, this.#el)) this.begin.emit();
  }

  /** Host and use may still be missing. */
  #readable(): boolean {
    const own = Object.entries(this.c).every(
      ([k, c]) => c.valid || k === 'hostId' || k === 'titleId',
    );
    const issues = Object.keys((this.form.errors?.['zod'] as object | undefined) ?? {});
    return own && issues.every((path) => path === 'hostId' || path === 'titleId');
  }

  #read(before: ScoutAsk): ScoutAsk {
    return askOf(this.form.getRawValue() as unknown as Raw, before);
  }
}
