import { clockMs, dateMs } from './clock';
import { BLANKS, type CaptureLayout, type CaptureResult } from './types';

const DELIMITERS = ['\t', ';', '|', ',', BLANKS] as const;
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
 * Tells a time of day, alone or with its date.
 *
 * @param cell text of a table cell
 * @returns true when `clockMs` can read it
 * @example looksClock('14:02:03.5') // => true
 */
export function looksClock(cell: string): boolean {
  return cell.includes(':') && !Number.isNaN(clockMs(cell));
}

/**
 * Tells a date without a time of day.
 *
 * @param cell text of a table cell
 * @returns true when it is written like a date, known or not
 * @example looksDate('3.11.2026') // => true
 */
export function looksDate(cell: string): boolean {
  return !Number.isNaN(dateMs(cell)) || /^\d{1,2}\/\d{1,2}\/\d{4}$/.test(cell.trim());
}

/** Cells of a line, quotes taken off. For looking at the first lines only; files are read by the CSV library. */
function cellsOf(line: string, delimiter: string): string[] {
  if (delimiter === '') return [line.trim()];
  if (delimiter === BLANKS)
    return (line.match(/"[^"]*"|\S+/g) ?? ['']).map((c) => c.replaceAll('"', ''));
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

/** Names above a table: between blanks they may hold single ones, when at least two set them apart. */
function namesOf(line: string, delimiter: string, width: number): string[] {
  const names = cellsOf(line, delimiter);
  if (delimiter !== BLANKS || names.length === width) return names;
  return line.trim().split(/\s{2,}|\t/);
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

/** Whole parts that do not simply count on. */
const countsOn = (list: readonly number[]) =>
  list.every((v, i) => i === 0 || v === (list[i - 1] as number) + 1);

/**
 * One column of numbers written with a comma looks like two columns: whole parts that hardly change, and decimals of one length. `top` is
 * what stands above: names that stand in two columns say that there are two, a single name that there is one.
 */
function isDecimalComma(rows: readonly string[]): boolean {
  const [first = '', ...rest] = rows;
  const named = !/^\s*[\d,.]+\s*$/.test(first);
  if (named && first.includes(',')) return false;
  const pairs = (named ? rest : rows).map((r) => /^\s*(\d{1,4}),(\d+)\s*$/.exec(r));
  if (pairs.length < 2 || pairs.some((p) => p === null)) return false;
  const decimals = pairs.map((p) => p?.[2] ?? '');
  if (decimals.some((d) => d.startsWith('0') && d.length > 1)) return true;
  const even = decimals.every((d) => d.length === decimals[0]?.length);
  if (even && (decimals[0]?.length ?? 0) >= 2) return true;
  return named || (even && !countsOn(pairs.map((p) => Number(p?.[1]))));
}

/** Names and rows that do not go together: a table read all the same would have its columns mixed up. */
function badWidth(
  line: number,
  names: readonly string[],
  row: readonly string[],
  delimiter: string,
): CaptureResult<never> | null {
  const said = names.filter((n) => n !== '');
  const extra = row.slice(names.length).filter((c) => c !== '').length;
  const missing = said.length - row.length;
  if (said.length < 2 || said.some(looksNumeric) || (extra === 0 && missing <= 0)) return null;
  return {
    ok: false,
    problem: {
      code: 'width',
      line,
      names: said.length,
      cells: row.length,
      comma: delimiter === ',' && extra > 0,
    },
  };
}

/** Names cut or filled to the columns, where what is over is empty; null where the line holds no names. */
function fitted(
  names: readonly string[],
  width: number,
  sample: readonly (readonly string[])[],
): string[] | null {
  const said = names.findLastIndex((n) => n !== '') + 1;
  const empty = sample.every((r) => r.slice(said).every((c) => c === ''));
  if (said === 0 || said > width || (names.length !== width && said !== width && !empty))
    return null;
  return Array.from({ length: width }, (_, i) => names[i] ?? '');
}

/** Two numbers with blanks between in what should be one cell: the comma is their decimal mark. */
const twoNumbers = (cell: string) => {
  const parts = cell.split(/\s+/);
  return parts.length === 2 && parts.every(looksNumeric);
};

interface Split {
  readonly delimiter: string;
  readonly width: number;
}

function splitOf(rows: readonly string[]): Split {
  const found = DELIMITERS.map((d) => ({ d: d as string, ...usualWidth(rows, d) })).find(
    (f) =>
      f.width > 1 &&
      f.n >= Math.max(1, rows.length * 0.6) &&
      (f.d !== ',' || !rows.some((r) => cellsOf(r, f.d).some(twoNumbers))) &&
      // Words between blanks are a sentence, and a date with its clock is one cell.
      (f.d !== BLANKS ||
        rows.some((r) => !looksClock(r) && cellsOf(r, BLANKS).filter(looksNumeric).length > 0)),
  );
  if (!found || (found.d === ',' && isDecimalComma(rows))) return { delimiter: '', width: 1 };
  return { delimiter: found.d, width: found.width };
}

/** The mark of decimals: a comma that does not part the columns, or that stands inside quotes where no cell has a point. */
function decimalOf(sample: readonly (readonly string[])[], delimiter: string): '.' | ',' {
  const has = (form: RegExp) => sample.some((r) => r.some((c) => form.test(c)));
  const comma = has(/^[+-]?\d+,\d+$/);
  return comma && (delimiter !== ',' || !has(/^[+-]?\d*\.\d+$/)) ? ',' : '.';
}

/** Lines of the first part of a file; the last one may be cut. */
function linesOf(head: string): string[] {
  const text = head.startsWith('\uFEFF') ? head.slice(1) : head;
  const lines = text.split(/\r\n|\n|\r/).slice(0, SAMPLE);
  if (lines.length > 1 && text.length === head.length && head.length > 65_000) lines.pop();
  return lines;
}

/**
 * Detects how a table is written: delimiter, lines before the table, header, decimal mark.
 *
 * @param head the first lines of the file
 * @returns the layout with its first rows, or the problem: no table, or names that do not go with the rows
 */
export function findLayout(head: string): CaptureResult<CaptureLayout> {
  const lines = linesOf(head);
  const comment = COMMENTS.find((c) => lines.some((l) => l.trimStart().startsWith(c))) ?? '';
  const isRow = (l: string) =>
    l.trim() !== '' && (comment === '' || !l.trimStart().startsWith(comment));
  const rows = lines.filter(isRow);
  if (rows.length === 0) return { ok: false, problem: { code: 'empty' } };
  const { delimiter, width } = splitOf(rows);
  const isData = (l: string) => {
    const cells = isRow(l) ? cellsOf(l, delimiter) : [];
    return cells.length === width && cells.some((c) => looksNumeric(c) || looksClock(c));
  };
  // The table begins with its first row of figures, or with the names right above it; what stands before is no part of it.
  const data = lines.findIndex(isData);
  if (data < 0) return { ok: false, problem: { code: 'no-table' } };
  const above = lines.slice(0, data).findLastIndex(isRow);
  const top = above >= 0 ? namesOf(lines[above] as string, delimiter, width) : [];
  const wrong = badWidth(above + 1, top, cellsOf(lines[data] as string, delimiter), delimiter);
  if (wrong) return wrong;
  const sample = lines
    .slice(data)
    .filter(isRow)
    .slice(0, 50)
    .map((l) => cellsOf(l, delimiter));
  const header = fitted(top, width, sample);
  return {
    ok: true,
    value: {
      delimiter,
      decimal: decimalOf(sample, delimiter),
      comment,
      skip: header ? above : data,
      header,
      width,
      sample,
    },
  };
}
