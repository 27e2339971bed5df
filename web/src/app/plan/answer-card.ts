import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  signal,
  type OnInit,
} from '@angular/core';
import { FormControl, FormGroup, ReactiveFormsModule, type ValidatorFn } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatCardModule } from '@angular/material/card';
import { type AttrMeta, VALUE_SOURCES, type ValueSource } from '@ruddy/core/parts';
import type { OpenQuestion } from '@ruddy/core/plan';
import { AREA_NOUNS, minutesOf, typicalWords } from '@ruddy/core/plan/text';
import { Answers, placeOf } from './answers';
import { SetupEditor } from '../setups/setup-editor';
import { Field } from '../platform/kit/field';
import { fieldOf, type FieldMeta } from '../platform/kit/meta';
import { storable, type AnswerTarget } from './answer-target';
import { ServerClock } from '../platform/shared/server-clock';
import { Acts } from '../platform/kit/ask';

/** With more options than this a choice is a list to open. */
const MAX_TOGGLES = 3;
/** How long an answer can be taken back from the message that confirms it, ms. */

const SOURCE: FieldMeta = {
  label: 'Known from',
  input: 'choice',
  placeholder: 'as described',
  options: Object.entries(VALUE_SOURCES).map(([value, label]) => ({ value, label })),
};

/** Where an answer found out in this way most likely comes from. */
function usualSource(how: string): ValueSource {
  if (/tape|measure|scale|meter/i.test(how)) return 'measured';
  return /manual|data sheet|support page/i.test(how) ? 'paper' : 'label';
}

/** A number outside its limits, in words; null where it is within them or not a number. */
function outside(value: unknown, m: AttrMeta): string | null {
  const ends =
    typeof value === 'number'
      ? [value]
      : value !== null && typeof value === 'object'
        ? Object.values(value)
        : [];
  const wrong = ends.some(
    (n) =>
      typeof n === 'number' &&
      ((m.min !== undefined && n < m.min) || (m.max !== undefined && n > m.max)),
  );
  return wrong ? `${m.label}: ${m.min} to ${m.max}${m.unit ? ` ${m.unit}` : ''}` : null;
}

/** One thing worth finding out, with its own input: it is answered where it is asked, and can be taken back. */
@Component({
  selector: 'rb-answer-card',
  imports: [ReactiveFormsModule, MatCardModule, MatCheckboxModule, MatButtonModule, Field],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <mat-card appearance="outlined" [class.decides]="question().decides">
      <p class="what">{{ title() }}</p>
      <p class="hint">{{ facts() }}</p>
      @if (question().meta.findOut; as find) {
        <p class="quiet">{{ find.how }}</p>
      }
      @if (typical(); as words) {
        <p class="hint">{{ words }}</p>
      }
      @if (place()) {
        <form [formGroup]="form" (ngSubmit)="save()" [attr.aria-label]="'Answer: ' + title()">
          <rb-field [meta]="meta()" [control]="form.controls.value" />
          <rb-field [meta]="source" [control]="form.controls.from" />
          <button mat-flat-button type="submit" [disabled]="busy()">Save</button>
          @if (item()) {
            <mat-checkbox class="only" [formControl]="form.controls.only"
              >For this item only, not for others of its part</mat-checkbox
            >
          }
        </form>
        @if (problem(); as why) {
          <p class="problem" role="alert">{{ why }}</p>
        }
      }
    </mat-card>
  `,
  styles: `
    mat-card {
      padding: 8px 12px;
      gap: 2px;
    }
    mat-card.decides {
      border-left: 4px solid var(--stone);
    }
    .what {
      font-size: 15px;
      font-weight: 600;
    }
    form {
      display: grid;
      grid-template-columns: minmax(0, 1.2fr) minmax(0, 1fr) auto;
      gap: 8px;
      align-items: start;
      margin-top: 6px;
    }
    .only {
      grid-column: 1 / -1;
    }
    @media (max-width: 480px) {
      form {
        grid-template-columns: minmax(0, 1fr);
      }
    }
  `,
})
export class AnswerCard implements OnInit {
  readonly #editor = inject(SetupEditor, { optional: true });
  readonly #answers = inject(Answers);
  readonly #acts = inject(Acts);
  readonly #clock = inject(ServerClock);
  readonly question = input.required<OpenQuestion>();
  /** What it is about; the setup of this page where nothing is said. */
  readonly target = input<AnswerTarget | null>(null);
  readonly source = SOURCE;
  readonly busy = signal(false);
  readonly problem = signal<string | null>(null);

  readonly #within: ValidatorFn = (c) => {
    const why = outside(c.value, this.question().meta);
    return why === null ? null : { limits: why };
  };

  ngOnInit(): void {
    // Not before: a validator runs as soon as it is given, and the question is there only now.
    this.form.controls.value.addValidators(this.#within);
  }

  readonly form = new FormGroup({
    value: new FormControl<unknown>(null),
    from: new FormControl<unknown>(null),
    only: new FormControl(false, { nonNullable: true }),
  });

  readonly title = computed(() => `${this.question().meta.label} of the ${this.question().part}`);
  readonly facts = computed(() => {
    const { area, decides, meta } = this.question();
    const what = area
      ? `${AREA_NOUNS[area]} depends on it`
      : decides
        ? 'decides the verdict'
        : 'narrows a figure';
    return [what, meta.findOut ? minutesOf(meta.findOut.minutes) : '']
      .filter((s) => s !== '')
      .join(', ');
  });
  /** What parts of this kind usually have: a guess, which is no answer. */
  readonly typical = computed(() => typicalWords(this.question().meta));
  readonly meta = computed<FieldMeta>(() => {
    const m = fieldOf(this.question().meta);
    return m.input === 'choice' && (m.options?.length ?? 0) <= MAX_TOGGLES
      ? { ...m, input: 'toggle' }
      : m;
  });
  readonly #about = computed<AnswerTarget | null>(() => {
    const given = this.target();
    const editor = this.#editor;
    if (given || !editor) return given;
    return {
      fields: () => editor.fields(),
      change: (patch) => editor.change(patch),
      refresh: () => editor.refresh(),
    };
  });
  readonly place = computed(() => {
    const about = this.#about();
    const fields = about?.fields() ?? null;
    return about && fields ? storable(placeOf(this.question().path, fields), about) : null;
  });

  /** The very item that stands in the place that is asked about. */
  readonly item = computed(() => {
    const place = this.place();
    return place?.of === 'part' ? place.item : null;
  });

  save(): void {
    const about = this.#about();
    const place = this.place();
    const { value, from, only } = this.form.getRawValue();
    this.form.markAllAsTouched();
    if (!about || !place || this.busy()) return;
    const empty = value === null || value === '';
    this.problem.set(
      empty
        ? `Not saved. Enter ${this.title().charAt(0).toLowerCase()}${this.title().slice(1)}.`
        : null,
    );
    if (empty || this.form.invalid) return;
    if (place.of === 'setup') {
      about.change?.(place.patch(value));
      // By the fields as they are then: what was changed since stays.
      this.#say(value, () => {
        const now = this.place();
        if (now?.of === 'setup') about.change?.(now.patch(place.was));
      });
      return;
    }
    const known = (from ?? usualSource(this.question().meta.findOut?.how ?? '')) as ValueSource;
    const source = { from: known, on: this.#clock.today(), note: '', kept: false };
    const stored$ =
      only && place.item
        ? this.#answers.saveItem(place, value, source)
        : this.#answers.save(place, value, source);
    this.#acts.run(stored$, {
      line: this.problem,
      running: this.busy,
      then: (stored) => {
        about.refresh();
        this.#say(value, () =>
          this.#acts.run(stored.undo(), {
            failed: 'Not undone.',
            then: () => about.refresh(),
          }),
        );
      },
    });
  }

  #say(value: unknown, undo: () => void): void {
    const m = this.question().meta;
    const range = value as { lo: number; hi: number };
    const shown =
      typeof value === 'object'
        ? `${range.lo} to ${range.hi}`
        : (m.options?.find((o) => o.value === value)?.label ?? String(value as string));
    this.#acts.say(`${this.title()}: ${shown}${m.unit ? ` ${m.unit}` : ''}. Saved.`, undo);
  }
}
