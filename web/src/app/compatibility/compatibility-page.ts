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
import { MatCardModule } from '@angular/material/card';
import { MatIconModule } from '@angular/material/icon';

import { Router, RouterLink } from '@angular/router';
import { EMPTY, expand, reduce, tap, type Observable } from 'rxjs';
import { rate } from '@ruddy/core/base/text';
import { COMPAT_SORTS } from '@ruddy/core/compatibility';
import type { CompatRow, CompatSort } from '@ruddy/core/compatibility/contract';
import { PagedList } from '../platform/api/paged-list';
import { LogData } from './log';
import { SetupsData, type CompatFilter } from '../setups/setups';
import { OUTCOME_WORDS } from '../plan/record/outcome-form';
import { ask, valueOf } from '../platform/kit/ask';
import { Cell } from '../platform/kit/cell';
import type { RowAct, Sort } from '../platform/kit/columns';
import { Table } from '../platform/kit/table';
import { pluralize, orEmpty } from '../platform/shared/format';
import { VerdictChip } from '../chain/verdict/verdict-chip';
import { COLUMNS, seenText } from './compat-columns';
import { ChainEntries } from './chain-entries';
import { CompatNav } from './compat-nav';
import { FILTER_KEYS, type FilterKey } from './log-keys';
import { LogFinder, type Filters } from './log-finder';

/** What works with what: a row a chain that was logged, predicted and seen apart. */
@Component({
  imports: [
    MatButtonModule,
    MatCardModule,
    MatIconModule,
    RouterLink,
    Cell,
    ChainEntries,
    CompatNav,
    LogFinder,
    Table,
    VerdictChip,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './compatibility-page.html',
  styleUrl: './compatibility-page.scss',
})
export class CompatibilityPage {
  readonly #data = inject(SetupsData);
  readonly #router = inject(Router);
  readonly #log = inject(LogData);
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

  readonly words = OUTCOME_WORDS;
  readonly seen = seenText;
  /** Beside the verdict: its rate where anything passes. */
  readonly rateOf = ({ predicted: { verdict, down } }: CompatRow): string =>
    down && (verdict === 'works' || verdict === 'care') ? `${rate(down)} Gb/s` : '';
  readonly total = signal(0);
  /** Hours are shown beside an opened chain; without them the chain still opens. */
  readonly #used = ask(() => this.#log.used());
  readonly used = computed(() => valueOf(this.#used)?.items ?? []);
  readonly exportProblem = signal<string | null>(null);
  readonly list = new PagedList<CompatRow, CompatFilter>((f) =>
    this.#data.compatibility({ ...f, limit: 100 }).pipe(tap((p) => this.total.set(p.total))),
  );
  readonly rows = this.list.rows;
  readonly filters = computed<Filters>(() =>
    Object.fromEntries(FILTER_KEYS.map((k: FilterKey) => [k, this[k]()] as const)),
  );
  readonly isNear = computed(
    () =>
      this.near() === 'true' &&
      [this.host(), this.dock(), this.card(), this.standard()].some((v) => v !== ''),
  );
  /** What an entry shares is a column only beside near matches. */
  readonly columns = computed(() =>
    COLUMNS.filter((c) => c.key !== 'shared' || this.isNear()).map((c) =>
      c.key === 'shared' ? { ...c, usual: true } : c,
    ),
  );
  readonly sorted = computed<{ by: CompatSort; dir: 'asc' | 'desc' }>(() => ({
    by: COMPAT_SORTS.find((s) => s === this.sort()) ?? (this.isNear() ? 'near' : 'newest'),
    dir: this.dir() === 'asc' ? 'asc' : 'desc',
  }));
  readonly sortWords = computed(() => {
    const { by, dir } = this.sorted();
    if (by === 'newest') return dir === 'desc' ? 'chains, newest first' : 'chains, oldest first';
    return 'chains';
  });
  readonly tableSort = computed<Sort>(() => ({
    active: this.sorted().by,
    direction: this.sorted().dir,
  }));
  readonly acts: readonly RowAct<CompatRow>[] = [
    {
      icon: 'open_in_new',
      name: 'Open the setup',
      may: (r) => r.setups.length > 0,
      run: (r) => void this.#router.navigate(['/setups', r.setups[0]?.id, 'record']),
    },
    {
      icon: 'share',
      name: 'Share its entries',
      run: (r) =>
        void this.#router.navigate(['/compatibility/share'], { queryParams: { chain: r.key } }),
    },
  ];
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
  }

  readonly keyOf = (r: CompatRow): string => r.key;

  filter(query: Record<string, string | null>): void {
    void this.#router.navigate([], {
      queryParams: query,
      queryParamsHandling: 'merge',
      replaceUrl: true,
    });
  }

  /** How many of the four things an entry may share are asked for; a family goes with its card. */
  readonly #askedParts = computed(
    () => [this.host(), this.dock(), this.card(), this.standard()].filter((v) => v !== '').length,
  );

  clear(): void {
    this.filter(Object.fromEntries([...FILTER_KEYS, 'near', 'sort', 'dir'].map((k) => [k, null])));
  }

  /** Every chain that fits the filter, not only those read so far. */
  readonly everything = (): Observable<readonly CompatRow[]> => {
    const page = (cursor?: string) =>
      this.#data.compatibility({ ...this.#filter(), limit: 500, ...(cursor && { cursor }) });
    return page().pipe(
      expand((p) => (p.next ? page(p.next) : EMPTY)),
      reduce((rows: CompatRow[], p) => [...rows, ...p.items], []),
    );
  };

  #filter(): CompatFilter {
    const { by, dir } = this.sorted();
    const set = Object.fromEntries(Object.entries(this.filters()).filter(([, v]) => v !== ''));
    return { sort: by, dir, ...set, ...(this.isNear() && { near: true }) } as CompatFilter;
  }
}
