import type { Measure, RunComparison } from '../comparison/compare';
import { type Dimension, FACT_IDS, type Fact } from '../comparison/facts';
import {
  type ComparisonCell,
  grid,
  type Grid,
  type GridAsk,
  type GridRun,
} from '../comparison/grid';
import type { OverTitles } from '../comparison/labels';

/** One place of a result: what was measured there and how it stands to the base of its row. */
export interface ResultCell {
  readonly runs: number;
  /** Mean of the repeats; null without any. */
  readonly mean: number | null;
  readonly ratio: RunComparison | null;
  /** Means of both schools of lows, frames/s; null where the runs have none. */
  readonly low: number | null;
  readonly lowFrames: number | null;
  /** What limits there, with its chance; empty where it was not asked. */
  readonly limits: string;
  /** The cell as the comparison has it: what is unlike, notes, and why it is empty. */
  readonly from: ComparisonCell;
}

/** A fact that differs between the runs and is no axis of the table. */
export interface OffAxis {
  readonly fact: Fact;
  readonly values: readonly string[];
}

/** A comparison as it is published: rows, columns, means over titles, and what it leaves out. */
export interface ResultTable {
  readonly ask: GridAsk;
  readonly columns: readonly string[];
  readonly rows: readonly {
    readonly at: readonly string[];
    readonly cells: readonly ResultCell[];
  }[];
  readonly over: readonly {
    readonly at: readonly string[];
    readonly cells: readonly OverTitles[];
  }[];
  readonly offAxes: readonly OffAxis[];
  /** Runs that stand in no cell, for being unlike those that do. */
  readonly leftOut: number;
}

const meanOfCell = (c: ComparisonCell | undefined) =>
  c === undefined || c.values.length === 0
    ? null
    : c.values.reduce((a, b) => a + b, 0) / c.values.length;

/** Lows stand beside rates only: of a score or a time there are none. */
const HAS_LOWS: readonly Measure[] = ['average', 'second'];

function offAxesOf(runs: readonly GridRun[], axes: readonly Dimension[]): OffAxis[] {
  const own = runs.filter((r) => !r.norm);
  return FACT_IDS.filter((f) => !(axes as readonly Fact[]).includes(f)).flatMap((fact) => {
    const values = [...new Set(own.map((r) => r.facts[fact]))];
    return values.length > 1 ? [{ fact, values }] : [];
  });
}

/**
 * A result to publish: the comparison of a grid with both lows beside each average, the means over titles, and what is no axis.
 *
 * @param runs runs with their facts
 * @param ask axes of rows and columns, the base column and the measure
 * @param limits what limits each run, in words, by its id
 * @returns the table; a place without a run has its reason
 */
export function resultTable(
  runs: readonly GridRun[],
  ask: GridAsk,
  limits: ReadonlyMap<string, string> = new Map(),
): ResultTable {
  const main = grid(runs, ask);
  const lows = (measure: Measure): Grid | null =>
    HAS_LOWS.includes(ask.measure) ? grid(runs, { ...ask, measure }) : null;
  const low = lows('low');
  const lowFrames = lows('lowFrames');
  const rows = main.rows.map((at, i) => ({
    at,
    cells: (main.cells[i] as readonly ComparisonCell[]).map((from, k) => ({
      runs: from.values.length,
      mean: meanOfCell(from),
      ratio: from.compared,
      low: meanOfCell(low?.cells[i]?.[k]),
      lowFrames: meanOfCell(lowFrames?.cells[i]?.[k]),
      limits: limits.get(from.runs[0]?.id ?? '') ?? '',
      from,
    })),
  }));
  return {
    ask,
    columns: main.columns,
    rows,
    over: main.over,
    offAxes: offAxesOf(runs, [...ask.rows, ask.columns]),
    leftOut: main.cells.flat().reduce((n, c) => n + c.leftOut, 0),
  };
}
