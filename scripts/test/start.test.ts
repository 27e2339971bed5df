import { spawnSync } from 'node:child_process';
import { createServer, type AddressInfo } from 'node:net';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { ROOT } from '../lib/paths.mjs';
import { patient } from '../lib/patience.mjs';

/** Run the start command and give its exit code and its lines. */
function start(env: Record<string, string>) {
  const r = spawnSync(process.execPath, [join(ROOT, 'scripts/start.mjs')], {
    cwd: ROOT,
    env: { ...process.env, ...env },
    encoding: 'utf8',
    timeout: patient(30_000),
  });
  return { code: r.status, lines: r.stderr.trim().split('\n') };
}

describe('npm start says in one clear line what is in its way', () => {
  it('a port that is taken', async () => {
    const s = createServer();
    const port = await new Promise<number>((resolve) =>
      s.listen(0, '127.0.0.1', () => resolve((s.address() as AddressInfo).port)),
    );
    const r = start({ PORT: String(port) });
    s.close();
    expect(r).toEqual({
      code: 1,
      lines: [
        `ruddy-bridge: port ${port} is taken; set PORT to another one, like PORT=4311 npm start`,
      ],
    });
  });

  it('a port that is none', () => {
    expect(start({ PORT: 'seven' })).toEqual({
      code: 1,
      lines: ['ruddy-bridge: PORT=seven is not a port'],
    });
  });

  it('a Node that is too old', () => {
    const code = `Object.defineProperty(process.versions, 'node', { value: '18.19.0' }); import('${join(ROOT, 'scripts/lib/say.mjs')}').then((m) => m.requireNode());`;
    const r = spawnSync(process.execPath, ['-e', code], { encoding: 'utf8' });
    expect(r.status).toBe(1);
    expect(r.stderr).toBe('ruddy-bridge: this needs Node 20.19 or newer; here is 18.19.0\n');
  });
});
