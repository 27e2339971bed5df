import { spawn, type ChildProcess } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ROOT } from '../lib/paths.mjs';

const data = mkdtempSync(join(ROOT, '.data-life-'));
let port: number;
const running: ChildProcess[] = [];

interface Run {
  child: ChildProcess;
  lines: string;
  ended: Promise<number | null>;
}

/** The start command as a person gives it, until its line with the address. */
function start(...args: string[]): Promise<Run> {
  const env = { ...process.env, PORT: String(port), RUDDY_DATA_DIR: data, RUDDY_LOG: 'error' };
  const child = spawn(process.execPath, [join(ROOT, 'scripts/start.mjs'), ...args], {
    cwd: ROOT,
    env,
  });
  running.push(child);
  const run: Run = { child, lines: '', ended: new Promise((resolve) => child.on('exit', resolve)) };
  return new Promise((resolve, reject) => {
    const read = (b: Buffer) => {
      run.lines += b.toString();
      if (run.lines.includes('Ruddy Bridge is at')) resolve(run);
    };
    child.stdout.on('data', read);
    child.stderr.on('data', read);
    child.on('exit', () => reject(new Error(run.lines)));
  });
}

const health = async () => (await fetch(`http://127.0.0.1:${port}/api/health`)).status;
const setups = async () =>
  (
    (await (await fetch(`http://127.0.0.1:${port}/api/setups?retired=true`)).json()) as {
      items: { id: string; name: string }[];
    }
  ).items;
/** Where the cluster is: below the data folder, or where the database's user can enter. */
const place = () =>
  (JSON.parse(readFileSync(join(data, 'cluster.json'), 'utf8')) as { place: string }).place;
const postmaster = () => join(place(), 'postmaster.pid');
const pidOf = (file: string) => Number(readFileSync(file, 'utf8').split('\n')[0]);

beforeAll(async () => {
  const s = createServer();
  port = await new Promise<number>((resolve) =>
    s.listen(0, '127.0.0.1', () => resolve((s.address() as AddressInfo).port)),
  );
  await new Promise((resolve) => s.close(resolve));
});

afterAll(async () => {
  for (const c of running) if (c.exitCode === null && c.signalCode === null) c.kill('SIGINT');
  if (existsSync(postmaster())) process.kill(pidOf(postmaster()), 'SIGQUIT');
  for (const folder of [place(), data])
    rmSync(folder, { recursive: true, force: true, maxRetries: 20, retryDelay: 100 });
});

describe('the life of npm start', () => {
  it('starts with the demo data, and Ctrl-C stops server and database cleanly', async () => {
    const run = await start();
    expect(run.lines).toMatch(
      new RegExp(
        `Ruddy Bridge is at http://127.0.0.1:${port} {3}\\(ready after [\\d.]+ s; Ctrl-C stops it\\)`,
      ),
    );
    expect(await health()).toBe(200);
    expect(await setups()).toHaveLength(22);
    run.child.kill('SIGINT');
    expect(await run.ended).toBe(0);
    expect(existsSync(postmaster())).toBe(false);
    await expect(health()).rejects.toThrow();
  });

  it('--empty later changes nothing: the first start decided', async () => {
    const run = await start('--empty');
    expect(await setups()).toHaveLength(22);
    run.child.kill('SIGTERM');
    expect(await run.ended).toBe(0);
  });

  it('a silent kill ends the server, and nothing is lost', async () => {
    const first = await start();
    const id = '01900000-0000-7000-8000-00000000abcd';
    const made = await fetch(`http://127.0.0.1:${port}/api/setups`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ id, name: 'written before the kill' }),
    });
    expect(made.status).toBe(201);
    first.child.kill('SIGKILL');
    await first.ended;
    await expect
      .poll(() =>
        health().then(
          () => 'there',
          () => 'gone',
        ),
      )
      .toBe('gone');
    const second = await start();
    expect(second.lines).toContain('The last run did not end cleanly');
    expect((await setups()).map((s) => s.id)).toContain(id);
    // The database dies as well this time, in the middle of its life.
    process.kill(pidOf(postmaster()), 'SIGKILL');
    second.child.kill('SIGKILL');
    await second.ended;
    await expect
      .poll(() =>
        health().then(
          () => 'there',
          () => 'gone',
        ),
      )
      .toBe('gone');
    const third = await start();
    expect((await setups()).map((s) => s.id)).toContain(id);
    third.child.kill('SIGINT');
    expect(await third.ended).toBe(0);
  });
});
