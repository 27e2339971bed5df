import { entriesKnown, type Known } from './queries/entries-known';
import { inTransaction } from '../platform/db/transaction';
import { type Chain, chainNames } from '@ruddy/core/chain';
import type { OutcomeBody } from '@ruddy/core/compatibility/contract';
import type { SentFile } from '@ruddy/core/base/contract';
import type { RowOutcome, ImportRow, Job, LogImportQuery } from '@ruddy/core/parts/contract';
import { LogEntryModel } from '../plan/models/log-entry';
import type { Actor, Services } from '../platform/http/route';
import { contentHash, idFromFile } from '../platform/db/ids';
import { type FileAsk, type FileGiven, startFileJob } from '../platform/files/file-work';
import {
  beginsAsJson,
  requireReadable,
  type TextFile,
  textFile,
} from '../platform/files/text-file';
import { type LogIncoming, readLogCsv, readLogHead, readLogJson } from './log-read';
import { entryHash, entryRow, storeOutcome } from '../plan/outcomes';

const BATCH = 500;

interface Met {
  hashes: ReadonlySet<string>;
  ids: ReadonlyMap<string, Known>;
}

/** What of a batch is known here: by what it says, or by its id. */
async function meet(hashes: readonly string[], ids: readonly string[]): Promise<Met> {
  const rows = await entriesKnown(hashes, ids);
  return { hashes: new Set(rows.map((r) => r.hash)), ids: new Map(rows.map((r) => [r.id, r])) };
}

const FIELDS = [
  'outcome',
  'happenedOn',
  'versions',
  'symptoms',
  'fixes',
  'provenance',
  'confidence',
  'order',
  'corrects',
] as const;

function said(value: unknown): string {
  if (Array.isArray(value)) return value.join('; ') || 'nothing';
  if (value !== null && typeof value === 'object')
    return (
      Object.entries(value)
        .map(([k, v]) => `${k} ${String(v)}`)
        .join(', ') || 'nothing'
    );
  return value === null || value === '' ? 'nothing' : String(value as string | number);
}

/** Where an entry here and one of the file with its id disagree; notes are private and count for nothing. */
function differences(
  known: Known,
  e: NonNullable<LogIncoming['entry']>,
  row: number,
  namesOnly: boolean,
): ImportRow['notes'] {
  const notes: ImportRow['notes'] = FIELDS.flatMap((f) => {
    const here = known.body[f];
    const file = e.body[f];
    return contentHash(here) === contentHash(file)
      ? []
      : [{ row, column: f, what: 'differs', here: said(here), file: said(file) }];
  });
  const [a, b] = [Object.values(chainNames(known.chain)), Object.values(chainNames(e.chain))].map(
    (n) => n.join(', '),
  ) as [string, string];
  if (a !== b) notes.push({ row, column: 'chain', what: 'differs', here: a, file: b });
  else if (!namesOnly && contentHash(known.chain) !== contentHash(e.chain))
    notes.push({ row, column: 'chain', what: 'differs in values of its parts', here: a, file: b });
  if (known.unit !== e.unit)
    notes.push({ row, column: 'unit', what: 'differs', here: known.unit, file: e.unit });
  return notes;
}

interface Judged {
  fate: ImportRow;
  store: (() => Promise<void>) | null;
  insert: ReturnType<typeof entryRow> | null;
}

/** An entry of the file with the hash of what it says. */
type Hashed = NonNullable<LogIncoming['entry']> & { hash: string };

const chainWords = (chain: Chain) =>
  Object.values(chainNames(chain))
    .filter((n) => n !== '')
    .join('; ');

/** One file held against the log. */
class LogImport {
  readonly fates: Record<RowOutcome, number> = { wrong: 0, asks: 0, new: 0, changed: 0, same: 0 };
  readonly #taken = new Map<string, { row: number; hash: string }>();
  readonly #except: ReadonlySet<number>;

  constructor(
    readonly q: LogImportQuery,
    readonly by: string,
    readonly now: Date,
  ) {
    this.#except = new Set(q.except === '' ? [] : q.except.split(',').map(Number));
  }

  /** What is stored of a row that disagrees; null while undecided. */
  #keeps(row: number): 'here' | 'file' | null {
    if (!this.q.keep) return null;
    if (!this.#except.has(row)) return this.q.keep;
    return this.q.keep === 'here' ? 'file' : 'here';
  }

  async batch(list: readonly LogIncoming[]): Promise<Judged[]> {
    const hashed = list.map((x) =>
      x.entry
        ? {
            ...x.entry,
            hash: entryHash(x.entry.unit, x.entry.chain, { ...x.entry.body, note: '' }),
          }
        : null,
    );
    const whole = hashed.flatMap((h) => (h ? [h] : []));
    const ids = whole.flatMap((h) => [
      h.body.id,
      takenId(h),
      ...(h.body.corrects ? [h.body.corrects] : []),
    ]);
    const met = await meet(
      whole.map((h) => h.hash),
      ids,
    );
    return list.map((x, i) => this.#judge(x, hashed[i] ?? null, met));
  }

  #end(
    x: LogIncoming,
    h: Hashed | null,
    fate: RowOutcome,
    notes: ImportRow['notes'],
    more: Partial<Judged> = {},
  ): Judged {
    this.fates[fate] += 1;
    const part = x.name || (h ? chainWords(h.chain) : `entry ${x.row}`);
    return { fate: { row: x.row, fate, part, notes }, store: null, insert: null, ...more };
  }

  /** What is wrong with an entry beside the rest of the file; it is noted as seen. */
  #clash(x: LogIncoming, h: Hashed, met: Met): { column: string; what: string } | null {
    const before = this.#taken.get(h.body.id);
    if (before && before.hash !== h.hash)
      return {
        column: 'id',
        what: `has the id of row ${before.row} and says something else`,
      };
    this.#taken.set(h.body.id, { row: x.row, hash: h.hash });
    const { corrects } = h.body;
    if (corrects !== null && !met.ids.has(corrects) && !this.#taken.has(corrects))
      return {
        column: 'corrects',
        what: 'names an entry that is neither here nor above it in the file',
      };
    return null;
  }

  #judge(x: LogIncoming, h: Hashed | null, met: Met): Judged {
    if (!h) return this.#end(x, h, 'wrong', x.errors);
    const seenBefore = this.#taken.has(h.body.id);
    const clash = this.#clash(x, h, met);
    if (clash) return this.#end(x, h, 'wrong', [{ row: x.row, ...clash }]);
    if (seenBefore || met.hashes.has(h.hash)) return this.#end(x, h, 'same', []);
    const known = met.ids.get(h.body.id);
    if (!known) {
      const row = entryRow({ ...h.body, note: '' }, this.#placeOf(h), this.#madeOf(h), h.hash);
      return this.#end(x, h, 'new', [], { insert: row });
    }
    const notes = differences(known, h, x.row, x.namesOnly);
    // What was taken from this file before stands as a correction of the entry here.
    if (notes.length === 0 || met.ids.has(takenId(h))) return this.#end(x, h, 'same', []);
    const store = () => this.#takeFromFile(x, h, known);
    return this.#end(x, h, 'asks', notes, this.#keeps(x.row) === 'file' ? { store } : {});
  }

  #madeOf(h: Hashed) {
    return { origin: 'imported' as const, at: new Date(h.at), by: this.by };
  }

  #placeOf(h: Hashed) {
    const cameFrom = h.cameFrom || this.q.name;
    return { setupId: null, unit: h.unit, chain: h.chain, seq: h.seq, cameFrom };
  }

  /** Lets what the file says correct the entry here. */
  async #takeFromFile(x: LogIncoming, h: Hashed, known: Known): Promise<void> {
    const body = { ...h.body, id: takenId(h), note: '', corrects: known.id };
    const chain = x.namesOnly ? known.chain : h.chain;
    const now = { ...this.#madeOf(h), at: this.now };
    if (known.setup_id !== null) {
      await storeOutcome(known.setup_id, body, chain, now);
      return;
    }
    const place = { ...this.#placeOf(h), unit: known.unit, chain, seq: h.seq + 1 };
    const hash = entryHash(known.unit, chain, body);
    await LogEntryModel.create(entryRow(body, place, now, hash));
  }

  /** Every row that disagrees is decided. */
  get decided(): boolean {
    return this.fates.asks === 0 || this.q.keep !== undefined;
  }
}

/** The id an entry of a file gets when it takes the place of one here: the same each time, so that a second import changes nothing. */
function takenId(h: { body: OutcomeBody; hash: string }): string {
  return idFromFile(`taken:${h.hash.slice(0, 60)}`);
}

/** A trial, or a file that cannot be stored: the transaction is let go. */
class NothingToKeep extends Error {}

/** What is to be done with a file of log entries. */
export interface LogAsk extends FileAsk {
  readonly q: LogImportQuery;
}

/** The entries of a file, and how many there are where that is known before. */
async function entriesOf(file: TextFile, now: Date) {
  if (!(await beginsAsJson(file))) return { list: readLogCsv(file, now.toISOString()), total: 0 };
  const head = await readLogHead(file);
  return { list: readLogJson(file, head), total: head.entries };
}

/** Entries a batch at a time. */
async function* inBatches(list: AsyncIterable<LogIncoming>): AsyncGenerator<LogIncoming[]> {
  let batch: LogIncoming[] = [];
  for await (const entry of list) {
    batch.push(entry);
    if (batch.length < BATCH) continue;
    yield batch;
    batch = [];
  }
  if (batch.length > 0) yield batch;
}

/** Read, hold against the log and, when wanted, store a file of log entries: all of it or nothing. */
export async function importLog(
  { q, by }: LogAsk,
  { file, now, tools }: FileGiven,
): Promise<NonNullable<Job['result']>> {
  await tools.progress(0, 0, 'Reading');
  const { list, total } = await entriesOf(file, now);
  const run = new LogImport(q, by, now);
  const storing = q.mode === 'store';
  let stored = false;
  let done = 0;
  await inTransaction(async () => {
    const later: NonNullable<Judged['store']>[] = [];
    for await (const batch of inBatches(list)) {
      const judged = await run.batch(batch);
      await tools.keep(judged.map((j) => j.fate));
      const rows = judged.flatMap((j) => (j.insert ? [j.insert] : []));
      if (storing && run.fates.wrong === 0) await LogEntryModel.bulkCreate(rows);
      later.push(...judged.flatMap((j) => (j.store ? [j.store] : [])));
      done += batch.length;
      const word = storing ? 'Storing' : 'Looking';
      await tools.progress(done, total, total > 0 ? word : `${word}, ${done} entries so far`);
    }
    if (!storing || run.fates.wrong > 0 || !run.decided) throw new NothingToKeep();
    for (const store of later) await store();
    stored = true;
  }).catch((error: unknown) => {
    if (!(error instanceof NothingToKeep)) throw error;
  });
  return { name: q.name, fates: run.fates, unknown: [], stored };
}

/** Begin to look at a file of log entries, or to store it: all of it or nothing. */
export async function startLogImport(
  s: Services,
  file: SentFile,
  q: LogImportQuery,
  actor: Actor,
): Promise<Job> {
  await requireReadable(textFile(file.path, q.encoding));
  const kind = q.mode === 'store' ? 'log-store' : 'log-try';
  return startFileJob(s, file, { kind, work: 'log', ask: { q }, encoding: q.encoding }, actor);
}
