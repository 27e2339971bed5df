import { CdkTextareaAutosize } from '@angular/cdk/text-field';
import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  Injector,
  input,
  output,
  signal,
  untracked,
} from '@angular/core';
import { FormControl, ReactiveFormsModule, type ValidationErrors } from '@angular/forms';
import equal from 'fast-deep-equal';
import { MatAutocompleteModule } from '@angular/material/autocomplete';
import { MatButtonToggleModule } from '@angular/material/button-toggle';
import { MatCheckboxModule } from '@angular/material/checkbox';
import type { ErrorStateMatcher } from '@angular/material/core';
import { MatDatepickerModule } from '@angular/material/datepicker';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatIconModule } from '@angular/material/icon';
import { MatInputModule } from '@angular/material/input';
import { MatSelectModule } from '@angular/material/select';
import { codecOf } from './codec';
import { FIND_ABOVE, hintOf, limitsProblem, type FieldMeta } from './meta';
import { problemOf } from './problems';
import { Typed } from './typed';

/** Kinds whose value is typed: they are left before they count. */
const TYPED: readonly string[] = [
  'text',
  'area',
  'lines',
  'number',
  'money',
  'suggest',
  'password',
];

/**
 * One field: the Material control for its metadata, with label, unit, hint and error. In a form it shows a `control`, which holds the
 * domain value; alone it shows a `value` and sends `changed` once another one was chosen, or typed and left.
 */
@Component({
  selector: 'rb-field',
  imports: [
    CdkTextareaAutosize,
    MatAutocompleteModule,
    MatButtonToggleModule,
    MatCheckboxModule,
    MatDatepickerModule,
    MatFormFieldModule,
    MatIconModule,
    MatInputModule,
    MatSelectModule,
    ReactiveFormsModule,
    Typed,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './field.html',
  styleUrl: './field.scss',
  host: { '(change)': 'left()' },
})
export class Field<V = unknown> {
  readonly #host = inject<ElementRef<HTMLElement>>(ElementRef);
  readonly #injector = inject(Injector);
  readonly meta = input.required<FieldMeta>();
  /** Of a form; typed by its schema, a field takes any. */
  readonly control = input<FormControl | null>(null);
  /** Value of a field without a form. */
  readonly value = input<V | undefined>(undefined);
  readonly changed = output<V>();
  /** What is being typed, letter by letter. */
  readonly typing = output<V>();
  /** Sends every letter as it is typed, for texts that are saved meanwhile. */
  readonly live = input(false);
  readonly #own = new FormControl<unknown>(null);
  readonly bound = computed<FormControl>(() => this.control() ?? this.#own);
  /** A question about an odd but storable value. */
  readonly asks = input<string | null>(null);
  readonly #tick = signal(0);
  readonly #looked = signal<string | null>(null);

  readonly problem = computed(() => (this.#tick(), problemOf(this.bound())));
  readonly hint = computed(() => this.asks() ?? hintOf(this.meta()));
  readonly codec = computed(() => codecOf(this.meta()));
  readonly empty = computed(
    () => this.meta().placeholder ?? (this.meta().unsure ? 'not sure' : ''),
  );
  /** Name of the option that stores null. */
  readonly none = computed(() => {
    const { unsure, placeholder } = this.meta();
    return placeholder ?? (unsure ? 'Not sure' : null);
  });
  readonly kind = computed(() => {
    const { input, options } = this.meta();
    if (input === 'number' || input === 'money') return 'typed';
    return input === 'choice' && (options?.length ?? 0) > FIND_ABOVE ? 'find' : input;
  });
  readonly found = computed(() => {
    const words = this.#looked()?.trim().toLowerCase() ?? '';
    const all = this.meta().options ?? [];
    return words === '' ? all : all.filter((o) => o.label.toLowerCase().includes(words));
  });
  readonly shownProblem = computed(() =>
    this.#tick() >= 0 && this.bound().touched ? this.problem() : null,
  );
  readonly matcher: ErrorStateMatcher = {
    isErrorState: (c) => c !== null && c.touched && problemOf(c) !== null,
  };
  readonly labelOf = (value: unknown): string =>
    this.meta().options?.find((o) => o.value === value)?.label ?? '';

  constructor() {
    effect((done) => {
      const sub = this.bound().root.events.subscribe(() => this.#tick.update((n) => n + 1));
      done(() => sub.unsubscribe());
    });
    effect(() => {
      const value = this.value();
      if (value === undefined) return;
      // A control validates when it is made, before there is a label or a limit.
      this.#own.setValidators(() => this.#refused());
      untracked(() => {
        if (!equal(this.#own.value, value)) this.#own.setValue(value, { emitEvent: false });
      });
    });
    effect(() => {
      if (this.kind() === 'find') this.#keepFocus();
    });
    this.#own.valueChanges.subscribe(() => {
      if (this.#waits()) this.typing.emit(this.#own.value as V);
      else this.#send();
    });
  }

  /** A typed text was left, or Enter was pressed in it. */
  left(): void {
    if (this.#waits()) this.#send();
  }

  /** A list that was opened before its options came is, with many of them, replaced by a box to type in: the focus goes there, which opens it. */
  #keepFocus(): void {
    const host = this.#host.nativeElement;
    if (!host.contains(document.activeElement)) return;
    afterNextRender(() => host.querySelector('input')?.focus(), { injector: this.#injector });
  }

  #refused(): ValidationErrors | null {
    const meta = this.meta();
    const { value } = this.#own;
    const why = limitsProblem(meta, value) ?? meta.check?.(value) ?? null;
    return why === null ? null : { limits: why };
  }

  #waits(): boolean {
    if (this.live()) return false;
    return TYPED.includes(this.meta().input) || this.meta().input === 'day';
  }

  #send(): void {
    if (this.control() !== null || !this.#own.valid || equal(this.#own.value, this.value())) return;
    this.changed.emit(this.#own.value as V);
  }

  /** Puts text behind what stands in its box, as if it had been typed there, and takes the focus. */
  typeInto(text: string): void {
    const box = this.#host.nativeElement.querySelector('input');
    if (!box) return;
    // Put in at once: the next key goes into the box itself, before the page is drawn again.
    box.value += text;
    box.focus();
    box.dispatchEvent(new Event('input', { bubbles: true }));
  }

  /** Filters the options of a choice found by typing; null shows all. */
  look(text: string | null): void {
    this.#looked.set(text);
  }
}
