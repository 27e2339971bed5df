import { HttpProblem } from '../http/problem';
import type { OpenSession } from './actor';

/** A password counts this long before it is asked for again. */
export const CONFIRMED_MS = 5 * 60_000;

/** Refuses an act of a session whose password was given too long ago. Without sign-in there is no session to ask. */
export function requireConfirmed(session: OpenSession | null, now: Date): void {
  if (session === null) return;
  const age = now.getTime() - session.confirmedAt.getTime();
  if (age >= 0 && age < CONFIRMED_MS) return;
  throw new HttpProblem(403, 'Give your password again', {
    code: 'confirm-first',
    detail: 'This asks for your password again; it was given more than 5 minutes ago',
  });
}
