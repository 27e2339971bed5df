import { Op } from 'sequelize';
import { AuditEventModel } from '../../platform/audit/models/audit-event';
import { execute, select } from '../../platform/db/database';

/** How many entries the audit trail has, and the moment of the oldest. */
export async function trailSize(): Promise<{ entries: number; oldest: Date | null }> {
  const [found] = await select<{ entries: number; oldest: Date | null }>(
    'SELECT count(*)::int AS entries, min(at) AS oldest FROM audit_events',
  );
  return found ?? { entries: 0, oldest: null };
}

/** Removes entries of before a moment, inside a transaction that says it is the rule that does it: the table refuses anybody else. */
export async function removeBefore(moment: Date): Promise<number> {
  await execute(`SELECT set_config('ruddy.audit_rule', 'on', true)`);
  return AuditEventModel.destroy({ where: { at: { [Op.lt]: moment } } });
}
