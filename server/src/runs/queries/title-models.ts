import type { TitleModel } from '@ruddy/core/runs';
import { select } from '../../platform/db/database';

/** What is known of titles: stated start values and the newest calibration that is in use. All of them, or those named. */
export async function titleModels(ids: readonly string[] | null): Promise<TitleModel[]> {
  return select<TitleModel>(
    `SELECT p.id, p.name, p.params, (SELECT f.fit FROM profile_fits f WHERE f.profile_id = p.id AND f.fit ->> 'refused' IS NULL
       ORDER BY f.made_at DESC, f.id DESC LIMIT 1) AS fit
     FROM profiles p WHERE (p.kind <> 'work' OR $1::uuid[] IS NOT NULL) AND ($1::uuid[] IS NULL OR p.id = ANY ($1))
       AND ($1::uuid[] IS NOT NULL OR p.params IS NOT NULL OR EXISTS (SELECT 1 FROM profile_fits f WHERE f.profile_id = p.id AND f.fit ->> 'refused' IS NULL))
     ORDER BY (SELECT count(*) FROM runs r WHERE r.title_id = p.id) DESC, lower(p.name) LIMIT 64`,
    [ids ? [...ids] : null],
  );
}
