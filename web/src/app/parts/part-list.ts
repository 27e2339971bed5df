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
import { partName } from '@ruddy/core/chain';
import type { PartKind } from '@ruddy/core/parts';
import type { Part } from '@ruddy/core/parts/contract';
import { apiUrl } from '../platform/api/api-client';
import { PagedList } from '../platform/api/paged-list';
import { Acts } from '../platform/kit/ask';
import { Cell } from '../platform/kit/cell';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';
import { Table } from '../platform/kit/table';
import { Keys } from '../platform/shell/keys';
import { BulkEdit } from './bulk-edit';
import { columnsFor, filtersFor } from './list-columns';
import { KIND_WORDS } from './part-facts';
import { PartsData, type PartFilter } from './parts';

export interface ListQuery {
  q: string;
  where: string;
  owned: boolean;
  retired: boolean;
}

/** The parts of a kind: found, narrowed, with the columns a user wants, read a page at a time; several can be selected and edited at once. */
@Component({
  selector: 'rb-part-list',
  imports: [BulkEdit, Cell, Field, MatButtonModule, RouterLink, Table],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './part-list.html',
  styleUrl: './part-list.scss',
})
export class PartList {
  readonly exportUrl = (kind: PartKind) => apiUrl('GET /api/export/:kind', { params: { kind } });

  readonly #data = inject(PartsData);
  readonly #acts = inject(Acts);
  readonly kind = input.required<PartKind>();
  readonly query = input.required<ListQuery>();
  readonly open = input<string>();
  readonly narrow = output<Record<string, string | null>>();
  readonly created = output();

  readonly words = KIND_WORDS;
  readonly nameOf = (p: Part): string => partName(p.spec) + (p.retiredAt ? ' (archived)' : '');
  readonly idOf = (p: Part): string => p.id;
  readonly total = signal(0);
  readonly list = new PagedList<Part, PartFilter>((f) =>
    this.#data.list(f).pipe(tap((p) => this.total.set(p.total))),
  );
  readonly rows = this.list.rows;
  readonly empty: ReadonlySet<string> = new Set();
  readonly chosen = signal(this.empty);
  readonly chosenIds = computed(() => [...this.chosen()]);
  readonly changing = signal(false);
  /** Beside an open part there is room for its name and what it is. */
  readonly columns = computed(() => {
    const all = columnsFor(this.kind());
    return this.open() ? all.filter((c) => c.narrow) : all;
  });
  readonly find = computed<FieldMeta>(() => ({
    label: `Find ${KIND_WORDS[this.kind()].many}`,
    input: 'text',
    placeholder: 'by name',
  }));
  readonly filter = computed<FieldMeta>(() => ({
    label: 'Filter',
    input: 'choice',
    placeholder: 'all',
    options: filtersFor(this.kind()),
  }));
  readonly owned: FieldMeta = { label: 'Owned only', input: 'flag' };
  readonly archived: FieldMeta = { label: 'Show archived', input: 'flag' };

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
      this.kind();
      this.chosen.set(this.empty);
      this.changing.set(false);
    });
    inject(Keys).bind([
      { key: 'x', what: 'Select the part under the cursor', run: () => this.#chooseFocused() },
    ]);
  }

  reload(): void {
    this.list.load();
  }

  changed(words: string): void {
    this.#acts.say(words);
    this.changing.set(false);
    this.chosen.set(this.empty);
    this.reload();
  }

  #chooseFocused(): void {
    const id = document.activeElement?.closest('[data-key]')?.getAttribute('data-key');
    if (!id) return;
    this.chosen.update((set) => {
      const next = new Set(set);
      if (!next.delete(id)) next.add(id);
      return next;
    });
  }
}
