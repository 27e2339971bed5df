import { inSnapshot } from '../../platform/db/transaction';
import { countAll, exportSnapshot, schemaOf } from '../../platform/db/admin';
import { rm, stat, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { BackupNote } from '@ruddy/core/workshop/contract';
import { hashFile, nameFor, openPlace, putInPlace, writeNote } from './store';
import { runProgram } from './programs';

export const VERSION = '0.1.0';

/** Where a database is, where its backups go, and the programs that make them. */
export interface Place {
  url: string;
  /** The same database for a role that may make others to try backups in, and act as the owner of this one. */
  restoreUrl: string;
  dir: string;
  bin: string;
  now: () => Date;
}

/** Sessions, known browsers and sign-in attempts are not backed up: an old backup must not revive an old session. */
export const MOMENT = ['sessions', 'known_browsers', 'sign_in_tries'];

/**
 * Write everything into one file while others go on working: counts and file see the same moment. It gets its name only when it is
 * whole and on the disk.
 */
export async function makeBackup(
  p: Place,
  why: BackupNote['why'],
  signal?: AbortSignal,
): Promise<{ name: string; note: BackupNote }> {
  await openPlace(p.dir);
  const at = p.now();
  const name = nameFor(at);
  const part = join(p.dir, `${name}.part`);
  try {
    // Created first with mode 0600, so that it is private while it grows.
    await writeFile(part, '', { mode: 0o600 });
    const { counts, schema } = await inSnapshot(async () => {
      const snapshot = await exportSnapshot();
      const seen = { counts: await countAll(MOMENT), schema: await schemaOf() };
      const leave = MOMENT.map((m) => `--exclude-table-data=public.${m}`);
      await runProgram(
        p.bin,
        'pg_dump',
        ['-Fc', '--no-owner', '--no-privileges', ...leave, `--snapshot=${snapshot}`, '-f', part],
        {
          url: p.url,
          ...(signal && { signal }),
        },
      );
      return seen;
    });
    const note: BackupNote = {
      madeAt: at.toISOString(),
      why,
      version: VERSION,
      schema,
      bytes: (await stat(part)).size,
      sha256: await hashFile(part),
      counts,
      checked: null,
    };
    await putInPlace(p.dir, part, name);
    await writeNote(p.dir, name, note);
    return { name, note };
  } catch (error) {
    await rm(part, { force: true });
    throw error;
  }
}
