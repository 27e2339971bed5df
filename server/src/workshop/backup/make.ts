import { inSnapshot } from '../../platform/db/transaction';
import { database } from '../../platform/db/database';
import { rm, stat, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { QueryTypes, type Sequelize } from 'sequelize';
import type { BackupNote } from '@ruddy/core/workshop/contract';
import { hashFile, nameFor, openPlace, putInPlace, writeNote } from './store';
import { runProgram } from './programs';

export const VERSION = '0.1.0';

/** Where a database is, where its backups go, and the programs that make them. */
export interface Place {
  url: string;
  dir: string;
  bin: string;
  now: () => Date;
}

/** Who is signed in and who tried is of the moment: an old backup must not let an old session in again. */
const MOMENT = ['sessions', 'sign_in_tries'];

/** Rows of every table that a backup holds. */
export async function countAll(db: Sequelize): Promise<Record<string, number>> {
  const tables = await db.query<{ name: string }>(
    `SELECT tablename AS name FROM pg_tables WHERE schemaname = 'public' AND NOT tablename = ANY($1::text[]) ORDER BY 1`,
    { type: QueryTypes.SELECT, bind: [MOMENT] },
  );
  if (tables.length === 0) return {};
  const rows = await db.query<{ name: string; n: number }>(
    tables
      .map(({ name }) => `SELECT '${name}' AS name, count(*)::int AS n FROM public."${name}"`)
      .join(' UNION ALL '),
    { type: QueryTypes.SELECT },
  );
  return Object.fromEntries(rows.map((r) => [r.name, r.n]));
}

async function schemaOf(db: Sequelize): Promise<string> {
  const [row] = await db.query<{ name: string }>(
    'SELECT max(name) AS name FROM schema_migrations',
    {
      type: QueryTypes.SELECT,
    },
  );
  return row?.name ?? '';
}

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
    // Made first, so that nobody else may read it even while it grows.
    await writeFile(part, '', { mode: 0o600 });
    const { counts, schema } = await inSnapshot(async () => {
      const [row] = await database().query<{ id: string }>('SELECT pg_export_snapshot() AS id', {
        type: QueryTypes.SELECT,
      });
      const seen = { counts: await countAll(database()), schema: await schemaOf(database()) };
      const leave = MOMENT.map((m) => `--exclude-table-data=public.${m}`);
      await runProgram(
        p.bin,
        'pg_dump',
        [
          '-Fc',
          '--no-owner',
          '--no-privileges',
          ...leave,
          `--snapshot=${row?.id ?? ''}`,
          '-f',
          part,
        ],
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
