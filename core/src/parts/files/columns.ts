import type * as z from 'zod';
import { socketSchema } from '../schema/host';
import { attributesOf, type AttrMeta } from '../schema/meta';
import { PART_SCHEMAS, type PartKind } from '../schema/parts';

/** A column of a parts file: an attribute of the part, one of a socket, or one of the three about the entry itself. */
export interface FileColumn {
  readonly name: string;
  readonly of: 'part' | 'socket' | 'entry';
  readonly key: string;
  readonly meta: AttrMeta | null;
}

/** About the entry itself: which kind and which part it is, whether it is retired, where its values came from. */
const ENTRY_COLUMNS = ['kind', 'id', 'retired', 'sources'] as const;
const SOCKET_PREFIX = 'socket.';

const cache = new Map<PartKind, readonly FileColumn[]>();

/**
 * Every column of a kind of parts.
 * @param kind of parts
 * @returns the entry's columns, the part's, and for hosts those of a port, in the order files are written
 */
export function columnsOf(kind: PartKind): readonly FileColumn[] {
  const known = cache.get(kind);
  if (known) return known;
  const part = attributesOf(PART_SCHEMAS[kind] as z.ZodObject).filter(
    ([, m]) => m.input !== 'list',
  );
  const sockets = kind === 'host' ? attributesOf(socketSchema) : [];
  const columns: FileColumn[] = [
    ...ENTRY_COLUMNS.map((key) => ({ name: key, of: 'entry' as const, key, meta: null })),
    ...part.map(([key, meta]) => ({ name: key, of: 'part' as const, key, meta })),
    ...sockets.map(([key, meta]) => ({
      name: `${SOCKET_PREFIX}${key}`,
      of: 'socket' as const,
      key,
      meta,
    })),
  ];
  cache.set(kind, columns);
  return columns;
}

/** The header row of a file understood: each of its columns in turn, null where no attribute has the name. */
export interface Header {
  readonly columns: readonly (FileColumn | null)[];
  /** Names that mean nothing here; their cells are left out. */
  readonly unknown: readonly string[];
}

/**
 * Reads the first row of a parts file.
 * @param kind of parts
 * @param cells of the row
 * @returns where each column stands; or why not: a name twice, maker or model missing, nothing known at all
 */
export function readHeader(
  kind: PartKind,
  cells: readonly string[],
): { ok: true; header: Header } | { ok: false; why: string } {
  const by = new Map(columnsOf(kind).map((c) => [c.name.toLowerCase(), c]));
  const columns = cells.map((c) => by.get(c.trim().toLowerCase()) ?? null);
  const names = columns.flatMap((c) => (c ? [c.name] : []));
  const twice = names.find((n, i) => names.indexOf(n) < i);
  if (twice) return { ok: false, why: `Row 1: the column "${twice}" stands there twice` };
  const missing = ['maker', 'model'].filter((n) => !names.includes(n));
  if (missing.length > 0)
    return {
      ok: false,
      why: `Row 1 must name the columns; "${missing.join('" and "')}" not found. The template has them all`,
    };
  return {
    ok: true,
    header: { columns, unknown: cells.filter((_, i) => columns[i] === null).map((c) => c.trim()) },
  };
}
