import { select } from '../platform/db/database';
import { stringify } from 'csv-stringify/sync';
import { columnsOf, type FilePart, type PartKind, rowsOf, templateRow } from '@ruddy/core/parts';

/** Parts of a kind as a CSV that the import takes back, hosts with a row for each socket. */
export async function exportCsv(kind: PartKind, retired: boolean): Promise<string> {
  const parts = await select<FilePart>(
    `SELECT id, kind, spec, sources, retired_at IS NOT NULL AS retired FROM parts WHERE kind = $1 AND (retired_at IS NULL OR $2)
     ORDER BY lower(maker), lower(model), lower(variant), id`,
    [kind, retired],
  );
  return toCsv(kind, parts);
}

/** The same of parts in hand. */
export function toCsv(kind: PartKind, parts: readonly FilePart[]): string {
  const columns = columnsOf(kind);
  return stringify([columns.map((c) => c.name), ...parts.flatMap((p) => rowsOf(p, columns))], {
    record_delimiter: 'windows',
  });
}

/** A file to fill: the header and one row begun. */
export function templateCsv(kind: PartKind): string {
  return stringify([columnsOf(kind).map((c) => c.name), templateRow(kind)], {
    record_delimiter: 'windows',
  });
}
