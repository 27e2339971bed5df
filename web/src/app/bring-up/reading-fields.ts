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
  viewChildren,
} from '@angular/core';
import { NgTemplateOutlet } from '@angular/common';
import { toSignal } from '@angular/core/rxjs-interop';
import type { FormControl } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { map } from 'rxjs';
import { v7 } from 'uuid';
import { COPY_UNITS, inGbps, type Report } from '@ruddy/core/bring-up';
import { READ_COMMAND } from '@ruddy/core/bring-up/text';
import { LinkReadings } from './link-readings';
import { SetupEditor } from '../setups/setup-editor';
import { SetupsData } from '../setups/setups';
import { Choice } from '../platform/kit/choice';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';
import { problemOf, readyToSend } from '../platform/kit/problems';
import {
  COUNT_FIELDS,
  HOW_FIELDS,
  isBlank,
  RATE_FIELD,
  readingForm,
  readingOf,
  SLOT_FIELDS,
  takeFromBench,
  TUNNEL_FIELDS,
} from './reading-form';
import { FromBench, type BenchTaken } from './from-bench';
import { ReportBox } from '../chain/report-box';
import { Fold } from '../platform/kit/fold';
import { Acts } from '../platform/kit/ask';

const BEHIND = {
  tunnel: 'behind the tunnel',
  direct: 'straight on a port of the host',
  'built-in': 'inside the processor',
} as const;

/** Take a reading: type it, paste what the system prints, or both. What is typed is judged at once and stored on demand. */
@Component({
  selector: 'rb-reading-fields',
  imports: [Choice, Field, Fold, FromBench, MatButtonModule, NgTemplateOutlet, ReportBox],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './reading-fields.html',
  styleUrl: './reading-fields.scss',
})
export class ReadingFields {
  readonly #acts = inject(Acts);
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
  readonly reading = readingForm();
  readonly copy = this.reading.controls.copy;
  readonly rate = RATE_FIELD;
  readonly note: FieldMeta = { label: 'Note', input: 'area', max: 2000 };
  readonly storing = signal(false);
  readonly line = signal<string | null>(null);
  readonly #waiting = signal(false);
  readonly fields = viewChildren(Field);
  readonly folds = viewChildren(Fold);
  readonly box = viewChild.required(ReportBox);

  /** Values of the form, anew with each change. */
  readonly now = toSignal(this.reading.valueChanges.pipe(map(() => this.reading.getRawValue())), {
    initialValue: this.reading.getRawValue(),
  });
  readonly blank = computed(() => isBlank(this.now()));
  readonly direct = computed(
    () => this.#editor.judgement()?.evaluation.predicted.link.kind === 'direct',
  );
  readonly how = HOW_FIELDS;
  readonly spans = computed(() =>
    this.direct() ? SLOT_FIELDS : [...SLOT_FIELDS, ...TUNNEL_FIELDS],
  );
  readonly measured = computed(() =>
    this.now().report ? (this.readings.check()?.measured ?? null) : null,
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
    const { value } = this.now().copy;
    if (!copy?.perhaps || value === null) return null;
    return `${value} ${copy.perhaps} would be ${inGbps(value, copy.perhaps).toFixed(1)} Gb/s, which is healthy here. Is the unit right?`;
  });
  readonly cardMeta = computed<FieldMeta>(() => ({
    label: 'Card',
    input: 'choice',
    placeholder: this.measured()?.card?.address ?? 'not found',
    options: (this.measured()?.cards ?? []).map((c) => ({
      value: c.address,
      label: `${c.name || 'graphics'} at ${c.address}`,
    })),
  }));

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
    effect(() => {
      this.now();
      this.readings.draft.set(this.blank() ? null : readingOf(this.reading));
    });
  }

  #notSaved(): void {
    this.#waiting.set(false);
    this.storing.set(false);
    this.line.set(
      'The plan itself is not saved yet; settle that at the top of the page, then save the reading.',
    );
  }

  controlOf(path: string): FormControl {
    return this.reading.get(path) as FormControl;
  }

  take(report: Report): void {
    this.reading.patchValue({ report, card: null });
  }

  putAside(): void {
    this.reading.patchValue({ report: null, card: null });
  }

  /** What a bench gave, as if it had been typed: the user sees it, may change it, and saves it. */
  fromBench(taken: BenchTaken): void {
    takeFromBench(this.reading, taken, this.copies());
  }

  clear(): void {
    this.reading.reset();
    this.line.set(null);
  }

  /** A digit typed anywhere on the page goes into the figure. */
  digit(d: string): void {
    this.fields()[0]?.typeInto(d);
  }

  store(form: HTMLElement): void {
    this.line.set(null);
    if (!readyToSend(this.reading, form)) {
      // A wrong figure in a closed section could not take the focus.
      if (!this.blank()) this.folds().forEach((f) => f.open.set(true));
      const whole = (this.reading.errors?.['zod'] as Record<string, string> | undefined)?.['copy'];
      const figure = problemOf(this.copy.controls.value);
      this.line.set(figure ?? whole ?? 'See the marked fields.');
      return;
    }
    this.storing.set(true);
    // The chain is judged as it is stored: what is not saved yet goes first, and the reading follows.
    this.#editor.flush();
    this.#waiting.set(true);
  }

  #send(): void {
    const id = this.#editor.stored()?.id;
    const reading = readingOf(this.reading);
    this.#waiting.set(false);
    if (!id || !reading) {
      this.storing.set(false);
      return;
    }
    const body = { id: v7(), reading, attempt: this.attempt() };
    this.#acts.run(this.#data.addReading(id, body), {
      line: this.line,
      running: this.storing,
      then: ({ items }) => {
        this.readings.stored(items);
        this.clear();
      },
    });
  }
}
