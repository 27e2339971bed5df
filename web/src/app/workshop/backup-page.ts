import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  linkedSignal,
  signal,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import type { Observable, Subscription } from 'rxjs';
import type { BackupList, BackupRow } from '@ruddy/core/workshop/contract';
import { apiUrl } from '../platform/api/api-client';
import { BackupsData } from './people';
import { clock, pluralize, day } from '../platform/shared/format';
import { WorkshopNav } from './workshop-nav';
import { Rows } from '../platform/kit/rows';
import { Cell } from '../platform/kit/cell';
import type { ShortColumn } from '../platform/kit/columns';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';
import { Acts } from '../platform/kit/ask';
import { Confirm } from '../platform/kit/confirm';

const WHY = {
  asked: 'by hand',
  schedule: 'by plan',
  'before-restore': 'before a restore',
  'before-upgrade': 'before an upgrade',
  command: 'by command',
} as const;
/** Backups of everything: made by hand or by plan, tried, kept elsewhere, put back. */
@Component({
  imports: [Field, Cell, Rows, WorkshopNav, MatButtonModule, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './backup-page.html',
  styleUrl: './people.scss',
})
export class BackupPage {
  readonly backupPageColumns: readonly ShortColumn[] = [
    { key: 'made', name: 'Made' },
    { key: 'how', name: 'How' },
    { key: 'rows', name: 'Rows', figure: true },
    { key: 'size', name: 'Size', figure: true },
    { key: 'tried', name: 'Tried' },
    { key: 'do', name: 'Do', silent: true },
  ];
  readonly fileUrl = (name: string) => apiUrl('GET /api/backup-file', { query: { name } });

  readonly #acts = inject(Acts);
  readonly #confirm = inject(Confirm);
  readonly #data = inject(BackupsData);
  readonly list = signal<BackupList | null>(null);
  readonly problem = signal<string | null>(null);
  readonly said = signal<string | null>(null);
  /** What is being done now, in words; null: nothing. */
  readonly working = signal<string | null>(null);
  #work: Subscription | null = null;
  readonly oftenMeta: FieldMeta = {
    label: 'Automatic backup',
    input: 'choice',
    placeholder: 'by hand only',
    options: [
      { value: 6, label: 'every 6 hours' },
      { value: 24, label: 'once a day' },
      { value: 168, label: 'once a week' },
    ],
  };
  readonly keepMeta: FieldMeta = { label: 'Keep at most', input: 'number', min: 1, max: 200 };
  readonly often = linkedSignal(() => this.list()?.plan.everyHours ?? null);
  readonly keep = linkedSignal(() => this.list()?.plan.keep ?? 1);
  readonly headline = computed(() => {
    const l = this.list();
    if (!l) return 'Reading the backups …';
    if (l.place === null) return '0 backups can be made from here.';
    const [newest] = l.items;
    if (!newest) return '0 backups yet: make the first one.';
    const tried = l.items.filter((b) => b.note?.checked?.ok).length;
    return `${pluralize(l.items.length, 'backup')}, ${tried} of them tried; the newest ${this.when(newest)}.`;
  });

  constructor() {
    this.#load();
  }

  when(b: BackupRow): string {
    return b.note ? `${day(b.note.madeAt)}, ${clock(b.note.madeAt)}` : 'of an unknown day';
  }
  why(b: BackupRow): string {
    return b.note ? WHY[b.note.why] : 'without its note';
  }
  rows(b: BackupRow): string {
    const counts = Object.values(b.note?.counts ?? {});
    return b.note ? counts.reduce((n, x) => n + x, 0).toLocaleString('en') : '–';
  }
  size(b: BackupRow): string {
    return `${(b.bytes / 1e6).toFixed(1)} MB`;
  }
  tried(b: BackupRow): string {
    const c = b.note?.checked;
    if (!c) return 'not tried';
    return c.ok ? c.words : `Does not come back: ${c.words}`;
  }
  make(): void {
    this.#do(
      'Writing everything into one file …',
      this.#data.make(),
      (b) => `Made: ${this.rows(b)} rows, ${this.size(b)}.`,
    );
  }
  check(b: BackupRow): void {
    this.#do(
      'Restoring it beside the database …',
      this.#data.check(b.name),
      (r) => `Tried: ${this.tried(r)}.`,
    );
  }
  askRestore(b: BackupRow): void {
    this.#confirm.before(
      {
        title: `Put back the backup of ${this.when(b)}?`,
        loses: 'Everything stored since then leaves the pages.',
        more: 'It is tried first, and what is here now is backed up before it goes, so the way back stays open. Others who work here should stop and load their pages anew afterwards.',
        act: 'Put it back',
      },
      () => this.#restore(b),
    );
  }
  askRemove(b: BackupRow): void {
    this.#confirm.before(
      {
        title: `Delete the backup of ${this.when(b)}?`,
        loses: 'It cannot be undone.',
        more: 'Download it first if it may be needed.',
        act: 'Delete it',
      },
      () => this.#remove(b),
    );
  }
  #restore(b: BackupRow): void {
    const done = (r: { counts: Record<string, number> }) => {
      const rows = Object.values(r.counts).reduce((n, x) => n + x, 0);
      return `Restored ${rows.toLocaleString('en')} rows. What was here before is the newest backup now.`;
    };
    this.#do(
      'Trying it, backing up what is here, and changing places …',
      this.#data.restore(b.name),
      done,
    );
  }
  #remove(b: BackupRow): void {
    this.#do(
      'Deleting …',
      this.#data.remove(b.name),
      () => `The backup of ${this.when(b)} was deleted.`,
    );
  }
  plan(): void {
    const l = this.list();
    if (!l) return;
    this.#do(
      'Saving the schedule …',
      this.#data.plan({ everyHours: this.often(), keep: this.keep() }, l.plan.rev),
      () => 'Schedule saved.',
    );
  }

  stop(): void {
    this.#work?.unsubscribe();
    this.working.set(null);
    this.said.set('Stopped; nothing changed.');
    this.#load();
  }

  #do<T>(words: string, call: Observable<T>, done: (v: T) => string): void {
    const ended = () => {
      this.working.set(null);
      this.#load();
    };
    this.said.set(null);
    this.working.set(words);
    this.#work = this.#acts.run(call, {
      line: this.problem,
      failed: 'Not done.',
      then: (v) => {
        this.said.set(done(v));
        ended();
      },
      otherwise: ended,
    });
  }

  #load(): void {
    this.#acts.read(this.#data.list(), { line: this.problem, then: (l) => this.list.set(l) });
  }
}
