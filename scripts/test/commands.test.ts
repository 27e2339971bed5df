import { spawnSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openCluster, type Cluster } from '../lib/cluster.mjs';
import { COMMANDS_FILE, DEMO_FILE, ROOT, TEST_DATA_DIR } from '../lib/paths.mjs';
import { startServer, stopServer } from '../lib/server.mjs';

let cluster: Cluster;
let dir: string;
const database = `commands_${randomUUID().replaceAll('-', '')}`;

beforeAll(async () => {
  cluster = await openCluster(TEST_DATA_DIR, { fsync: false });
  cluster.createDatabase(database);
  dir = mkdtempSync(join(ROOT, '.data-commands-'));
});
afterAll(() => {
  cluster.psql('postgres', `DROP DATABASE ${database} WITH (FORCE)`);
  cluster.close();
  rmSync(dir, { recursive: true, force: true });
});

const env = () => ({
  ...process.env,
  ...cluster.programs.env,
  DATABASE_URL: cluster.url(database),
  RUDDY_RESTORE_URL: cluster.restoreUrl(database),
  RUDDY_PG_BIN: cluster.programs.bin,
  RUDDY_BACKUP_DIR: dir,
  RUDDY_DEMO_FILE: DEMO_FILE,
  RUDDY_LOG: 'silent',
  PORT: '0',
});
const command = (args: string[], input = '') =>
  spawnSync(process.execPath, [COMMANDS_FILE, ...args], { env: env(), input, encoding: 'utf8' });
const serve = (more: Record<string, string | undefined>) =>
  startServer({ ...env(), ...more } as Record<string, string>, {
    stdio: ['ignore', 'ignore', 'pipe', 'ipc'],
  });
const setups = () => cluster.psql(database, 'SELECT count(*) FROM setups').out.trim();

describe('a server that others could reach', () => {
  it.each([{ HOST: '0.0.0.0' }, { RUDDY_PUBLIC_URL: 'https://bridge.example' }])(
    'does not start while no keeper has a password: %j',
    async (more) => {
      const s = await serve(more);
      expect([s.port, s.code]).toEqual([undefined, 1]);
    },
  );

  it('starts once a keeper has a password, not a weak one', async () => {
    expect(command(['keeper', 'Keeper K'], 'short\n').stderr).toContain(
      '12 to 200 characters; nothing saved',
    );
    expect(command(['keeper', 'Long keeper name'], 'long keeper name\n').stderr).toContain(
      'must not hold the name',
    );
    expect(command(['keeper', 'this machine'], 'a heron in the reeds\n').status).toBe(1);
    expect((await serve({ HOST: '0.0.0.0' })).code).toBe(1);
    const made = command(['keeper', 'Keeper K'], 'a heron in the reeds\n');
    expect([made.status, made.stdout]).toEqual([0, 'Keeper K is a keeper now and can sign in.\n']);
    const s = await serve({ HOST: '0.0.0.0' });
    expect(s.port).toBeGreaterThan(0);
    expect((await fetch(`http://127.0.0.1:${s.port}/api/setups`)).status).toBe(401);
    const body = JSON.stringify({ name: 'Keeper K', password: 'a heron in the reeds' });
    const headers = { 'content-type': 'application/json' };
    expect(
      (await fetch(`http://127.0.0.1:${s.port}/api/sign-in`, { method: 'POST', headers, body }))
        .status,
    ).toBe(200);
    await stopServer(s.child);
  });
});

describe('backup and restore by command', () => {
  it('restore what was there, and refuse foreign files', () => {
    const before = setups();
    expect(Number(before)).toBeGreaterThan(10);
    const made = command(['backup']);
    expect(made.stdout).toMatch(/\d+ rows, \d+\.\d MB\nTried: \d+ rows came back\.\n/);
    const [file] = readdirSync(dir).filter((f) => f.endsWith('.dump'));
    cluster.psql(database, 'DELETE FROM setups WHERE id NOT IN (SELECT setup_id FROM events)');
    cluster.psql(database, `UPDATE setups SET name = name || ' changed'`);
    expect(command(['restore']).stderr).toContain('name one of them');
    expect(command(['restore', DEMO_FILE]).stderr).toContain('Nothing changed.');
    expect(
      cluster.psql(database, `SELECT count(*) FROM setups WHERE name LIKE '% changed'`).out.trim(),
    ).not.toBe('0');
    const restored = command(['restore', join(dir, file ?? '')]);
    expect(restored.stdout).toMatch(/Restored \d+ rows\. What was there before is .*\.dump\.\n/);
    expect([
      setups(),
      cluster.psql(database, `SELECT count(*) FROM setups WHERE name LIKE '% changed'`).out.trim(),
    ]).toEqual([before, '0']);
  });
});
