import * as z from 'zod';
import { AUDIT_KINDS, instant, isoDate, uuid } from '../../base/contract';

export const auditRow = z.object({
  id: uuid,
  at: instant,
  kind: z.enum(AUDIT_KINDS),
  /** The request behind it, as in the log of the server; null for what the server does by itself. */
  requestId: z.string().nullable(),
  /** Id of who did it; null where nobody was signed in. */
  actorId: z.string().nullable(),
  actor: z.string(),
  /** Address it came from; empty for what the server does by itself. */
  address: z.string(),
  /** What was asked: method and path of the endpoint. */
  act: z.string(),
  /** To whom or what: the name of a member, of a file, of a backup. */
  about: z.string(),
  /** HTTP status of the answer: below 400 it was done. */
  status: z.number().int(),
  /** Why it was refused; empty: it was done. */
  why: z.string(),
});
export type AuditRow = z.infer<typeof auditRow>;

export const auditQuery = z.strictObject({
  kind: z.enum(AUDIT_KINDS).optional(),
  result: z.enum(['done', 'refused']).optional(),
  /** Words in the name of who did it, in what it was done to, or in the address. */
  q: z.string().trim().max(100).optional(),
  from: isoDate.optional(),
  to: isoDate.optional(),
});
export type AuditQuery = z.output<typeof auditQuery>;

/** Entries older than this many days go. */
export const auditRule = z.strictObject({
  days: z
    .number()
    .int()
    .min(30, { error: 'Kept: 30 to 3650 days' })
    .max(3650, { error: 'Kept: 30 to 3650 days' }),
});
export const auditRuleAnswer = auditRule.extend({
  rev: z.number().int(),
  entries: z.number().int(),
  oldest: instant.nullable(),
  /** What a keeper should know of how addresses come in; empty: nothing. */
  warning: z.string(),
});
export type AuditRule = z.infer<typeof auditRuleAnswer>;
