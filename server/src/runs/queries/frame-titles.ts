import type { TitleParams } from '@ruddy/core/runs';
import { select } from '../../platform/db/database';

/** A title of which frames may be told. */
export interface TitleRow {
  id: string;
  name: string;
  params: TitleParams | null;
}

/** Titles that have runs or start values, those with most runs first; or those named, work among them. */
export function frameTitleRows(ids: readonly string[] | null): Promise<TitleRow[]> {
  return select<TitleRow>(
    `SELECT p.id, p.name, p.params FROM profiles p
     WHERE ($1::uuid[] IS NOT NULL OR (p.kind <> 'work' AND (p.params IS NOT NULL OR EXISTS (SELECT 1 FROM runs r WHERE r.title_id = p.id))))
       AND ($1::uuid[] IS NULL OR p.id = ANY ($1))
     ORDER BY (SELECT count(*) FROM runs r WHERE r.title_id = p.id) DESC, lower(p.name) LIMIT 64`,
    [ids ? [...ids] : null],
  );
}

/** A text that changes whenever a run, or what was said of one, could have changed. */
export async function runsMark(): Promise<string> {
  const [row] = await select<{ mark: string }>(
    `SELECT current_database() || ' ' || count(*) || ' ' || coalesce(max(created_at)::text, '') AS mark
     FROM events WHERE kind IN ('run', 'run-said', 'struck')`,
    [],
  );
  return row?.mark ?? '';
}
