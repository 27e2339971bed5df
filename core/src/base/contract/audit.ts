/** What is written down of who did what, by the contract of the endpoint that did it. */
export const AUDIT_KINDS = [
  'sign-in',
  'sign-out',
  'session',
  'password',
  'one-time-codes',
  'confirmation',
  'member',
  'backup',
  'restore',
  'download',
  'import',
  'feed',
  'removal',
  'rule',
] as const;
export type AuditKind = (typeof AUDIT_KINDS)[number];
