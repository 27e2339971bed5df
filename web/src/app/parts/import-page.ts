import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatProgressBarModule } from '@angular/material/progress-bar';
import { Router, RouterLink } from '@angular/router';
import type { Encoding } from '@ruddy/core/base/contract';
import { PART_KINDS, type PartKind } from '@ruddy/core/parts';
import type { RowOutcome, ImportRow } from '@ruddy/core/parts/contract';
import { CatalogueData } from './catalogue';
import { ImportRun } from './import-run';
import { pluralize, orEmpty } from '../platform/shared/format';
import { ROW_OUTCOME_LABELS, importSentence, storeWords } from './import-words';
import { KIND_WORDS } from './part-facts';
import { apiUrl } from '../platform/api/api-client';
import { PartsNav } from './parts-nav';
import { Cell } from '../platform/kit/cell';
import type { Column } from '../platform/kit/columns';
import { EncodingChoice } from '../platform/kit/encoding-choice';
import { Field } from '../platform/kit/field';
import { FileDrop } from '../platform/kit/file-drop';
import { Fold } from '../platform/kit/fold';
import type { FieldMeta } from '../platform/kit/meta';
import { Table } from '../platform/kit/table';
import { Acts } from '../platform/kit/ask';

/** Parts from a file: what becomes of every row first, then all of it is stored or nothing. */
@Component({
  imports: [
    Cell,
    EncodingChoice,
    Field,
    FileDrop,
    Fold,
    MatButtonModule,
    MatProgressBarModule,
    PartsNav,
    RouterLink,
    Table,
  ],
  providers: [ImportRun],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './import-page.html',
  styleUrls: ['./parts-frame.scss', './import-page.scss'],
})
export class ImportPage {
  readonly exportUrl = (kind: PartKind) => apiUrl('GET /api/export/:kind', { params: { kind } });
  readonly templateUrl = (kind: PartKind) =>
    apiUrl('GET /api/templates/:kind', { params: { kind } });

  readonly #router = inject(Router);
  readonly #data = inject(CatalogueData);
  readonly #acts = inject(Acts);
  readonly run = inject(ImportRun);
  /** From the address; anything else than a kind is cables. */
  readonly kind = input('', { transform: orEmpty });

  readonly kindMeta: FieldMeta = {
    label: 'Kind',
    input: 'choice',
    options: PART_KINDS.map((k) => ({ value: k, label: KIND_WORDS[k].many })),
  };
  readonly rowColumns: readonly Column<ImportRow>[] = [
    { key: 'row', name: 'Row', figure: true, wide: 2, text: (r) => String(r.row), narrow: true },
    { key: 'fate', name: 'Result', wide: 3, text: (r) => ROW_OUTCOME_LABELS[r.fate], narrow: true },
    { key: 'part', name: 'Part', wide: 6, text: (r) => r.part, narrow: true },
    { key: 'said', name: 'Notes', wide: 12, text: (r) => this.said(r) },
  ];
  readonly words = KIND_WORDS;
  readonly fateWords = ROW_OUTCOME_LABELS;
  readonly of = computed<PartKind>(() => PART_KINDS.find((k) => k === this.kind()) ?? 'cable');
  readonly file = signal<File | null>(null);
  readonly encoding = signal<Encoding | null>(null);
  readonly columns = signal<{ column: string; what: string }[] | null>(null);
  readonly headline = computed(() =>
    importSentence(this.run.job(), this.run.problem(), this.file()?.name ?? null, this.of()),
  );
  readonly fate = computed<RowOutcome | 'all'>(() => this.run.fate() ?? 'all');
  readonly result = computed(() => this.run.job()?.result ?? null);
  readonly storeButton = computed(() => storeWords(this.run.job()));
  readonly canStore = computed(() => {
    const job = this.run.job();
    const r = job?.result;
    return (
      job?.state === 'done' &&
      r !== null &&
      r !== undefined &&
      !r.stored &&
      r.fates.wrong === 0 &&
      r.fates.new + r.fates.changed + r.fates.asks > 0
    );
  });
  readonly shown = computed<FieldMeta>(() => ({
    label: 'Rows shown',
    input: 'toggle',
    options: [
      { value: 'all', label: 'all' },
      ...(Object.keys(ROW_OUTCOME_LABELS) as RowOutcome[])
        .filter((f) => this.count(f) > 0)
        .map((f) => ({ value: f, label: `${ROW_OUTCOME_LABELS[f]} ${this.count(f)}` })),
    ],
  }));

  choose(kind: string): void {
    void this.#router.navigate([], {
      queryParams: { kind },
      queryParamsHandling: 'merge',
      replaceUrl: true,
    });
    this.columns.set(null);
    const file = this.file();
    if (file) this.run.start(file, kind as PartKind, 'try', this.encoding());
  }

  take(file: File): void {
    this.encoding.set(null);
    this.file.set(file);
    this.run.start(file, this.of(), 'try', null);
  }

  store(): void {
    const file = this.file();
    if (file) this.run.start(file, this.of(), 'store', this.encoding());
  }

  readAs(encoding: Encoding): void {
    this.encoding.set(encoding);
    const file = this.file();
    if (file) this.run.start(file, this.of(), 'try', encoding);
  }

  explain(): void {
    this.#acts.run(this.#data.columns(this.of()), {
      failed: 'The columns were not read.',
      then: ({ items }) => this.columns.set(items),
    });
  }

  show(of: RowOutcome | 'all'): void {
    this.run.show(of === 'all' ? null : of);
  }

  count(fate: RowOutcome): number {
    return this.result()?.fates[fate] ?? 0;
  }

  said(r: ImportRow): string {
    return r.notes
      .map((n) => `${n.row === r.row ? '' : `row ${n.row}, `}${n.column}: ${n.what}`)
      .join('; ');
  }

  readonly rowOf = (r: ImportRow): string => String(r.row);
  readonly counted = pluralize;
}
