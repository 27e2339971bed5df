import { spawn } from 'node:child_process';
import { existsSync, readdirSync } from 'node:fs';
import { delimiter, join } from 'node:path';

const DEBIAN = '/usr/lib/postgresql';
const NEEDED = ['pg_dump', 'pg_restore', 'psql'];

/** The folder of PostgreSQL's own programs: as told, Debian's newest, or on PATH; null when there is none. */
export function findPrograms(told: string | null): string | null {
  const debian = existsSync(DEBIAN)
    ? readdirSync(DEBIAN)
        .sort((a, b) => Number(b) - Number(a))
        .map((v) => join(DEBIAN, v, 'bin'))
    : [];
  const all = [...(told ? [told] : []), ...debian, ...(process.env['PATH'] ?? '').split(delimiter)];
  return all.find((dir) => NEEDED.every((p) => existsSync(join(dir, p)))) ?? null;
}

/** How these programs are told the database: in their environment, where other users of the machine cannot read a password. */
function environment(url: string, database?: string): NodeJS.ProcessEnv {
  const u = new URL(url);
  const ssl = u.searchParams.get('sslmode');
  return {
    ...process.env,
    PGHOST: u.searchParams.get('host') ?? (decodeURIComponent(u.hostname) || '127.0.0.1'),
    PGPORT: u.port || '5432',
    PGUSER: decodeURIComponent(u.username),
    PGPASSWORD: decodeURIComponent(u.password),
    PGDATABASE: database ?? decodeURIComponent(u.pathname.slice(1)),
    ...(ssl && { PGSSLMODE: ssl }),
    PGAPPNAME: 'ruddy-bridge-backup',
    LC_ALL: 'C.UTF-8',
  };
}

/** A program of PostgreSQL that did not do what it was asked for; the message is its own last line. */
export class ProgramProblem extends Error {}

/** Run one of PostgreSQL's programs on a database and wait. Throws `ProgramProblem` with its last words; an abort ends it. */
export function runProgram(
  bin: string,
  program: 'pg_dump' | 'pg_restore' | 'psql',
  args: readonly string[],
  on: { url: string; database?: string; signal?: AbortSignal },
): Promise<void> {
  return new Promise((resolve, reject) => {
    const child = spawn(join(bin, program), args, {
      env: environment(on.url, on.database),
      stdio: ['ignore', 'ignore', 'pipe'],
      ...(on.signal && { signal: on.signal }),
    });
    let said = '';
    child.stderr.on('data', (d: Buffer) => (said = (said + d.toString()).slice(-4000)));
    child.on('error', (e) =>
      reject(on.signal?.aborted ? e : new ProgramProblem(`${program}: ${e.message}`)),
    );
    child.on('close', (code) => {
      if (code === 0) resolve();
      else
        reject(
          new ProgramProblem(
            said
              .trim()
              .split('\n')
              .filter((l) => /error|fatal/i.test(l))
              .pop() ?? `${program} ended with ${code}`,
          ),
        );
    });
  });
}
