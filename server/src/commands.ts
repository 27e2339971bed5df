import { stat } from 'node:fs/promises';
import { basename, dirname, join, resolve } from 'node:path';
import { createInterface } from 'node:readline/promises';
import { Writable } from 'node:stream';
import { PASSWORD_LEAST } from '@ruddy/core/workshop';
import { backupName } from '@ruddy/core/workshop/contract';
import { makeBackup, type Place } from './workshop/backup/make';
import { findPrograms } from './workshop/backup/programs';
import { restoreFile, tryNamed } from './workshop/backup/restore';
import { listPlace } from './workshop/backup/store';
import { connect } from './platform/db/connect';
import { defineModels } from './models';
import { HttpProblem } from './platform/http/problem';
import { NewerDatabase } from './platform/db/migrate';
import { newId } from './platform/db/ids';
import { giveKeeper } from './workshop/members';
import { prepareDatabase } from './prepare';

/** What is done beside the server: `keeper NAME`, `backup`, `restore [FILE]`. */
class Stop extends Error {}

const say = (line: string) => process.stdout.write(`${line}\n`);

/** A password from the terminal without showing it, or the first line of what is piped in. */
async function askPassword(): Promise<string> {
  const silent = new Writable({ write: (_chunk, _encoding, done) => done() });
  const terminal = process.stdin.isTTY;
  if (terminal)
    process.stdout.write(`Password, at least ${PASSWORD_LEAST} characters (not shown): `);
  const lines = createInterface({
    input: process.stdin,
    output: terminal ? silent : undefined,
    terminal,
  });
  try {
    for await (const line of lines) return line;
    return '';
  } finally {
    lines.close();
    if (terminal) process.stdout.write('\n');
  }
}

async function keeper(place: Omit<Place, 'bin'>, name: string | undefined): Promise<void> {
  if (!name?.trim()) throw new Stop('say whose: npm run keeper -- NAME');
  const password = await askPassword();
  if (password.length < PASSWORD_LEAST || password.length > 200)
    throw new Stop(`Password: ${PASSWORD_LEAST} to 200 characters; nothing saved`);
  const done = await giveKeeper({ now: place.now }, newId(), name.trim(), password);
  say(
    done === 'made'
      ? `${name} is a keeper now and can sign in.`
      : `${name} is a keeper and has a new password; earlier sessions ended.`,
  );
}

const rowsOf = (counts: Record<string, number>) => Object.values(counts).reduce((a, b) => a + b, 0);

async function backup(p: Place): Promise<void> {
  const { name, note } = await makeBackup(p, 'command');
  say(`${join(p.dir, name)}: ${rowsOf(note.counts)} rows, ${(note.bytes / 1e6).toFixed(1)} MB`);
  const { checked } = await tryNamed(p, name, note);
  if (!checked.ok) throw new Stop(checked.words);
  say(`Tried: ${checked.words}.`);
}

async function restore(p: Place, given: string | undefined): Promise<void> {
  if (given === undefined) {
    const all = await listPlace(p.dir);
    if (all.length === 0)
      throw new Stop(`0 backups in ${p.dir}; name a file: npm run restore -- FILE`);
    for (const b of all)
      say(
        `${join(p.dir, b.name)}  ${b.note ? `${b.note.why}, ${rowsOf(b.note.counts)} rows` : 'without its note'}`,
      );
    throw new Stop(
      'name one of them: npm run restore -- FILE. It takes the place of everything there is now',
    );
  }
  const file = resolve(process.env['INIT_CWD'] ?? process.cwd(), given);
  await stat(file).catch(() => {
    throw new Stop(`${file} is not there; nothing changed`);
  });
  const noted = (await listPlace(dirname(file))).find(
    (b) => backupName.safeParse(b.name).success && b.name === basename(file),
  );
  const prepare = () => prepareDatabase().then(() => undefined);
  const done = await restoreFile(p, file, noted?.note ?? null, { signIn: false, prepare });
  say(
    `Restored ${rowsOf(done.counts)} rows. What was there before is ${join(p.dir, done.safety)}.`,
  );
}

async function main(): Promise<void> {
  const [command, argument] = process.argv.slice(2);
  const url = process.env['DATABASE_URL'] ?? '';
  const db = connect(url);
  defineModels(db);
  const place = {
    url,
    restoreUrl: process.env['RUDDY_RESTORE_URL'] || url,
    dir: process.env['RUDDY_BACKUP_DIR'] ?? 'backups',
    now: () => new Date(),
  };
  const withPrograms = (): Place => {
    const bin = findPrograms(process.env['RUDDY_PG_BIN'] || null);
    if (bin === null)
      throw new Stop(
        "PostgreSQL's pg_dump, pg_restore and psql are not on this machine (Debian: postgresql-client)",
      );
    return { ...place, bin };
  };
  try {
    // The way back from a newer version is a restore: it must not fail at what that version left behind.
    await prepareDatabase().catch((e: unknown) => {
      if (command !== 'restore' || !(e instanceof NewerDatabase)) throw e;
    });
    if (command === 'keeper') await keeper(place, argument);
    else if (command === 'backup') await backup(withPrograms());
    else if (command === 'restore') await restore(withPrograms(), argument);
    else throw new Stop('one of keeper, backup, restore');
  } catch (error) {
    const words =
      error instanceof HttpProblem
        ? (error.more.detail ?? error.title)
        : error instanceof Error
          ? error.message
          : String(error);
    process.stderr.write(`ruddy-bridge: ${words}\n`);
    process.exitCode = 1;
  } finally {
    await db.close();
  }
}

void main();
