import { setImmediate } from 'node:timers/promises';
import { CsvError, parse } from 'csv-parse';
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
import { HttpProblem } from '../platform/http/problem';

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

/** Options the file is read with; the bench reads the same text with the same options and nothing else. */
export function csvOptions(text: string) {
  const first = text.slice(0, text.search(/\r?\n|$/));
  const counts = [',', ';', '\t'].map((d) => [d, first.split(d).length] as const);
  const delimiter = counts.reduce((best, d) => (d[1] > best[1] ? d : best))[0];
  return {
    bom: true,
    delimiter,
    relax_column_count: true,
    skip_empty_lines: true,
    info: true,
  } as const;
}

function refuse(detail: string): HttpProblem {
  return new HttpProblem(422, 'Not saved', { detail });
}

interface Record1 {
  record: string[];
  info: { lines: number };
}

/**
 * Read a CSV of one kind. The rows of a host are joined; each row keeps the number it has in the file, the header being row 1. Throws a
 * problem that names the row when it is no CSV or its header is not understood.
 */
export async function readCsv(
  text: string,
  kind: PartKind,
  step: (rows: number) => Promise<void>,
): Promise<FileRead> {
  const parser = parse(text, csvOptions(text));
  const joiner = new EntryJoiner(kind);
  const entries: Incoming[] = [];
  let header: Header | null = null;
  let row = 0;
  try {
    for await (const chunk of parser as AsyncIterable<Record1>) {
      row += 1;
      if (header === null) {
        const read = readHeader(kind, chunk.record);
        if (!read.ok) throw refuse(read.why);
        header = read.header;
        continue;
      }
      if (row > MAX_ROWS) throw refuse(`The file has more than ${MAX_ROWS} rows; send it in parts`);
      const entry = joiner.add(readRow(kind, header, chunk.record, row));
      if (entry) entries.push({ ...entry, kind, whole: null });
      if (row % BATCH === 0) await step(row);
    }
  } catch (error) {
    if (error instanceof CsvError) throw refuse(`Not a CSV file: ${error.message.slice(0, 300)}`);
    throw error;
  }
  if (header === null) throw refuse('The file is empty');
  if (entries.length === 0) throw refuse('The file has a header and no rows');
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

interface PartsFile {
  format?: unknown;
  version?: unknown;
  parts?: unknown;
  setups?: unknown[];
  outcomes?: unknown[];
}

/** The parts of a JSON file in the bundle's format; refused with the reason where it holds none, or more than parts. */
function partsIn(text: string): unknown[] {
  let file: PartsFile;
  try {
    file = JSON.parse(text) as PartsFile;
  } catch (error) {
    throw refuse(`Not JSON: ${(error as Error).message}`);
  }
  if (file?.format !== 'ruddy-bridge/bundle' || file.version !== 1)
    throw refuse('Not a parts file: "format" must be "ruddy-bridge/bundle" and "version" 1');
  if (!Array.isArray(file.parts) || file.parts.length === 0)
    throw refuse('The file holds no parts');
  if ((file.setups?.length ?? 0) > 0 || (file.outcomes?.length ?? 0) > 0)
    throw refuse('The file holds setups too. Load it whole under Workshop, Data');
  if (file.parts.length > MAX_ROWS)
    throw refuse(`The file has more than ${MAX_ROWS} parts; send it in pieces`);
  return file.parts as unknown[];
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

/** Read the parts of a JSON file in the bundle's format, each by itself, so that every bad one is named. */
export async function readJson(
  text: string,
  step: (rows: number) => Promise<void>,
): Promise<FileRead> {
  const entries: Incoming[] = [];
  for (const [i, raw] of partsIn(text).entries()) {
    const row = i + 1;
    entries.push(readPart(raw, row));
    if (row % BATCH === 0) {
      await step(row);
      await setImmediate();
    }
  }
  return { entries, unknown: [] };
}
