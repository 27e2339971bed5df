const DAY_MS = 86_400_000;
const NOON_MS = DAY_MS / 2;

/** Parts of a date: year first, or day first with points; with slashes only where one of both cannot be a month. */
function dayParts(cell: string): { y: number; m: number; d: number } | null {
  const iso = /^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})$/.exec(cell);
  if (iso) return { y: Number(iso[1]), m: Number(iso[2]), d: Number(iso[3]) };
  const other = /^(\d{1,2})([-/.])(\d{1,2})\2(\d{4})$/.exec(cell);
  if (!other) return null;
  const first = Number(other[1]);
  const second = Number(other[3]);
  const y = Number(other[4]);
  if (other[2] === '.' || first > 12) return { y, m: second, d: first };
  // 03/04/2026 is another day on either side of an ocean.
  return second > 12 || first === second ? { y, m: first, d: second } : null;
}

/**
 * Parses a date without a time of day. A date with slashes whose day and month could be swapped is none.
 *
 * @param cell text of a table cell
 * @returns ms since 1970 of its beginning in UTC; NaN for anything else
 * @example dateMs('03.11.2026') // => 1793664000000
 */
export function dateMs(cell: string): number {
  const p = dayParts(cell.trim());
  if (!p) return NaN;
  const ms = Date.UTC(p.y, p.m - 1, p.d);
  // The 31st of a short month is none.
  return new Date(ms).getUTCDate() === p.d ? ms : NaN;
}

/**
 * When a capture began, from a cell with its day and the clock of its first row.
 *
 * @param day text of the cell with the day
 * @param ofDayMs time of day, ms; NaN where the file has none
 * @returns ms since 1970; noon where there is no time of day; NaN without a day
 */
export function dayAndTimeMs(day: string, ofDayMs: number): number {
  const ms = dateMs(day);
  return ms + (ofDayMs >= 0 && ofDayMs < 2 * DAY_MS ? ofDayMs : NOON_MS);
}

/** A time of day in ms since midnight; NaN for anything else. */
function timeOfDayMs(t: string): number {
  const m = /^(\d{1,2}):(\d{2})(?::(\d{2}(?:\.\d+)?))?$/.exec(t);
  if (!m) return NaN;
  return (Number(m[1]) * 60 + Number(m[2])) * 60_000 + Number(m[3] ?? 0) * 1000;
}

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
  const other = /^([\d./]{8,10}) (.+)$/.exec(t);
  return other ? dateMs(other[1] ?? '') + timeOfDayMs(other[2] ?? '') : timeOfDayMs(t);
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
