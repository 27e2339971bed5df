import { PartModel } from '../parts/models/part';
import { checked } from '@ruddy/core/base';
import { type Chain, chainSchema, partName } from '@ruddy/core/chain';
import { listCell, logHeader, type LogRow, readLogRow } from '@ruddy/core/compatibility';
import type { OutcomeBody } from '@ruddy/core/compatibility/contract';
import { type AnySpec, type HostSpec, NO_SETTINGS, NOTHING_INSTALLED } from '@ruddy/core/parts';
import { outcomeInFile, type OutcomeInFile } from '@ruddy/core/workshop/contract';
import { notSaved } from '../platform/http/problem';
import { unstorable } from '../platform/http/storable';
import { pieceKey } from '../setups/chain';
import { idFromFile } from '../platform/db/ids';
import { bundleValues } from '../platform/files/bundle-values';
import { csvRows } from '../platform/files/csv';
import type { TextFile } from '../platform/files/text-file';

/** A thing wrong with an entry, by its place in the file. */
export interface LogNote {
  readonly row: number;
  readonly column: string;
  readonly what: string;
}
/** An entry of a file, ready to be held against the log; `entry` is null where something is wrong with it. */
export interface LogIncoming {
  readonly row: number;
  readonly name: string;
  readonly errors: LogNote[];
  readonly entry: {
    readonly unit: string;
    readonly chain: Chain;
    readonly body: OutcomeBody;
    readonly seq: number;
    readonly at: string;
    readonly cameFrom: string;
  } | null;
  /** A CSV names parts but does not hold them: what it says of a known entry is held against the names only. */
  readonly namesOnly: boolean;
}

const MOST = 200_000;

function toBody(
  e: Omit<OutcomeInFile, 'setupId' | 'unit' | 'chain' | 'recordedAt' | 'seq' | 'cameFrom'>,
): OutcomeBody {
  return {
    ...e,
    id: idFromFile(e.id),
    corrects: e.corrects === null ? null : idFromFile(e.corrects),
  };
}

const LOG_FILE = {
  name: 'log file',
  lists: ['chains', 'outcomes'],
  not: ['setups', 'parts'],
  notWords: 'setups or parts',
};

/** What is read once before the entries: the chains they name, and how many entries there are. */
export interface LogHead {
  readonly chains: readonly CheckedChain[];
  readonly entries: number;
}

/**
 * Reads through a share file of the log once: entries name chains that may stand after them.
 * @throws HttpProblem 422 where the file as a whole is no share file of the log
 */
export async function readLogHead(file: TextFile): Promise<LogHead> {
  const chains: CheckedChain[] = [];
  let entries = 0;
  for await (const { path, value } of bundleValues(file, LOG_FILE)) {
    const odd = unstorable(value, path.join('/'));
    if (odd !== null) throw notSaved(`${odd}: holds a null character or half of a character`);
    if (path[0] === 'chains') chains.push(checked(chainSchema, value));
    else entries += 1;
    if (entries > MOST) throw notSaved(`The file has more than ${MOST} entries; send it in parts`);
  }
  if (entries === 0) throw notSaved('The file holds no entries');
  return { chains, entries };
}

type CheckedChain = ReturnType<typeof checked<typeof chainSchema>>;

/** The chain an entry names by its number, or holds; what is wrong with it otherwise. */
function chainOfEntry(
  chain: number | Chain | null | undefined,
  chains: readonly CheckedChain[],
): { chain: Chain } | { column: string; what: string } {
  if (typeof chain !== 'number') return chain ? { chain } : { column: 'chain', what: 'is missing' };
  const read = chains[chain];
  if (!read) return { column: 'chain', what: `the file holds no chain ${chain}` };
  if (read.success) return { chain: read.data as Chain };
  const issue = read.error.issues[0];
  const place = issue?.path.map(String).join('/') ?? '';
  return { column: `chains/${chain}/${place}`, what: issue?.message ?? 'is no chain' };
}

/** One entry of the file, read by itself: the entry, or everything wrong with it. */
function readEntry(raw: unknown, row: number, chains: readonly CheckedChain[]): LogIncoming {
  const bad = (errors: LogNote[]) => ({ row, name: '', errors, entry: null, namesOnly: false });
  const read = checked(outcomeInFile, raw);
  if (!read.success)
    return bad(
      read.error.issues.map((x) => ({
        row,
        column: x.path.map(String).join('/') || 'entry',
        what: x.message,
      })),
    );
  const { setupId, unit, chain, recordedAt: at, seq, cameFrom, ...rest } = read.data;
  const found = chainOfEntry(chain as number | Chain | null, chains);
  const of = unit ?? setupId;
  const errors: LogNote[] = [];
  if (!('chain' in found)) errors.push({ row, ...found });
  if (of === null)
    errors.push({
      row,
      column: 'unit',
      what: 'is missing: it says which setup the entry is of',
    });
  if (!('chain' in found) || of === null) return bad(errors);
  const entry = { unit: idFromFile(of), chain: found.chain, body: toBody(rest), seq, at, cameFrom };
  return { row, name: '', errors: [], entry, namesOnly: false };
}

/** Entries of a share file of the log as they are read, each by itself, so that every bad one is named. */
export async function* readLogJson(file: TextFile, head: LogHead): AsyncGenerator<LogIncoming> {
  let row = 0;
  for await (const { path, value } of bundleValues(file, LOG_FILE))
    if (path[0] === 'outcomes') yield readEntry(value, (row += 1), head.chains);
}

type Named = ReadonlyMap<string, AnySpec>;

/** Parts of the catalogue by kind and whole name; cables and adapters are pieces of one path. */
async function catalogue(): Promise<Named> {
  const rows = await PartModel.findAll({
    where: { kind: ['host', 'cable', 'adapter', 'dock', 'card'], retiredAt: null },
  });
  const kindOf = (kind: string) => (kind === 'cable' || kind === 'adapter' ? 'piece' : kind);
  return new Map(rows.map((r) => [`${kindOf(r.kind)} ${partName(r.spec).toLowerCase()}`, r.spec]));
}

function chainOfNames(
  r: LogRow,
  named: Named,
  wrong: (column: string, what: string) => void,
): Chain {
  const find = (kind: string, column: keyof LogRow, name: string) => {
    const spec = named.get(`${kind} ${name.toLowerCase()}`) ?? null;
    if (spec === null)
      wrong(
        column,
        `no ${kind === 'piece' ? 'cable or adapter' : kind} "${name}" among the parts here; a JSON file brings its parts along`,
      );
    return spec;
  };
  const host = find('host', 'host', r.host) as HostSpec | null;
  if (host && !host.sockets.some((s) => s.key === r.port))
    wrong('port', `"${r.host}" has no port "${r.port}"`);
  const path =
    r.path === ''
      ? []
      : r.path
          .split(' + ')
          .map((name, i) => ({ key: pieceKey(i), spec: find('piece', 'path', name) }));
  return {
    host,
    socket: r.port,
    path: path as Chain['path'],
    dock: (r.dock === '' ? null : find('dock', 'dock', r.dock)) as Chain['dock'],
    card: find('card', 'card', r.card) as Chain['card'],
    loads: [],
    supplies: [],
    picture: [],
    system: null,
    uses: [],
    installed: {
      ...NOTHING_INSTALLED,
      systemBuild: r.system,
      driver: r.driver,
      hostFirmware: r.hostFirmware,
      dockFirmware: r.dockFirmware,
    },
    settings: NO_SETTINGS,
  };
}

function versionsOf(r: LogRow): OutcomeBody['versions'] {
  const { system, driver, hostFirmware, dockFirmware } = r;
  return Object.fromEntries(
    Object.entries({ system, driver, hostFirmware, dockFirmware }).filter(([, v]) => v !== ''),
  );
}

/** Column of the file for a field of an entry. */
const COLUMN: Readonly<Record<string, string>> = { happenedOn: 'day', provenance: 'known' };

const entryOfRow = (r: LogRow, at: string) => ({
  id: r.id,
  setupId: null,
  unit: r.unit,
  outcome: r.outcome,
  happenedOn: r.day,
  versions: versionsOf(r),
  symptoms: listCell(r.symptoms),
  fixes: listCell(r.fixes),
  provenance: r.known || 'own',
  confidence: r.confidence === '' ? 1 : Number(r.confidence.replace(',', '.')),
  order: r.order || null,
  corrects: r.corrects || null,
  recordedAt: at,
});

/** One row of the file, read by itself: the entry, or everything wrong with it. */
function readCsvRow(
  r: LogRow,
  row: number,
  file: { at: string; named: Named; errors: LogNote[] },
): LogIncoming {
  const { errors } = file;
  const wrong = (column: string, what: string) => void errors.push({ row, column, what });
  const odd = unstorable(r);
  if (odd !== null) wrong(odd, 'holds a null character or half of a character');
  const chain = chainOfNames(r, file.named, wrong);
  const read = outcomeInFile.safeParse(entryOfRow(r, file.at));
  if (!read.success)
    for (const x of read.error.issues)
      wrong(COLUMN[String(x.path[0])] ?? String(x.path[0] ?? ''), x.message);
  const name = `${r.host}; ${r.dock || r.path}; ${r.card}`;
  if (!read.success || errors.length > 0)
    return { row, name, errors, entry: null, namesOnly: true };
  const { setupId, unit, chain: none, recordedAt: at, seq, cameFrom, ...rest } = read.data;
  void [setupId, none];
  // A CSV has no numbers: the order of its rows is the order of entries.
  const body = toBody(rest);
  const entry = { unit: idFromFile(unit as string), chain, body, seq: seq || row, at, cameFrom };
  return { row, name, errors, entry, namesOnly: true };
}

/** Where the columns of a log stand in a CSV; refused with the reason where it is no log. */
function columnsOf(head: string[]) {
  const header = logHeader(head);
  if (!header.ok) throw notSaved(header.why);
  return { width: head.length, at: header.at };
}

/** Entries of a CSV of the log as they are read; parts are found by name in the catalogue. */
export async function* readLogCsv(file: TextFile, at: string): AsyncGenerator<LogIncoming> {
  const named = await catalogue();
  let columns: ReturnType<typeof columnsOf> | null = null;
  let row = 0;
  for await (const cells of csvRows(file)) {
    row += 1;
    if (columns === null) {
      columns = columnsOf(cells);
      continue;
    }
    if (row > MOST) throw notSaved(`The file has more than ${MOST} rows; send it in parts`);
    const what = `has ${cells.length} cells where the header has ${columns.width}`;
    const errors = cells.length > columns.width ? [{ row, column: '', what }] : [];
    yield readCsvRow(readLogRow(columns.at, cells), row, { at, named, errors });
  }
  if (columns === null) throw notSaved('The file is empty');
  if (row === 1) throw notSaved('The file has a header and no rows');
}
