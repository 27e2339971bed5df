import type { Outcome } from '../base';
import { guardCell, unguardCell } from '../parts';

/** Columns of the log as CSV, with what they hold. Lists are joined by "; ". */
export const LOG_COLUMNS = {
  id: 'The entry; an import knows it again by this',
  unit: 'The setup it was of, as an id: retries of one setup count once',
  day: 'When it happened, like 2026-11-03',
  outcome: 'works, care, unreliable or fails',
  host: 'Host by its whole name',
  port: 'Short name of the port on the host',
  path: 'Cables and adapters by their whole names, host side first',
  dock: 'Dock by its whole name; empty where the path ends in a card slot',
  card: 'Card by its whole name',
  system: 'System build',
  driver: 'Card driver',
  hostFirmware: 'Host firmware',
  dockFirmware: 'Dock firmware',
  symptoms: 'What was seen',
  fixes: 'What was changed',
  known: 'own, loan, bought or told',
  confidence: 'From 0 to 1',
  order: 'Order of power, where noted',
  corrects: 'The entry this one corrects',
} as const;
export type LogColumn = keyof typeof LOG_COLUMNS;
export const LOG_COLUMN_IDS = Object.keys(LOG_COLUMNS) as LogColumn[];

export type LogRow = Record<LogColumn, string>;

/**
 * An entry of the log as a row of a file.
 * @param e the entry
 * @param names of its parts
 * @returns the row
 */
export function logRow(
  e: {
    readonly id: string;
    readonly unit: string;
    readonly outcome: Outcome;
    readonly happenedOn: string;
    readonly versions: Readonly<
      Partial<Record<'system' | 'driver' | 'hostFirmware' | 'dockFirmware', string>>
    >;
    readonly symptoms: readonly string[];
    readonly fixes: readonly string[];
    readonly provenance: string;
    readonly confidence: number;
    readonly order: string | null;
    readonly corrects: string | null;
  },
  names: Pick<LogRow, 'host' | 'port' | 'path' | 'dock' | 'card'>,
): LogRow {
  const { versions: v } = e;
  return {
    id: e.id,
    unit: e.unit,
    day: e.happenedOn,
    outcome: e.outcome,
    ...names,
    system: v.system ?? '',
    driver: v.driver ?? '',
    hostFirmware: v.hostFirmware ?? '',
    dockFirmware: v.dockFirmware ?? '',
    symptoms: e.symptoms.join('; '),
    fixes: e.fixes.join('; '),
    known: e.provenance,
    confidence: String(e.confidence),
    order: e.order ?? '',
    corrects: e.corrects ?? '',
  };
}

/**
 * The cells of a row, guarded against being run as formulas.
 * @param row of the log
 * @returns cells in the order of `LOG_COLUMN_IDS`
 */
export function logCells(row: LogRow): string[] {
  return LOG_COLUMN_IDS.map((c) => guardCell(row[c]));
}

/**
 * Where each column of a file of the log stands.
 * @param cells of its first row
 * @returns places and unknown columns; or why not: it must hold day, outcome, host, port and card
 */
export function logHeader(
  cells: readonly string[],
):
  | { ok: true; at: ReadonlyMap<LogColumn, number>; unknown: readonly string[] }
  | { ok: false; why: string } {
  const names = cells.map((c) => c.trim());
  const at = new Map(
    LOG_COLUMN_IDS.flatMap((c) => (names.includes(c) ? [[c, names.indexOf(c)] as const] : [])),
  );
  const missing = (['id', 'unit', 'day', 'outcome', 'host', 'port', 'card'] as const).filter(
    (c) => !at.has(c),
  );
  if (missing.length > 0)
    return { ok: false, why: `The header has no column "${missing.join('", "')}"` };
  return {
    ok: true,
    at,
    unknown: names.filter((n) => n !== '' && !LOG_COLUMN_IDS.includes(n as LogColumn)),
  };
}

/**
 * Cells as a row of the log.
 * @param at where each column stands
 * @param cells of the row
 * @returns the row; a column that is not there is empty
 */
export function readLogRow(at: ReadonlyMap<LogColumn, number>, cells: readonly string[]): LogRow {
  const cell = (c: LogColumn) => unguardCell((cells[at.get(c) ?? -1] ?? '').trim());
  return Object.fromEntries(LOG_COLUMN_IDS.map((c) => [c, cell(c)])) as LogRow;
}

/**
 * A joined list taken apart.
 * @param text of a cell
 * @returns its entries
 * @example listCell('a; b') // => ['a', 'b']
 */
export function listCell(text: string): string[] {
  return text
    .split(';')
    .map((s) => s.trim())
    .filter((s) => s !== '');
}
