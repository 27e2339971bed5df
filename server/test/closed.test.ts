import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { parse } from 'csv-parse/sync';
import { pino } from 'pino';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { BODY_LIMIT, createApp, ROUTES } from '../src/app';
import { addPart, start, type Harness } from './harness';

let h: Harness;
let web: string;
beforeAll(async () => {
  h = await start();
  web = mkdtempSync(join(tmpdir(), 'ruddy-web-'));
  writeFileSync(join(web, 'index.html'), '<!doctype html><title>pages</title>');
});
afterAll(async () => {
  rmSync(web, { recursive: true, force: true });
  await h.close();
});

const appWith = (names: { beyond: boolean; publicUrl: URL | null }) =>
  request(
    createApp(
      { now: () => h.clock.now },
      { webDir: web, logger: pino({ level: 'silent' }), names },
    ),
  );
const local = () => appWith({ beyond: false, publicUrl: null });

describe('oversized bodies', () => {
  const bytes = (limit: string) =>
    Number(/\d+/.exec(limit)?.[0]) *
    ({ kb: 1024, mb: 1 << 20 }[limit.replace(/\d+/, '') as 'kb' | 'mb'] ?? 1);

  it('every endpoint with a body has a sensible limit', () => {
    for (const r of ROUTES.filter((x) => x.contract.body)) {
      const limit = r.contract.bodyLimit ?? BODY_LIMIT;
      const most = ['/api/bundle', '/api/bundle-loads', '/api/log/imports'].includes(r.path)
        ? 128
        : r.path.includes('imports')
          ? 64
          : 17;
      expect([r.path, bytes(limit) > 0, bytes(limit) <= most * (1 << 20)]).toEqual([
        r.path,
        true,
        true,
      ]);
    }
  });

  it('beyond it are refused, packed ones by what they unpack to', async () => {
    const long = JSON.stringify({
      id: randomUUID(),
      kind: 'cable',
      spec: { maker: 'x'.repeat(300_000) },
    });
    expect((await h.api.post('/api/parts').type('application/json').send(long)).status).toBe(413);
    const packed = gzipSync(Buffer.from(`{"chain": "${'0'.repeat(50_000_000)}"}`));
    expect(packed.length).toBeLessThan(60_000);
    const r = await h.api
      .post('/api/evaluate')
      .set('Content-Type', 'application/json')
      .set('Content-Encoding', 'gzip')
      .serialize((x: unknown) => x as string)
      .send(packed as unknown as string);
    expect(r.status).toBe(413);
  });
});

describe('paths', () => {
  it.each([
    '/../../../../etc/passwd',
    '/..%2f..%2f..%2fetc%2fpasswd',
    '/%2e%2e/%2e%2e/etc/passwd',
    '/assets/..%5c..%5cetc%5cpasswd',
    '/index.html%00.js',
    '/.git/config',
    '/..;/etc/passwd',
  ])('%s gives no file but its own', async (path) => {
    const r = await local().get(path);
    expect(r.text ?? '').not.toMatch(/root:|\[core\]/);
    expect([200, 400, 403, 404]).toContain(r.status);
    if (r.status === 200) expect(r.text).toContain('<title>pages</title>');
  });
});

describe('formulas', () => {
  it.each(['=1+1', '+1', '-1', '@x', '\t=1', '\r=1'])(
    'a name that begins %j is no formula and round-trips',
    async (begin) => {
      const maker = `${begin.trim()}x ${randomUUID().slice(0, 8)}`;
      await addPart(h, 'cable', { maker });
      const csv = (await h.api.get('/api/export/cable').buffer()).text;
      const rows = parse(csv, { relax_column_count: true }) as string[][];
      for (const row of rows)
        for (const cell of row) expect([cell, /^[=+\-@\t\r]/.test(cell)]).toEqual([cell, false]);
      const fates = async () => {
        const job = (
          await h.api.post('/api/imports?kind=cable&mode=try').type('text/csv').send(csv)
        ).body as { id: string };
        for (;;) {
          const now = (await h.api.get(`/api/jobs/${job.id}`)).body as {
            state: string;
            result: { fates: Record<string, number> };
          };
          if (now.state !== 'running') return now.result.fates;
        }
      };
      expect(await fates()).toMatchObject({ new: 0, changed: 0, wrong: 0 });
    },
  );
});

describe('other sites', () => {
  const cross = (site: string, mode = 'no-cors') => ({
    'Sec-Fetch-Site': site,
    'Sec-Fetch-Mode': mode,
  });

  it("another site's form, script or picture is refused, links not", async () => {
    for (const site of ['cross-site', 'same-site']) {
      expect((await local().post('/api/setups').set(cross(site, 'navigate')).send({})).status).toBe(
        403,
      );
      expect((await local().get('/api/bundle').set(cross(site))).status).toBe(403);
      expect((await local().get('/setups').set(cross(site, 'navigate'))).status).toBe(200);
    }
    expect((await local().get('/api/health').set(cross('same-origin', 'cors'))).status).toBe(200);
    expect((await local().post('/api/setups').set('Origin', 'null').send({})).status).toBe(403);
  });

  it('what a form can send without asking is no body here', async () => {
    for (const type of ['text/plain', 'application/x-www-form-urlencoded', 'multipart/form-data']) {
      const r = await h.api.delete('/api/demo').set('Origin', 'http://evil.example').type(type);
      expect(r.status).toBe(403);
      expect((await h.api.post('/api/setups').type(type).send('{"name":"x"}')).status).toBe(415);
    }
  });

  it('another page can neither frame nor read it', async () => {
    const { headers } = await local().get('/setups');
    expect(headers['content-security-policy']).toMatch(/frame-ancestors 'none'/);
    expect(headers['cross-origin-resource-policy']).toBe('same-origin');
    expect(headers['x-content-type-options']).toBe('nosniff');
    expect(headers['access-control-allow-origin']).toBeUndefined();
    expect(headers['permissions-policy']).toContain('camera=()');
    expect(headers['strict-transport-security']).toBeUndefined();
    const encrypted = appWith({ beyond: false, publicUrl: new URL('https://bridge.example') });
    const behind = await encrypted.get('/setups').set('Host', 'bridge.example');
    expect(behind.headers['strict-transport-security']).toBe('max-age=15724800');
  });

  it('a forwarding header that holds no address is refused, not stored', async () => {
    const names = { beyond: false, publicUrl: new URL('https://bridge.example') };
    const app = request(
      createApp(
        { now: () => h.clock.now },
        { webDir: web, logger: pino({ level: 'silent' }), names, proxies: 1 },
      ),
    );
    const ask = (from: string) =>
      app.get('/api/live').set('Host', 'bridge.example').set('X-Forwarded-For', from);
    expect((await ask('203.0.113.7')).status).toBe(200);
    expect((await ask('2001:db8::7')).status).toBe(200);
    expect((await ask('x'.repeat(300))).status).toBe(400);
  });
});

describe('rebinding', () => {
  const status = async (app: ReturnType<typeof appWith>, host: string) =>
    (await app.get('/api/health').set('Host', host)).status;

  it('answers own names only; beyond this machine, numbers and its name', async () => {
    const near = local();
    for (const host of ['localhost:4310', '127.0.0.1', '[::1]:4310'])
      expect([host, await status(near, host)]).toEqual([host, 200]);
    for (const host of [
      'evil.example',
      '192.168.1.20:4310',
      '127.0.0.1.evil.example',
      'localhost.evil.example',
      '',
    ])
      expect([host, await status(near, host)]).toEqual([host, 421]);
    const far = appWith({ beyond: true, publicUrl: new URL('https://bridge.example') });
    for (const host of ['192.168.1.20:4310', '[fe80::1]:4310', 'bridge.example', '127.0.0.1'])
      expect([host, await status(far, host)]).toEqual([host, 200]);
    for (const host of ['evil.example', 'bridge.example.evil.example', 'ridge.example'])
      expect([host, await status(far, host)]).toEqual([host, 421]);
  });

  it('a page of the given name may ask, look-alikes may not', async () => {
    const far = appWith({ beyond: false, publicUrl: new URL('https://bridge.example') });
    const from = (origin: string) =>
      far.get('/api/health').set('Host', 'bridge.example').set('Origin', origin);
    expect((await from('https://bridge.example')).status).toBe(200);
    for (const o of [
      'https://bridge.example:444',
      'https://evil.example',
      'https://bridge.example.evil.example',
      'http://bridge.example',
    ])
      expect([o, (await from(o)).status]).toEqual([o, 403]);
  });
});
