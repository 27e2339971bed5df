import { ScrollingModule, CdkVirtualScrollViewport } from '@angular/cdk/scrolling';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  signal,
  viewChild,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { Router, RouterLink } from '@angular/router';
import { EMPTY, expand, reduce, tap } from 'rxjs';
import { OUTCOMES } from '@ruddy/core/base';
import { rate } from '@ruddy/core/base/text';
import type { UsedRow } from '@ruddy/core/bring-up/contract';
import { COMPAT_SORTS } from '@ruddy/core/compatibility';
import type { CompatRow, CompatSort } from '@ruddy/core/compatibility/contract';
import { PORT_STANDARDS } from '@ruddy/core/parts';
import { coverageWords } from '@ruddy/core/plan/text';
import { PagedList } from '../platform/api/paged-list';
import { LogData } from './log';
import { SetupsData, type CompatFilter } from '../setups/setups';
import { OUTCOME_WORDS } from '../plan/record/outcome-form';
import { ColumnChooser, keptColumns } from '../platform/shared/column-chooser';
import { pluralize, orEmpty } from '../platform/shared/format';
import { VerdictChip } from '../chain/verdict/verdict-chip';
import { COLUMNS, seenText, type Column } from './compat-columns';
import { ChainEntries } from './chain-entries';
import { CompatNav } from './compat-nav';
import { compatCsv } from './compat-export';
import { download } from '../platform/shared/download';
import { FILTER_KEYS, type FilterKey } from './log-keys';
import { LogFinder, type Filters } from './log-finder';

const SHOWN = 'ruddy.compatibility.columns';
/** Rows from the end at which the next page is asked for. */
const AHEAD = 20;
const ROW_PX = 44;

/** What works with what: a row a chain that was logged, predicted and seen apart. */
@Component({
  imports: [
    MatButtonModule,
    RouterLink,
    ScrollingModule,
    VerdictChip,
    ChainEntries,
    ColumnChooser,
    CompatNav,
    LogFinder,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './compatibility-page.html',
  styleUrl: './compatibility-page.scss',
})
export class CompatibilityPage {
  readonly #data = inject(SetupsData);
  readonly #router = inject(Router);
  readonly q = input('', { transform: orEmpty });
  readonly outcome = input('', { transform: orEmpty });
  readonly standard = input('', { transform: orEmpty });
  readonly host = input('', { transform: orEmpty });
  readonly dock = input('', { transform: orEmpty });
  readonly card = input('', { transform: orEmpty });
  readonly controller = input('', { transform: orEmpty });
  readonly system = input('', { transform: orEmpty });
  readonly symptom = input('', { transform: orEmpty });
  readonly fix = input('', { transform: orEmpty });
  readonly since = input('', { transform: orEmpty });
  readonly until = input('', { transform: orEmpty });
  readonly known = input('', { transform: orEmpty });
  readonly near = input('', { transform: orEmpty });
  readonly sort = input('', { transform: orEmpty });
  readonly dir = input('', { transform: orEmpty });
  readonly open = input('', { transform: orEmpty });

  readonly outcomes = OUTCOMES;
  readonly words = OUTCOME_WORDS;
  readonly standards = Object.entries(PORT_STANDARDS);
  /** What the person may choose from: what is shared is shown when near ones are. */
  readonly all = COLUMNS.filter((c) => c.key !== 'shared');
  readonly seen = seenText;
  /** Under the verdict: its rate where anything passes, and how much is known. */
  readonly predictedMore = ({ predicted: { verdict, down, coverage } }: CompatRow): string => {
    const passes = down && (verdict === 'works' || verdict === 'care');
    return `${passes ? `${rate(down)} Gb/s, ` : ''}${coverageWords(coverage)}`;
  };
  readonly total = signal(0);
  readonly used = signal<readonly UsedRow[]>([]);
  readonly exporting = signal(false);
  readonly exportProblem = signal<string | null>(null);
  readonly list = new PagedList<CompatRow, CompatFilter>((f) =>
    this.#data.compatibility({ ...f, limit: 100 }).pipe(tap((p) => this.total.set(p.total))),
  );
  readonly rows = this.list.rows;
  readonly viewport = viewChild(CdkVirtualScrollViewport);
  readonly shown = signal(
    keptColumns(
      SHOWN,
      COLUMNS.filter((c) => c.usual).map((c) => c.key),
    ),
  );
  readonly filters = computed<Filters>(() =>
    Object.fromEntries(FILTER_KEYS.map((k: FilterKey) => [k, this[k]()] as const)),
  );
  readonly isNear = computed(
    () =>
      this.near() === 'true' &&
      [this.host(), this.dock(), this.card(), this.standard()].some((v) => v !== ''),
  );
  readonly columns = computed(() =>
    COLUMNS.filter((c) => (c.key === 'shared' ? this.isNear() : this.shown().includes(c.key))),
  );
  readonly template = computed(() =>
    this.columns()
      .map((c) => `minmax(0, ${c.wide}fr)`)
      .join(' '),
  );
  readonly sorted = computed<{ by: CompatSort; dir: 'asc' | 'desc' }>(() => ({
    by: COMPAT_SORTS.find((s) => s === this.sort()) ?? (this.isNear() ? 'near' : 'newest'),
    dir: this.dir() === 'asc' ? 'asc' : 'desc',
  }));
  /** As tall as its rows, up to what leaves room for an opened chain. */
  readonly height = computed(
    () => Math.min(this.open() ? 7 : 13, Math.max(1, this.rows()?.length ?? 1)) * ROW_PX,
  );
  readonly sortWords = computed(() => {
    const { by, dir } = this.sorted();
    if (by === 'newest') return dir === 'desc' ? 'newest first' : 'oldest first';
    const name = COLUMNS.find((c) => c.sort === by)?.name ?? by;
    return `by ${name.toLowerCase()}, ${dir === 'asc' ? 'rising' : 'falling'}`;
  });
  readonly opened = computed(() => this.rows()?.find((r) => r.key === this.open()) ?? null);
  readonly headline = computed(() => {
    const rows = this.rows();
    if (!rows) return 'Reading the log …';
    const filtered = Object.values(this.filters()).some((v) => v !== '');
    if (this.total() === 0)
      return filtered
        ? '0 chains fit.'
        : '0 chains logged yet: outcomes are logged on the Record of a setup.';
    const against = rows.filter((r) => r.sure).length;
    const doubted = rows.filter((r) => r.contradicted && !r.sure).length;
    const shown = rows.length < this.total() ? `; of the first ${rows.length}` : '';
    const contradicted = `${against === 0 ? 'none is' : against === 1 ? '1 is' : `${against} are`} contradicted by what was seen`;
    if (this.isNear()) {
      const exact = rows.filter((r) => r.shared?.parts.length === this.#askedParts()).length;
      return `${pluralize(exact, 'chain')} of exactly these parts, ${this.total() - exact} near ${this.total() - exact === 1 ? 'one' : 'ones'}.`;
    }
    const more =
      doubted === 0
        ? ''
        : `, ${doubted} ${against === 0 ? '' : 'more '}went otherwise than predicted so far`;
    return `${pluralize(this.total(), 'chain')} ${filtered ? 'found' : 'logged'}${shown}; ${contradicted}${more}.`;
  });

  constructor() {
    effect(() => this.list.load(this.#filter()));
    // Hours are shown beside an opened chain; without them the chain still opens.
    inject(LogData)
      .used()
      .subscribe({ next: (r) => this.used.set(r.items), error: () => this.used.set([]) });
  }

  readonly keyOf = (_i: number, r: CompatRow): string => r.key;

  filter(query: Record<string, string | null>): void {
    void this.#router.navigate([], {
      queryParams: query,
      queryParamsHandling: 'merge',
      replaceUrl: true,
    });
  }

  sortBy(c: Column): void {
    if (!c.sort) return;
    const { by, dir } = this.sorted();
    const first = c.sort === 'newest' || c.sort === 'n' ? 'desc' : 'asc';
    this.filter({ sort: c.sort, dir: by === c.sort ? (dir === 'asc' ? 'desc' : 'asc') : first });
  }

  ariaSort(c: Column): 'ascending' | 'descending' | 'none' | null {
    if (!c.sort) return null;
    const { by, dir } = this.sorted();
    return by === c.sort ? (dir === 'asc' ? 'ascending' : 'descending') : 'none';
  }

  show(keys: string[]): void {
    this.shown.set(keys);
    localStorage.setItem(SHOWN, JSON.stringify(keys));
  }

  /** The next page is read before its first row is needed. */
  scrolled(index: number): void {
    const rows = this.rows()?.length ?? 0;
    const view = this.viewport()?.getRenderedRange();
    if (Math.max(index, view?.end ?? 0) > rows - AHEAD) this.list.more();
  }

  /** How many of the four things an entry may share are asked for; a family goes with its card. */
  readonly #askedParts = computed(
    () => [this.host(), this.dock(), this.card(), this.standard()].filter((v) => v !== '').length,
  );

  clear(): void {
    this.filter(Object.fromEntries([...FILTER_KEYS, 'near', 'sort', 'dir'].map((k) => [k, null])));
  }

  toggle(r: CompatRow): void {
    this.filter({ open: this.open() === r.key ? null : r.key });
  }

  /** Every chain that fits the filter, not only those read so far. */
  export(kind: 'csv' | 'json'): void {
    this.exporting.set(true);
    this.exportProblem.set(null);
    const page = (cursor?: string) =>
      this.#data.compatibility({ ...this.#filter(), limit: 500, ...(cursor && { cursor }) });
    page()
      .pipe(
        expand((p) => (p.next ? page(p.next) : EMPTY)),
        reduce((rows: CompatRow[], p) => [...rows, ...p.items], []),
      )
      .subscribe({
        next: (rows) => void this.#save(kind, rows),
        error: (e: Error) => {
          this.exporting.set(false);
          this.exportProblem.set(`Nothing was written: ${e.message}`);
        },
      });
  }

  async #save(kind: 'csv' | 'json', rows: CompatRow[]): Promise<void> {
    if (kind === 'csv') download('compatibility.csv', 'text/csv', await compatCsv(rows));
    else download('compatibility.json', 'application/json', JSON.stringify(rows, null, 2));
    this.exporting.set(false);
  }

  #filter(): CompatFilter {
    const { by, dir } = this.sorted();
    const set = Object.fromEntries(Object.entries(this.filters()).filter(([, v]) => v !== ''));
    return { sort: by, dir, ...set, ...(this.isNear() && { near: true }) } as CompatFilter;
  }
}
