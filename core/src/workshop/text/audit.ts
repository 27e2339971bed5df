import type { AuditKind } from '../../base/contract';

export const AUDIT_WORDS: Readonly<Record<AuditKind, string>> = {
  'sign-in': 'Sign-in',
  'sign-out': 'Sign-out',
  session: 'Session ended',
  password: 'Password',
  'one-time-codes': 'One-time codes',
  confirmation: 'Password given again',
  member: 'Member or role',
  backup: 'Backup',
  restore: 'Restore',
  download: 'Download',
  import: 'Import',
  feed: 'Feed',
  removal: 'Removal',
  rule: 'Rule',
};

/**
 * Main sentence of the audit trail: how much there is, since when, and how long it is kept.
 * @param trail number of entries, day of the oldest in words, days they are kept
 * @returns the sentence
 * @example auditHeadline({ entries: 0, oldest: null, days: 400 }) // => '0 entries yet; each is kept 400 days.'
 */
export function auditHeadline(trail: {
  readonly entries: number;
  readonly oldest: string | null;
  readonly days: number;
}): string {
  const kept = `each is kept ${trail.days} days.`;
  if (trail.oldest === null) return `0 entries yet; ${kept}`;
  const n = trail.entries === 1 ? '1 entry' : `${trail.entries.toLocaleString('en')} entries`;
  return `${n} since ${trail.oldest}; ${kept}`;
}
