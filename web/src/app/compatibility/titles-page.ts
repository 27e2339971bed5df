import {
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  signal,
} from '@angular/core';
import {
  FormControl,
  FormGroup,
  type FormGroupDirective,
  ReactiveFormsModule,
} from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { v7 } from 'uuid';
import {
  PROVENANCE_LABELS,
  type PROVENANCES,
  SAY_IDS,
  TITLE_ASSESSMENTS,
} from '@ruddy/core/compatibility';
import { type Register, titleNoteBody, type TitleSayRow } from '@ruddy/core/compatibility/contract';
import { PORT_STANDARDS } from '@ruddy/core/parts';
import { LogData } from './log';
import { pluralize, day } from '../platform/shared/format';
import { ServerClock } from '../platform/shared/server-clock';
import { Acts } from '../platform/kit/ask';
import { readyToSend, zodForm } from '../platform/kit/problems';
import { CompatNav } from './compat-nav';
import { Rows } from '../platform/kit/rows';
import { Cell } from '../platform/kit/cell';
import type { ShortColumn } from '../platform/kit/columns';
import { Field } from '../platform/kit/field';
import { optionsOf, type FieldMeta } from '../platform/kit/meta';

/** What is known of titles on classes of chains: stated by someone, or shown by runs. */
@Component({
  imports: [Field, ReactiveFormsModule, Cell, Rows, CompatNav, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './titles-page.html',
  styleUrl: './stated.scss',
})
export class TitlesPage {
  readonly whatIsKnownColumns: readonly ShortColumn[] = [
    { key: 'title', name: 'Title' },
    { key: 'on', name: 'On' },
    { key: 'what', name: 'What' },
    { key: 'seen', name: 'Seen' },
    { key: 'version', name: 'Version' },
    { key: 'known', name: 'Known' },
    { key: 'day', name: 'Day' },
    { key: 'delete', name: 'Delete', silent: true },
  ];
  readonly #log = inject(LogData);
  readonly #acts = inject(Acts);
  readonly #el = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  readonly clock = inject(ServerClock);
  readonly register = signal<Register | null>(null);
  readonly problem = signal<string | null>(null);
  readonly line = signal<string | null>(null);
  readonly findMeta: FieldMeta = {
    label: 'Find',
    input: 'text',
    placeholder: 'title, port, what is said',
  };
  readonly find = signal('');
  readonly sayWords = TITLE_ASSESSMENTS;
  readonly day = day;
  readonly rows = computed(() => {
    const words = this.find().toLowerCase();
    return (this.register()?.items ?? []).filter((r) =>
      `${r.title} ${r.link} ${TITLE_ASSESSMENTS[r.say]} ${r.words} ${r.version}`
        .toLowerCase()
        .includes(words),
    );
  });
  readonly headline = computed(() => {
    const r = this.register();
    if (!r) return 'Reading the register of titles …';
    const known = r.titles.length - r.silent.length;
    return `${known} of ${pluralize(r.titles.length, 'title')} known: ${pluralize(r.items.length, 'line')}.`;
  });
  #id = v7();
  readonly form = new FormGroup(
    {
      titleId: new FormControl<string | null>(null),
      standard: new FormControl('any', { nonNullable: true }),
      says: new FormControl<string[]>([], { nonNullable: true }),
      version: new FormControl('', { nonNullable: true }),
      on: new FormControl<string | null>(this.clock.today()),
      provenance: new FormControl<(typeof PROVENANCES)[number]>('own', { nonNullable: true }),
      words: new FormControl('', { nonNullable: true }),
    },
    { validators: zodForm(titleNoteBody, (raw: object) => ({ id: this.#id, ...raw })) },
  );
  readonly titleMeta = computed<FieldMeta>(() => ({
    label: 'Title',
    input: 'choice',
    options: (this.register()?.titles ?? []).map((t) => ({ value: t.id, label: t.name })),
  }));
  readonly fields: readonly (readonly [FieldMeta, FormControl])[] = [
    [
      {
        label: 'Link',
        input: 'choice',
        options: [{ value: 'any', label: 'any link' }, ...optionsOf(PORT_STANDARDS)],
      },
      this.form.controls.standard,
    ],
    [
      {
        label: 'Assessment',
        input: 'several',
        options: SAY_IDS.map((value) => ({ value, label: TITLE_ASSESSMENTS[value] })),
      },
      this.form.controls.says,
    ],
    [{ label: 'Version of the title', input: 'text', max: 60 }, this.form.controls.version],
    [{ label: 'Date', input: 'day' }, this.form.controls.on],
    [
      { label: 'Source', input: 'choice', options: optionsOf(PROVENANCE_LABELS) },
      this.form.controls.provenance,
    ],
    [{ label: 'Observed', input: 'text', max: 300 }, this.form.controls.words],
  ];

  constructor() {
    this.#acts.read(this.#log.register(), {
      line: this.problem,
      then: (r) => this.register.set(r),
    });
  }

  known(r: TitleSayRow): string {
    return r.provenance === 'runs' ? `${pluralize(r.n, 'run')}` : PROVENANCE_LABELS[r.provenance];
  }

  say(of: FormGroupDirective): void {
    if (!readyToSend(this.form, this.#el)) return;
    const body = titleNoteBody.parse({ id: this.#id, ...this.form.getRawValue() });
    this.#acts.send(this.form, this.#log.addTitleNote(body), {
      line: this.line,
      done: 'Added to the register.',
      then: (r) => {
        this.register.set(r);
        this.#id = v7();
        of.resetForm();
        this.form.controls.on.setValue(this.clock.today());
      },
    });
  }

  withdraw(r: TitleSayRow): void {
    if (r.id === null) return;
    this.#acts.run(this.#log.withdrawTitleNote(r.id), {
      done: `Deleted: ${r.title}.`,
      failed: 'Not deleted.',
      then: (now) => this.register.set(now),
    });
  }
}
