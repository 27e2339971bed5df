/** A change of one thing of a setup, as the record keeps it. */
export interface Change {
  /** ISO instant at which it happened. */
  readonly at: string;
  readonly what: string;
  readonly from: string;
  readonly to: string;
}

export interface AsOn {
  readonly what: string;
  readonly then: string;
  readonly now: string;
  /** When it became what it is now, ISO; null when it has not changed since. */
  readonly changedAt: string | null;
}

/**
 * What a setup was at the end of a day: its state of today with every later change taken back, newest first. Changes of
 * things it does not hold bring them in. A change that does not end where the next one begins still takes what it says
 * it came from: the record counts, not what is missing in it.
 * @param now every thing by its name
 * @param changes of any days
 * @param day ISO date
 * @returns every thing as it was
 */
export function asOn(
  now: Readonly<Record<string, string>>,
  changes: readonly Change[],
  day: string,
): AsOn[] {
  const end = `${day}T23:59:59.999Z`;
  const later = changes.filter((c) => c.at > end).sort((a, b) => b.at.localeCompare(a.at));
  const then = new Map(Object.entries(now));
  const newest = new Map<string, string>();
  for (const c of later) {
    then.set(c.what, c.from);
    if (!newest.has(c.what)) newest.set(c.what, c.at);
  }
  return [...then].map(([what, value]) => {
    const today = now[what] ?? '';
    return {
      what,
      then: value,
      now: today,
      changedAt: value === today ? null : (newest.get(what) ?? null),
    };
  });
}
