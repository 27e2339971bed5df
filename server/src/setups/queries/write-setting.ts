import type { Origin } from '@ruddy/core/base/contract';
import { execute } from '../../platform/db/database';

/** Writes a setting of the workshop; one that stands takes the value under its next revision. */
export function writeSetting(s: {
  id: string;
  key: string;
  value: unknown;
  reason: string;
  origin: Origin;
  at: Date;
  by: string;
}): Promise<void> {
  // A model would write a JSON null as an SQL null: the value travels as text.
  return execute(
    `INSERT INTO settings (id, origin, created_at, created_by, member_id, key, value, reason)
     VALUES ($1, $2, $3, $4, NULL, $5, $6::jsonb, $7)
     ON CONFLICT (member_id, key) DO UPDATE
       SET value = EXCLUDED.value, reason = EXCLUDED.reason, origin = EXCLUDED.origin, rev = settings.rev + 1`,
    [s.id, s.origin, s.at, s.by, s.key, JSON.stringify(s.value), s.reason],
  );
}
