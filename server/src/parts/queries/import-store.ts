import { execute } from '../../platform/db/database';
import type { AnySpec, HostSpec, PartKind, SourceMap } from '@ruddy/core/parts';
import { newId } from '../../platform/db/ids';
import type { Made } from '../items';
import { syncSockets } from '../parts';

/** A part to be written, new or over a stored one. */
export interface ToStore {
  readonly id: string;
  readonly kind: PartKind;
  readonly spec: AnySpec;
  readonly sources: SourceMap;
  readonly retired: boolean;
  readonly fresh: boolean;
}

/**
 * Write a batch in a few statements: new parts, changed parts, a revision of each, and the sockets of hosts. A host's sockets are never
 * taken away here: what a file does not name stays.
 */
export async function storeParts(parts: readonly ToStore[], made: Made): Promise<void> {
  if (parts.length === 0) return;
  const rows = JSON.stringify(parts.map((p) => ({ ...p, revision: newId() })));
  const shape =
    'x(id uuid, kind text, spec jsonb, sources jsonb, retired boolean, fresh boolean, revision uuid)';
  const bind = [rows, made.at, made.by, made.origin];
  await execute(
    `INSERT INTO parts (id, origin, created_at, created_by, kind, spec, sources, retired_at)
     SELECT x.id, $4, $2, $3, x.kind, x.spec, x.sources, CASE WHEN x.retired THEN $2::timestamptz END
     FROM jsonb_to_recordset($1::jsonb) AS ${shape} WHERE x.fresh`,
    bind,
  );
  await execute(
    `UPDATE parts p SET spec = x.spec, sources = x.sources, rev = p.rev + 1,
       retired_at = CASE WHEN x.retired THEN coalesce(p.retired_at, $2::timestamptz) END,
       origin = CASE WHEN p.origin = 'demo' THEN 'adopted' ELSE p.origin END
     FROM jsonb_to_recordset($1::jsonb) AS ${shape} WHERE NOT x.fresh AND p.id = x.id`,
    [rows, made.at],
  );
  await execute(
    `INSERT INTO part_revisions (id, part_id, rev, spec, spec_version, sources, retired, at, by)
     SELECT x.revision, p.id, p.rev, p.spec, p.spec_version, p.sources, p.retired_at IS NOT NULL, $2, $3
     FROM jsonb_to_recordset($1::jsonb) AS ${shape} JOIN parts p ON p.id = x.id`,
    [rows, made.at, made.by],
  );
  for (const p of parts) if (p.kind === 'host') await syncSockets(p.id, p.spec as HostSpec, made);
}
