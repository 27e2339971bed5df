import { type ChildProcess, spawn, spawnSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import pg from 'pg';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Cluster, openCluster } from '../lib/cluster.mjs';
import { ROOT, TEST_DATA_DIR } from '../lib/paths.mjs';

/** The life of a release on somebody's machine: unpacked, started on the data of the one before, stopped, gone back from. */
const SCHEMAS = join(ROOT, 'server/test/schemas');
const PREVIOUS = readdirSync(SCHEMAS).sort().at(-1)!;
const COUNTED = ['parts', 'setups', 'events', 'log_entries', 'runs', 'members'];
const database = `rehearsal_${randomUUID().replaceAll('-', '')}`;
let cluster: Cluster;
let dir: string;
let release: string;

async function counts(): Promise<Record<string, number>> {
  const client = new pg.Client(cluster.url(database));
  await client.connect();
  const found: Record<string, number> = {};
  for (const table of COUNTED)
    found[table] = Number((await client.query(`SELECT count(*) FROM ${table}`)).rows[0].count);
  await client.end();
  return found;
}
const newestStep = () =>
  cluster.psql(database, 'SELECT max(name) FROM schema_migrations').out.trim();
const backups = () => readdirSync(join(dir, 'data/backups')).filter((f) => f.endsWith('.dump'));

const environment = () => ({
  ...process.env,
  ...cluster.programs.env,
  DATABASE_URL: cluster.url(database),
  RUDDY_RESTORE_URL: cluster.restoreUrl(database),
  RUDDY_PG_BIN: cluster.programs.bin,
  RUDDY_DATA_DIR: join(dir, 'data'),
  RUDDY_EMPTY: '1',
  PORT: '0',
});

/** Runs the start command of the release until it says where it is, or ends. */
function started(): Promise<{ child: ChildProcess; url: string; said: string }> {
  const child = spawn(process.execPath, ['scripts/start.mjs'], {
    cwd: release,
    env: environment(),
  });
  return new Promise((resolve) => {
    let said = '';
    const hear = (d: Buffer) => {
      said += d.toString();
      const url = /is at (http:\S+)/.exec(said)?.[1];
      if (url) resolve({ child, url, said });
    };
    child.stdout.on('data', hear);
    child.stderr.on('data', hear);
    child.once('exit', () => resolve({ child, url: '', said }));
  });
}
function stopped(child: ChildProcess): Promise<number | null> {
  return new Promise((resolve) => {
    child.once('exit', (code) => resolve(code));
    child.kill('SIGTERM');
  });
}

beforeAll(async () => {
  cluster = await openCluster(TEST_DATA_DIR, { fsync: false });
  cluster.createDatabase(database);
  dir = mkdtempSync(join(ROOT, '.data-rehearsal-'));
  const client = new pg.Client(cluster.url(database));
  await client.connect();
  await client.query(readFileSync(join(SCHEMAS, PREVIOUS), 'utf8'));
  await client.end();
});
afterAll(() => {
  cluster.psql('postgres', `DROP DATABASE IF EXISTS ${database} WITH (FORCE)`);
  cluster.close();
  rmSync(dir, { recursive: true, force: true });
});

describe('a release', () => {
  let before: Record<string, number>;
  let step: string;

  it('holds built files and production packages only', () => {
    const made = spawnSync(process.execPath, [join(ROOT, 'scripts/release.mjs'), dir], {
      encoding: 'utf8',
    });
    expect([made.status, made.stderr]).toEqual([0, expect.any(String)]);
    const archive = readdirSync(dir).find((f) => f.endsWith('.tar.gz'))!;
    rmSync(join(dir, archive.replace('.tar.gz', '')), { recursive: true });
    expect(spawnSync('tar', ['-xzf', join(dir, archive), '-C', dir]).status).toBe(0);
    release = join(dir, archive.replace('.tar.gz', ''));
    for (const left of [
      'server/src',
      'web/src',
      'core',
      'e2e',
      'node_modules/typescript',
      'node_modules/vitest',
      'node_modules/@angular',
    ])
      expect([left, existsSync(join(release, left))]).toEqual([left, false]);
  });

  it('starts without building, on the data of the one before', async () => {
    before = await counts();
    step = newestStep();
    expect(before['setups']).toBeGreaterThan(5);
    const { child, url, said } = await started();
    expect([said, url]).toEqual([
      expect.not.stringMatching(/Building|Installing/),
      expect.stringMatching(/^http/),
    ]);
    const ready = (await (await fetch(`${url}/api/ready`)).json()) as { status: string };
    expect(ready.status).toBe('ok');
    const page = await (await fetch(url)).text();
    expect(page).toContain('<rb-root');
    const { items } = (await (await fetch(`${url}/api/setups?retired=true&limit=200`)).json()) as {
      items: unknown[];
    };
    expect(items).toHaveLength(before['setups']!);
    expect(await counts()).toEqual(before);
    expect(newestStep() > step).toBe(true);
    // What was there before the upgrade was backed up first.
    expect(backups()).toHaveLength(1);
    // A server that is killed is there again, at the same address.
    const server = spawnSync('pgrep', ['-P', String(child.pid), '-f', 'main.mjs'], {
      encoding: 'utf8',
    });
    process.kill(Number(server.stdout.trim().split('\n')[0]), 'SIGKILL');
    await expect
      .poll(
        () =>
          fetch(`${url}/api/live`).then(
            (r) => r.ok,
            () => false,
          ),
        { timeout: 60_000, interval: 200 },
      )
      .toBe(true);
    expect(await stopped(child)).toBe(0);
  });

  it('does not start on what a newer one left, and changes nothing', async () => {
    cluster.psql(database, `INSERT INTO schema_migrations (name) VALUES ('9999-of-a-newer-one')`);
    const { child, url, said } = await started();
    expect([url, said]).toEqual([
      '',
      expect.stringContaining('it was last used by a newer Ruddy Bridge'),
    ]);
    expect(child.exitCode).toBe(1);
    expect(await counts()).toEqual(before);
  });

  it('is gone back from by restoring what was kept before', async () => {
    const [kept] = backups();
    // The file is the earlier schema itself: the program of before reads it as its own.
    const list = spawnSync(
      join(cluster.programs.bin, 'pg_restore'),
      ['-f', '-', '-t', 'schema_migrations', '-a', join(dir, 'data/backups', kept!)],
      { encoding: 'utf8' },
    );
    expect(list.stdout).toContain(step);
    expect(list.stdout).not.toContain('0016');
    const restored = spawnSync(
      process.execPath,
      ['scripts/command.mjs', 'restore', join(dir, 'data/backups', kept!)],
      { cwd: release, env: environment(), encoding: 'utf8' },
    );
    expect([restored.status, restored.stdout]).toEqual([0, expect.stringContaining('Restored')]);
    expect(await counts()).toEqual(before);
    const { child, url } = await started();
    expect(url).toMatch(/^http/);
    expect(await stopped(child)).toBe(0);
  });
});
