import { CdkVirtualScrollViewport, ScrollingModule } from '@angular/cdk/scrolling';
import { NgTemplateOutlet } from '@angular/common';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  contentChildren,
  input,
  model,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatIconModule } from '@angular/material/icon';
import { MatMenuModule } from '@angular/material/menu';
import { MatProgressBarModule } from '@angular/material/progress-bar';
import { MatSortModule, type Sort } from '@angular/material/sort';
import { MatTableModule } from '@angular/material/table';
import { MatTooltipModule } from '@angular/material/tooltip';
import { firstValueFrom, of, type Observable } from 'rxjs';
import { toCsv } from './csv';
import { download } from '../shared/download';
import { Cell } from './cell';
import { onPhone } from './phone';
import { keptColumns, sortedRows, type Column, type RowAct } from './columns';

/** Rows before the last one that ask for the next page. */
const AHEAD = 20;
const HEAD_PX = 46;
const PHONE_ROW_PX = 64;

/**
 * A list with sorting, columns to choose, selection, a menu for each row and download; only rows in view are drawn. Content slots:
 * `[tools]` at the left of the bar above it, `[chosen]` while rows are selected, `[none]` after the text of an empty list.
 */
@Component({
  selector: 'rb-table',
  imports: [
    NgTemplateOutlet,
    ScrollingModule,
    MatTableModule,
    MatSortModule,
    MatCheckboxModule,
    MatMenuModule,
    MatButtonModule,
    MatIconModule,
    MatProgressBarModule,
    MatTooltipModule,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { class: 'dense' },
  templateUrl: './table.html',
  styleUrl: './table.scss',
})
export class Table<T> {
  /** Accessible name. */
  readonly label = input.required<string>();
  readonly columns = input.required<readonly Column<T>[]>();
  /** Null before the first page. */
  readonly rows = input.required<readonly T[] | null>();
  readonly keyOf = input.required<(row: T) => string>();
  /** Rows on the server; null when all are here. */
  readonly total = input<number | null>(null);
  readonly sort = model<Sort>({ active: '', direction: '' });
  /** Key of the opened row. */
  readonly open = model<string | null>(null);
  readonly opens = input(false);
  readonly selectable = input(false);
  readonly selected = model<ReadonlySet<string>>(new Set());
  readonly acts = input<readonly RowAct<T>[]>([]);
  /** Local storage key of the chosen columns; without one they cannot be chosen. */
  readonly place = input('');
  /** Name of the downloaded file, without extension; without one there is no download. */
  readonly file = input('');
  /** Reads every row for a download where not all are here. */
  readonly all = input<(() => Observable<readonly T[]>) | null>(null);
  /** Beside the count, such as "chains, newest first". */
  readonly order = input('');
  readonly empty = input('Nothing here yet.');
  /** Rows in view before it scrolls. */
  readonly most = input(13);
  readonly rowPx = input(44);
  /** The last rows come into view. */
  readonly more = output();
  readonly failed = output<string>();

  readonly cells = contentChildren<Cell<T>>(Cell);
  readonly viewport = viewChild(CdkVirtualScrollViewport);
  readonly narrow = onPhone();
  readonly #chosen = signal<readonly string[] | null>(null);
  readonly shownKeys = computed(() => this.#chosen() ?? keptColumns(this.place(), this.columns()));
  readonly shown = computed(() => this.columns().filter((c) => this.shownKeys().includes(c.key)));
  readonly ordered = computed(() => sortedRows(this.rows() ?? [], this.columns(), this.sort()));
  /** Columns of a phone's row: the first line and what stands below it. */
  readonly few = computed(() => {
    const few = this.columns().filter((c) => c.narrow);
    return few.length > 0 ? few : this.shown().slice(0, 3);
  });
  readonly px = computed(() => (this.narrow() ? PHONE_ROW_PX : this.rowPx()));
  readonly keys = computed(() => [
    ...(this.selectable() ? ['#'] : []),
    ...(this.narrow() ? ['~'] : this.shown().map((c) => c.key)),
    ...(this.acts().length > 0 ? ['…'] : []),
  ]);
  /** Per cent of the width for a `wide` of 1. */
  readonly share = computed(() => 100 / this.shown().reduce((n, c) => n + (c.wide ?? 4), 0));
  readonly height = computed(
    () => Math.min(this.most(), Math.max(1, this.rows()?.length ?? 1)) * this.px() + HEAD_PX,
  );
  readonly busy = signal(false);
  /** Place of each row among all, for screen readers: only rows in view are in the page. */
  readonly places = computed(() => new Map(this.ordered().map((r, i) => [this.keyOf()(r), i + 2])));
  readonly track = (_: number, r: T): string => this.keyOf()(r);

  sortName(c: Column<T>): string {
    return typeof c.sort === 'string' ? c.sort : c.sort ? c.key : '';
  }
  second(r: T): string {
    return this.few()
      .slice(1)
      .map((c) => c.text(r))
      .filter((text) => text !== '')
      .join(' · ');
  }
  nameOf(r: T): string {
    return this.shown()[0]?.text(r) ?? '';
  }
  count(here: number): string {
    const total = this.total();
    const n = total !== null && total > here ? `${here} of ${total}` : String(here);
    return this.narrow() ? n : `${n} ${this.order()}`;
  }
  cell(key: string): Cell<T>['template'] | null {
    return this.cells().find((c) => c.rbCell() === key)?.template ?? null;
  }
  /** Shows or hides a column; the last one stays. The menu stays open. */
  flip(key: string, event: Event): void {
    event.stopPropagation();
    const now = this.shownKeys();
    const next = now.includes(key) ? now.filter((k) => k !== key) : [...now, key];
    if (next.length === 0) return;
    this.#chosen.set(next);
    localStorage.setItem(this.place(), JSON.stringify(next));
  }
  toggle(r: T): void {
    const key = this.keyOf()(r);
    this.open.set(this.open() === key ? null : key);
  }
  pick(r: T, on: boolean): void {
    const next = new Set(this.selected());
    if (on) next.add(this.keyOf()(r));
    else next.delete(this.keyOf()(r));
    this.selected.set(next);
  }
  pickAll(on: boolean): void {
    this.selected.set(new Set(on ? (this.rows() ?? []).map((r) => this.keyOf()(r)) : []));
  }
  scrolled(): void {
    const end = this.viewport()?.getRenderedRange().end ?? 0;
    if (end > (this.rows()?.length ?? 0) - AHEAD) this.more.emit();
  }
  async export(kind: 'csv' | 'json'): Promise<void> {
    this.busy.set(true);
    try {
      const rows = await firstValueFrom(this.all()?.() ?? of(this.ordered()));
      if (kind === 'json')
        download(`${this.file()}.json`, 'application/json', JSON.stringify(rows, null, 2));
      else download(`${this.file()}.csv`, 'text/csv', await this.#csv(rows));
    } catch (e) {
      this.failed.emit(`Not downloaded: ${(e as Error).message}`);
    }
    this.busy.set(false);
  }

  #csv(rows: readonly T[]): Promise<string> {
    return toCsv(
      this.columns().map((c) => c.name),
      rows.map((r) => this.columns().map((c) => c.text(r))),
    );
  }
}
