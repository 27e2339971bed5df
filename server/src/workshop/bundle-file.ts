import { checked } from '@ruddy/core/base';
import type { SentFile } from '@ruddy/core/base/contract';
import type { Job, LoadReport } from '@ruddy/core/parts/contract';
import { captureInFile } from '@ruddy/core/runs/contract';
import { type Bundle, bundleSchema } from '@ruddy/core/workshop/contract';
import { inTransaction } from '../platform/db/transaction';
import {
  type FileAsk,
  type FileGiven,
  startFileJob,
  workOnFile,
} from '../platform/files/file-work';
import { jsonValues } from '../platform/files/json';
import { requireReadable, type TextFile, textFile } from '../platform/files/text-file';
import { fromZod, HttpProblem } from '../platform/http/problem';
import type { Actor, Services } from '../platform/http/route';
import { unstorable } from '../platform/http/storable';
import { loadBundle } from './bundle-load';

/** Most values of runs of one file; each has thousands of numbers. */
const MOST_CAPTURES = 200_000;
const PATHS = ['$.*', '$.captures.*'];

function refuse(path: string, message: string): HttpProblem {
  return new HttpProblem(422, 'Not saved', {
    detail: `${path}: ${message}`,
    errors: [{ path, message }],
  });
}

/** A value that the database can hold. */
function storable(value: unknown, path: string): void {
  const odd = unstorable(value, path);
  if (odd !== null) throw refuse(odd, 'holds a null character or half of a character');
}

/** Everything of a file but the values of runs, checked whole. */
export async function readBundle(file: TextFile): Promise<Bundle> {
  const members = new Map<string, unknown>();
  for await (const { path, value } of jsonValues(file, PATHS)) {
    const name = String(path[0]);
    if (name === 'captures') {
      if (path.length === 1 && !Array.isArray(value)) throw refuse(name, 'must be a list');
      continue;
    }
    storable(value, name);
    members.set(name, value);
  }
  const read = checked(bundleSchema, Object.fromEntries(members));
  if (!read.success) throw fromZod(read.error, 'body');
  return read.data;
}

/** Values of runs as they are read, each checked by itself. */
export async function* capturesOf(file: TextFile): AsyncGenerator<Bundle['captures'][number]> {
  let i = 0;
  for await (const { path, value } of jsonValues(file, PATHS)) {
    if (path[0] !== 'captures' || path.length === 1) continue;
    const place = path.join('/');
    if (typeof path[1] !== 'number' || i >= MOST_CAPTURES)
      throw refuse(place, `must be a list of at most ${MOST_CAPTURES}`);
    const read = checked(captureInFile, value);
    if (!read.success) {
      const [issue] = read.error.issues;
      throw refuse([place, ...(issue?.path ?? [])].join('/'), issue?.message ?? 'wrong');
    }
    yield read.data;
    i += 1;
  }
}

/** What is to be done with a file of everything. */
export interface BundleAsk extends FileAsk {
  readonly name: string;
}

const sum = (counts: Readonly<Record<string, number>>) =>
  Object.values(counts).reduce((a, b) => a + b, 0);

/** Loads a file of everything: all of it or nothing. */
export async function loadFile(
  ask: BundleAsk,
  { file, now, tools }: FileGiven,
): Promise<NonNullable<Job['result']>> {
  const step = (message: string) => tools.progress(0, 0, message);
  await step('Reading');
  const bundle = await readBundle(file);
  const made = { origin: 'imported', by: ask.by, now, captures: capturesOf(file), step } as const;
  const loaded = await inTransaction(() => loadBundle(bundle, made));
  const fates = { wrong: 0, asks: 0, new: sum(loaded.stored), changed: 0, same: sum(loaded.same) };
  return { name: ask.name, fates, unknown: [], stored: true, loaded };
}

interface Named {
  readonly name: string;
  readonly encoding?: FileAsk['encoding'];
}
const taskOf = ({ name, encoding }: Named) =>
  ({ kind: 'load', work: 'bundle', ask: { name }, encoding }) as const;

/** Begins to load a file of everything. */
export async function startLoad(
  s: Services,
  file: SentFile,
  named: Named,
  actor: Actor,
): Promise<Job> {
  await requireReadable(textFile(file.path, named.encoding));
  return startFileJob(s, file, taskOf(named), actor);
}

/** Loads a file of everything and waits for its end. */
export async function loadWhole(s: Services, file: SentFile, actor: Actor): Promise<LoadReport> {
  await requireReadable(textFile(file.path));
  const result = await workOnFile(s, file, taskOf({ name: '' }), actor);
  return result?.loaded ?? { stored: {}, same: {} };
}
