import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { v7 } from 'uuid';
import {
  PROVENANCE_LABELS,
  PROVENANCES,
  SAY_IDS,
  TITLE_ASSESSMENTS,
} from '@ruddy/core/compatibility';
import { type Register, titleNoteBody, type TitleSayRow } from '@ruddy/core/compatibility/contract';
import { PORT_STANDARDS } from '@ruddy/core/parts';
import type { ApiError } from '../platform/api/api-client';
import { LogData } from './log';
import { pluralize, day } from '../platform/shared/format';
import { ServerClock } from '../platform/shared/server-clock';
import { CompatNav } from './compat-nav';

/** What is known of titles on classes of chains: stated by someone, or shown by runs. */
@Component({
  imports: [CompatNav, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './titles-page.html',
  styleUrl: './stated.scss',
})
export class TitlesPage {
  readonly #log = inject(LogData);
  readonly clock = inject(ServerClock);
  readonly register = signal<Register | null>(null);
  readonly problem = signal<string | null>(null);
  readonly errors = signal<ReadonlyMap<string, string>>(new Map());
  readonly said = signal('');
  readonly find = signal('');
  readonly says = SAY_IDS.map((id) => ({ id, name: TITLE_ASSESSMENTS[id] }));
  readonly sayWords = TITLE_ASSESSMENTS;
  readonly standards = Object.entries(PORT_STANDARDS);
  readonly provenances = PROVENANCES;
  readonly provenanceWords = PROVENANCE_LABELS;
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

  constructor() {
    this.#log.register().subscribe({
      next: (r) => this.register.set(r),
      error: (e: ApiError) => this.problem.set(e.message),
    });
  }

  known(r: TitleSayRow): string {
    return r.provenance === 'runs' ? `${pluralize(r.n, 'run')}` : PROVENANCE_LABELS[r.provenance];
  }

  say(event: Event, form: HTMLFormElement): void {
    event.preventDefault();
    const data = new FormData(form);
    const text = (key: string) => String((data.get(key) as string | null) ?? '');
    const parsed = titleNoteBody.safeParse({
      id: this.#id,
      titleId: text('title'),
      standard: text('standard'),
      says: data.getAll('says'),
      version: text('version'),
      on: text('on'),
      provenance: text('provenance'),
      words: text('words'),
    });
    if (!parsed.success) {
      const named: Record<string, string> = {
        titleId: 'Title: choose one',
        on: 'Day: a date like 2026-11-03',
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
    this.#log.addTitleNote(parsed.data).subscribe({
      next: (r) => {
        this.register.set(r);
        this.said.set('Noted in the register.');
        this.#id = v7();
        form.reset();
      },
      error: (e: ApiError) =>
        this.errors.set(
          new Map(e.problem.errors?.map((x) => [x.path, x.message]) ?? [['', e.message]]),
        ),
    });
  }

  withdraw(r: TitleSayRow): void {
    if (r.id === null) return;
    this.#log.withdrawTitleNote(r.id).subscribe({
      next: (now) => {
        this.register.set(now);
        this.said.set(`Taken back: ${r.title}.`);
      },
      error: (e: ApiError) => this.problem.set(e.message),
    });
  }
}
