import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  signal,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatProgressBarModule } from '@angular/material/progress-bar';
import { RouterLink } from '@angular/router';
import type { Encoding } from '@ruddy/core/base/contract';
import { LOG_COLUMNS, type LogColumn } from '@ruddy/core/compatibility';
import type { LogShare } from '@ruddy/core/compatibility/contract';
import type { ImportRow } from '@ruddy/core/parts/contract';
import { apiUrl } from '../platform/api/api-client';
import { ImportRun } from '../parts/import-run';
import { LogData } from './log';
import { pluralize, orEmpty } from '../platform/shared/format';
import { CompatNav } from './compat-nav';
import { SHARE_KEYS } from './log-keys';
import { EncodingChoice } from '../platform/kit/encoding-choice';
import { FileDrop } from '../platform/kit/file-drop';
import { Fold } from '../platform/kit/fold';
import { Rows } from '../platform/kit/rows';
import { Cell } from '../platform/kit/cell';
import type { ShortColumn } from '../platform/kit/columns';
import { Acts } from '../platform/kit/ask';

const ROW_OUTCOME_LABELS = {
  wrong: 'wrong',
  asks: 'disagree',
  new: 'new',
  changed: 'changed',
  same: 'already here',
} as const;
type Keep = 'here' | 'file';

/** The log as a file for others, with what leaves shown before; and a file of theirs taken in, all of it or nothing. */
@Component({
  imports: [
    Cell,
    Rows,
    FileDrop,
    EncodingChoice,
    Fold,
    CompatNav,
    MatButtonModule,
    MatProgressBarModule,
    RouterLink,
  ],
  providers: [ImportRun],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './share-page.html',
  styleUrl: './share-page.scss',
})
export class SharePage {
  readonly sharePageColumns: readonly ShortColumn[] = [
    { key: 'field', name: 'Field' },
    { key: 'here', name: 'Here' },
    { key: 'inTheFile', name: 'In the file' },
  ];
  readonly #acts = inject(Acts);
  readonly #log = inject(LogData);
  readonly run = inject(ImportRun);
  readonly id = input('', { transform: orEmpty });
  readonly chain = input('', { transform: orEmpty });
  readonly q = input('', { transform: orEmpty });
  readonly host = input('', { transform: orEmpty });
  readonly dock = input('', { transform: orEmpty });
  readonly card = input('', { transform: orEmpty });
  readonly standard = input('', { transform: orEmpty });
  readonly controller = input('', { transform: orEmpty });
  readonly system = input('', { transform: orEmpty });
  readonly symptom = input('', { transform: orEmpty });
  readonly fix = input('', { transform: orEmpty });
  readonly since = input('', { transform: orEmpty });
  readonly until = input('', { transform: orEmpty });
  readonly known = input('', { transform: orEmpty });
  readonly outcome = input('', { transform: orEmpty });
  readonly report = signal<LogShare | null>(null);
  readonly leaving = computed<readonly ShortColumn<readonly string[]>[]>(() =>
    (this.report()?.columns ?? []).map((name, i) => ({
      key: name,
      name,
      help: LOG_COLUMNS[name as LogColumn] ?? '',
      text: (row) => row[i] ?? '',
    })),
  );
  readonly problem = signal<string | null>(null);
  readonly file = signal<File | null>(null);
  readonly encoding = signal<Encoding | null>(null);
  readonly keep = signal<Keep | null>(null);
  readonly except = signal<ReadonlySet<number>>(new Set());
  readonly fateWords = ROW_OUTCOME_LABELS;
  readonly fates = ['wrong', 'asks', 'new', 'same'] as const;
  readonly counted = pluralize;

  readonly #query = computed(() =>
    Object.fromEntries(SHARE_KEYS.map((k) => [k, this[k]()] as const).filter(([, v]) => v !== '')),
  );
  readonly filtered = computed(() => Object.keys(this.#query()).length > 0);
  readonly jsonHref = computed(() => apiUrl('GET /api/log/share.json', { query: this.#query() }));
  readonly csvHref = computed(() => apiUrl('GET /api/log/share.csv', { query: this.#query() }));
  readonly headline = computed(() => {
    const r = this.report();
    if (!r) return 'Looking at what would leave …';
    const leaves = this.filtered() ? 'picked' : 'in the log';
    return `${pluralize(r.n, 'entry', 'entries')} ${leaves}: ${pluralize(r.columns.length, 'field')} of each would leave, ${r.stays.filter((s) => s.n > 0).length} kinds of things stay here.`;
  });
  readonly result = computed(() =>
    this.run.job()?.state === 'done' ? (this.run.job()?.result ?? null) : null,
  );
  readonly asks = computed(() => this.result()?.fates.asks ?? 0);
  readonly canStore = computed(() => {
    const r = this.result();
    return (
      r !== null &&
      !r.stored &&
      (r.fates.wrong ?? 0) === 0 &&
      (this.asks() === 0 || this.keep() !== null)
    );
  });
  readonly storeWords = computed(() => {
    const r = this.result();
    if (!r) return 'Import';
    if (r.stored) return 'Imported';
    if ((r.fates.wrong ?? 0) > 0)
      return `Not saved: ${pluralize(r.fates.wrong ?? 0, 'entry', 'entries')} to fix`;
    if (this.asks() > 0 && this.keep() === null)
      return `Decide ${pluralize(this.asks(), 'entry', 'entries')} first`;
    return `Import ${pluralize((r.fates.new ?? 0) + this.taken(), 'entry', 'entries')}`;
  });
  /** Entries whose version of the file is taken. */
  readonly taken = computed(() =>
    this.keep() === 'file'
      ? this.asks() - this.except().size
      : this.keep() === 'here'
        ? this.except().size
        : 0,
  );
  readonly status = computed(() => {
    const job = this.run.job();
    if (!job) return '';
    if (job.state === 'running')
      return job.total > 0
        ? `${job.message}: ${job.done} of ${job.total}`
        : job.message || 'Reading the file …';
    if (job.state !== 'done') return job.message;
    const r = job.result;
    if (!r) return '';
    const parts = this.fates.flatMap((f) =>
      (r.fates[f] ?? 0) > 0 ? [`${r.fates[f] ?? 0} ${ROW_OUTCOME_LABELS[f]}`] : [],
    );
    return `${r.name}: ${parts.join(', ')}. ${r.stored ? 'Imported.' : 'Not imported yet.'}`;
  });

  constructor() {
    effect(() => {
      this.#acts.read(this.#log.shareReport(this.#query()), {
        line: this.problem,
        then: (r) => this.report.set(r),
      });
    });
  }

  look(file: File): void {
    this.file.set(file);
    this.keep.set(null);
    this.except.set(new Set());
    this.encoding.set(null);
    this.run.begin(this.#log.importLog(file, { mode: 'try', name: file.name }));
  }

  readAs(encoding: Encoding): void {
    const file = this.file();
    this.encoding.set(encoding);
    if (file) this.run.begin(this.#log.importLog(file, { mode: 'try', name: file.name, encoding }));
  }

  keepAll(keep: Keep): void {
    this.keep.set(keep);
    this.except.set(new Set());
  }

  keeps(row: number): Keep | null {
    const keep = this.keep();
    if (keep === null) return null;
    return this.except().has(row) ? (keep === 'here' ? 'file' : 'here') : keep;
  }

  keepOne(row: number, keep: Keep): void {
    // The first decision keeps the others as they are here.
    if (this.keep() === null) this.keep.set('here');
    this.except.update((old) => {
      const now = new Set(old);
      if (keep === this.keep()) now.delete(row);
      else now.add(row);
      return now;
    });
  }

  store(): void {
    const file = this.file();
    if (!file || !this.canStore()) return;
    const keep = this.keep();
    const except = [...this.except()].sort((a, b) => a - b).join(',');
    this.run.begin(
      this.#log.importLog(file, {
        mode: 'store',
        name: file.name,
        encoding: this.encoding(),
        ...(keep && { keep }),
        ...(except && { except }),
      }),
    );
  }

  plain(r: ImportRow): string {
    return r.notes.map((n) => `${n.column ? `"${n.column}": ` : ''}${n.what}`).join('; ');
  }
}
