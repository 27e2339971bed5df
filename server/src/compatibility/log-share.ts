import { picked, privateThings } from './queries/share-picks';
import { stringify } from 'csv-stringify/sync';
import { type Chain, partName } from '@ruddy/core/chain';
import { LOG_COLUMN_IDS, logCells, logRow, type LogRow } from '@ruddy/core/compatibility';
import type { LogShare, ShareQuery } from '@ruddy/core/compatibility/contract';
import type { Bundle } from '@ruddy/core/workshop/contract';
import { packEntries } from './log-file';
import { logInFile } from './queries/log-in-file';

const namesOf = (c: Chain) => ({
  host: partName(c.host),
  port: c.socket ?? '',
  path: (c.path ?? []).map((p) => partName(p.spec)).join(' + '),
  dock: partName(c.dock),
  card: partName(c.card),
});

async function rowsOf(q: ShareQuery): Promise<LogRow[]> {
  return (await logInFile(await picked(q))).map((e) =>
    logRow({ ...e, unit: e.unit as string }, namesOf(e.chain)),
  );
}

/** The log, or what a filter picks of it, as a file others can read: JSON with the parts as they were. Notes and setups stay here. */
export async function shareLogJson(q: ShareQuery): Promise<Partial<Bundle>> {
  const packed = packEntries(await logInFile(await picked(q)), false);
  return { format: 'ruddy-bridge/bundle', version: 1, parts: [], ...packed };
}

/** The same as CSV: names of parts, not their values. */
export async function shareLogCsv(q: ShareQuery): Promise<string> {
  return stringify([[...LOG_COLUMN_IDS], ...(await rowsOf(q)).map(logCells)], {
    record_delimiter: 'windows',
  });
}

/** Entries that are shown before the act. */
const SHOWN = 20;

/** What would leave and what would stay, with the first entries as they would leave. */
export async function shareLogReport(q: ShareQuery): Promise<LogShare> {
  const entries = await logInFile(await picked(q));
  const packed = packEntries(entries, false);
  const own = new Set(entries.flatMap((e) => (e.setupId === null ? [] : [e.setupId])));
  const ids = entries.map((e) => e.id);
  const kept = await privateThings([...own]);
  return {
    n: ids.length,
    leaves: [
      {
        what: 'entries: day, when written down, outcome, versions, what was seen and changed, order, how it is known',
        n: ids.length,
      },
      { what: 'chains: their parts with all values, as they were', n: packed.chains.length },
      { what: 'setups, as numbers without a name', n: new Set(entries.map((e) => e.unit)).size },
    ],
    stays: [
      { what: 'notes to entries', n: entries.filter((e) => e.note !== '').length },
      { what: 'names of setups', n: own.size },
      { what: 'serial numbers of items', n: kept.serials },
      { what: 'places of photos', n: kept.photos },
      {
        what: 'names of files entries came in with',
        n: entries.filter((e) => e.cameFrom !== '').length,
      },
      { what: 'who wrote it down', n: ids.length },
    ],
    columns: LOG_COLUMN_IDS,
    rows: entries.slice(0, SHOWN).map((e) => {
      const row = logRow({ ...e, unit: e.unit as string }, namesOf(e.chain));
      return LOG_COLUMN_IDS.map((c) => row[c]);
    }),
  };
}
