import { col, fn } from 'sequelize';
import { PartModel } from './models/part';
import { partInFile } from './part-in-file';
import { stringify } from 'csv-stringify/sync';
import { columnsOf, type FilePart, type PartKind, rowsOf, templateRow } from '@ruddy/core/parts';

/** Parts of a kind as a CSV that the import takes back, hosts with a row for each socket. */
export async function exportCsv(kind: PartKind, retired: boolean): Promise<string> {
  const parts = await PartModel.findAll({
    where: { kind, ...(!retired && { retiredAt: null }) },
    order: [...['maker', 'model', 'variant'].map((c) => fn('lower', col(c))), 'id'],
  });
  return toCsv(kind, parts.map(partInFile));
}

/** Owned items as rows of the same format. */
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
