import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  input,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { v7 } from 'uuid';
import { COPY_UNITS, inGbps, type Report } from '@ruddy/core/bring-up';
import { READ_COMMAND } from '@ruddy/core/bring-up/text';
import type { ApiError } from '../platform/api/api-client';
import { LinkReadings } from './link-readings';
import { SetupEditor } from '../setups/setup-editor';
import { SetupsData } from '../setups/setups';
import { Choice } from '../platform/shared/choice';
import {
  COUNT_FIELDS,
  FRESH,
  HOW_FIELDS,
  isBlank,
  readTyped,
  typedFromBench,
  SLOT_FIELDS,
  TUNNEL_FIELDS,
  type NumberField,
  type TypedReading,
} from './reading-form';
import { FromBench, type BenchTaken } from './from-bench';
import { ReportBox } from '../chain/report-box';
import { Fold } from '../platform/kit/fold';

const BEHIND = {
  tunnel: 'behind the tunnel',
  direct: 'straight on a port of the host',
  'built-in': 'inside the processor',
} as const;

/** Take a reading: type it, paste what the system prints, or both. What is typed is judged at once and stored on demand. */
@Component({
  selector: 'rb-reading-fields',
  imports: [Fold, MatButtonModule, ReportBox, Choice, FromBench],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './reading-fields.html',
  styleUrl: './reading-fields.scss',
})
export class ReadingFields {
  readonly #data = inject(SetupsData);
  readonly #editor = inject(SetupEditor);
  readonly readings = inject(LinkReadings);
  #of: string | undefined;
  /** The attempt it is taken in, if any. */
  readonly attempt = input<string | null>(null);
  /** Counters are what is asked for. */
  readonly counts = input(false);
  readonly spansOpen = input(false);
  /** Which copy rate a bench is asked for; none where another thing is read. */
  readonly copies = input<'down' | 'up' | null>('down');
  readonly units = COPY_UNITS.map((u) => ({ value: u, label: u }));
  readonly directions = [
    { value: 'down', label: 'host to card' },
    { value: 'up', label: 'card to host' },
  ];
  readonly memories = [
    { value: 'pinned', label: 'pinned memory' },
    { value: 'pageable', label: 'pageable memory' },
  ];
  readonly countFields = COUNT_FIELDS;
  readonly command = READ_COMMAND;
  readonly loads = [
    { value: 'load', label: 'under load' },
    { value: 'idle', label: 'idle' },
  ];
  readonly typed = signal<TypedReading>(FRESH);
  readonly tried = signal(false);
  readonly storing = signal(false);
  readonly refused = signal<string | null>(null);
  readonly #waiting = signal(false);
  readonly value = viewChild.required<ElementRef<HTMLInputElement>>('value');
  readonly box = viewChild.required(ReportBox);

  readonly read = computed(() => readTyped(this.typed()));
  readonly blank = computed(() => isBlank(this.typed()));
  readonly firstError = computed(() => [...this.read().errors.values()][0] ?? null);
  readonly direct = computed(
    () => this.#editor.judgement()?.evaluation.predicted.link.kind === 'direct',
  );
  readonly how = HOW_FIELDS;
  readonly spans = computed(() =>
    this.direct() ? SLOT_FIELDS : [...SLOT_FIELDS, ...TUNNEL_FIELDS],
  );
  readonly measured = computed(() =>
    this.typed().report ? (this.readings.check()?.measured ?? null) : null,
  );
  readonly foundWords = computed(() => {
    const m = this.measured();
    if (!m?.card) return 'No card behind a link found.';
    const driver = m.card.driver ? `, held by the driver "${m.card.driver}"` : '';
    return `${m.card.name || 'The card'} at ${m.card.address}, ${BEHIND[m.card.behind]}${driver}.`;
  });
  /** A figure that fits another unit is asked about, never changed. */
  readonly hint = computed(() => {
    const copy = this.readings.draft() ? this.readings.check()?.copy : null;
    const value = this.read().reading?.copy?.value;
    if (!copy?.perhaps || value === undefined) return null;
    return `${this.typed().value} ${copy.perhaps} would be ${inGbps(value, copy.perhaps).toFixed(1)} Gb/s, which is healthy here. Is the unit right?`;
  });

  constructor() {
    // Another setup: its readings are its own.
    effect(() => {
      const id = this.#editor.stored()?.id;
      untracked(() => {
        if (id !== this.#of) this.clear();
        this.#of = id;
      });
    });
    effect(() => {
      const waiting = this.#waiting();
      const save = this.#editor.save();
      if (!waiting || save.kind === 'unsaved' || save.kind === 'saving') return;
      untracked(() => (save.kind === 'saved' ? this.#send() : this.#notSaved()));
    });
    effect(() => this.readings.draft.set(this.blank() ? null : this.read().reading));
  }

  #notSaved(): void {
    this.#waiting.set(false);
    this.storing.set(false);
    this.refused.set(
      'The plan itself is not saved yet; settle that at the top of the page, then store the reading.',
    );
  }

  error(place: string): string | null {
    return this.tried() || place === 'copy/value' ? (this.read().errors.get(place) ?? null) : null;
  }

  /** A choice from a list of this form: its values are the ones the list offers. */
  choose(key: 'unit' | 'direction' | 'memory' | 'traffic' | 'load', value: string | null): void {
    this.set({ [key]: value ?? '' });
  }

  type(key: NumberField['key'], value: string): void {
    this.set({ [key]: value });
  }

  set(change: Partial<TypedReading>): void {
    this.typed.update((t) => ({ ...t, ...change }));
    this.refused.set(null);
  }

  take(report: Report): void {
    this.set({ report, card: null });
  }

  /** What a bench gave, as if it had been typed: the person sees it, may change it, and stores it. */
  fromBench(taken: BenchTaken): void {
    const way = this.copies();
    this.set({ ...typedFromBench(taken, way), report: taken.reading.report, card: null });
  }

  clear(): void {
    this.typed.set(FRESH);
    this.tried.set(false);
    this.refused.set(null);
  }

  /** A digit typed anywhere on the page goes into the figure. */
  digit(d: string): void {
    // Put in at once: the next key goes into the field itself, before the page is drawn again.
    const field = this.value().nativeElement;
    field.value += d;
    field.focus();
    this.set({ value: field.value });
  }

  store(event: Event): void {
    event.preventDefault();
    this.tried.set(true);
    if (!this.read().reading) return;
    this.storing.set(true);
    // The chain is judged as it is stored: what is not saved yet goes first, and the reading follows.
    this.#editor.flush();
    this.#waiting.set(true);
  }

  #send(): void {
    const id = this.#editor.stored()?.id;
    const { reading } = this.read();
    this.#waiting.set(false);
    if (!id || !reading) {
      this.storing.set(false);
      return;
    }
    this.#data.addReading(id, { id: v7(), reading, attempt: this.attempt() }).subscribe({
      next: ({ items }) => {
        this.storing.set(false);
        this.readings.stored(items);
        this.clear();
      },
      error: (e: ApiError) => {
        this.storing.set(false);
        this.refused.set(e.message);
      },
    });
  }
}
