import { execute, select } from '../../db/database';
import { inTransaction } from '../../db/transaction';

/** Part of a restore, in SQL: the audit trail steps aside while everything else is put in its place. */
export const KEEP_AUDIT = `DROP SCHEMA IF EXISTS ruddy_kept CASCADE;
CREATE SCHEMA ruddy_kept;
ALTER TABLE IF EXISTS public.audit_events SET SCHEMA ruddy_kept;
`;

const COLUMNS = 'id, at, kind, request_id, actor_id, actor, address, act, about, status, why';

/** Brings the audit trail that stepped aside back into the one a backup held: what was done after the backup stays on record. */
export async function bringAuditBack(): Promise<void> {
  await inTransaction(async () => {
    const [found] = await select<{ kept: boolean }>(
      `SELECT to_regclass('ruddy_kept.audit_events') IS NOT NULL AS kept`,
    );
    if (found?.kept)
      await execute(
        `INSERT INTO audit_events (${COLUMNS}) SELECT ${COLUMNS} FROM ruddy_kept.audit_events ON CONFLICT (id) DO NOTHING`,
      );
    await execute('DROP SCHEMA IF EXISTS ruddy_kept CASCADE');
  });
}
