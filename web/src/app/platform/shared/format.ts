export { pluralize } from '@ruddy/core/base/text';

/** Made at first use: a formatter takes up to 30 ms. */
let formatter: Intl.DateTimeFormat | null = null;
let axisFormatter: Intl.DateTimeFormat | null = null;
const two = (n: number) => String(n).padStart(2, '0');

/** A date, or the day of an instant, in the locale of the browser: "3 Nov 2026" in British English. */
export function day(iso: string): string {
  const d = new Date(iso.length === 10 ? `${iso}T00:00:00Z` : iso);
  formatter ??= new Intl.DateTimeFormat(navigator.language, {
    day: 'numeric',
    month: 'short',
    year: 'numeric',
    timeZone: 'UTC',
  });
  return formatter.format(d);
}

/** A date on an axis: "3 Nov 26" in British English. */
export function dayShort(ms: number): string {
  axisFormatter ??= new Intl.DateTimeFormat(navigator.language, {
    day: 'numeric',
    month: 'short',
    year: '2-digit',
    timeZone: 'UTC',
  });
  return axisFormatter.format(ms);
}

/** "14:02" in this machine's time. */
export function clock(iso: string): string {
  const d = new Date(iso);
  return `${two(d.getHours())}:${two(d.getMinutes())}`;
}

/** A query parameter that is absent arrives as undefined; a filter wants an empty word. */
export function orEmpty(value: string | undefined): string {
  return value ?? '';
}

/**
 * A number as typed: comma or point as the decimal mark. Two marks, or a mark that could be
 * grouping ("1,200"), are refused rather than guessed. Null for an empty field.
 */
export function readNumber(
  text: string,
): { ok: true; value: number | null } | { ok: false; why: string } {
  const t = text.trim();
  if (t === '') return { ok: true, value: null };
  if (/^[+-]?\d{1,3}[.,]\d{3}$/.test(t) && !/^[+-]?0[.,]/.test(t))
    return { ok: false, why: `"${t}" could mean two numbers; write it without a thousands mark` };
  if (!/^[+-]?\d+([.,]\d+)?$/.test(t)) return { ok: false, why: `"${t}" is not a number` };
  return { ok: true, value: Number(t.replace(',', '.')) };
}
