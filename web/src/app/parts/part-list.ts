import { ScrollingModule } from '@angular/cdk/scrolling';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import { tap } from 'rxjs';
import type { PartKind } from '@ruddy/core/parts';
import type { Part } from '@ruddy/core/parts/contract';
import { PagedList } from '../platform/api/paged-list';
import { PartsData, type PartFilter } from './parts';
import { Keys } from '../platform/shell/keys';
import { ColumnChooser, keptColumns } from '../platform/shared/column-chooser';
import { BulkEdit } from './bulk-edit';
import { columnsFor, filtersFor, USUAL } from './list-columns';
import { apiUrl } from '../platform/api/api-client';
import { KIND_WORDS } from './part-facts';

const ROW_PX = 36;
/** Rows from the end at which the next page is asked for. */
const AHEAD = 40;
const kept = (kind: PartKind) => `ruddy.parts.columns.${kind}`;

export interface ListQuery {
  q: string;
  where: string;
  owned: boolean;
  retired: boolean;
}

/** The parts of a kind: found, narrowed, with the columns a person wants, read a page at a time; several can be chosen and changed at once. */
@Component({
  selector: 'rb-part-list',
  imports: [ScrollingModule, RouterLink, MatButtonModule, BulkEdit, ColumnChooser],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './part-list.html',
  styleUrl: './part-list.scss',
})
export class PartList {
  readonly exportUrl = (kind: PartKind) => apiUrl('GET /api/export/:kind', { params: { kind } });

  readonly #data = inject(PartsData);
  readonly kind = input.required<PartKind>();
  readonly query = input.required<ListQuery>();
  readonly open = input<string>();
  readonly narrow = output<Record<string, string | null>>();
  readonly created = output();

  readonly words = KIND_WORDS;
  readonly total = signal(0);
  readonly list = new PagedList<Part, PartFilter>((f) =>
    this.#data.list(f).pipe(tap((p) => this.total.set(p.total))),
  );
  readonly rows = this.list.rows;
  readonly chosen = signal<ReadonlySet<string>>(new Set());
  readonly chosenIds = computed(() => [...this.chosen()]);
  readonly empty: ReadonlySet<string> = new Set();
  readonly changing = signal(false);
  readonly said = signal<string | null>(null);
  readonly all = computed(() => columnsFor(this.kind()));
  readonly filters = computed(() => filtersFor(this.kind()));
  readonly shown = signal<readonly string[]>(USUAL);
  readonly columns = computed(() => this.all().filter((c) => this.shown().includes(c.key)));
  readonly template = computed(
    () =>
      `28px ${this.columns()
        .map((c) => `minmax(0, ${c.wide}fr)`)
        .join(' ')}`,
  );
  /** Few columns need little room; many scroll sideways. */
  readonly width = computed(() => Math.max(480, this.columns().length * 96));
  readonly height = computed(() => Math.min(14, Math.max(1, this.rows()?.length ?? 1)) * ROW_PX);

  constructor() {
    effect(() => {
      const kind = this.kind();
      const q = this.query();
      this.list.load({
        kind,
        q: q.q,
        retired: q.retired,
        owned: q.owned,
        ...(q.where && { where: q.where }),
        limit: 200,
      });
    });
    effect(() => {
      this.shown.set(keptColumns(kept(this.kind()), USUAL));
      this.chosen.set(new Set());
      this.changing.set(false);
    });
    inject(Keys).bind([
      { key: 'x', what: 'Choose the part under the cursor', run: () => this.#chooseFocused() },
    ]);
  }

  readonly idOf = (_i: number, p: Part): string => p.id;

  reload(): void {
    this.list.load();
  }

  show(keys: string[]): void {
    this.shown.set(keys);
    localStorage.setItem(kept(this.kind()), JSON.stringify(keys));
  }

  scrolled(end: number): void {
    if (end > (this.rows()?.length ?? 0) - AHEAD) this.list.more();
  }

  toggle(id: string): void {
    this.said.set(null);
    this.chosen.update((set) => {
      const next = new Set(set);
      if (!next.delete(id)) next.add(id);
      return next;
    });
  }

  chooseAll(on: boolean): void {
    this.chosen.set(new Set(on ? (this.rows() ?? []).map((p) => p.id) : []));
  }

  changed(words: string): void {
    this.said.set(words);
    this.changing.set(false);
    this.chosen.set(new Set());
    this.reload();
  }

  #chooseFocused(): void {
    const id = document.activeElement?.closest('[data-part]')?.getAttribute('data-part');
    if (id) this.toggle(id);
  }
}
