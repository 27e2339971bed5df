/** Outcomes counted for one chain: the unit is a setup with its latest status per set of versions. */
export interface Tally {
  readonly n: number;
  readonly works: number;
  readonly care: number;
  readonly unreliable: number;
  readonly fails: number;
  /** Date of the newest outcome, ISO, or null without any. */
  readonly newest: string | null;
}

export const NO_TALLY: Tally = { n: 0, works: 0, care: 0, unreliable: 0, fails: 0, newest: null };

/**
 * Works and works with care count as success.
 * @param t counts of outcomes
 * @returns how many
 */
export function successes(t: Tally): number {
  return t.works + t.care;
}

/**
 * Unreliable and fails count as failure.
 * @param t counts of outcomes
 * @returns how many
 */
export function failures(t: Tally): number {
  return t.unreliable + t.fails;
}
