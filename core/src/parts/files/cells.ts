import type { AttrMeta } from '../schema/meta';

/** A cell a spreadsheet would take for a formula: it begins with one of these, after any number of marks put before it. */
const FORMULA = /^'*[=+\-@\t\r]/;

/**
 * A cell made harmless for spreadsheets: one apostrophe goes before what would be a formula.
 * @param cell text of the cell
 * @returns the cell
 * @example guardCell('=1+1') // => "'=1+1"
 */
export function guardCell(cell: string): string {
  return FORMULA.test(cell) ? `'${cell}` : cell;
}

/**
 * The cell as it was before it was made harmless.
 * @param cell text of the cell
 * @returns the text
 * @example unguardCell("'=1+1") // => '=1+1'
 */
export function unguardCell(cell: string): string {
  return cell.startsWith("'") && FORMULA.test(cell) ? cell.slice(1) : cell;
}

/**
 * A field of a file as a word.
 * @param value anything
 * @returns the word; empty for what is none
 * @example wordOf({ oneOf: [] }) // => ''
 */
export function wordOf(value: unknown): string {
  return typeof value === 'string'
    ? value
    : typeof value === 'number' || typeof value === 'boolean'
      ? String(value)
      : '';
}

/**
 * A value as a cell: numbers with a point, a range as "16 to 26", several choices with a bar between.
 * @param value of an attribute
 * @returns the text; empty for "not sure"
 * @example cellOf({ lo: 16, hi: 26 }) // => '16 to 26'
 */
export function cellOf(value: unknown): string {
  if (value === null || value === undefined) return '';
  if (typeof value === 'object') {
    if ('oneOf' in value) return (value as { oneOf: string[] }).oneOf.join(' | ');
    const r = value as { lo: number; hi: number };
    return `${r.lo} to ${r.hi}`;
  }
  return String(value as string | number);
}

export type CellRead = { ok: true; value: unknown } | { ok: false; why: string };

const NUMBER = /^-?\d+(\.\d+)?([eE][+-]?\d+)?$/;

function numberOf(text: string): number | null {
  return NUMBER.test(text) ? Number(text) : null;
}

function readNumber(text: string, meta: AttrMeta): CellRead {
  const range = /^(\S+)\s+to\s+(\S+)$/.exec(text);
  const parts = range ? [range[1] ?? '', range[2] ?? ''] : [text];
  const read = parts.map(numberOf);
  const [lo, hi] = read;
  const unit = meta.unit ? ` ${meta.unit}` : '';
  if (lo === null || lo === undefined || hi === null)
    return {
      ok: false,
      why: `${text} is not a number${unit ? ` of${unit}` : ''}; files use the point, a range is "2 to 4"`,
    };
  return { ok: true, value: hi === undefined ? lo : { lo, hi } };
}

function readChoice(text: string, meta: AttrMeta): CellRead {
  const options = meta.options ?? [];
  const wordOf = (t: string) =>
    options.find((o) => o.value === t) ??
    options.find(
      (o) => o.value.toLowerCase() === t.toLowerCase() || o.label.toLowerCase() === t.toLowerCase(),
    );
  const whole = wordOf(text);
  if (whole) return { ok: true, value: whole.value };
  const words = text.split('|').map((t) => t.trim());
  const found = words.map(wordOf);
  const odd = words.find((_, i) => found[i] === undefined);
  if (odd !== undefined || (words.length > 1 && !meta.unsure))
    return {
      ok: false,
      why: `${odd ?? text} is not one of ${options.map((o) => o.value).join(', ')}`,
    };
  return { ok: true, value: { oneOf: found.flatMap((o) => (o ? [o.value] : [])) } };
}

/**
 * Reads a cell by what is known of its attribute.
 * @param cell its text; an empty one is "not sure", or no text
 * @param meta the attribute
 * @returns the value, or what is wrong with it
 */
export function readCell(cell: string, meta: AttrMeta): CellRead {
  const text = cell.trim();
  if (meta.input === 'text') return { ok: true, value: text };
  if (text === '')
    return meta.unsure ? { ok: true, value: null } : { ok: false, why: 'must not be empty' };
  return meta.input === 'number' ? readNumber(text, meta) : readChoice(text, meta);
}
