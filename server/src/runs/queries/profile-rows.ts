import type { ProfileEntry } from '@ruddy/core/runs/contract';
import { select } from '../../platform/db/database';

const PROFILE = `SELECT p.id, p.name, p.kind, p.note, p.engine, p.year, p.params, p.origin, p.rev,
    (SELECT count(*)::int FROM runs r WHERE r.title_id = p.id) AS runs
  FROM profiles p`;

/** Titles and work by name, with how many runs each has; one of them, or all. */
export async function profileRows(id: string | null = null): Promise<ProfileEntry[]> {
  return select<ProfileEntry>(
    `${PROFILE} WHERE $1::uuid IS NULL OR p.id = $1 ORDER BY lower(p.name)`,
    [id],
  );
}
