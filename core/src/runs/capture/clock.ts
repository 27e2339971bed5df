const DAY_MS = 86_400_000;

/**
 * Parses a date with a time (without a zone UTC), or a time of day; a decimal comma is read like a point.
 *
 * @param cell text of a table cell
 * @returns ms since 1970, or since midnight; NaN for anything else
 * @example clockMs('00:00:01,5') // => 1500
 */
export function clockMs(cell: string): number {
  const t = cell.trim().replace(/(\d),(\d)/, '$1.$2');
  const day = /^(\d{4}-\d{2}-\d{2})[T ](.+)$/.exec(t);
  if (day)
    return Date.parse(
      `${day[1] ?? ''}T${day[2] ?? ''}${/(Z|[+-]\d{2}:?\d{2})$/.test(t) ? '' : 'Z'}`,
    );
  const m = /^(\d{1,2}):(\d{2})(?::(\d{2}(?:\.\d+)?))?$/.exec(t);
  if (!m) return NaN;
  return (Number(m[1]) * 60 + Number(m[2])) * 60_000 + Number(m[3] ?? 0) * 1000;
}

/**
 * Adds a day to a time of day that is more than half a day before the row above it.
 *
 * @param ms time of day, ms
 * @param before time of the row above, ms
 * @returns time of day, ms, 24 h later after midnight; dates stay as they are
 */
export function pastMidnight(ms: number, before: number): number {
  return ms < before && before - ms > DAY_MS / 2 && before < DAY_MS * 2 ? ms + DAY_MS : ms;
}
