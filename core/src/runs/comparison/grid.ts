import type { RunClass, Throttled, WideSpread } from '../repeats/classify';
import type { RunKind } from '../schema';
import { compareRuns, type Measure, type RunComparison } from './compare';
import { type Dimension, FACTS, repeatKey, type RunFacts, unlike, type Unlike } from './facts';
import { overTitles, type OverTitles } from './labels';

/** A run as a comparison needs it. `value`: null where this run has none for the measure. */
export interface GridRun {
  readonly id: string;
  readonly kind: RunKind;
  readonly facts: RunFacts;
  readonly values: Readonly<Partial<Record<Measure, number>>>;
  /** Why it could not be run, for a run that is none. */
  readonly reason: string;
  /** Seconds of frames; null without frames. */
  readonly seconds: number | null;
  /** What it is among its repeats; null where they are not known. */
  readonly class: RunClass | null;
  readonly missing: readonly string[];
  readonly norm: boolean;
}

export interface ComparisonCell {
  readonly runs: readonly GridRun[];
  readonly values: readonly number[];
  /** Against the base of its row; null for the base itself and where one of both is missing. */
  readonly compared: RunComparison | null;
  readonly unlike: readonly Unlike[];
  /** Against the same card in a desktop slot, where such a run is known for this row. */
  readonly ofNorm: number | null;
  /** Reservations about the comparison: lengths, caps, unknown settings. */
  readonly notes: readonly Note[];
  /** Why there is nothing: empty when there is. */
  readonly why: string;
  readonly leftOut: number;
  /** Runs of this cell that do not count among their repeats. */
  readonly apart: readonly GridRun[];
}
export type Note =
  | { readonly code: 'lengths'; readonly a: number; readonly b: number }
  | { readonly code: 'cap'; readonly fps: number }
  | { readonly code: 'apart'; readonly runs: readonly RunClass[] }
  | { readonly code: 'spread'; readonly spread: WideSpread }
  | { readonly code: 'throttled'; readonly first: Throttled }
  | { readonly code: 'missing'; readonly what: readonly string[] }
  | { readonly code: 'foreign-processor'; readonly a: string; readonly b: string };

/** Means over the titles of a table, for each column against the base. */
export interface OverRow {
  /** What the other axes of the rows are here, as a size; empty: over every row. */
  readonly at: readonly string[];
  readonly cells: readonly OverTitles[];
}

export interface Grid {
  /** Values of each row on the axes of the rows. */
  readonly rows: readonly (readonly string[])[];
  readonly columns: readonly string[];
  readonly cells: readonly (readonly ComparisonCell[])[];
  /** Only where titles are an axis of the rows. */
  readonly over: readonly OverRow[];
}

/** What a table is drawn of. */
export interface GridAsk {
  /** Axes of the rows: one row for each of their values that occur together. */
  readonly rows: readonly Dimension[];
  readonly columns: Dimension;
  /** Value of the column that the others are compared with. */
  readonly base: string;
  readonly measure: Measure;
}

/** Runs whose length differs by more than this share cover other scenes. */
const LENGTHS_APART = 0.2;

/** The repeats of a place that are most: where runs differ in more than the day, the largest group counts, and how many were left out. */
function repeats(
  runs: readonly GridRun[],
  like: RunFacts | null,
): { runs: GridRun[]; leftOut: number } {
  const groups = new Map<string, GridRun[]>();
  for (const r of runs)
    groups.set(repeatKey(r.facts), [...(groups.get(repeatKey(r.facts)) ?? []), r]);
  const list = [...groups.values()];
  const apart = (g: GridRun[]) => (like ? unlike(like, (g[0] as GridRun).facts, []).length : 0);
  // The group most like the base; among equals the larger one.
  const best = list.sort((x, y) => apart(x) - apart(y) || y.length - x.length)[0] ?? [];
  return { runs: best, leftOut: runs.length - best.length };
}

function whyNot(runs: readonly GridRun[]): string {
  const failed = runs.find((r) => r.kind === 'none');
  if (failed) return failed.reason || 'could not be run; nobody said why';
  return runs.length > 0 ? 'measured, but not this' : 'not measured';
}

/** What the classes of the runs of a cell say against taking its mean as it stands. */
function classNotes(cell: readonly GridRun[]): Note[] {
  const classes = cell.flatMap((r) => r.class ?? []);
  const cap = classes.find((c) => c.capFps !== null)?.capFps;
  const spread = classes.find((c) => c.spread)?.spread;
  const throttled = classes.flatMap((c) => c.throttled ?? []);
  return [
    ...(cap ? [{ code: 'cap' as const, fps: cap }] : []),
    ...(spread ? [{ code: 'spread' as const, spread }] : []),
    ...(throttled[0] ? [{ code: 'throttled' as const, first: throttled[0] }] : []),
  ];
}

function notesOf(cell: readonly GridRun[], base: readonly GridRun[]): Note[] {
  const notes: Note[] = [];
  const seconds = (l: readonly GridRun[]) =>
    l.flatMap((r) => (r.seconds === null ? [] : [r.seconds])).sort((x, y) => x - y);
  const [a, b] = [seconds(base), seconds(cell)].map((l) => l[l.length >> 1]);
  if (a !== undefined && b !== undefined && Math.abs(a - b) > LENGTHS_APART * Math.max(a, b))
    notes.push({ code: 'lengths', a, b });
  notes.push(...classNotes(cell));
  const what = [...new Set(cell.flatMap((r) => r.missing))];
  if (what.length > 0) notes.push({ code: 'missing', what });
  const x = base[0]?.facts.host;
  const y = cell[0]?.facts.host;
  if (x && y && x !== y) notes.push({ code: 'foreign-processor', a: x, b: y });
  return notes;
}

/** The place of a run in a row or column; a run that did not say stands under a name of its own. */
export const NOT_SAID = 'not set';
const placeOf = (r: GridRun, d: Dimension) => r.facts[d] || NOT_SAID;

const natural = (a: string, b: string) => a.localeCompare(b, 'en', { numeric: true });

/** Values that occur together on the axes of the rows, in their natural order. */
function rowsOf(runs: readonly GridRun[], by: readonly Dimension[]): string[][] {
  const rows = new Map(
    runs.map((r) => by.map((d) => placeOf(r, d))).map((v) => [v.join('\u0000'), v]),
  );
  return [...rows.values()].sort((a, b) => {
    const first = a.findIndex((v, i) => v !== b[i]);
    return natural(a[first] ?? '', b[first] ?? '');
  });
}

/** Means over titles: for each value of the other axes where there are several, and over everything. */
function overRows(
  { rows, columns: by }: GridAsk,
  table: Pick<Grid, 'rows' | 'columns' | 'cells'>,
): OverRow[] {
  const at = rows.indexOf('title');
  if (at < 0) return [];
  const others = (row: readonly string[]) => row.filter((_, i) => i !== at);
  const base = `${FACTS[by].toLowerCase()} ${table.columns[0] ?? ''}`;
  const over = (list: readonly number[]) =>
    table.columns.map((_, i) =>
      overTitles(
        list.map((k) => {
          const cells = table.cells[k] as readonly ComparisonCell[];
          const { compared, values, why } = cells[i] as ComparisonCell;
          const same = { of: values.length > 0 ? 1 : null, lo: 1, hi: 1 };
          const ratio = i === 0 ? same : (compared ?? { of: null });
          return {
            title: (table.rows[k] as readonly string[]).join(', '),
            ...ratio,
            why: why || `${base}: ${cells[0]?.why ?? ''}`,
          };
        }),
      ),
    );
  const groups = new Map<string, { at: string[]; list: number[] }>();
  for (const [k, row] of table.rows.entries()) {
    const key = others(row).join('\u0000');
    groups.set(key, { at: others(row), list: [...(groups.get(key)?.list ?? []), k] });
  }
  const single = groups.size < 2;
  const each = [...groups.values()]
    .filter((g) => g.list.length > 1 && !single)
    .map((g) => ({ at: g.at, cells: over(g.list) }));
  return [...each, { at: [], cells: over([...table.rows.keys()]) }];
}

/**
 * Comparison table of runs: each row is compared with its cell in the base column. Where the runs of a cell differ in
 * another fact, those most like the base count and the others are counted as left out.
 *
 * @param runs runs with their facts
 * @param asked axes of rows and columns, the base column and the measure
 * @returns cells with comparison and further differences; means over titles where they are an axis of the rows
 */
export function grid(runs: readonly GridRun[], asked: GridAsk): Grid {
  const { rows: rowBy, columns: columnBy, base, measure } = asked;
  const own = runs.filter((r) => !r.norm);
  const norms = runs.filter((r) => r.norm && r.values[measure] !== undefined);
  const rows = rowsOf(own, rowBy);
  const others = [...new Set(own.map((r) => placeOf(r, columnBy)))]
    .filter((c) => c !== base)
    .sort(natural);
  const columns = own.some((r) => placeOf(r, columnBy) === base) ? [base, ...others] : others;
  const cells = rows.map((row) => {
    const inRow = own.filter((r) => rowBy.every((d, i) => placeOf(r, d) === row[i]));
    const at = (column: string) => inRow.filter((r) => placeOf(r, columnBy) === column);
    const valued = (column: string) => at(column).filter((r) => r.values[measure] !== undefined);
    const measured = (column: string) => valued(column).filter((r) => r.class?.counts ?? true);
    const baseCell = repeats(measured(columns[0] ?? ''), null);
    const like = baseCell.runs[0]?.facts ?? null;
    return columns.map((column, i): ComparisonCell => {
      const found = i === 0 ? baseCell : repeats(measured(column), like);
      const values = found.runs.map((r) => r.values[measure] as number);
      const facts = found.runs[0]?.facts ?? null;
      const apart = valued(column).filter((r) => r.class?.counts === false);
      const both = i > 0 && values.length > 0 && baseCell.runs.length > 0;
      const baseValues = baseCell.runs.map((r) => r.values[measure] as number);
      return {
        runs: found.runs,
        values,
        leftOut: found.leftOut,
        compared: both ? compareRuns(baseValues, values, measure === 'time') : null,
        unlike: both && like && facts ? unlike(like, facts, [...rowBy, columnBy]) : [],
        ofNorm: facts ? normOf(norms, facts, values, measure) : null,
        apart,
        notes: [
          ...(found.runs.length > 0 ? notesOf(found.runs, i === 0 ? [] : baseCell.runs) : []),
          ...(apart.length > 0
            ? [{ code: 'apart' as const, runs: apart.flatMap((r) => r.class ?? []) }]
            : []),
        ],
        why: values.length > 0 ? '' : whyNot(at(column)),
      };
    });
  });
  return { rows, columns, cells, over: overRows(asked, { rows, columns, cells }) };
}

/** Speed against the same card in a desktop slot at the same title, resolution and preset. */
function normOf(
  norms: readonly GridRun[],
  facts: RunFacts,
  values: readonly number[],
  measure: Measure,
): number | null {
  const same = norms.filter((n) =>
    (['title', 'card', 'resolution', 'preset'] as const).every((f) => n.facts[f] === facts[f]),
  );
  if (same.length === 0 || values.length === 0) return null;
  return compareRuns(
    same.map((n) => n.values[measure] as number),
    values,
    measure === 'time',
  ).of;
}
