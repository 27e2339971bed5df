import type { MemberRow } from '@ruddy/core/workshop/contract';
import { THIS_MACHINE } from '../../platform/access/actor';
import { select } from '../../platform/db/database';

type Row = Omit<MemberRow, 'createdAt'> & { createdAt: Date };

/** Members by name, the machine itself first, with their open sessions and the pieces they have; one of them, or all. */
export function memberRows(id: string | null, now: Date): Promise<Row[]> {
  return select<Row>(
    `SELECT m.id, m.name, m.role, m.active, m.password_hash IS NOT NULL AS "hasPassword",
       m.code_secret IS NOT NULL AS "oneTimeCodes", m.id = $2 AS "builtIn",
       m.rev, m.origin, m.created_at AS "createdAt",
       (SELECT count(*)::int FROM sessions t WHERE t.member_id = m.id AND t.expires_at > $3) AS "signedIn",
       (SELECT count(*)::int FROM loans l WHERE l.member_id = m.id AND l.from_on IS NOT NULL AND l.returned_on IS NULL) AS out
     FROM members m WHERE $1::uuid IS NULL OR m.id = $1 ORDER BY m.id <> $2, lower(m.name), m.id LIMIT 2000`,
    [id, THIS_MACHINE.id, now],
  );
}
