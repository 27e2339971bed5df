import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  inject,
  input,
  signal,
  untracked,
} from '@angular/core';
import { FormControl } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MatButtonToggleModule } from '@angular/material/button-toggle';
import { MatIconModule } from '@angular/material/icon';
import { MatProgressBarModule } from '@angular/material/progress-bar';
import { MatTooltipModule } from '@angular/material/tooltip';
import { Router } from '@angular/router';
import { forkJoin } from 'rxjs';
import { v7 } from 'uuid';
import { RULES } from '@ruddy/core/base';
import type { RejectReason, RowIds, RowView } from '@ruddy/core/buy';
import type { ScoutAsk, SearchEntry } from '@ruddy/core/buy/contract';
import { comboName, moneyShort, scoutHeadline, stopsWords } from '@ruddy/core/buy/text';
import { partName } from '@ruddy/core/chain';
import type { HostSpec, ScreenSpec } from '@ruddy/core/parts';
import type { SetupRow } from '@ruddy/core/plan/contract';
import type { ProfileEntry } from '@ruddy/core/runs/contract';
import { NO_SLOTS } from '@ruddy/core/setups';
import { PartsData } from '../parts/parts';
import { RunsData } from '../runs/runs';
import { ScoutData } from './scout';
import { SetupsData } from '../setups/setups';
import { keepCurrency, lastCurrency } from '../platform/shared/amount';
import { download } from '../platform/shared/download';
import { pluralize, orEmpty } from '../platform/shared/format';
import { Keys } from '../platform/shell/keys';
import { FrontChart } from './front-chart';
import { LeftPanel } from './left-panel';
import { OutrightPanel } from './outright-panel';
import { RankedTable } from './ranked-table';
import { scoutCsv } from './scout-csv';
import { ScoutStore } from './scout-store';
import { freshAsk } from './wanted';
import { WantedForm, type Named } from './wanted-form';
import { Acts } from '../platform/kit/ask';
import { Cell } from '../platform/kit/cell';
import type { Column } from '../platform/kit/columns';
import { Field } from '../platform/kit/field';
import { Fold } from '../platform/kit/fold';
import type { FieldMeta } from '../platform/kit/meta';
import { Rows } from '../platform/kit/rows';

/** A point of the front, and the step up to it. */
interface FrontStep {
  readonly row: RowView;
  readonly knee: boolean;
  readonly last: boolean;
  readonly fps: number;
  readonly step: { moreMinor: number; moreFps: number; per100: number } | null;
}

const KEPT = 'ruddy.scout';
/** Which kept search the ask was opened from. */
const OPENED = 'ruddy.scout.opened';

function keptAsk(): ScoutAsk | null {
  try {
    return JSON.parse(localStorage.getItem(KEPT) ?? 'null') as ScoutAsk | null;
  } catch {
    return null;
  }
}

/** What to buy or build for a host, a use and money. */
@Component({
  imports: [
    Cell,
    Field,
    Fold,
    FrontChart,
    LeftPanel,
    MatButtonModule,
    MatButtonToggleModule,
    MatIconModule,
    MatProgressBarModule,
    MatTooltipModule,
    OutrightPanel,
    RankedTable,
    Rows,
    WantedForm,
  ],
  providers: [ScoutStore],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './scout-page.html',
  styleUrl: './scout-page.scss',
})
export class ScoutPage {
  readonly #data = inject(ScoutData);
  readonly #setups = inject(SetupsData);
  readonly #router = inject(Router);
  readonly #acts = inject(Acts);
  readonly store = inject(ScoutStore);
  readonly search = input('', { transform: orEmpty });
  readonly ask = signal<ScoutAsk>(keptAsk() ?? freshAsk('', '', lastCurrency()));
  readonly hosts = signal<readonly Named[]>([]);
  readonly screens = signal<readonly Named[]>([]);
  readonly titles = signal<readonly ProfileEntry[]>([]);
  readonly #allSetups = signal<readonly SetupRow[]>([]);
  readonly searches = signal<readonly SearchEntry[] | null>(null);
  readonly problem = signal<string | null>(null);
  readonly keepName = new FormControl('', { nonNullable: true });
  readonly nameMeta: FieldMeta = { label: 'Save this search as', input: 'text', max: 80 };
  readonly at = signal(0);
  readonly #chosen = signal<RowView | null>(null);
  readonly percent = computed(
    () =>
      this.store.grounds()?.input.context.house['scout.equalPercent'] ??
      RULES['scout.equalPercent'].default,
  );
  readonly #searched = signal(false);

  /** Setups of the host that is asked for: how it is set up is taken from one of them. */
  readonly setups = computed(() => {
    const host = this.hosts().find((h) => h.id === this.ask().hostId)?.name;
    return this.#allSetups().filter((s) => s.chain?.host === host);
  });
  readonly chosen = computed(() => this.#chosen() ?? this.store.result()?.ranked[0] ?? null);
  readonly headline = computed(() => {
    const r = this.store.result();
    if (this.hosts().length === 0 && this.searches() !== null)
      return '0 hosts known: describe one under Parts, then search.';
    if (!r)
      return this.store.working()
        ? 'Reading the parts …'
        : `What to buy: choose a host and a use; ${pluralize(this.titles().length, 'use is', 'uses are')} known.`;
    const words = scoutHeadline(r, this.store.working());
    return this.store.stopped() ? `Stopped. ${words}` : words;
  });
  readonly rows = computed(() => this.store.result()?.ranked ?? []);
  readonly pins = computed(() => this.store.pinned().flatMap((p) => (p ? [p] : [])));
  readonly pinIndices = computed(() => this.pins().map((p) => p.index));
  readonly currency = computed(() => this.store.result()?.currency ?? this.ask().currency);
  readonly stops = computed(() => {
    const r = this.store.result();
    return r ? r.fronts.map((_, k) => stopsWords(r, k)) : [];
  });
  readonly share = computed(() => {
    const r = this.store.result();
    return r && r.total > 0 ? Math.floor((100 * r.done) / r.total) : 0;
  });
  /** The points of the front with what each step up costs and gives. */
  readonly steps = computed<readonly FrontStep[]>(() => {
    const front = this.store.result()?.fronts[this.at()];
    return (front?.points ?? []).map((row, i) => ({
      row,
      knee: i === front?.knee,
      last: front?.stops?.after === i,
      fps: row.fps[this.at()] ?? 0,
      step: i === 0 ? null : (front?.steps[i - 1] ?? null),
    }));
  });
  readonly stepColumns = computed<readonly Column<FrontStep>[]>(() => [
    { key: 'set', name: 'Set', text: (s) => comboName(s.row) },
    { key: 'price', name: 'Price', figure: true, text: (s) => this.money(s.row.minor) },
    { key: 'fps', name: 'Frames/s', figure: true, text: (s) => s.fps.toFixed(0) },
    {
      key: 'more',
      name: 'Costs more',
      figure: true,
      text: (s) => (s.step ? this.money(s.step.moreMinor) : '–'),
    },
    {
      key: 'gives',
      name: 'Gives more',
      figure: true,
      text: (s) => s.step?.moreFps.toFixed(1) ?? '–',
    },
    {
      key: 'per',
      name: 'Per 100',
      figure: true,
      text: (s) => s.step?.per100.toFixed(1) ?? '–',
    },
  ]);
  readonly money = (minor: number) => moneyShort({ minor, currency: this.currency() });
  readonly name = comboName;
  readonly size = (resolution: string) => resolution.replace('x', '×');

  constructor() {
    inject(Keys).bind([
      { key: 'Escape', what: 'Stop the search', run: () => this.store.stop() },
      { key: 'x', what: 'Pin or unpin the chosen set', run: () => this.#with((r) => this.pin(r)) },
      {
        key: 'Enter',
        what: 'Make a plan of the chosen set',
        run: () => this.#with((r) => this.plan(r)),
      },
      { key: '.', what: 'Search', run: () => this.run() },
    ]);
    const parts = inject(PartsData);
    const runs = inject(RunsData);
    const asked = forkJoin({
      hosts: parts.list({ kind: 'host', limit: 500 }),
      screens: parts.list({ kind: 'screen', limit: 500 }),
      titles: runs.profiles(),
      setups: this.#setups.list({}),
      searches: this.#data.searches(),
    });
    const loaded = this.#acts.read(asked, {
      line: this.problem,
      then: (a) => {
        this.hosts.set(
          a.hosts.items.map((p) => ({ id: p.id, name: partName(p.spec as HostSpec) })),
        );
        this.screens.set(
          a.screens.items.map((p) => ({ id: p.id, name: partName(p.spec as ScreenSpec) })),
        );
        this.titles.set(a.titles.filter((t) => t.params !== null || t.runs > 0));
        this.#allSetups.set(a.setups.items);
        this.searches.set(a.searches.items);
        // What is remembered on this machine may be gone by now.
        const { hostId, titleId } = this.ask();
        if (!a.hosts.items.some((h) => h.id === hostId))
          this.change({ ...this.ask(), hostId: '', setupId: null });
        if (!this.titles().some((t) => t.id === titleId))
          this.change({ ...this.ask(), titleId: this.titles()[0]?.id ?? '' });
      },
    });
    inject(DestroyRef).onDestroy(() => loaded.unsubscribe());
    effect(() => {
      const id = this.search();
      const kept = this.searches()?.find((s) => s.id === id);
      untracked(() => {
        if (!kept) return;
        // What was changed of it since it was opened stays on a reload.
        const opened = localStorage.getItem(OPENED) === id;
        if (opened && this.#searched()) return;
        localStorage.setItem(OPENED, id);
        if (!opened) this.change(kept.ask);
        this.run();
      });
    });
  }

  #with(act: (r: RowView) => void): void {
    const r = this.chosen();
    if (r) act(r);
  }

  change(ask: ScoutAsk): void {
    const before = this.ask();
    const after = ask;
    this.ask.set(ask);
    localStorage.setItem(KEPT, JSON.stringify(ask));
    if (before.currency !== after.currency) keepCurrency(after.currency);
    // Once there is an answer, other limits change it at once.
    if (this.#searched() && (before.limits !== after.limits || before.weights !== after.weights))
      this.run();
  }

  run(): void {
    if (this.ask().hostId === '' || this.ask().titleId === '') return;
    this.#searched.set(true);
    this.#chosen.set(null);
    void this.store.search(this.ask());
  }

  /** A part was described further: the catalogue is read again. */
  anew(): void {
    this.store.forget();
    this.run();
  }

  choose(r: RowView): void {
    this.#chosen.set(r);
    void this.store.compare(r.ids, this.percent());
  }

  pin(r: RowView): void {
    const same = (x: RowIds) => JSON.stringify(x) === JSON.stringify(r.ids);
    const pins = this.ask().pins as RowIds[];
    const next = pins.some(same) ? pins.filter((p) => !same(p)) : [...pins, r.ids].slice(-12);
    this.change({ ...this.ask(), pins: next as ScoutAsk['pins'] });
    void this.store.look(next);
  }

  allow({ reason, row }: { reason: RejectReason; row: RowView }): void {
    const { limits } = this.ask();
    const fps = row.fps[0] ?? null;
    const change = {
      budget: { budgetMinor: row.minor },
      target: { targetFps: fps === null ? null : Math.floor(fps) },
      charging: { chargeW: null },
      noise: { noiseDb: null },
      size: { lengthMm: null },
      opening: { noOpening: false },
      portable: { portable: false },
      'own-port': { openOnly: false },
      repackaged: { noRepackaged: false },
      unproven: { proven: false },
      unsure: { unsure: true },
    }[reason as string];
    if (change) this.change({ ...this.ask(), limits: { ...limits, ...change } });
  }

  /** A setup of this very combination, in the state of a plan. */
  plan(r: RowView): void {
    const { ids } = r;
    const slots = {
      ...NO_SLOTS,
      host: this.ask().hostId,
      socket: ids.socket,
      path: [...ids.path],
      dock: ids.dock,
      card: ids.card,
      supplies: ids.supply ? [{ part: ids.supply, feeds: 'both' as const }] : [],
      screens: ids.screen
        ? [{ part: ids.screen, by: 'card' as const, plug: 'displayport' as const }]
        : [],
    };
    const id = v7();
    const name = `${r.names.card} in ${r.names.dock}`.slice(0, 80);
    this.#acts.run(this.#setups.create({ id, name, slots }), {
      failed: 'No plan was made.',
      then: () => void this.#router.navigate(['/setups', id, 'plan']),
    });
  }

  keep(): void {
    const name = this.keepName.value.trim();
    if (name === '') return;
    this.#acts.run(this.#data.keep({ id: v7(), name, ask: this.ask() }), {
      done: `Saved "${name}".`,
      then: (s) => {
        this.searches.update((all) => [s, ...(all ?? [])]);
        this.keepName.reset();
      },
    });
  }

  /** The search as it stands now, under the name it has. */
  renew(s: SearchEntry): void {
    this.#acts.run(this.#data.change(s.id, { ask: this.ask() }, s.rev), {
      done: `Saved "${s.name}".`,
      then: (next) =>
        this.searches.update((all) => (all ?? []).map((x) => (x.id === s.id ? next : x))),
    });
  }

  /** Undo keeps it again, under a new id. */
  forget(s: SearchEntry): void {
    const again = () =>
      this.#acts.run(this.#data.keep({ id: v7(), name: s.name, ask: s.ask }), {
        then: (back) => this.searches.update((all) => [back, ...(all ?? [])]),
      });
    this.#acts.run(this.#data.remove(s.id), {
      done: `Deleted "${s.name}".`,
      failed: 'Not deleted.',
      undo: again,
      then: () => this.searches.update((all) => (all ?? []).filter((x) => x.id !== s.id)),
    });
  }

  open(s: SearchEntry): void {
    localStorage.setItem(OPENED, s.id);
    this.change(s.ask);
    this.run();
    void this.#router.navigate([], { queryParams: { search: s.id }, queryParamsHandling: 'merge' });
  }

  /** Parts that were too many to try. */
  leftParts(left: Readonly<Record<string, number>>): string[] {
    return Object.entries(left).map(
      ([kind, n]) =>
        `${n} more of kind ${kind} were not tried; those at hand and with a price came first.`,
    );
  }

  async csv(): Promise<void> {
    const r = this.store.result();
    if (r) download('scout.csv', 'text/csv', await scoutCsv(r));
  }
  print(): void {
    window.print();
  }
}
