import type { ProfileEntry } from '@ruddy/core/runs/contract';
import { select } from '../../platform/db/database';

const PROFILE = `SELECT p.id, p.name, p.kind, p.note, p.engine, p.year, p.params, p.origin, p.rev,
    (SELECT count(*)::int FROM runs r WHERE r.title_id = p.id) AS runs,
    (SELECT max(f.made_at) FROM profile_fits f WHERE f.profile_id = p.id AND f.fit ->> 'refused' IS NULL) AS "fittedAt"
  FROM profiles p`;
type ProfileRow = Omit<ProfileEntry, 'fittedAt'> & { fittedAt: Date | null };
const toProfile = (r: ProfileRow): ProfileEntry => ({
  ...r,
  fittedAt: r.fittedAt?.toISOString() ?? null,
});

/** Titles and work by name, with how many runs each has and when it was last calibrated; one of them, or all. */
export async function profileRows(id: string | null = null): Promise<ProfileEntry[]> {
  const rows = await select<ProfileRow>(
    `${PROFILE} WHERE $1::uuid IS NULL OR p.id = $1 ORDER BY lower(p.name)`,
    [id],
  );
  return rows.map(toProfile);
}
