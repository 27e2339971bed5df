import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  type AnySpec,
  attributesOf,
  cableSchema,
  columnHelp,
  columnsOf,
  EntryJoiner,
  type FileEntry,
  type FilePart,
  groupsOf,
  guardCell,
  PART_KINDS,
  PART_SCHEMAS,
  type PartKind,
  readCell,
  readHeader,
  readRow,
  rowsOf,
  specOf,
  templateRow,
  unguardCell,
} from '../src/parts';
import type * as z from 'zod';
import { cable, host, socket } from './make';

/** Rows of a file as entries, as the import reads them. */
function read(kind: PartKind, rows: readonly (readonly string[])[]): FileEntry[] {
  const header = readHeader(kind, rows[0] ?? []);
  if (!header.ok) throw new Error(header.why);
  const joiner = new EntryJoiner(kind);
  return rows
    .slice(1)
    .flatMap((cells, i) => joiner.add(readRow(kind, header.header, cells, i + 2)) ?? []);
}

const file = (kind: PartKind, parts: readonly FilePart[]) => [
  columnsOf(kind).map((c) => c.name),
  ...parts.flatMap((p) => rowsOf(p)),
];
const part = (kind: PartKind, spec: AnySpec, over: Partial<FilePart> = {}): FilePart => ({
  id: 'x-1',
  kind,
  spec,
  retired: false,
  sources: {},
  ...over,
});

describe('PA-02 cells', () => {
  it.each(['=1+1', '+1', '-5', '@x', '\tx', '\rx', "'=x", "''-x", "'-"])(
    '%j is made harmless and comes back',
    (cell) => {
      const guarded = guardCell(cell);
      expect(guarded.startsWith("'")).toBe(true);
      expect(unguardCell(guarded)).toBe(cell);
    },
  );

  it('leaves other cells alone, both ways; any text survives', () => {
    expect([guardCell('40'), guardCell("it's"), unguardCell("'tis"), unguardCell("'")]).toEqual([
      '40',
      "it's",
      "'tis",
      "'",
    ]);
    fc.assert(fc.property(fc.string(), (s) => unguardCell(guardCell(s)) === s));
    fc.assert(fc.property(fc.string(), (s) => !/^[=+\-@\t\r]/.test(guardCell(s))));
  });

  const meta = new Map(attributesOf(cableSchema));
  it.each([
    ['lengthMm', '800', 800],
    ['lengthMm', '700 to 900', { lo: 700, hi: 900 }],
    ['lengthMm', '', null],
    ['construction', 'passive', 'passive'],
    ['construction', 'Passive', 'passive'],
    ['construction', 'passive | active', { oneOf: ['passive', 'active'] }],
    ['construction', '', null],
    ['connector', 'usb-c', 'usb-c'],
    ['model', ' K-1 ', 'K-1'],
  ])('%s "%s" is read', (key, cell, value) => {
    expect(readCell(cell, meta.get(key)!)).toEqual({ ok: true, value });
  });

  it.each([
    ['lengthMm', '1,2', 'files use the point'],
    ['lengthMm', 'long', 'is not a number of mm'],
    ['lengthMm', '2 to', 'is not a number'],
    ['construction', 'woven', 'woven is not one of passive, active'],
    ['construction', 'passive | woven', 'woven is not one of'],
    ['connector', '', 'must not be empty'],
  ])('%s "%s" is refused with why', (key, cell, words) => {
    const r = readCell(cell, meta.get(key)!);
    expect(r.ok ? '' : r.why).toContain(words);
  });
});

describe('PA-02 the header', () => {
  it('takes columns in any order and case, and names unknown ones', () => {
    const r = readHeader('cable', ['Model', 'colour', 'MAKER', 'lengthMm']);
    expect(r.ok && [r.header.columns.map((c) => c?.name), r.header.unknown]).toEqual([
      ['model', undefined, 'maker', 'lengthMm'],
      ['colour'],
    ]);
  });

  it.each([
    [['maker', 'model', 'Maker'], 'the column "maker" stands there twice'],
    [['maker', 'length'], '"model" not found'],
    [['a,b'], '"maker" and "model" not found'],
  ])('%j is refused', (cells, words) => {
    const r = readHeader('cable', cells);
    expect(r.ok ? '' : r.why).toContain(words);
  });

  it('every attribute of every kind has column, group and help', () => {
    for (const kind of PART_KINDS) {
      const keys = attributesOf(PART_SCHEMAS[kind] as z.ZodObject)
        .filter(([, m]) => m.input !== 'list')
        .map(([k]) => k);
      const columns = columnsOf(kind)
        .filter((c) => c.of === 'part')
        .map((c) => c.key);
      expect(columns).toEqual(keys);
      const grouped = groupsOf(kind, keys).flatMap((g) => g.keys);
      expect([...grouped].sort()).toEqual([...keys].sort());
      expect(columnHelp(kind).filter((h) => h.what === '')).toEqual([]);
      expect(templateRow(kind)).toHaveLength(columnsOf(kind).length);
    }
  });
});

describe('PA-02 rows', () => {
  it('names each wrong cell by row and column', () => {
    const [entry] = read('cable', [
      ['maker', 'model', 'lengthMm', 'construction'],
      ['Alder', 'K-1', 'long', 'woven', 'more'],
    ]);
    expect(entry?.errors.map((e) => [e.row, e.column])).toEqual([
      [2, 'after 4'],
      [2, 'lengthMm'],
      [2, 'construction'],
    ]);
  });

  it('missing columns leave values, blank cells are "not sure"', () => {
    const stored = cable({ lengthMm: 900, markedGbps: 40 });
    const [entry] = read('cable', [
      ['maker', 'model', 'lengthMm'],
      ['Alder', 'K-1', ''],
    ]);
    expect(specOf(entry!, stored)).toMatchObject({
      lengthMm: null,
      markedGbps: 40,
      construction: 'passive',
    });
  });

  it('rows of a host join by name, sockets by short name', () => {
    const stored = {
      ...host(),
      sockets: [socket({ key: 'left', lanes: 4 }), socket({ key: 'right', lanes: 4 })],
    };
    const [entry, more] = read('host', [
      ['maker', 'model', 'form', 'socket.key', 'socket.connector', 'socket.lanes'],
      ['Alder', 'H-1', 'laptop', 'left', 'usb-c', '2'],
      ['Alder', 'H-1', '', 'back', 'm2', '4'],
    ]);
    expect(more).toBeUndefined();
    const spec = specOf(entry!, stored) as {
      sockets: { key: string; lanes: number; standard?: unknown }[];
    };
    expect(spec.sockets.map((s) => [s.key, s.lanes])).toEqual([
      ['left', 2],
      ['right', 4],
      ['back', 4],
    ]);
    expect(spec.sockets[0]?.standard).toBe('usb4-40');
  });

  it('hosts that contradict themselves and repeated names are wrong', () => {
    const hosts = read('host', [
      ['maker', 'model', 'form', 'drawW', 'socket.key', 'socket.connector'],
      ['Alder', 'H-1', 'laptop', '40', 'left', 'usb-c'],
      ['Alder', 'H-1', 'laptop', '50', 'right', 'usb-c'],
    ]);
    expect(hosts[0]?.errors).toMatchObject([
      { row: 3, column: 'drawW', why: 'not the same as in row 2' },
    ]);
    const twice = read('cable', [
      ['maker', 'model'],
      ['Alder', 'K-1'],
      ['ALDER', 'k-1'],
    ]);
    expect(twice[1]?.errors).toMatchObject([
      { row: 3, why: expect.stringContaining('stands in row 2 already') as string },
    ]);
  });

  it('what is written is read back equal: spec, retirement, sources', () => {
    const text = fc.string({ maxLength: 20 }).map((s) => s.trim());
    const num = (lo: number, hi: number) =>
      fc.oneof(
        fc.constant(null),
        fc.integer({ min: lo, max: hi }),
        fc
          .tuple(fc.integer({ min: lo, max: hi }), fc.integer({ min: lo, max: hi }))
          .map(([a, b]) => ({ lo: Math.min(a, b), hi: Math.max(a, b) })),
      );
    const spec = fc.record({
      maker: text.filter((s) => s !== ''),
      model: text.filter((s) => s !== ''),
      variant: text,
      connector: fc.constantFrom('usb-c', 'oculink-4i'),
      construction: fc.constantFrom(null, 'passive', 'active', { oneOf: ['passive', 'active'] }),
      lengthMm: num(50, 60_000),
      markedGbps: num(1, 120),
      markedW: num(15, 240),
      pcieGen: num(1, 5),
      family: text,
    });
    const sources = fc.dictionary(
      fc.constantFrom('lengthMm', 'markedGbps'),
      fc.record({
        from: fc.constantFrom(null, 'label' as const),
        on: fc.constantFrom('', '2026-11-03'),
        note: text,
        kept: fc.boolean(),
      }),
    );
    fc.assert(
      fc.property(spec, sources, fc.boolean(), (s, src, retired) => {
        const given = cableSchema.parse(s);
        const [entry] = read(
          'cable',
          file('cable', [part('cable', given, { retired, sources: { ...src } })]),
        );
        expect(entry?.errors).toEqual([]);
        expect(cableSchema.parse(specOf(entry!, null))).toEqual(given);
        expect([entry?.retired, entry?.sources, entry?.id]).toEqual([retired, { ...src }, 'x-1']);
      }),
    );
  });

  it('a host with many sockets round-trips through as many rows', () => {
    const spec = {
      ...host(),
      drawW: 45,
      sockets: [
        socket({ key: 'a' }),
        socket({ key: 'b', lanes: { lo: 2, hi: 4 } }),
        socket({ key: 'c', standard: null }),
      ],
    };
    const rows = file('host', [part('host', spec)]);
    expect(rows).toHaveLength(4);
    const [entry] = read('host', rows);
    expect(entry?.errors).toEqual([]);
    expect(PART_SCHEMAS.host.parse(specOf(entry!, null))).toEqual(spec);
  });
});
