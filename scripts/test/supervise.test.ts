import { fork } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { stopServer } from '../lib/server.mjs';
import { type Begun, pauseAfter, supervise } from '../lib/supervise.mjs';

let dir: string;
beforeAll(() => {
  dir = mkdtempSync(join(tmpdir(), 'ruddy-supervise-'));
  writeFileSync(
    join(dir, 'well.mjs'),
    `process.send({ ready: true }); process.on('SIGTERM', () => process.exit(0)); setInterval(() => {}, 1000);`,
  );
  writeFileSync(join(dir, 'refuses.mjs'), 'process.exit(3);');
});
afterAll(() => rmSync(dir, { recursive: true, force: true }));

const begun: Begun[] = [];
const begin = (program: string) => () =>
  new Promise<Begun>((resolve) => {
    const child = fork(join(dir, program), { stdio: ['ignore', 'ignore', 'ignore', 'ipc'] });
    const done = (b: Begun) => {
      begun.push(b);
      resolve(b);
    };
    child.once('message', () => done({ child }));
    child.once('exit', (code) => done({ child, code: code ?? 1 }));
  });
const latest = () => begun.at(-1)!.child;

describe('a server that dies', () => {
  it('starts again after pauses that grow', async () => {
    const pauses: number[] = [];
    const told: string[] = [];
    const s = await supervise(begin('well.mjs'), {
      stopChild: stopServer,
      pause: (deaths) => (pauses.push(pauseAfter(deaths)), 10),
      tell: (line) => told.push(line),
    });
    for (let k = 0; k < 3; k++) {
      const before = latest();
      before.kill('SIGKILL');
      await vi.waitFor(() => expect(latest()).not.toBe(before), { timeout: 20_000 });
    }
    expect(pauses).toEqual([1000, 2000, 4000]);
    expect(told[0]).toMatch(/^The server ended \(SIGKILL\)/);
    const last = latest();
    await s.stop();
    expect(last.exitCode).toBe(0);
    // Ended on purpose, it stays ended.
    await new Promise((resolve) => setTimeout(resolve, 200));
    expect(latest()).toBe(last);
  });

  it('waits a minute at most', () => {
    expect([1, 2, 7, 50].map(pauseAfter)).toEqual([1000, 2000, 60_000, 60_000]);
  });

  it('is not tried again when it refuses the first start', async () => {
    const n = begun.length;
    const s = await supervise(begin('refuses.mjs'), { stopChild: stopServer, pause: () => 1 });
    expect(s.first.code).toBe(3);
    await new Promise((resolve) => setTimeout(resolve, 200));
    expect(begun).toHaveLength(n + 1);
  });
});
