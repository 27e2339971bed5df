import type { CaptureLayout, CaptureResult } from './types';

const DELIMITERS = ['\t', ';', '|', ','] as const;
const COMMENTS = ['#', '//'] as const;
const SAMPLE = 200;

/**
 * Tells a number, with either decimal mark.
 *
 * @param cell text of a table cell
 * @returns true for a number
 * @example looksNumeric('16,67') // => true
 */
export function looksNumeric(cell: string): boolean {
  return /^[+-]?(\d+([.,]\d*)?|[.,]\d+)([eE][+-]?\d+)?$/.test(cell.trim());
}

/**
 * Tells a date or a time of day.
 *
 * @param cell text of a table cell
 * @returns true when `clockMs` can read it
 * @example looksClock('14:02:03.5') // => true
 */
export function looksClock(cell: string): boolean {
  return /^(\d{4}-\d{2}-\d{2}[T ])?\d{1,2}:\d{2}(:\d{2}([.,]\d+)?)?(Z|[+-]\d{2}:?\d{2})?$/.test(
    cell.trim(),
  );
}

/** Cells of a line, quotes taken off. For looking at the first lines only; files are read by the CSV library. */
function cellsOf(line: string, delimiter: string): string[] {
  if (delimiter === '') return [line.trim()];
  const cells: string[] = [];
  let cell = '';
  let quoted = false;
  for (const c of line) {
    if (c === '"') quoted = !quoted;
    else if (c === delimiter && !quoted) {
      cells.push(cell.trim());
      cell = '';
    } else cell += c;
  }
  return [...cells, cell.trim()];
}

/** The width most lines have, and how many have it. */
function usualWidth(lines: readonly string[], delimiter: string): { width: number; n: number } {
  const counts = new Map<number, number>();
  for (const l of lines) {
    const w = cellsOf(l, delimiter).length;
    counts.set(w, (counts.get(w) ?? 0) + 1);
  }
  return [...counts]
    .map(([width, n]) => ({ width, n }))
    .reduce((a, b) => (b.n > a.n ? b : a), { width: 1, n: 0 });
}

/** One column of numbers written with a comma looks like two columns: whole parts that hardly change, and decimals of one length. */
function isDecimalComma(rows: readonly string[]): boolean {
  const [first = '', ...rest] = rows;
  // Names that stand in two columns say that there are two.
  if (!/^\s*[\d,.]+\s*$/.test(first) && first.includes(',')) return false;
  const pairs = rest.map((r) => /^\s*(\d{1,4}),(\d+)\s*$/.exec(r));
  if (rest.length < 2 || pairs.some((p) => p === null)) return false;
  const decimals = pairs.map((p) => p?.[2] ?? '');
  return (
    decimals.some((d) => d.startsWith('0')) ||
    decimals.every((d) => d.length >= 2 && d.length === decimals[0]?.length)
  );
}

/**
 * Detects how a table is written: delimiter, lines before the table, header, decimal mark.
 *
 * @param head the first lines of the file
 * @returns the layout with its first rows, or the problem
 */
export function findLayout(head: string): CaptureResult<CaptureLayout> {
  const text = head.startsWith('\uFEFF') ? head.slice(1) : head;
  const lines = text.split(/\r\n|\n|\r/).slice(0, SAMPLE);
  // The last line of a part of a file may be cut.
  if (lines.length > 1 && text.length === head.length && head.length > 65_000) lines.pop();
  const comment = COMMENTS.find((c) => lines.some((l) => l.trimStart().startsWith(c))) ?? '';
  const isRow = (l: string) =>
    l.trim() !== '' && (comment === '' || !l.trimStart().startsWith(comment));
  const rows = lines.filter(isRow);
  if (rows.length === 0) return { ok: false, problem: { code: 'empty' } };
  const found = DELIMITERS.map((d) => ({ d: d as string, ...usualWidth(rows, d) })).find(
    (f) => f.width > 1 && f.n >= Math.max(1, rows.length * 0.6),
  );
  const single = !found || (found.d === ',' && isDecimalComma(rows));
  const delimiter = single ? '' : found.d;
  const width = single ? 1 : found.width;
  const isTable = (l: string) => isRow(l) && cellsOf(l, delimiter).length === width;
  const isData = (l: string) =>
    isTable(l) && cellsOf(l, delimiter).some((c) => looksNumeric(c) || looksClock(c));
  // The table begins with its first row of figures, or with the names right above it; what stands before is no part of it.
  const data = lines.findIndex(isData);
  if (data < 0) return { ok: false, problem: { code: 'no-table' } };
  const above = lines.slice(0, data).findLastIndex(isRow);
  const named = above >= 0 && isTable(lines[above] as string);
  const top = named ? cellsOf(lines[above] as string, delimiter) : [];
  const first = named ? above : data;
  const sample = lines
    .slice(data)
    .filter(isRow)
    .slice(0, 50)
    .map((l) => cellsOf(l, delimiter));
  const comma = delimiter !== ',' && sample.some((r) => r.some((c) => /^[+-]?\d+,\d+$/.test(c)));
  return {
    ok: true,
    value: {
      delimiter,
      decimal: comma ? ',' : '.',
      comment,
      skip: first,
      header: named ? top : null,
      width,
      sample,
    },
  };
}
