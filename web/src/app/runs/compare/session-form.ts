import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { FormControl, FormGroup, Validators } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { v7 } from 'uuid';
import { repeatsText } from '@ruddy/core/base/text';
import {
  type Dimension,
  DIMENSIONS,
  type Factor,
  FACTS,
  leastReachable,
  MAX_REPEATS,
  planSession,
  repeatsFor,
  SWAP_MINUTES,
  type TitleScatter,
  titleScatters,
} from '@ruddy/core/runs';
import type { RunEntry, SessionBody } from '@ruddy/core/runs/contract';
import { groupRuns, mainValues } from '../run-groups';
import type { ShortColumn } from '../../platform/kit/columns';
import { Field } from '../../platform/kit/field';
import { Fold } from '../../platform/kit/fold';
import { readyToSend } from '../../platform/kit/problems';
import type { FieldMeta } from '../../platform/kit/meta';
import { Rows } from '../../platform/kit/rows';
import { pluralize } from '../../platform/shared/format';

/** What is asked, and what varies for it. Everything else is to be held. */
const QUESTIONS: readonly { value: string; label: string; varies: Dimension }[] = [
  { value: 'panel', label: 'What does the way back to the panel cost?', varies: 'screenPath' },
  { value: 'card', label: 'Does the bigger card pay?', varies: 'card' },
  { value: 'link', label: 'What does the link cost against another?', varies: 'link' },
  { value: 'cable', label: 'Does the cable matter?', varies: 'cable' },
  { value: 'host', label: 'Does the host matter?', varies: 'host' },
  { value: 'lid', label: 'Lid open or closed?', varies: 'lid' },
  { value: 'power', label: 'Which power mode?', varies: 'powerMode' },
  { value: 'driver', label: 'Did the driver change anything?', varies: 'driver' },
  { value: 'devices', label: 'Card, processor, or both?', varies: 'deviceSet' },
];
const USUAL: Partial<Record<Dimension, string>> = {
  screenPath: "Screen on the card; Host's own panel",
  lid: 'open; closed',
  resolution: '1920x1080; 2560x1440',
  powerMode: 'Performance; Quiet',
};

/** Plan a session: the question fixes what varies; at which levels, along what else, and how small a difference shall be told apart. */
@Component({
  selector: 'rb-session-form',
  imports: [Field, Fold, MatButtonModule, Rows],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './session-form.html',
  styles: `
    form,
    .grid {
      display: grid;
      gap: 8px 16px;
    }
    .grid {
      grid-template-columns: repeat(auto-fit, minmax(220px, 1fr));
    }
  `,
})
export class SessionForm {
  readonly counted = pluralize;
  readonly runs = input.required<readonly RunEntry[]>();
  readonly setupId = input('');
  readonly planned = output<SessionBody>();
  readonly question = signal('panel');
  readonly name = signal('');
  readonly title = signal('');
  readonly titles = computed(() => [...new Set(this.runs().map((r) => r.title))].sort());
  readonly levels = signal(USUAL.screenPath ?? '');
  readonly along = signal<Dimension | null>(null);
  readonly alongLevels = signal('');
  readonly form = new FormGroup({
    minutes: new FormControl<number | null>(SWAP_MINUTES.screenPath, Validators.required),
    percent: new FormControl<number | null>(5, Validators.required),
  });
  readonly percent = toSignal(this.form.controls.percent.valueChanges, { initialValue: 5 });
  readonly minutes = toSignal(this.form.controls.minutes.valueChanges, {
    initialValue: SWAP_MINUTES.screenPath,
  });
  readonly problem = signal<string | null>(null);
  readonly varies = computed(
    () => QUESTIONS.find((q) => q.value === this.question())?.varies ?? 'screenPath',
  );
  readonly others = computed(() => DIMENSIONS.filter((d) => d !== this.varies()));
  /** Levels that runs here already have, to choose from. */
  readonly known = computed(() => this.#valuesOf(this.varies()));
  /** Titles that were repeated, the widest scatter first. */
  readonly scatters = computed(() =>
    titleScatters(groupRuns(this.runs()).map((g) => ({ title: g.title, speeds: mainValues(g) }))),
  );
  /** Of the title that is chosen; where any is run, of the one that differs most. */
  readonly scatter = computed(() => {
    const title = this.title().trim();
    const all = this.scatters();
    return (title === '' ? all[0] : all.find((t) => t.title === title)) ?? null;
  });
  readonly needColumns: readonly ShortColumn<TitleScatter>[] = [
    { key: 'title', name: 'Title', text: (t) => t.title },
    { key: 'cv', name: 'Scatter', figure: true, text: (t) => `${(t.cv * 100).toFixed(1)} %` },
    { key: 'freedom', name: 'From repeats', figure: true, text: (t) => String(t.freedom) },
    { key: 'need', name: 'Repeats a cell', figure: true, text: (t) => this.#need(t) },
  ];
  readonly #asked = computed(() => {
    const percent = this.percent();
    return percent !== null && percent > 0 ? percent : null;
  });
  /** Null where no difference is asked for, or one that no number of repeats tells apart. */
  readonly repeats = computed(() => {
    const asked = this.#asked();
    return asked === null ? null : repeatsFor(asked, this.scatter()?.cv ?? null);
  });
  readonly repeatsSaid = computed(() => {
    const repeats = this.repeats();
    const scatter = this.scatter();
    return this.#asked() === null
      ? ''
      : repeatsText({
          repeats,
          least: leastReachable(scatter?.cv ?? null),
          scatter,
          most: MAX_REPEATS,
        });
  });
  readonly preview = computed(() => {
    const factors = this.#factors();
    const repeats = this.repeats();
    return typeof factors === 'string' || repeats === null ? null : planSession(factors, repeats);
  });

  readonly asked: FieldMeta = {
    label: 'What do you want to know?',
    input: 'choice',
    options: QUESTIONS,
  };
  readonly levelsMeta = computed<FieldMeta>(() => ({
    label: `${FACTS[this.varies()]}: what is compared`,
    input: 'text',
    help: [
      'With a semicolon between',
      ...(this.known().length > 0 ? [`Known here: ${this.known().slice(0, 6).join('; ')}`] : []),
    ].join('. '),
  }));
  readonly minutesMeta: FieldMeta = {
    label: 'Time to change it',
    input: 'number',
    unit: 'min',
    min: 0,
  };
  readonly alongMeta = computed<FieldMeta>(() => ({
    label: 'At each of',
    input: 'choice',
    placeholder: 'nothing else',
    options: this.others().map((value) => ({ value, label: FACTS[value] })),
  }));
  readonly alongLevelsMeta: FieldMeta = {
    label: 'Which of them',
    input: 'text',
    help: 'With a semicolon between',
  };
  readonly percentMeta = computed<FieldMeta>(() => ({
    label: 'Smallest difference to tell apart',
    input: 'number',
    unit: '%',
    help: this.repeatsSaid(),
  }));
  readonly titleMeta = computed<FieldMeta>(() => ({
    label: 'Title or work, the same throughout',
    input: 'suggest',
    max: 80,
    placeholder: 'any',
    options: this.titles().map((t) => ({ value: t, label: t })),
  }));
  readonly nameMeta: FieldMeta = {
    label: 'Name',
    input: 'text',
    max: 80,
    placeholder: 'the question',
  };

  /** Repeats of a cell of a title for the difference that is asked for. */
  #need(t: TitleScatter): string {
    const asked = this.#asked();
    const repeats = asked === null ? null : repeatsFor(asked, t.cv);
    if (repeats !== null) return String(repeats);
    return `not reachable below ${(100 * leastReachable(t.cv)).toFixed(1)} %`;
  }

  choose(q: string): void {
    this.question.set(q);
    const d = this.varies();
    this.levels.set(this.#usual(d));
    this.form.controls.minutes.setValue(SWAP_MINUTES[d]);
  }

  chooseAlong(d: Dimension | null): void {
    this.along.set(d);
    this.alongLevels.set(d === null ? '' : this.#usual(d));
  }

  #usual(d: Dimension): string {
    return USUAL[d] ?? this.#valuesOf(d).slice(0, 3).join('; ');
  }

  #valuesOf(d: Dimension): string[] {
    return [...new Set(this.runs().map((r) => r.facts[d]))].filter((v) => v !== '');
  }

  #factors(): Factor[] | string {
    const split = (text: string) =>
      [...new Set(text.split(';').map((s) => s.trim()))].filter((s) => s !== '');
    const minutes = this.minutes();
    if (minutes === null || minutes < 0) return 'Time to change it: a number, not below 0';
    const first: Factor = { dimension: this.varies(), levels: split(this.levels()), minutes };
    if (first.levels.length < 2)
      return `${FACTS[first.dimension]}: at least two, with a semicolon between`;
    const d = this.along();
    if (d === null) return [first];
    const second: Factor = {
      dimension: d,
      levels: split(this.alongLevels()),
      minutes: SWAP_MINUTES[d],
    };
    return second.levels.length < 2
      ? `${FACTS[d]}: at least two, with a semicolon between`
      : [first, second];
  }

  plan(box: HTMLElement): void {
    if (!readyToSend(this.form, box)) return;
    const factors = this.#factors();
    const repeats = this.repeats();
    const percent = this.#asked();
    if (typeof factors === 'string') return this.problem.set(factors);
    if (percent === null) return this.problem.set('Difference: a number above 0');
    if (repeats === null) return this.problem.set(`Difference: ${this.repeatsSaid()}`);
    const question = QUESTIONS.find((q) => q.value === this.question())?.label ?? '';
    this.problem.set(null);
    this.planned.emit({
      id: v7(),
      name: this.name().trim() || question,
      question,
      title: this.title().trim(),
      factors: factors.map((f) => ({ ...f, levels: [...f.levels] })),
      repeats,
      percent,
      setupIds: this.setupId() ? [this.setupId()] : [],
    });
  }
}
