import { figureText, pluralize } from '../../base/text';
import { RUN_MEASURES, threeWays } from '../comparison/compare';
import { FACTS, type RunFacts } from '../comparison/facts';
import type { OverTitles } from '../comparison/labels';
import type { ResultCell, ResultTable } from '../result/result-table';
import { comparedText, intervalText, noteText, signed, unlikeText } from './runs';

/** A table as it is published: names of its columns, cells as text, and the notes below it. */
export interface PublishedTable {
  readonly head: readonly string[];
  readonly rows: readonly (readonly string[])[];
  readonly notes: readonly string[];
}

const NOTHING = '–';
const value = (v: number | null) => (v === null ? NOTHING : figureText(v));

/**
 * Mean over titles against the base.
 *
 * @param o the mean
 * @returns the words, with the number of rows: of titles, or of titles at each of their sizes
 */
export function overTitlesText(o: OverTitles): string {
  if (o.of === null) return 'no row in common';
  const ratio = `${signed(threeWays(o.of).faster)}${intervalText(o)}`;
  return `${ratio} over ${pluralize(o.titles.length, 'row')}`;
}

/**
 * Rows that a mean over titles leaves out, each with its reason.
 *
 * @param o the mean
 * @returns the words; empty where nothing is left out
 */
export function overLeftText(o: OverTitles): string {
  const left = o.left.map((l) => `${l.title} (${l.why})`);
  return left.length > 0 ? `left out: ${left.join(', ')}` : '';
}

/**
 * What of a cell keeps it from being compared as it stands: what is unlike, caps, lengths, and runs that were left out.
 *
 * @param c the cell
 * @returns the sentences; empty where nothing does
 */
export function cellReservations(c: ResultCell): string[] {
  const { notes, unlike, leftOut } = c.from;
  return [
    ...notes.map(noteText),
    ...unlike.map(unlikeText),
    ...(leftOut > 0
      ? [`${pluralize(leftOut, 'other run')} here left out: unlike these in more than the day`]
      : []),
  ];
}

/**
 * The setup of a run and its versions, as the caption of a result has them.
 *
 * @param f facts of a run
 * @returns its name, the chain from host to card, and the versions that are known
 */
export function setupCaption(f: RunFacts): string {
  const chain = [f.host, f.link, f.cable, f.dock, f.card].filter((v) => v !== '');
  const versions = (['driver', 'build', 'hostFirmware', 'dockFirmware'] as const)
    .filter((k) => f[k] !== '')
    .map((k) => `${FACTS[k].toLowerCase()} ${f[k]}`);
  const told = [chain.join(' – '), versions.join(', ')].filter((v) => v !== '');
  return `${f.setup}: ${told.length > 0 ? told.join('; ') : 'nothing known'}.`;
}

const anyLimit = (t: ResultTable) => t.rows.some((r) => r.cells.some((c) => c.limits !== ''));

function headOf(t: ResultTable, unit: string): string[] {
  const lows = t.rows.some((r) => r.cells.some((c) => c.low !== null));
  const limits = anyLimit(t);
  return [
    ...t.ask.rows.map((d) => FACTS[d]),
    ...t.columns.flatMap((c, i) => [
      `${c}${i === 0 ? ', the base' : ''}${unit ? `, ${unit}` : ''}`,
      ...(i === 0 ? [] : ['against the base']),
      ...(lows ? ['1 % low, 99th percentile', '1 % low, slowest 1 %'] : []),
      ...(limits ? ['what limits'] : []),
    ]),
  ];
}

function rowOf(t: ResultTable, row: ResultTable['rows'][number], lows: boolean): string[] {
  const limits = anyLimit(t);
  return [
    ...row.at,
    ...row.cells.flatMap((c, i) => {
      const mark = i > 0 && c.from.unlike.length > 0 ? ' *' : '';
      const ratio = c.ratio ? comparedText(c.ratio) : NOTHING;
      return [
        c.mean === null ? `${NOTHING} ${c.from.why}` : `${value(c.mean)} (×${c.runs})${mark}`,
        ...(i === 0 ? [] : [ratio]),
        ...(lows ? [value(c.low), value(c.lowFrames)] : []),
        ...(limits ? [c.limits || NOTHING] : []),
      ];
    }),
  ];
}

/**
 * What differs between the runs of a result without being an axis of it, and how many runs stand in no cell.
 *
 * @param t the result
 * @returns one sentence each; empty where nothing is left out
 */
export function outsideNotes(t: ResultTable): string[] {
  const off = t.offAxes.map(
    (o) => `${FACTS[o.fact].toLowerCase()} (${o.values.map((v) => v || 'not set').join(', ')})`,
  );
  return [
    ...(off.length > 0 ? [`Differs and is no axis: ${off.join('; ')}.`] : []),
    ...(t.leftOut > 0 ? [`${pluralize(t.leftOut, 'run')} left out of their cells.`] : []),
  ];
}

function overNotes(t: ResultTable): string[] {
  return t.over.flatMap((o) =>
    o.cells.flatMap((c, i) => {
      const left = i === 0 ? '' : overLeftText(c);
      return left ? [`Over titles, ${[...o.at, t.columns[i] ?? ''].join(', ')}: ${left}.`] : [];
    }),
  );
}

/**
 * Notes under a published result: its axes, what is outside of them, and what cells are unlike in, each with its place.
 *
 * @param t the result
 * @returns one sentence each
 */
export function resultNotes(t: ResultTable): string[] {
  const axes = [...t.ask.rows, t.ask.columns].map((d) => FACTS[d].toLowerCase()).join(' × ');
  const cells = t.rows.flatMap((r) =>
    r.cells.flatMap((c, i) => {
      const list = i === 0 ? [] : cellReservations(c);
      return list.length > 0
        ? [`${[...r.at, t.columns[i] ?? ''].join(', ')}: ${list.join('; ')}.`]
        : [];
    }),
  );
  return [
    `${RUN_MEASURES[t.ask.measure]} by ${axes}, against ${t.ask.base}; intervals are 95 %, from Welch's test on the repeats; over titles: geometric mean.`,
    ...outsideNotes(t),
    ...overNotes(t),
    ...cells,
  ];
}

/**
 * A result as text, cell by cell, for Markdown and a page.
 *
 * @param t the result
 * @param unit unit of its measure; empty for a score without one
 * @returns names of columns, rows with the means over titles last, and notes
 */
export function publishedTable(t: ResultTable, unit: string): PublishedTable {
  const lows = t.rows.some((r) => r.cells.some((c) => c.low !== null));
  const head = headOf(t, unit);
  const empty = [...(lows ? ['', ''] : []), ...(anyLimit(t) ? [''] : [])];
  const over = t.over.map((o) => [
    `Over titles${o.at.length > 0 ? `, ${o.at.join(', ')}` : ''}`,
    ...t.ask.rows.slice(1).map(() => ''),
    ...o.cells.flatMap((c, i) => ['', ...(i === 0 ? [] : [overTitlesText(c)]), ...empty]),
  ]);
  const means = t.rows.length > 1 ? over : [];
  return { head, rows: [...t.rows.map((r) => rowOf(t, r, lows)), ...means], notes: resultNotes(t) };
}

const round = (v: number | null) => (v === null ? null : Math.round(v * 1000) / 1000);
const percent = (of: number | null) => (of === null ? null : round((of - 1) * 100));

type Numbers = (string | number | null)[];
const SIGNIFICANT = { real: 'yes', 'not-told-apart': 'no', 'too-few': 'too few repeats' } as const;

function cellNumbers(t: ResultTable, unit: string): Numbers[] {
  return t.rows.flatMap((r) =>
    r.cells.map((c, i) => [
      ...r.at,
      t.columns[i] ?? '',
      round(c.mean),
      unit,
      c.runs,
      percent(c.ratio?.of ?? null),
      percent(c.ratio?.lo ?? null),
      percent(c.ratio?.hi ?? null),
      c.ratio ? SIGNIFICANT[c.ratio.says] : null,
      round(c.low),
      round(c.lowFrames),
      c.limits || null,
      cellReservations(c).join('; ') || null,
      c.from.why || null,
    ]),
  );
}

/** Means over titles against the base; the base itself has none. */
function overNumbers(t: ResultTable, unit: string): Numbers[] {
  return t.over.flatMap((o) =>
    o.cells
      .slice(1)
      .map((c, i) => [
        'Over titles',
        ...t.ask.rows.slice(1).map((_, k) => o.at[k] ?? ''),
        t.columns[i + 1] ?? '',
        null,
        unit,
        c.titles.length,
        percent(c.of),
        percent(c.lo),
        percent(c.hi),
        null,
        null,
        null,
        null,
        overLeftText(c) || null,
        null,
      ]),
  );
}

/**
 * A result as numbers, one line a cell, for a spreadsheet.
 *
 * @param t the result
 * @param unit unit of its measure
 * @returns names of columns and rows; null where there is no number
 */
export function resultNumbers(t: ResultTable, unit: string): { head: string[]; rows: Numbers[] } {
  const head = [
    ...t.ask.rows.map((d) => FACTS[d]),
    FACTS[t.ask.columns],
    RUN_MEASURES[t.ask.measure],
    'unit',
    'runs',
    '% against the base',
    '% from',
    '% to',
    'significant',
    '1 % low, 99th percentile',
    '1 % low, slowest 1 %',
    'what limits',
    'reservations',
    'missing because',
  ];
  return { head, rows: [...cellNumbers(t, unit), ...overNumbers(t, unit)] };
}
