const DAY_MS = 86_400_000;

/**
 * Whole days from one date to another.
 * @param from ISO date, such as 2026-11-03
 * @param to ISO date
 * @returns days; negative where the second date is earlier
 * @example daysBetween('2026-11-03', '2026-12-01') // => 28
 */
export function daysBetween(from: string, to: string): number {
  return Math.round((Date.parse(`${to}T00:00:00Z`) - Date.parse(`${from}T00:00:00Z`)) / DAY_MS);
}
