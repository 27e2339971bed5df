import type { TitleParams } from '@ruddy/core/runs';
import { select } from '../../platform/db/database';

/** Runs and stated figures of a title `p`. */
const KNOWN =
  '((SELECT count(*) FROM runs r WHERE r.title_id = p.id) + (SELECT count(*) FROM stated_figures f WHERE f.title_id = p.id))';

/** A title of which frames may be told. */
export interface TitleRow {
  id: string;
  name: string;
  params: TitleParams | null;
}

/** Titles that have runs, stated figures or start values, those with most first; or those named, work among them. */
export function frameTitleRows(ids: readonly string[] | null): Promise<TitleRow[]> {
  return select<TitleRow>(
    `SELECT p.id, p.name, p.params FROM profiles p
     WHERE ($1::uuid[] IS NOT NULL OR (p.kind <> 'work' AND (p.params IS NOT NULL OR ${KNOWN} > 0)))
       AND ($1::uuid[] IS NULL OR p.id = ANY ($1))
     ORDER BY ${KNOWN} DESC, lower(p.name) LIMIT 64`,
    [ids ? [...ids] : null],
  );
}

/** A text that changes whenever a run, what was said of one, or a stated figure could have changed. */
export async function evidenceMark(): Promise<string> {
  const [row] = await select<{ mark: string }>(
    `SELECT current_database() || ' ' || (SELECT count(*) || ' ' || coalesce(max(created_at)::text, '') FROM events
         WHERE kind IN ('run', 'run-said', 'struck'))
       || ' ' || (SELECT coalesce(md5(string_agg(id::text, ' ' ORDER BY id)), '') FROM stated_figures) AS mark`,
    [],
  );
  return row?.mark ?? '';
}
