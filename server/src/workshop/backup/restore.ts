import { outsideTransaction } from '../../platform/db/transaction';
import { randomBytes } from 'node:crypto';
import { rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Sequelize } from 'sequelize';
import type { BackupNote } from '@ruddy/core/workshop/contract';
import {
  countAll,
  createDatabase,
  dropDatabase,
  holdsKeeper,
  ownerOf,
  schemaOf,
  unusedDatabases,
} from '../../platform/db/admin';
import { connect } from '../../platform/db/connect';
import { KEEP_AUDIT } from '../../platform/audit/queries/kept';
import { LATEST, migrate } from '../../platform/db/migrate';
import { makeBackup, MOMENT, type Place } from './make';
import { runProgram } from './programs';
import { hashFile, writeNote } from './store';

/** Why a backup is not restored, in words. */
export class RestoreProblem extends Error {}

function databaseUrl(url: string, name: string): string {
  const u = new URL(url);
  u.pathname = `/${name}`;
  return u.toString();
}

const isRefused = (e: unknown) => (e as { parent?: { code?: string } }).parent?.code === '42501';

/** Runs work on whole databases, as the role that may make them. */
function asRestorer<T>(restoreUrl: string, work: (db: Sequelize) => Promise<T>): Promise<T> {
  return outsideTransaction(async () => {
    const db = connect(restoreUrl);
    try {
      return await work(db);
    } finally {
      await db.close();
    }
  });
}

/** Scratch databases that a crash left behind. */
export function sweepScratch(restoreUrl: string): Promise<void> {
  return asRestorer(restoreUrl, async (db) => {
    for (const name of await unusedDatabases(db, '^ruddy_check_[0-9a-f]{12}$'))
      await dropDatabase(db, name, { force: false }).catch(() => undefined);
  });
}

/** Restore a file into a database made for it, bring it up to date, look at it, and let it go. */
async function inScratch<T>(
  p: Place,
  file: string,
  signal: AbortSignal | undefined,
  look: (db: Sequelize) => Promise<T>,
): Promise<T> {
  const name = `ruddy_check_${randomBytes(6).toString('hex')}`;
  await asRestorer(p.restoreUrl, (db) => createDatabase(db, name));
  try {
    const made = ['--no-owner', '--no-privileges', '--exit-on-error', '-d', name, file];
    await runProgram(p.bin, 'pg_restore', made, {
      url: p.restoreUrl,
      database: name,
      ...(signal && { signal }),
    });
    return await asRestorer(databaseUrl(p.restoreUrl, name), look);
  } finally {
    await asRestorer(p.restoreUrl, (db) => dropDatabase(db, name, { force: true }));
  }
}

function differences(said: Record<string, number>, found: Record<string, number>): string[] {
  return Object.entries(said).flatMap(([t, n]) =>
    found[t] === n ? [] : [`${t}: ${found[t] ?? 0} of ${n}`],
  );
}

/** Facts of a restored database: whether a member can sign in. */
interface Tried {
  checked: NonNullable<BackupNote['checked']>;
  keeper: boolean;
}

/** Try a backup: is the file as it was written, does it restore, does every row come back, can it be brought up to date. */
export async function tryBackup(
  p: Place,
  file: string,
  note: BackupNote | null,
  signal?: AbortSignal,
): Promise<Tried> {
  const at = p.now().toISOString();
  const bad = (words: string): Tried => ({ checked: { at, ok: false, words }, keeper: false });
  if (note && (await hashFile(file)) !== note.sha256)
    return bad('The file is not as it was written');
  try {
    return await inScratch(p, file, signal, async (db) => {
      const missing = note ? differences(note.counts, await countAll(MOMENT, db)) : [];
      if (missing.length > 0) return bad(`Not all came back: ${missing.slice(0, 3).join('; ')}`);
      if ((await schemaOf(db)) > LATEST)
        return bad('It was made by a newer version of this program');
      const done = await migrate(db);
      const keeper = await holdsKeeper(db);
      const rows = Object.values(await countAll(MOMENT, db)).reduce((a, b) => a + b, 0);
      const words = `${rows} rows came back${done.length > 0 ? `, brought up to date by ${done.length} steps` : ''}`;
      return { checked: { at, ok: true, words }, keeper };
    });
  } catch (error) {
    if (signal?.aborted) throw error;
    if (isRefused(error))
      throw new RestoreProblem('This database user may make no database to try it in');
    return bad(error instanceof Error ? error.message : String(error));
  }
}

/** Try a backup of the place and keep what came of it beside the backup. */
export async function tryNamed(
  p: Place,
  name: string,
  note: BackupNote | null,
  signal?: AbortSignal,
): Promise<Tried> {
  const tried = await tryBackup(p, join(p.dir, name), note, signal);
  if (note) await writeNote(p.dir, name, { ...note, checked: tried.checked });
  return tried;
}

/** Other work on the same tables is waited for this long. */
const WAIT_S = 30;

/**
 * Put a backup in the place of everything there is. First it is tried beside the database, then what is there now is backed up, and only
 * then both change places in one transaction: all of it, or nothing.
 */
export async function restoreFile(
  p: Place,
  file: string,
  note: BackupNote | null,
  how: { signIn: boolean; signal?: AbortSignal; prepare: () => Promise<void> },
): Promise<{ counts: Record<string, number>; safety: string }> {
  const tried = await tryBackup(p, file, note, how.signal);
  if (!tried.checked.ok) throw new RestoreProblem(`Nothing changed. ${tried.checked.words}`);
  if (how.signIn && !tried.keeper)
    throw new RestoreProblem(
      'Nothing changed. No keeper of that backup has a password: nobody could sign in',
    );
  const safety = await makeBackup(p, 'before-restore', how.signal);
  // Written out whole before any of it is run: a file that breaks off in the middle changes nothing.
  const first = join(p.dir, `${safety.name}.first.sql`);
  const sql = join(p.dir, `${safety.name}.sql`);
  const on = { url: p.restoreUrl, ...(how.signal && { signal: how.signal }) };
  // A backup is a program for the database: it runs as the owner of this one, which may do nothing beyond it.
  const asOwner = `SET ROLE ${await ownerOf()};\n`;
  try {
    await writeFile(sql, '', { mode: 0o600 });
    await runProgram(p.bin, 'pg_restore', ['--no-owner', '--no-privileges', '-f', sql, file], on);
    await writeFile(
      first,
      `${asOwner}SET lock_timeout = '${WAIT_S}s';\n${KEEP_AUDIT}DROP SCHEMA public CASCADE;\nCREATE SCHEMA public;\n`,
      {
        mode: 0o600,
      },
    );
    await runProgram(
      p.bin,
      'psql',
      ['-X', '-q', '-1', '-v', 'ON_ERROR_STOP=1', '-f', first, '-f', sql],
      on,
    );
  } finally {
    for (const f of [first, sql]) await rm(f, { force: true });
  }
  await how.prepare();
  return { counts: await countAll(MOMENT), safety: safety.name };
}
