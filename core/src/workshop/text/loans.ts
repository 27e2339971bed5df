import { daysBetween } from '../../base';
import type { readyForNext } from '../loans/return-check';
import { daysLate, type LoanDays, loanState } from '../loans/state';

export const MEMBER_WORDS = {
  reader: 'reader: sees all, changes nothing',
  member: 'member: plans, measures, logs, lends',
  keeper: 'keeper: also members, rules, feeds, backup',
} as const;

export const TESTED_WORDS = { works: 'works', fails: 'fails', 'not-tried': 'not tried' } as const;

const days = (n: number) => (n === 1 ? '1 day' : `${n} days`);

/**
 * When a loan is due, as seen from a day.
 * @param l days of the loan
 * @param today ISO date
 * @returns words
 */
export function dueWords(l: LoanDays, today: string): string {
  if (l.fromOn === null || l.returnedOn !== null || l.withdrawn) return '';
  if (l.dueOn === null) return 'not set';
  const late = daysLate(l, today);
  if (late > 0) return `${days(late)} late`;
  const left = daysBetween(today, l.dueOn);
  return left === 0 ? 'due today' : `due in ${days(left)}`;
}

/**
 * Main sentence of the loans: how many are out, how many late, and the first of them.
 * @param loans with label and member
 * @param today ISO date
 * @returns the sentence
 */
export function loansHeadline(
  loans: readonly (LoanDays & { label: string; member: string })[],
  today: string,
): string {
  const state = (l: LoanDays) => loanState(l, today);
  const out = loans.filter((l) => state(l) === 'out' || state(l) === 'late');
  const late = out.filter((l) => state(l) === 'late');
  const waiting = loans.filter((l) => state(l) === 'waiting').length;
  const waits = waiting === 0 ? '' : `; ${waiting} waiting`;
  if (out.length === 0) return `0 items are out${waits}.`;
  const first = [...late].sort((a, b) => daysLate(b, today) - daysLate(a, today))[0];
  const count = out.length === 1 ? '1 item is out' : `${out.length} items are out`;
  if (!first) return `${count}, none late${waits}.`;
  return `${count}, ${late.length} late${waits}. First: ${first.label} with ${first.member}, ${days(daysLate(first, today))} late.`;
}

const NOT_READY = {
  faulty: 'It is faulty: it stays here until it is mended.',
  fails: 'It does not work: it stays here until the reason is found.',
  missing: 'Something is missing: it stays here until all is together.',
  'not-tried': 'Nobody tried it: try it before it goes out again.',
} as const;

/**
 * What happens to a returned item, and the next in the queue.
 * @param ready whether it can go on
 * @param next name of who waits; null where nobody does
 * @returns the sentence
 */
export function afterReturn(ready: ReturnType<typeof readyForNext>, next: string | null): string {
  if (ready.why !== null)
    return NOT_READY[ready.why] + (next === null ? '' : ` ${next} waits for it.`);
  return next === null ? 'It is ready; 0 wait for it.' : `It is ready; next is ${next}.`;
}
