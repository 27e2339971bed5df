import { checked } from '@ruddy/core/base';
import {
  type CellError,
  EntryJoiner,
  type FileEntry,
  type Header,
  PART_KINDS,
  type PartKind,
  readHeader,
  readRow,
} from '@ruddy/core/parts';
import { partInFile, type PartInFile } from '@ruddy/core/parts/contract';
import { bundleValues } from '../platform/files/bundle-values';
import { csvRows } from '../platform/files/csv';
import type { TextFile } from '../platform/files/text-file';
import { notSaved } from '../platform/http/problem';

/** An entry of a file on its way into the catalogue: of a CSV with what its columns hold, of a JSON file whole. */
export interface Incoming extends FileEntry {
  readonly kind: PartKind;
  /** Given when the file holds the part whole. */
  readonly whole: PartInFile['spec'] | null;
}

export interface FileRead {
  readonly entries: Incoming[];
  readonly unknown: readonly string[];
}

const BATCH = 500;
/** Most rows of one file. */
export const MAX_ROWS = 100_000;

/**
 * Read a CSV of one kind. The rows of a host are joined; each row keeps the number it has in the file, the header being row 1. Throws a
 * problem that names the row when it is no CSV or its header is not understood.
 */
export async function readCsv(
  file: TextFile,
  kind: PartKind,
  step: (rows: number) => Promise<void>,
): Promise<FileRead> {
  const joiner = new EntryJoiner(kind);
  const entries: Incoming[] = [];
  let header: Header | null = null;
  let row = 0;
  for await (const cells of csvRows(file)) {
    row += 1;
    if (header === null) {
      const read = readHeader(kind, cells);
      if (!read.ok) throw notSaved(read.why);
      header = read.header;
      continue;
    }
    if (row > MAX_ROWS) throw notSaved(`The file has more than ${MAX_ROWS} rows; send it in parts`);
    const entry = joiner.add(readRow(kind, header, cells, row));
    if (entry) entries.push({ ...entry, kind, whole: null });
    if (row % BATCH === 0) await step(row);
  }
  if (header === null) throw notSaved('The file is empty');
  if (entries.length === 0) throw notSaved('The file has a header and no rows');
  return { entries, unknown: header.unknown };
}

function wholeErrors(
  row: number,
  issues: readonly { path: PropertyKey[]; message: string }[],
): CellError[] {
  return issues.map((i) => ({
    row,
    column:
      i.path
        .map(String)
        .join('/')
        .replace(/^spec\//, '') || 'entry',
    why: i.message,
  }));
}

/** One part of the file, read by itself: the part, or everything wrong with it. */
function readPart(raw: unknown, row: number): Incoming {
  const read = checked(partInFile, raw);
  if (read.success) {
    const { kind, id, retired, sources, spec } = read.data;
    const values = { ...spec };
    return { row, sockets: [], values, kind, id, retired, sources, errors: [], whole: spec };
  }
  const said = (raw ?? {}) as { kind?: unknown; spec?: Record<string, unknown> };
  return {
    row,
    sockets: [],
    values: { ...said.spec },
    kind: PART_KINDS.find((k) => k === said.kind) ?? 'cable',
    id: null,
    retired: null,
    sources: null,
    errors: wholeErrors(row, read.error.issues),
    whole: null,
  };
}

const PARTS_FILE = {
  name: 'parts file',
  lists: ['parts'],
  not: ['setups', 'outcomes'],
  notWords: 'setups',
};

/** Read the parts of a JSON file in the bundle's format, each by itself, so that every bad one is named. */
export async function readJson(
  file: TextFile,
  step: (rows: number) => Promise<void>,
): Promise<FileRead> {
  const entries: Incoming[] = [];
  for await (const { value } of bundleValues(file, PARTS_FILE)) {
    const row = entries.length + 1;
    if (row > MAX_ROWS)
      throw notSaved(`The file has more than ${MAX_ROWS} parts; send it in pieces`);
    entries.push(readPart(value, row));
    if (row % BATCH === 0) await step(row);
  }
  if (entries.length === 0) throw notSaved('The file holds no parts');
  return { entries, unknown: [] };
}
