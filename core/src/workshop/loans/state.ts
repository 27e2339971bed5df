import { daysBetween } from '../../base';

/** The days of a loan, as ISO dates. */
export interface LoanDays {
  readonly fromOn: string | null;
  readonly dueOn: string | null;
  readonly returnedOn: string | null;
  readonly withdrawn: boolean;
}

export type LoanState = 'waiting' | 'out' | 'late' | 'back' | 'let-go';

/**
 * Where a loan stands on a day. It is late from the day after it was due.
 * @param l days of the loan
 * @param today ISO date
 * @returns the state
 */
export function loanState(l: LoanDays, today: string): LoanState {
  if (l.withdrawn) return 'let-go';
  if (l.fromOn === null) return 'waiting';
  if (l.returnedOn !== null) return 'back';
  return l.dueOn !== null && l.dueOn < today ? 'late' : 'out';
}

/**
 * How late a piece is on a day.
 * @param l days of the loan
 * @param today ISO date
 * @returns days; 0 where it is not late
 */
export function daysLate(l: LoanDays, today: string): number {
  return loanState(l, today) === 'late' ? daysBetween(l.dueOn as string, today) : 0;
}

const ORDER = { late: 0, out: 1, waiting: 2, back: 3, 'let-go': 4 } as const;

/**
 * Sorts loans by urgency: late ones first, longest first; then those out by due day, without a day last; then waiting
 * ones, first come first.
 * @param loans any; not modified
 * @param today ISO date
 * @returns the loans in that order
 */
export function byUrgency<T extends LoanDays & { readonly askedOn: string }>(
  loans: readonly T[],
  today: string,
): T[] {
  const day = (l: T) => (l.fromOn === null ? l.askedOn : (l.dueOn ?? '9999-12-31'));
  return [...loans].sort(
    (a, b) =>
      ORDER[loanState(a, today)] - ORDER[loanState(b, today)] ||
      day(a).localeCompare(day(b)) ||
      a.askedOn.localeCompare(b.askedOn),
  );
}

/**
 * Pieces that more than one live setup names: a piece cannot be in two places.
 * @param pieces with the setups that name them
 * @returns those pieces
 */
export function doublyUsed<
  T extends { readonly label: string; readonly liveIn: readonly { readonly id: string }[] },
>(pieces: readonly T[]): T[] {
  return pieces.filter((p) => new Set(p.liveIn.map((s) => s.id)).size > 1);
}
