import type { AnySpec } from '@ruddy/core/parts';
import { select } from '../../platform/db/database';

export type FixKind = 'cable' | 'adapter' | 'dock' | 'card' | 'supply' | 'screen' | 'system';
export interface FixPart {
  id: string;
  kind: FixKind;
  spec: AnySpec;
}

/** At most so many parts of a kind are tried; own ones and those used in setups come first. */
const MOST = 400;
/** Parts in use of these kinds, own ones and those of setups first. */
export async function partsToTry(kinds: readonly FixKind[]): Promise<FixPart[]> {
  if (kinds.length === 0) return [];
  return select<FixPart>(
    `SELECT id, kind, spec FROM (
       SELECT p.id, p.kind, p.spec, row_number() OVER (PARTITION BY p.kind ORDER BY (p.origin = 'own') DESC,
         EXISTS (SELECT 1 FROM setup_slots t WHERE t.part_id = p.id) DESC, p.id) AS n
       FROM parts p WHERE p.kind = ANY($1::text[]) AND p.retired_at IS NULL) x WHERE n <= $2 ORDER BY kind, n`,
    [kinds, MOST],
  );
}
