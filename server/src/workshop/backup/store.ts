import { createHash, randomBytes } from 'node:crypto';
import { createReadStream } from 'node:fs';
import {
  chmod,
  mkdir,
  open,
  readdir,
  readFile,
  rename,
  rm,
  stat,
  writeFile,
} from 'node:fs/promises';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import {
  backupName,
  backupNote,
  type BackupNote,
  type BackupRow,
} from '@ruddy/core/workshop/contract';

/** A unique name that sorts by time. */
export function nameFor(at: Date): string {
  const digits = at.toISOString().replace(/[-:T]/g, '');
  return `ruddy-${digits.slice(0, 8)}-${digits.slice(8, 14)}-${randomBytes(3).toString('hex')}.dump`;
}

/** The place for backups: readable by this user alone, for they hold everything. */
export async function openPlace(dir: string): Promise<void> {
  await mkdir(dir, { recursive: true, mode: 0o700 });
  await chmod(dir, 0o700);
}

const noteFile = (dir: string, name: string) => join(dir, `${name}.json`);

/** Make what was written last a power cut: file first, then the folder that names it. */
async function settle(path: string): Promise<void> {
  const file = await open(path, 'r');
  try {
    await file.sync();
  } finally {
    await file.close();
  }
}

/** Put a finished file in its place under its name: whole or not at all. */
export async function putInPlace(dir: string, part: string, name: string): Promise<void> {
  await settle(part);
  await rename(part, join(dir, name));
  await settle(dir);
}

export async function writeNote(dir: string, name: string, note: BackupNote): Promise<void> {
  const part = `${noteFile(dir, name)}.part`;
  await writeFile(part, JSON.stringify(note, null, 1), { mode: 0o600 });
  await putInPlace(dir, part, `${name}.json`);
}

async function readNote(dir: string, name: string): Promise<BackupNote | null> {
  try {
    return backupNote.parse(JSON.parse(await readFile(noteFile(dir, name), 'utf8')));
  } catch {
    // A backup whose note is lost is still a backup; it is shown without.
    return null;
  }
}

/** Backups in a place, newest first. A place that is not there yet holds none. */
export async function listPlace(dir: string): Promise<BackupRow[]> {
  const names = await readdir(dir).catch((e: NodeJS.ErrnoException) => {
    if (e.code === 'ENOENT') return [];
    throw e;
  });
  const rows = names
    .filter((n) => backupName.safeParse(n).success)
    .map(async (name) => ({
      name,
      note: await readNote(dir, name),
      bytes: (await stat(join(dir, name))).size,
    }));
  return (await Promise.all(rows)).sort((a, b) => b.name.localeCompare(a.name));
}

/** SHA-256 of a file, in hex. */
export async function hashFile(path: string): Promise<string> {
  const hash = createHash('sha256');
  await pipeline(createReadStream(path), hash);
  return hash.digest('hex');
}

export async function removeBackup(dir: string, name: string): Promise<boolean> {
  const there = await stat(join(dir, name)).then(
    () => true,
    () => false,
  );
  await rm(join(dir, name), { force: true });
  await rm(noteFile(dir, name), { force: true });
  return there;
}

/** Halves that a crash left behind, older than a day. */
export async function sweep(dir: string): Promise<void> {
  const names = await readdir(dir).catch(() => []);
  for (const n of names.filter((x) => /\.(part|sql)$/.test(x))) {
    const info = await stat(join(dir, n)).catch(() => null);
    if (info && Date.now() - info.mtimeMs > 86_400_000) await rm(join(dir, n), { force: true });
  }
}
