import type { HostSpec } from '../schema/host';
import type { AnySpec, PartKind } from '../schema/parts';
import { type SourceMap, sourceMap } from '../schema/source';
import { cellOf, guardCell, readCell, unguardCell, wordOf } from './cells';
import { columnsOf, type Header } from './columns';

/** What is wrong with a cell: its row in the file (the header is row 1), its column, and why. */
export interface CellError {
  readonly row: number;
  readonly column: string;
  readonly why: string;
}

/** A part as a file gives it: only what its columns hold. A host gathers the rows of its sockets. */
export interface FileEntry {
  readonly row: number;
  readonly id: string | null;
  readonly retired: boolean | null;
  readonly sources: SourceMap | null;
  readonly values: Record<string, unknown>;
  readonly sockets: { row: number; values: Record<string, unknown> }[];
  readonly errors: CellError[];
}

/** A part to be written: its spec and what is said of the entry. */
export interface FilePart {
  readonly id: string;
  readonly kind: PartKind;
  readonly spec: AnySpec;
  readonly retired: boolean;
  readonly sources: SourceMap;
}

function readEntryCell(
  entry: { -readonly [K in keyof FileEntry]: FileEntry[K] },
  key: string,
  text: string,
  kind: PartKind,
): string | null {
  switch (key) {
    case 'kind':
      return text === '' || text === kind ? null : `${text} in a file of kind "${kind}"`;
    case 'id':
      if (text !== '' && !/^[A-Za-z0-9._:-]{1,80}$/.test(text)) return `${text} is not an id`;
      entry.id = text === '' ? null : text;
      return null;
    case 'retired':
      if (!['', 'yes', 'no'].includes(text.toLowerCase())) return `${text} is not yes or no`;
      entry.retired = text.toLowerCase() === 'yes';
      return null;
    default: {
      if (text === '') {
        entry.sources = {};
        return null;
      }
      const read = readSources(text);
      if (read === null) return 'not a list of where values came from, as an export writes it';
      entry.sources = read;
      return null;
    }
  }
}

function readSources(text: string): SourceMap | null {
  try {
    const parsed = sourceMap.safeParse(JSON.parse(text));
    return parsed.success ? parsed.data : null;
  } catch {
    return null;
  }
}

/**
 * Reads one row of a parts file.
 * @param kind of parts
 * @param header of the file
 * @param cells of the row; those beyond the header are an error
 * @param row its number in the file
 * @returns the entry, with every error at its column
 */
export function readRow(
  kind: PartKind,
  header: Header,
  cells: readonly string[],
  row: number,
): FileEntry {
  const entry = {
    row,
    id: null,
    retired: null,
    sources: null,
    values: {},
    sockets: [],
    errors: [],
  } as {
    -readonly [K in keyof FileEntry]: FileEntry[K];
  };
  const socket: Record<string, unknown> = {};
  if (cells.length > header.columns.length)
    entry.errors.push({
      row,
      column: `after ${header.columns.length}`,
      why: `${cells.length} cells, the header has ${header.columns.length}`,
    });
  // A plain loop: tens of thousands of rows come this way, and what is made for each cell adds up.
  for (let i = 0; i < header.columns.length; i++) {
    const column = header.columns[i];
    if (!column) continue;
    const cell = unguardCell(cells[i] ?? '');
    if (column.of === 'entry') {
      const why = readEntryCell(entry, column.key, cell.trim(), kind);
      if (why) entry.errors.push({ row, column: column.name, why });
      continue;
    }
    if (column.meta === null || (column.of === 'socket' && cell.trim() === '')) continue;
    const read = readCell(cell, column.meta);
    if (!read.ok) entry.errors.push({ row, column: column.name, why: read.why });
    else if (column.of === 'socket') socket[column.key] = read.value;
    else entry.values[column.key] = read.value;
  }
  if (Object.keys(socket).length > 0) entry.sockets.push({ row, values: socket });
  return entry;
}

const word = (v: unknown) => (typeof v === 'string' ? v.toLowerCase() : '');
const nameKey = (v: Record<string, unknown>) =>
  `${word(v['maker'])}\u001f${word(v['model'])}\u001f${word(v['variant'])}`;

/**
 * Join the rows of a host: further rows of the same name bring further sockets, and what they say of the host itself must be nothing
 * or the same. For other kinds a name that stands twice is an error on its second row.
 */
export class EntryJoiner {
  readonly #seen = new Map<string, FileEntry>();
  constructor(readonly kind: PartKind) {}

  /** The entry a row begins; null when it was joined to an earlier one. Errors go to whichever entry the row belongs to. */
  add(entry: FileEntry): FileEntry | null {
    // A retired namesake is another part.
    const key = entry.retired
      ? `${nameKey(entry.values)}\u001f${entry.id ?? entry.row}`
      : nameKey(entry.values);
    const first = this.#seen.get(key);
    if (!first) {
      this.#seen.set(key, entry);
      return entry;
    }
    if (this.kind !== 'host' || entry.sockets.length === 0) {
      entry.errors.push({
        row: entry.row,
        column: 'model',
        why: `${wordOf(entry.values['model'])} stands in row ${first.row} already`,
      });
      return entry;
    }
    for (const [column, value] of Object.entries(entry.values)) {
      const blank = value === null || value === '';
      if (!blank && JSON.stringify(value) !== JSON.stringify(first.values[column]))
        first.errors.push({ row: entry.row, column, why: `not the same as in row ${first.row}` });
    }
    first.sockets.push(...entry.sockets);
    first.errors.push(...entry.errors.filter((e) => e.why !== 'must not be empty'));
    return null;
  }
}

type Loose = Record<string, unknown>;

/**
 * The spec an entry makes of a stored one, or of nothing: columns a file lacks stay as they are, ports are met by
 * their short name.
 * @param entry of the file
 * @param stored the spec that stands; null where none does
 * @returns the spec, not checked yet
 */
export function specOf(entry: FileEntry, stored: AnySpec | null): Loose {
  const spec: Loose =
    stored === null ? entry.values : { ...(stored as unknown as Loose), ...entry.values };
  if (entry.sockets.length === 0) return spec;
  const old = (stored as Partial<HostSpec> | null)?.sockets ?? [];
  const said = new Map(entry.sockets.map((s) => [wordOf(s.values['key']), s.values]));
  const kept = old.map((s) => ({ ...s, ...said.get(s.key) }));
  const fresh = entry.sockets
    .filter((s) => !old.some((o) => o.key === s.values['key']))
    .map((s) => s.values);
  return { ...spec, sockets: [...kept, ...fresh] };
}

/**
 * The rows of a part in a file, one for each port of a host: what stands on the first is not repeated.
 * @param part to be written
 * @param columns of the file
 * @returns cells row by row
 */
export function rowsOf(part: FilePart, columns = columnsOf(part.kind)): string[][] {
  const spec = part.spec as unknown as Loose;
  const entry: Record<string, string> = {
    kind: part.kind,
    id: part.id,
    retired: part.retired ? 'yes' : '',
    sources: Object.keys(part.sources).length > 0 ? JSON.stringify(part.sources) : '',
  };
  const sockets = (part.spec as Partial<HostSpec>).sockets ?? [null];
  const names = ['maker', 'model', 'variant'];
  return sockets.map((socket, i) =>
    columns.map((c) => {
      if (c.of === 'socket')
        return guardCell(socket ? cellOf((socket as unknown as Loose)[c.key]) : '');
      if (c.of === 'entry')
        return i === 0 || c.key !== 'sources' ? guardCell(entry[c.key] ?? '') : '';
      const unknown = c.meta?.input === 'choice' && !c.meta.unsure;
      return i === 0 || names.includes(c.key) || unknown ? guardCell(cellOf(spec[c.key])) : '';
    }),
  );
}
