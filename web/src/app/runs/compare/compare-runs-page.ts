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
import { MatButtonModule } from '@angular/material/button';
import { Router, RouterLink } from '@angular/router';
import { firstValueFrom } from 'rxjs';
import { v7 } from 'uuid';
import {
  classifyRuns,
  type Dimension,
  DIMENSIONS,
  FACTS,
  type Measure,
  missingOf,
  NOT_SAID,
  overTitles,
  resultTable,
  RUN_MEASURES,
  type RunComparison,
  type TitleRatio,
} from '@ruddy/core/runs';
import type { RunEntry } from '@ruddy/core/runs/contract';
import { comparedText, MEASURE_UNITS, overTitlesText, setupCaption } from '@ruddy/core/runs/text';
import type { ApiError } from '../../platform/api/api-client';
import { RunsData } from '../runs';
import { MAX_RUNS, ComparisonList } from '../../setups/comparison-list';
import { gridRun, valuesOf } from '../run-groups';
import { RunForm, type RunDraft, saidOfAll } from '../run-form';
import { pluralize, orEmpty } from '../../platform/shared/format';
import { StatedPanel } from './stated-panel';
import { Fold } from '../../platform/kit/fold';
import { Field } from '../../platform/kit/field';
import type { FieldMeta } from '../../platform/kit/meta';
import { CaptureWork } from '../capture-work';
import { ResultLimits } from './result-limits';
import { ResultSection } from './result-section';

type GridChoice = 'columns' | 'base' | 'rows' | 'measure';

/** A row that is no title, for the mean over rows. */
const rowRatio = (c: RunComparison, i: number): TitleRatio => ({ ...c, title: String(i), why: '' });

/** Axes that rows are made of where the runs differ in them. */
const ROW_AXES: readonly Dimension[] = ['title', 'resolution'];

/** Runs held against one another over what they differ in: the table of their ratios with intervals, and the result to publish. */
@Component({
  imports: [Field, Fold, MatButtonModule, ResultSection, RouterLink, RunForm, StatedPanel],
  providers: [CaptureWork, ResultLimits],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './compare-runs-page.html',
  styleUrl: './compare-runs-page.scss',
})
export class CompareRunsPage {
  readonly #data = inject(RunsData);
  readonly #router = inject(Router);
  readonly comparisonList = inject(ComparisonList);
  readonly limits = inject(ResultLimits);
  readonly of = input('', { transform: orEmpty });
  readonly rows = input('', { transform: orEmpty });
  readonly columns = input('', { transform: orEmpty });
  readonly base = input('', { transform: orEmpty });
  readonly measure = input('', { transform: orEmpty });

  readonly runs = signal<readonly RunEntry[] | null>(null);
  /** Runs of the same titles in a desktop slot. */
  readonly norms = signal<readonly RunEntry[]>([]);
  /** Every run of the titles: repeats that are not compared tell what those that are stand out of. */
  readonly #ofTitles = signal<readonly RunEntry[]>([]);
  readonly #classes = computed(() => {
    const own = new Map([...this.#ofTitles(), ...(this.runs() ?? [])].map((r) => [r.id, r]));
    return classifyRuns([...own.values()]);
  });
  readonly problem = signal<string | null>(null);
  readonly asking = signal<{ runs: readonly RunEntry[]; draft: RunDraft } | null>(null);
  readonly fieldProblem = signal<string | null>(null);
  readonly dimensions = DIMENSIONS.map((d) => ({ value: d, label: FACTS[d] }));
  readonly counted = pluralize;

  readonly ids = computed(() => {
    const asked = this.of()
      .split(',')
      .filter((id) => id !== '');
    return (asked.length > 0 ? asked : this.comparisonList.runs.list().map((r) => r.id)).slice(
      0,
      MAX_RUNS,
    );
  });
  /** Measures any of the runs has. */
  readonly measures = computed(() => {
    const has = new Set((this.runs() ?? []).flatMap((r) => Object.keys(valuesOf(r))));
    return Object.entries(RUN_MEASURES).flatMap(([value, label]) =>
      has.has(value) ? [{ value: value as Measure, label }] : [],
    );
  });
  readonly measureNow = computed((): Measure => {
    const list = this.measures();
    return list.find((m) => m.value === this.measure())?.value ?? list[0]?.value ?? 'average';
  });
  /** What differs between the runs, the most telling first. */
  readonly differing = computed(() =>
    DIMENSIONS.filter(
      (d) =>
        new Set((this.runs() ?? []).filter((r) => !r.context.norm).map((r) => r.facts[d])).size > 1,
    ),
  );
  readonly #own = computed(() => (this.runs() ?? []).filter((r) => !r.context.norm));
  /** What parts the runs as setups do, so that it names them: a card, a link; else the setups themselves. */
  readonly #telling = computed((): Dimension | undefined => {
    const own = this.#own();
    const count = (of: (r: RunEntry) => string) => new Set(own.map(of)).size;
    const setups = count((r) => r.facts.setup);
    const others = this.differing().filter((d) => d !== 'setup' && !ROW_AXES.includes(d));
    const alike = (d: Dimension) =>
      count((r) => r.facts[d]) === setups &&
      count((r) => `${r.facts.setup}\u0000${r.facts[d]}`) === setups;
    return setups > 1 ? (others.find(alike) ?? 'setup') : others[0];
  });
  readonly columnBy = computed(
    (): Dimension =>
      DIMENSIONS.find((d) => d === this.columns()) ??
      this.#telling() ??
      this.differing()[0] ??
      'card',
  );
  readonly rowBy = computed((): readonly Dimension[] => {
    const asked = this.rows().split(',');
    const known = DIMENSIONS.filter((d) => asked.includes(d) && d !== this.columnBy());
    if (known.length > 0) return known;
    const usual = ROW_AXES.filter((d) => d !== this.columnBy() && this.differing().includes(d));
    return usual.length > 0 ? usual : [this.columnBy() === 'title' ? 'resolution' : 'title'];
  });
  readonly values = computed(() => [
    ...new Set(
      (this.runs() ?? [])
        .filter((r) => !r.context.norm)
        .map((r) => r.facts[this.columnBy()] || NOT_SAID),
    ),
  ]);
  /** The base that was asked for, else the value that is measured in most rows; among equals that of the run that came first. */
  readonly baseNow = computed(() => {
    if (this.values().includes(this.base())) return this.base();
    const by = this.columnBy();
    const rows = this.rowBy();
    const rowsOf = new Map<string, Set<string>>();
    for (const r of this.#own()) {
      const at = r.facts[by] || NOT_SAID;
      const row = rows.map((d) => r.facts[d]).join('\u0000');
      rowsOf.set(at, (rowsOf.get(at) ?? new Set()).add(row));
    }
    const most = Math.max(0, ...[...rowsOf.values()].map((s) => s.size));
    return [...rowsOf].find(([, s]) => s.size === most)?.[0] ?? '';
  });
  readonly result = computed(() =>
    resultTable(
      [...(this.runs() ?? []), ...this.norms()].map((r) => gridRun(r, this.#classes())),
      {
        rows: this.rowBy(),
        columns: this.columnBy(),
        base: this.baseNow(),
        measure: this.measureNow(),
      },
      this.limits.words(),
    ),
  );
  /** The setups of the result, each once. */
  readonly captions = computed(() => [...new Set(this.#own().map((r) => setupCaption(r.facts)))]);
  readonly fields = computed(() => {
    const field = (
      key: GridChoice,
      label: string,
      options: FieldMeta['options'],
      value: string,
    ) => ({
      key,
      value,
      meta: { label, input: 'choice', options } as FieldMeta,
    });
    const values = this.values().map((v) => ({ value: v, label: v }));
    return [
      field('columns', 'Columns', this.dimensions, this.columnBy()),
      field('base', 'Base', values, this.baseNow()),
      {
        key: 'rows' as const,
        value: this.rowBy(),
        meta: { label: 'Rows', input: 'several', options: this.dimensions } as FieldMeta,
      },
      field('measure', 'Measure', this.measures(), this.measureNow()),
    ];
  });
  readonly unit = computed(
    () =>
      MEASURE_UNITS[this.measureNow()] || (this.runs()?.find((r) => r.result)?.result?.unit ?? ''),
  );
  readonly missing = computed(() =>
    (this.runs() ?? []).filter((r) => missingOf(r.kind, r.settings, r.context).length > 0),
  );
  readonly axes = computed(() =>
    [...this.rowBy(), this.columnBy()].map((d) => FACTS[d].toLowerCase()).join(' × '),
  );
  readonly drawnOf = computed(
    () => `${RUN_MEASURES[this.measureNow()].toLowerCase()} by ${this.axes()}`,
  );
  /** Heading of what is published. */
  readonly heading = computed(() => `Runs against ${this.baseNow()}: ${this.drawnOf()}`);
  /** The change of each column against the base, over its rows. */
  readonly sentence = computed(() => {
    const runs = this.runs();
    if (!runs)
      return this.problem() === null
        ? 'Reading the runs …'
        : 'The runs could not be read; 0 are compared.';
    const { columns, rows, over } = this.result();
    if (runs.length < 2 || columns.length < 2)
      return `${pluralize(runs.length, 'run')} in the comparison list; a comparison needs two that differ in ${FACTS[this.columnBy()].toLowerCase()}.`;
    const words = columns.slice(1).flatMap((name, i) => {
      const ratios = rows.flatMap((r) => r.cells[i + 1]?.ratio ?? []);
      if (ratios.length === 0) return [];
      const real = ratios.filter((c) => c.says === 'real').length;
      const all = over.at(-1)?.cells[i + 1] ?? overTitles(ratios.map(rowRatio));
      const words = ratios.length === 1 ? comparedText(ratios[0]!) : overTitlesText(all);
      if (ratios.length === 1) return `${name} ${words}`;
      return `${name} ${words} (${real} of ${ratios.length} significant)`;
    });
    const without = columns.length - 1 - words.length;
    const alone = without > 0 ? [`${without} without a cell beside the base`] : [];
    return `Against ${columns[0] ?? ''}: ${[...words, ...alone].join(', ')}; ${this.drawnOf()}.`;
  });

  constructor() {
    effect(() => {
      const ids = this.ids();
      untracked(() => void this.#load(ids));
    });
  }

  choose(key: GridChoice, value: unknown): void {
    const words = Array.isArray(value) ? value.join(',') : String(value);
    // Another column has values of its own, and so another base.
    this.go(key === 'columns' ? { columns: words, base: null } : { [key]: words });
  }

  go(queryParams: Record<string, string | null>): void {
    void this.#router.navigate([], { queryParams, queryParamsHandling: 'merge', replaceUrl: true });
  }

  async #load(ids: readonly string[]): Promise<void> {
    this.problem.set(null);
    try {
      const runs =
        ids.length > 0 ? await firstValueFrom(this.#data.all({ ids: ids.join(',') })) : [];
      // The same card in a desktop slot need not be put aside: it is found by the title.
      const titles = [...new Set(runs.map((r) => r.titleId))];
      const others = await Promise.all(
        titles.map((titleId) => firstValueFrom(this.#data.all({ titleId }))),
      );
      this.#ofTitles.set(others.flat());
      this.norms.set(others.flat().filter((r) => r.context.norm && !ids.includes(r.id)));
      this.runs.set(ids.flatMap((id) => runs.find((r) => r.id === id) ?? []));
    } catch (e) {
      this.problem.set((e as ApiError).message);
    }
  }

  /** What limits each cell, from every run of its title. */
  askLimits(): void {
    const runs = this.runs() ?? [];
    const firsts = this.result().rows.flatMap((r) => r.cells.map((c) => c.from.runs[0]?.id));
    void this.limits.compute({
      of: runs.filter((r) => firsts.includes(r.id)),
      runs: this.#ofTitles(),
      classes: this.#classes(),
    });
  }

  leave(r: RunEntry): void {
    this.comparisonList.runs.remove([r.id]);
    this.runs.update((all) => all?.filter((x) => x.id !== r.id) ?? null);
  }

  clear(): void {
    this.comparisonList.runs.clear();
    this.go({ of: null });
    this.runs.set([]);
  }

  /** Asks for the settings that are missing of the runs of one setup and title. */
  ask(r: RunEntry): void {
    const same = this.missing().filter(
      (x) =>
        x.setupId === r.setupId &&
        x.titleId === r.titleId &&
        JSON.stringify(x.settings) === JSON.stringify(r.settings),
    );
    this.asking.set({
      runs: same,
      draft: { settings: r.settings, context: r.context, saw: r.saw },
    });
  }

  async keep(): Promise<void> {
    const a = this.asking();
    if (!a || this.fieldProblem()) return;
    try {
      for (const r of a.runs) {
        const now = await firstValueFrom(this.#data.say(r.id, { id: v7(), ...saidOfAll(a.draft) }));
        this.runs.update((all) => all?.map((x) => (x.id === now.id ? now : x)) ?? null);
      }
      this.asking.set(null);
    } catch (e) {
      this.problem.set(`Not kept: ${(e as ApiError).message}`);
    }
  }
}
