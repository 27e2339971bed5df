import { partsMeant } from './queries/parts-meant';
import { inTransaction } from '../platform/db/transaction';
import { type PartKind, wordOf } from '@ruddy/core/parts';
import type { RowOutcome, Job } from '@ruddy/core/parts/contract';
import { unstorable } from '../platform/http/storable';
import { idFromFile } from '../platform/db/ids';
import { judge, keyOf, type Judged, type Stored } from './import-judge';
import { readCsv, readJson, type Incoming } from './import-read';
import type { FileAsk, FileGiven } from '../platform/files/file-work';
import { beginsAsJson } from '../platform/files/text-file';
import { storeParts } from './queries/import-store';

const BATCH = 500;
/** Names of a batch that may match stored parts; names that the database cannot hold match none. */
function names(batch: readonly Incoming[], key: 'maker' | 'model'): string[] {
  return [...new Set(batch.map((e) => wordOf(e.values[key]).toLowerCase()))].filter(
    (n) => unstorable(n) === null,
  );
}

/** The stored parts a batch may mean: by id, or by kind and name among those not retired. */
async function meet(
  batch: readonly Incoming[],
): Promise<(e: Incoming) => { stored: Stored | null; namesake: Stored | null }> {
  const ids = batch.flatMap((e) => (e.id === null ? [] : [idFromFile(e.id)]));
  const rows = await partsMeant({
    ids,
    kinds: [...new Set(batch.map((e) => e.kind))],
    makers: names(batch, 'maker'),
    models: names(batch, 'model'),
  });
  const byId = new Map(rows.map((r) => [r.id, r]));
  const byName = new Map(rows.filter((r) => !r.retired).map((r) => [r.key, r]));
  return (e) => {
    const namesake = byName.get(keyOf(e.kind, e.values)) ?? null;
    return {
      namesake,
      stored: (e.id === null ? undefined : byId.get(idFromFile(e.id))) ?? namesake,
    };
  };
}

class Tally {
  readonly fates: Record<RowOutcome, number> = { wrong: 0, asks: 0, new: 0, changed: 0, same: 0 };
  /** What rows of this file took already, by row. */
  readonly #taken = new Map<string, number>();

  /** An entry that takes what an earlier one took is wrong. */
  checked(j: Judged): Judged {
    const before = j.takes.map((t) => this.#taken.get(t)).find((row) => row !== undefined);
    if (before === undefined) for (const t of j.takes) this.#taken.set(t, j.fate.row);
    const what = `means the same part as row ${before}`;
    const now: Judged =
      before === undefined
        ? j
        : {
            fate: { ...j.fate, fate: 'wrong', notes: [{ row: j.fate.row, column: 'id', what }] },
            takes: [],
            store: null,
          };
    this.fates[now.fate.fate] += 1;
    return now;
  }
}

/** What is to be done with a file of parts. */
export interface PartsAsk extends FileAsk {
  /** Kind of a CSV's parts; a JSON file says it of each. */
  readonly kind: PartKind;
  readonly name: string;
  readonly store: boolean;
}

/** Read, judge and, when wanted and nothing is wrong, store a file: all of it or nothing. */
export async function importParts(
  ask: PartsAsk,
  { file, now, tools }: FileGiven,
): Promise<NonNullable<Job['result']>> {
  const reading = (rows: number) => tools.progress(0, 0, `Reading, ${rows} rows so far`);
  const { entries, unknown } = (await beginsAsJson(file))
    ? await readJson(file, reading)
    : await readCsv(file, ask.kind, reading);
  const tally = new Tally();
  await inTransaction(async () => {
    for (let i = 0; i < entries.length; i += BATCH) {
      const batch = entries.slice(i, i + BATCH);
      const met = await meet(batch);
      const judged = batch.map((e) => {
        const { stored, namesake } = met(e);
        return tally.checked(judge(e, stored, namesake));
      });
      await tools.keep(judged.map((j) => j.fate));
      if (ask.store && tally.fates.wrong === 0)
        await storeParts(
          judged.flatMap((j) => (j.store ? [j.store] : [])),
          { origin: 'imported', at: now, by: ask.by },
        );
      const word = ask.store ? 'Storing' : 'Looking';
      await tools.progress(Math.min(i + BATCH, entries.length), entries.length, word);
    }
    if (!ask.store || tally.fates.wrong > 0) throw new NothingToKeep();
  }).catch((error: unknown) => {
    if (!(error instanceof NothingToKeep)) throw error;
  });
  return {
    name: ask.name,
    fates: tally.fates,
    unknown: [...unknown],
    stored: ask.store && tally.fates.wrong === 0,
  };
}

/** A trial, or a file with something wrong: the transaction is let go. */
class NothingToKeep extends Error {}
