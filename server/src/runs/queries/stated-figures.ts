import type { Origin } from '@ruddy/core/base/contract';
import type { StatedFigureKept } from '@ruddy/core/runs/contract';
import { select } from '../../platform/db/database';

export interface StatedFigureRow {
  id: string;
  title_id: string;
  title: string;
  at: Date;
  origin: Origin;
  body: StatedFigureKept;
}

/** Most that are read: far above what people type. */
const MOST = 2000;

/** Stated figures, newest first: of titles; or of a setup and of the titles it has runs of; or all. */
export function statedFigureRows(f: {
  readonly titleIds?: readonly string[] | undefined;
  readonly setupId?: string | undefined;
}): Promise<StatedFigureRow[]> {
  return select<StatedFigureRow>(
    `SELECT f.id, f.title_id, p.name AS title, f.created_at AS at, f.origin, f.body
     FROM stated_figures f JOIN profiles p ON p.id = f.title_id
     WHERE ($1::uuid[] IS NULL OR f.title_id = ANY ($1))
       AND ($2::uuid IS NULL OR f.setup_id = $2 OR f.title_id IN (SELECT r.title_id FROM runs r WHERE r.setup_id = $2))
     ORDER BY f.created_at DESC, f.id LIMIT ${MOST}`,
    [f.titleIds ? [...f.titleIds] : null, f.setupId ?? null],
  );
}
