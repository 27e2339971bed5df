import type * as z from 'zod';
import type { Origin, Page } from '@ruddy/core/base/contract';
import type { AnySpec, SourceMap } from '@ruddy/core/parts';
import type { Part, partQuery } from '@ruddy/core/parts/contract';
import { select } from '../../platform/db/database';
import { decodeCursor, likePattern, toPage } from '../../platform/db/paging';
import { notFound } from '../../platform/http/problem';

interface PartRow {
  id: string;
  kind: Part['kind'];
  spec: AnySpec;
  sources: SourceMap;
  rev: number;
  origin: Origin;
  created_at: Date;
  retired_at: Date | null;
  used_in: number;
  pieces: number;
  sort: string;
}

const COLUMNS = `p.id, p.kind, p.spec, p.sources, p.rev, p.origin, p.created_at, p.retired_at,
  (SELECT count(DISTINCT t.setup_id)::int FROM setup_slots t WHERE t.part_id = p.id) AS used_in,
  (SELECT count(*)::int FROM items i WHERE i.part_id = p.id AND i.how <> 'gone') AS pieces,
  lower(p.maker) || ' ' || lower(p.model) || ' ' || lower(p.variant) AS sort`;

function toPart(r: PartRow): Part {
  return {
    id: r.id,
    kind: r.kind,
    spec: r.spec,
    sources: r.sources,
    rev: r.rev,
    origin: r.origin,
    createdAt: r.created_at.toISOString(),
    retiredAt: r.retired_at?.toISOString() ?? null,
    usedIn: r.used_in,
    pieces: r.pieces,
  } as Part;
}

/** A page of the catalogue by maker, model and variant, with how many there are in all. */
export async function listParts(
  q: z.output<typeof partQuery>,
): Promise<Page<Part> & { total: number }> {
  const after = decodeCursor(q.cursor, 2);
  const [attr, word] = q.where?.split(':') ?? [null, null];
  const filter = `($1::text IS NULL OR p.kind = $1) AND (p.retired_at IS NULL OR $2) AND ($3::text IS NULL OR p.search ILIKE $3)
     AND (NOT $4 OR EXISTS (SELECT 1 FROM items i WHERE i.part_id = p.id AND i.how <> 'gone'))
     AND ($5::text IS NULL OR p.spec ->> $5 = $6 OR EXISTS (
       SELECT 1 FROM jsonb_array_elements(CASE WHEN p.kind = 'host' THEN p.spec -> 'sockets' ELSE '[]' END) k WHERE k ->> $5 = $6))`;
  const bind = [q.kind ?? null, q.retired, q.q ? likePattern(q.q) : null, q.owned, attr, word];
  const [counted] = await select<{ n: number }>(
    `SELECT count(*)::int AS n FROM parts p WHERE ${filter}`,
    bind,
  );
  // The page is found by the index on names first; what is counted beside each part is counted for that page only.
  const rows = await select<PartRow>(
    `SELECT ${COLUMNS} FROM parts p WHERE ${filter}
       AND ($7::text IS NULL OR (lower(p.maker) || ' ' || lower(p.model) || ' ' || lower(p.variant), p.id) > ($7, $8::uuid))
     ORDER BY sort, p.id LIMIT $9`,
    [...bind, after?.[0] ?? null, after?.[1] ?? null, q.limit + 1],
  );
  return { ...toPage(rows, q.limit, toPart, (r) => [r.sort, r.id]), total: counted?.n ?? 0 };
}

/** One part, retired or not. */
export async function getPart(id: string): Promise<Part> {
  const [row] = await select<PartRow>(`SELECT ${COLUMNS} FROM parts p WHERE p.id = $1`, [id]);
  if (!row) throw notFound('part');
  return toPart(row);
}

/** Ports of a host that setups use, with the name of the setup. */
export function socketsInUse(partId: string): Promise<{ key: string; setup: string }[]> {
  return select<{ key: string; setup: string }>(
    `SELECT k.key, s.name AS setup FROM setup_slots t JOIN sockets k ON k.id = t.socket_id JOIN setups s ON s.id = t.setup_id WHERE k.part_id = $1`,
    [partId],
  );
}
