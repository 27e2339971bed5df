import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  signal,
  untracked,
} from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { FormControl } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MatCardModule } from '@angular/material/card';
import { MatIconModule } from '@angular/material/icon';

import { Router, RouterLink } from '@angular/router';
import { catchError, of, EMPTY, expand, reduce, type Observable } from 'rxjs';
import { v7 } from 'uuid';
import type { SetupRow, SetupSort } from '@ruddy/core/plan/contract';
import { SETUP_STATES } from '@ruddy/core/setups';
import type { SetupState } from '@ruddy/core/setups/contract';
import { MiniStrip } from '../chain/strip/mini-strip';
import { VerdictChip } from '../chain/verdict/verdict-chip';
import { PagedList } from '../platform/api/paged-list';
import { Acts, ask, State, valueOf } from '../platform/kit/ask';
import { Cell } from '../platform/kit/cell';
import type { RowAct, Sort } from '../platform/kit/columns';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';
import { Table } from '../platform/kit/table';
import { orEmpty, pluralize } from '../platform/shared/format';
import { Keys } from '../platform/shell/keys';
import { MAX_ASIDE } from '../setups/comparison-list';
import { type SetupFilter, SetupsData } from '../setups/setups';
import { BundleFile } from '../workshop/bundle-file';
import { SetupActs } from './setup-acts';
import { type Overheads, setupColumns } from './setups-columns';

interface Door {
  readonly name: string;
  readonly what: string;
  /** A page of the application, or the page of a new setup. */
  readonly to: string | { readonly setup: 'bring-up' | 'runs' };
}

const DOORS: readonly Door[] = [
  {
    name: 'What should I buy?',
    what: 'Search sets of parts for a laptop, a budget and what they are used for',
    to: '/scout',
  },
  {
    name: 'I have the parts',
    what: 'Put them together in the right order, one step at a time',
    to: { setup: 'bring-up' },
  },
  {
    name: 'Fix a problem',
    what: 'Find the cause: the cheapest safe next test, and why',
    to: '/trouble',
  },
  {
    name: 'Analyse benchmarks',
    what: 'Read captures, compare runs fairly, see what limits them',
    to: { setup: 'runs' },
  },
];

/** Ids of one request at most. */
const MAX_IDS = 200;

/** The start page: what the program is for, how all setups stand, and the list of them. */
@Component({
  imports: [
    RouterLink,
    MatButtonModule,
    MatCardModule,
    MatIconModule,
    Cell,
    Field,
    MiniStrip,
    State,
    Table,
    VerdictChip,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './setups-page.html',
  styleUrl: './setups-page.scss',
})
export class SetupsPage {
  readonly #data = inject(SetupsData);
  readonly #router = inject(Router);
  readonly #files = inject(BundleFile);
  readonly #acts = inject(Acts);
  readonly #setups = inject(SetupActs);

  readonly q = input('', { transform: orEmpty });
  readonly state = input('', { transform: orEmpty });
  readonly retired = input('', { transform: orEmpty });
  readonly sort = input('', { transform: orEmpty });
  readonly dir = input('', { transform: orEmpty });

  readonly doors = DOORS;
  readonly #overheads = signal<Overheads>(new Map());
  readonly columns = computed(() => setupColumns(this.#overheads()));
  readonly most = MAX_ASIDE;
  readonly findMeta: FieldMeta = { label: 'Find', input: 'text', placeholder: 'name' };
  readonly stateMeta: FieldMeta = {
    label: 'State',
    input: 'choice',
    placeholder: 'all in use',
    options: SETUP_STATES.map((value) => ({
      value,
      label: value === 'retired' ? 'archived' : value,
    })),
  };
  readonly archivedMeta: FieldMeta = { label: 'Show archived', input: 'flag' };
  readonly find = new FormControl('', { nonNullable: true });
  readonly stateOf = new FormControl<string | null>(null);
  readonly archived = new FormControl(false, { nonNullable: true });

  readonly list = new PagedList<SetupRow, SetupFilter>((f) => this.#data.list(f));
  readonly rows = this.list.rows;
  readonly reading = ask(() => this.#data.summary());
  readonly summary = computed(() => valueOf(this.reading));
  readonly failed = signal<string | null>(null);
  readonly problem = computed(() => this.failed() ?? this.list.problem());
  readonly chosen = signal<ReadonlySet<string>>(new Set());
  readonly chosenIds = computed(() => [...this.chosen()].join());
  readonly tableSort = computed<Sort>(() => ({
    active: this.#sort(),
    direction: this.dir() === 'desc' ? 'desc' : 'asc',
  }));
  readonly keyOf = (r: SetupRow): string => r.id;
  readonly emptyWords = computed(() =>
    this.q() || this.state() ? 'No setup fits this filter.' : 'No setups yet.',
  );
  readonly rowActs: readonly RowAct<SetupRow>[] = [
    {
      icon: 'open_in_new',
      name: 'Open',
      run: (r) => void this.#router.navigate(['/setups', r.id, 'plan']),
    },
    {
      icon: 'checklist',
      name: 'Next bring-up step',
      run: (r) => void this.#router.navigate(['/setups', r.id, 'bring-up']),
    },
    {
      icon: 'troubleshoot',
      name: 'Next test of a fault',
      run: (r) => void this.#router.navigate(['/setups', r.id, 'troubleshoot']),
    },
    {
      icon: 'edit_note',
      name: 'Log what happened',
      run: (r) =>
        void this.#router.navigate(['/setups', r.id, 'record'], { queryParams: { log: '' } }),
    },
    { icon: 'content_copy', name: 'Clone', run: (r) => this.#setups.clone(r) },
    { icon: 'share', name: 'Share', run: (r) => this.#setups.share(r) },
    {
      icon: 'archive',
      name: 'Archive',
      may: (r) => r.state !== 'retired',
      run: (r) => this.#archive([r]),
    },
    {
      icon: 'unarchive',
      name: 'Restore',
      may: (r) => r.state === 'retired',
      run: (r) => this.#setups.restore([r], () => this.#again()),
    },
  ];

  readonly headline = computed(() => {
    const s = this.summary();
    if (!s) return 'Setups';
    if (s.n === 0) return 'No setups yet';
    const parts = [
      s.works ? `${s.works} ${s.works === 1 ? 'works' : 'work'}` : '',
      s.care ? `${s.care} ${s.care === 1 ? 'needs' : 'need'} care` : '',
      s.blocked ? `${s.blocked} won't work` : '',
      s.unknown ? `${s.unknown} ${s.unknown === 1 ? 'is' : 'are'} not enough known` : '',
    ].filter((x) => x !== '');
    const list =
      parts.length > 1
        ? `${parts.slice(0, -1).join(', ')} and ${parts[parts.length - 1] ?? ''}`
        : (parts[0] ?? '');
    return `${pluralize(s.n, 'setup')}: ${list}.`;
  });

  constructor() {
    inject(Keys).bind([
      { key: 'n', what: 'New setup', run: () => this.create() },
      { key: 'x', what: 'Select the row with the focus', run: () => this.#toggleFocused() },
      { key: 'ArrowDown', what: 'Next row', run: () => this.#step(1) },
      { key: 'ArrowUp', what: 'Row before', run: () => this.#step(-1) },
    ]);
    effect(() => this.list.load(this.#filter()));
    effect(() => {
      const ids = (this.rows() ?? []).map((r) => r.id);
      untracked(() => this.#askOverheads(ids));
    });
    effect(() => this.#show(this.q(), this.state() || null, this.retired() === '1'));
    const filters = [
      [this.find, (v: unknown) => ({ q: String(v).trim() || null })],
      [this.stateOf, (v: unknown) => ({ state: v as string | null })],
      [this.archived, (v: unknown) => ({ retired: v ? '1' : null })],
    ] as const;
    for (const [control, query] of filters)
      (control as FormControl<unknown>).valueChanges
        .pipe(takeUntilDestroyed())
        .subscribe((v) => this.filter(query(v)));
  }

  /** Every setup that fits the filter, for a download. */
  readonly everything = (): Observable<readonly SetupRow[]> => {
    const page = (cursor?: string) =>
      this.#data.list({ ...this.#filter(), limit: 200, ...(cursor && { cursor }) });
    return page().pipe(
      expand((p) => (p.next ? page(p.next) : EMPTY)),
      reduce((rows: SetupRow[], p) => [...rows, ...p.items], []),
    );
  };

  /** Loads the parts and the setup of a share file, all or nothing. */
  async openShare(box: HTMLInputElement): Promise<void> {
    const file = box.files?.[0];
    box.value = '';
    if (!file) return;
    this.failed.set(null);
    const read = await this.#files.load(file);
    if (!read.ok) this.failed.set(read.why);
    else {
      this.#acts.say(read.words);
      this.#again();
    }
  }

  filter(query: Record<string, string | null>): void {
    void this.#router.navigate([], {
      queryParams: query,
      queryParamsHandling: 'merge',
      replaceUrl: true,
    });
  }

  enter(door: Door): void {
    if (typeof door.to === 'string') void this.#router.navigateByUrl(door.to);
    else this.create(door.to.setup);
  }

  /** Creates a setup and opens a page of it. */
  create(page: 'plan' | 'bring-up' | 'runs' = 'plan'): void {
    const used = new Set(this.rows()?.map((r) => r.name));
    const names = Array.from({ length: 1000 }, (_, i) => `New setup${i === 0 ? '' : ` ${i + 1}`}`);
    const name = names.find((n) => !used.has(n)) ?? 'New setup';
    const id = v7();
    this.#acts.run(this.#data.create({ id, name }), {
      failed: 'No setup was created.',
      then: () => void this.#router.navigateByUrl(`/setups/${id}/${page}`),
    });
  }

  cloneChosen(): void {
    const row = this.rows()?.find((r) => this.chosen().has(r.id));
    if (row) this.#setups.clone(row);
  }

  archiveChosen(): void {
    const rows = this.rows()?.filter((r) => this.chosen().has(r.id) && r.state !== 'retired');
    this.#archive(rows ?? []);
    this.chosen.set(new Set());
  }

  #archive(rows: readonly SetupRow[]): void {
    this.#setups.archive(rows, () => this.#again());
  }

  #again(): void {
    this.list.load();
    this.reading.reload();
  }

  #sort(): SetupSort {
    const by = this.sort();
    return by === 'state' || by === 'changed' ? by : 'name';
  }

  #filter(): SetupFilter {
    const state = this.state() as SetupState | '';
    return {
      q: this.q(),
      retired: this.retired() === '1',
      sort: this.#sort(),
      dir: this.dir() === 'desc' ? 'desc' : 'asc',
      ...(state && { state }),
    };
  }

  /** Asks what the links of setups cost that were not asked for yet; without an answer their cells say nothing. */
  #askOverheads(ids: readonly string[]): void {
    const known = this.#overheads();
    const unknown = ids.filter((id) => !known.has(id)).slice(0, MAX_IDS);
    if (unknown.length === 0) return;
    this.#data
      .overheads(unknown)
      .pipe(catchError(() => of([])))
      .subscribe((found) => {
        const next = new Map(this.#overheads());
        for (const id of unknown) next.set(id, found.find((f) => f.setupId === id) ?? null);
        this.#overheads.set(next);
        this.#askOverheads(ids);
      });
  }

  /** Shows the filter of the address in the fields; text that is being typed stays. */
  #show(q: string, state: string | null, archived: boolean): void {
    untracked(() => {
      if (this.find.value.trim() !== q) this.find.setValue(q, { emitEvent: false });
      this.stateOf.setValue(state, { emitEvent: false });
      this.archived.setValue(archived, { emitEvent: false });
    });
  }

  #links(): HTMLElement[] {
    return [...document.querySelectorAll<HTMLElement>('a.setup-link')];
  }

  #step(by: number): void {
    const links = this.#links();
    const now = links.indexOf(document.activeElement as HTMLElement);
    links[Math.max(0, Math.min(links.length - 1, now + by))]?.focus();
  }

  #toggleFocused(): void {
    const id =
      document.activeElement instanceof HTMLElement
        ? document.activeElement.dataset['id']
        : undefined;
    if (id === undefined) return;
    const next = new Set(this.chosen());
    if (!next.delete(id)) next.add(id);
    this.chosen.set(next);
  }
}
