import { PartModel } from '../parts/models/part';
import { setImmediate } from 'node:timers/promises';
import { parse } from 'csv-parse/sync';
import { checked } from '@ruddy/core/base';
import { type Chain, chainSchema, partName } from '@ruddy/core/chain';
import { listCell, logHeader, type LogRow, readLogRow } from '@ruddy/core/compatibility';
import type { OutcomeBody } from '@ruddy/core/compatibility/contract';
import { type AnySpec, type HostSpec, NO_SETTINGS, NOTHING_INSTALLED } from '@ruddy/core/parts';
import { outcomeInFile, type OutcomeInFile } from '@ruddy/core/workshop/contract';
import { HttpProblem } from '../platform/http/problem';
import { unstorable } from '../platform/http/storable';
import { pieceKey } from '../setups/chain';
import { idFromFile } from '../platform/db/ids';
import { csvOptions } from '../parts/import-read';

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

const BATCH = 500;
const MOST = 200_000;

function refuse(detail: string): HttpProblem {
  return new HttpProblem(422, 'Not saved', { detail });
}

function toBody(
  e: Omit<OutcomeInFile, 'setupId' | 'unit' | 'chain' | 'recordedAt' | 'seq' | 'cameFrom'>,
): OutcomeBody {
  return {
    ...e,
    id: idFromFile(e.id),
    corrects: e.corrects === null ? null : idFromFile(e.corrects),
  };
}

interface LogFile {
  format?: unknown;
  version?: unknown;
  setups?: unknown[];
  parts?: unknown[];
  chains?: unknown;
  outcomes?: unknown;
}

/** The file as a whole is a share file of the log; refused with the reason otherwise. */
function parseLogFile(text: string): LogFile & { outcomes: unknown[] } {
  let file: LogFile;
  try {
    file = JSON.parse(text) as LogFile;
  } catch (error) {
    throw refuse(`Not JSON: ${(error as Error).message}`);
  }
  if (file?.format !== 'ruddy-bridge/bundle' || file.version !== 1)
    throw refuse('Not a log file: "format" must be "ruddy-bridge/bundle" and "version" 1');
  if ((file.setups?.length ?? 0) > 0 || (file.parts?.length ?? 0) > 0)
    throw refuse('The file holds setups or parts too. Load it whole under Workshop, Data');
  const { outcomes } = file;
  if (!Array.isArray(outcomes) || outcomes.length === 0) throw refuse('The file holds no entries');
  if (outcomes.length > MOST)
    throw refuse(`The file has more than ${MOST} entries; send it in parts`);
  const odd = unstorable(file);
  if (odd !== null) throw refuse(`${odd}: holds a null character or half of a character`);
  return { ...file, outcomes };
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

/** Read a share file of the log, each entry by itself, so that every bad one is named. */
export async function readLogJson(
  text: string,
  step: (rows: number) => Promise<void>,
): Promise<LogIncoming[]> {
  const file = parseLogFile(text);
  const chains = (Array.isArray(file.chains) ? file.chains : []).map((c) =>
    checked(chainSchema, c),
  );
  const list: LogIncoming[] = [];
  for (const [i, raw] of file.outcomes.entries()) {
    const row = i + 1;
    list.push(readEntry(raw, row, chains));
    if (row % BATCH === 0) {
      await step(row);
      await setImmediate();
    }
  }
  return list;
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

/** The rows of a CSV of the log and where its columns stand; refused with the reason where it is none. */
function parseLogRows(text: string) {
  let records: string[][];
  try {
    const { delimiter, bom, relax_column_count, skip_empty_lines } = csvOptions(text);
    records = parse(text, { delimiter, bom, relax_column_count, skip_empty_lines });
  } catch (error) {
    throw refuse(`Not a CSV file: ${(error as Error).message}`);
  }
  const [head, ...rows] = records;
  if (!head) throw refuse('The file is empty');
  const header = logHeader(head);
  if (!header.ok) throw refuse(header.why);
  if (rows.length === 0) throw refuse('The file has a header and no rows');
  if (records.length > MOST) throw refuse(`The file has more than ${MOST} rows; send it in parts`);
  return { width: head.length, at: header.at, rows };
}

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

/** Read a CSV of the log; parts are found by name in the catalogue. */
export async function readLogCsv(
  text: string,
  at: string,
  step: (rows: number) => Promise<void>,
): Promise<LogIncoming[]> {
  const { width, at: columns, rows } = parseLogRows(text);
  const named = await catalogue();
  const list: LogIncoming[] = [];
  for (const [i, cells] of rows.entries()) {
    const row = i + 2;
    const errors: LogNote[] = [];
    if (cells.length > width)
      errors.push({
        row,
        column: '',
        what: `has ${cells.length} cells where the header has ${width}`,
      });
    list.push(readCsvRow(readLogRow(columns, cells), row, { at, named, errors }));
    if (row % BATCH === 0) {
      await step(row);
      await setImmediate();
    }
  }
  return list;
}
