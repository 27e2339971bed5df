const DAY_MS = 86_400_000;

/**
 * A date with a time, or a time of day, in ms: since 1970 (a date without a zone is taken as UTC), or since midnight. NaN for anything
 * else. "14:02:03,5" and "14:02:03.5" are the same.
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

/** Times of day go on past midnight. */
export function pastMidnight(ms: number, before: number): number {
  return ms < before && before - ms > DAY_MS / 2 && before < DAY_MS * 2 ? ms + DAY_MS : ms;
}
