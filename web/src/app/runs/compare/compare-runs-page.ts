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
import { mean } from '@ruddy/core/base';
import { figureText } from '@ruddy/core/base/text';
import {
  type ComparisonCell,
  type Dimension,
  DIMENSIONS,
  FACTS,
  grid,
  type Measure,
  missingOf,
  NOT_SAID,
  PLAY_LABELS,
  playLabel,
  RUN_MEASURES,
  threeWays,
} from '@ruddy/core/runs';
import type { RunEntry } from '@ruddy/core/runs/contract';
import {
  comparedText,
  MEASURE_UNITS,
  noteText,
  SAYS_WORDS,
  unlikeText,
} from '@ruddy/core/runs/text';
import type { ApiError } from '../../platform/api/api-client';
import { RunsData } from '../runs';
import { MAX_RUNS, ComparisonList } from '../../setups/comparison-list';
import { gridRun, valuesOf } from '../run-groups';
import { RunForm, type RunDraft } from '../run-form';
import { toCsv } from '../../platform/kit/csv';
import { download } from '../../platform/shared/download';
import { pluralize, orEmpty } from '../../platform/shared/format';
import { StatedPanel } from './stated-panel';
import { Fold } from '../../platform/kit/fold';
import { Cell } from '../../platform/kit/cell';
import type { ShortColumn } from '../../platform/kit/columns';
import { Field } from '../../platform/kit/field';
import type { FieldMeta } from '../../platform/kit/meta';
import { Rows } from '../../platform/kit/rows';

const ms = (fps: number) => 1000 / fps;

type GridChoice = 'columns' | 'base' | 'rows' | 'measure';

interface GridRow {
  readonly name: string;
  readonly cells: readonly ComparisonCell[];
}

/** Runs held against one another: pairs and grids over what they differ in, each cell with its three percentages, its interval, and what is unlike. */
@Component({
  imports: [Cell, Field, Fold, MatButtonModule, RouterLink, Rows, RunForm, StatedPanel],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './compare-runs-page.html',
  styleUrl: './compare-runs-page.scss',
})
export class CompareRunsPage {
  readonly #data = inject(RunsData);
  readonly #router = inject(Router);
  readonly comparisonList = inject(ComparisonList);
  readonly of = input('', { transform: orEmpty });
  readonly rows = input('', { transform: orEmpty });
  readonly columns = input('', { transform: orEmpty });
  readonly base = input('', { transform: orEmpty });
  readonly measure = input('', { transform: orEmpty });

  readonly runs = signal<readonly RunEntry[] | null>(null);
  /** Runs of the same titles in a desktop slot. */
  readonly norms = signal<readonly RunEntry[]>([]);
  readonly problem = signal<string | null>(null);
  readonly asking = signal<{ runs: readonly RunEntry[]; draft: RunDraft } | null>(null);
  readonly fieldProblem = signal<string | null>(null);
  readonly dimensions = DIMENSIONS.map((d) => ({ value: d, label: FACTS[d] }));
  readonly unlike = unlikeText;
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
  readonly columnBy = computed((): Dimension => {
    const asked = DIMENSIONS.find((d) => d === this.columns());
    return (
      asked ??
      this.differing().find((d) => d !== 'title' && d !== 'resolution') ??
      this.differing()[0] ??
      'card'
    );
  });
  readonly rowBy = computed((): Dimension => {
    const asked = DIMENSIONS.find((d) => d === this.rows());
    return (
      asked ??
      this.differing().find(
        (d) => d !== this.columnBy() && (d === 'title' || d === 'resolution'),
      ) ??
      (this.columnBy() === 'title' ? 'resolution' : 'title')
    );
  });
  readonly values = computed(() => [
    ...new Set(
      (this.runs() ?? [])
        .filter((r) => !r.context.norm)
        .map((r) => r.facts[this.columnBy()] || NOT_SAID),
    ),
  ]);
  readonly baseNow = computed(() => {
    if (this.values().includes(this.base())) return this.base();
    const first = this.runs()?.find((r) => r.id === this.ids()[0] && !r.context.norm);
    return (first && (first.facts[this.columnBy()] || NOT_SAID)) ?? this.values()[0] ?? '';
  });
  readonly grid = computed(() =>
    grid(
      [...(this.runs() ?? []), ...this.norms()].map(gridRun),
      this.rowBy(),
      this.columnBy(),
      this.baseNow(),
      this.measureNow(),
    ),
  );
  readonly gridColumns = computed((): readonly ShortColumn<GridRow>[] => [
    { key: 'row', name: FACTS[this.rowBy()], text: (r) => r.name },
    ...this.grid().columns.map((c, i) => ({ key: c, name: i === 0 ? `${c}, the base` : c })),
  ]);
  /** Rows of the grid, and at last the means over titles, where there are several. */
  readonly gridRows = computed((): readonly GridRow[] => {
    const { rows, cells, over } = this.grid();
    const list = rows.map((name, i) => ({ name, cells: cells[i] ?? [] }));
    return over.length > 1 ? [...list, { name: 'Over titles', cells: [] }] : list;
  });
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
      field('rows', 'Rows', this.dimensions, this.rowBy()),
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
  /** The change of each column against the base, over its rows. */
  readonly sentence = computed(() => {
    const runs = this.runs();
    if (!runs)
      return this.problem() === null
        ? 'Reading the runs …'
        : 'The runs could not be read; 0 are compared.';
    const g = this.grid();
    if (runs.length < 2 || g.columns.length < 2)
      return `${pluralize(runs.length, 'run')} in the comparison list; a comparison needs two that differ in ${FACTS[this.columnBy()].toLowerCase()}.`;
    const words = g.columns.slice(1).map((name, i) => {
      const compared = g.cells.flatMap((row) => row[i + 1]?.compared ?? []);
      if (compared.length === 0) return `${name} has no cell beside the base`;
      const of = Math.exp(compared.reduce((s, c) => s + Math.log(c.of), 0) / compared.length);
      const real = compared.filter((c) => c.says === 'real').length;
      return `${name} ${threeWays(of).faster >= 0 ? '+' : '−'}${Math.abs(threeWays(of).faster).toFixed(1)} % (${real} of ${compared.length} significant)`;
    });
    return `Against ${g.columns[0] ?? ''}: ${words.join(', ')}; ${RUN_MEASURES[this.measureNow()].toLowerCase()} by ${FACTS[this.rowBy()].toLowerCase()}.`;
  });

  constructor() {
    effect(() => {
      const ids = this.ids();
      untracked(() => void this.#load(ids));
    });
  }

  choose(key: GridChoice, value: string): void {
    // Another column has values of its own, and so another base.
    this.go(key === 'columns' ? { columns: value, base: null } : { [key]: value });
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
      this.norms.set(others.flat().filter((r) => r.context.norm && !ids.includes(r.id)));
      this.runs.set(ids.flatMap((id) => runs.find((r) => r.id === id) ?? []));
    } catch (e) {
      this.problem.set((e as ApiError).message);
    }
  }

  main(c: ComparisonCell): string {
    return `${figureText(mean(c.values))} ${this.unit()}`.trim();
  }

  more(c: ComparisonCell): string[] {
    const rate = this.unit() === 'frames/s';
    const [average, low] = [
      c.runs.map((r) => r.values.average),
      c.runs.map((r) => r.values.low),
    ].map((l) => l.filter((v) => v !== undefined));
    const label =
      average?.length && low?.length ? PLAY_LABELS[playLabel(mean(average), mean(low))] : '';
    return [
      `${pluralize(c.values.length, 'run')}${rate ? `, ${figureText(ms(mean(c.values)))} ms` : ''}${label ? `, ${label}` : ''}`,
      ...(c.compared ? [comparedText(c.compared)] : []),
      ...(c.ofNorm === null
        ? []
        : [`${figureText(c.ofNorm * 100)} % of the same card in a desktop slot`]),
    ];
  }

  warnings(c: ComparisonCell): string[] {
    return [
      ...c.notes.map(noteText),
      ...(c.leftOut > 0
        ? [`${pluralize(c.leftOut, 'other run')} here left out: unlike these in more than the day`]
        : []),
    ];
  }

  /** In what a cell is unlike the base beside what is compared, by name. */
  unlikeIn(c: ComparisonCell): string {
    return `unlike in ${c.unlike.length}: ${c.unlike.map((u) => FACTS[u.fact].toLowerCase()).join(', ')}`;
  }

  overWords(i: number): string {
    const o = this.grid().over[i];
    if (!o || o.of === null) return 'no title in common';
    const w = threeWays(o.of);
    const left =
      o.left.length > 0
        ? `; left out: ${o.left.map((l) => `${l.title} (${l.why})`).join(', ')}`
        : '';
    return i === 0
      ? pluralize(o.titles.length, 'title')
      : `${w.of.toFixed(1)} % of, ${w.faster.toFixed(1)} % faster over ${pluralize(o.titles.length, 'title')}${left}`;
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
        const now = await firstValueFrom(
          this.#data.say(r.id, { id: v7(), settings: a.draft.settings, context: a.draft.context }),
        );
        this.runs.update((all) => all?.map((x) => (x.id === now.id ? now : x)) ?? null);
      }
      this.asking.set(null);
    } catch (e) {
      this.problem.set(`Not kept: ${(e as ApiError).message}`);
    }
  }

  async csv(): Promise<void> {
    const g = this.grid();
    const rows = g.rows.flatMap((row, i) =>
      g.columns.map((column, k) => {
        const c = g.cells[i]![k]!;
        const w = c.compared ? threeWays(c.compared.of) : null;
        const round = (v: number | null | undefined) =>
          v === null || v === undefined ? null : Math.round(v * 1000) / 1000;
        return [
          row,
          column,
          c.values.length > 0 ? round(mean(c.values)) : null,
          this.unit(),
          c.values.length,
          round(w?.faster),
          round(w?.of),
          round(w?.lost),
          c.compared ? SAYS_WORDS[c.compared.says] : null,
          [...this.warnings(c), ...c.unlike.map(unlikeText)].join('; ') || null,
          c.why || null,
        ];
      }),
    );
    const head = [
      FACTS[this.rowBy()],
      FACTS[this.columnBy()],
      RUN_MEASURES[this.measureNow()],
      'unit',
      'runs',
      '% faster',
      '% of',
      '% lost',
      'told apart',
      'unlike',
      'missing because',
    ];
    download('runs-compared.csv', 'text/csv', await toCsv(head, rows));
  }
}
