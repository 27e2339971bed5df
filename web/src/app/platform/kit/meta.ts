import type { AttrMeta } from '@ruddy/core/parts';

export interface Option {
  readonly value: string | number;
  readonly label: string;
}

/**
 * What a field shows and which control it is. Values of its control:
 *
 * - `text`, `area`: string; `lines`: string[], one a line
 * - `number`: number, with `range` also `{lo, hi}`, null when empty
 * - `money`: whole minor units of `unit`, null when empty
 * - `choice`: one option, null; above `FIND_ABOVE` options it is found by typing
 * - `suggest`: string, with options to pick from
 * - `several`: array of options; `toggle`: one option, at most four, all in view; `flag`: boolean
 * - `day`: ISO date, null when empty
 */
export interface FieldMeta {
  readonly label: string;
  readonly input:
    | 'text'
    | 'area'
    | 'lines'
    | 'number'
    | 'money'
    | 'choice'
    | 'suggest'
    | 'several'
    | 'toggle'
    | 'flag'
    | 'day'
    | 'password';
  readonly unit?: string;
  readonly min?: number;
  readonly max?: number;
  readonly options?: readonly Option[];
  /** A range like "2 to 4" is a value as well. */
  readonly range?: boolean;
  /** Offers "Not sure", which stores null. */
  readonly unsure?: boolean;
  readonly help?: string;
  /** Shown for an empty value. */
  readonly placeholder?: string;
  /** Says what is wrong with the value of a field without a form; a form asks its schema. */
  readonly check?: (value: unknown) => string | null;
  /** Name of the browser's autocompletion. */
  readonly autocomplete?: string;
}

/** Above so many options a choice is found by typing instead of scrolling. */
export const FIND_ABOVE = 12;

/** The field of an attribute of a part: its numbers take ranges, its lists are lines. */
export function fieldOf(meta: AttrMeta): FieldMeta {
  return {
    ...meta,
    input: meta.input === 'list' ? 'lines' : meta.input,
    range: meta.input === 'number',
  };
}

/** Options from a table of words by value. */
export function optionsOf(
  words: Readonly<Record<string, string>>,
): readonly { readonly value: string; readonly label: string }[] {
  return Object.entries(words).map(([value, label]) => ({ value, label }));
}

/** Limits and help of a field in one line. */
export function hintOf(m: FieldMeta): string {
  const limited = m.input === 'number' && m.min !== undefined && m.max !== undefined;
  const limits = limited
    ? `${m.min?.toLocaleString('en')}–${m.max?.toLocaleString('en')}${m.range ? '; a range is allowed' : ''}`
    : '';
  const lines = m.input === 'lines' ? 'One a line' : '';
  return [limits || lines, m.help ?? ''].filter((s) => s !== '').join('. ');
}

/** What is wrong with a number, or an end of a range, outside the limits of its field. */
export function limitsProblem({ min, max }: FieldMeta, value: unknown): string | null {
  const ends =
    typeof value === 'object' && value !== null && 'lo' in value && 'hi' in value
      ? [value.lo, value.hi]
      : [value];
  const numbers = ends.filter((n) => typeof n === 'number');
  if ((numbers[0] ?? 0) > (numbers[1] ?? Infinity)) return 'The lower number comes first';
  if (min !== undefined && numbers.some((n) => n < min))
    return `At least ${min.toLocaleString('en')}`;
  return max !== undefined && numbers.some((n) => n > max)
    ? `At most ${max.toLocaleString('en')}`
    : null;
}
