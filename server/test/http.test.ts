import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ROUTES } from '../src/app';
import { readConfig } from '../src/config';
import { start, type Harness } from './harness';

let h: Harness;
beforeAll(async () => {
  h = await start();
});
afterAll(() => h.close());

describe('the border', () => {
  it('answers its health with the database', async () => {
    expect((await h.api.get('/api/health')).body).toMatchObject({ status: 'ok', database: 'ok' });
  });

  it("answers to its own name, not to other sites' pages", async () => {
    expect((await h.api.get('/api/health').set('Host', 'evil.example')).status).toBe(421);
    expect((await h.api.delete('/api/demo').set('Origin', 'http://evil.example')).status).toBe(403);
    expect(
      (
        await h.api
          .get('/api/health')
          .set('Host', 'localhost:4310')
          .set('Origin', 'http://localhost:4310')
      ).status,
    ).toBe(200);
  });

  it('accepts JSON only, and says what is wrong with it', async () => {
    expect((await h.api.post('/api/evaluate').type('text/plain').send('{}')).status).toBe(415);
    const r = await h.api.post('/api/evaluate').type('application/json').send('{"chain": ');
    expect(r.status).toBe(400);
    expect(r.body.title).toBe('Body is not JSON');
  });

  it('sends problem details with the request id for unknowns', async () => {
    const r = await h.api.get('/api/nowhere');
    expect(r.status).toBe(404);
    expect(r.type).toBe('application/problem+json');
    expect(r.body.requestId).toBe(r.headers['x-request-id']);
  });

  it('refuses unknown query words and lists that are too long', async () => {
    expect((await h.api.get('/api/parts?colour=red')).status).toBe(400);
    expect((await h.api.get('/api/parts?limit=501')).status).toBe(400);
  });

  it('carries a content security policy without inline script', async () => {
    const policy = String((await h.api.get('/api/health')).headers['content-security-policy']);
    expect(policy).toContain("script-src 'self'");
    expect(policy).not.toMatch(/script-src[^;]*unsafe/);
  });

  it('describes every endpoint in OpenAPI 3.1 and publishes formats', async () => {
    const doc = (await h.api.get('/api/openapi.json')).body;
    expect(doc.openapi).toBe('3.1.0');
    for (const r of ROUTES) {
      const path = r.path.replace(/:(\w+)/g, '{$1}');
      expect(doc.paths[path]?.[r.method.toLowerCase()]?.['x-role'], r.path).toBe(r.contract.role);
    }
    const schema = (await h.api.get('/api/schemas/bundle')).body;
    expect(Object.keys(schema.properties)).toEqual(
      expect.arrayContaining(['format', 'version', 'parts', 'setups', 'outcomes']),
    );
    expect((await h.api.get('/api/schemas/host')).body.properties.sockets.maxItems).toBe(32);
  });
});

describe('the configuration', () => {
  const env = { DATABASE_URL: 'postgres://x' };

  it('asks for a sign-in once other machines could come in', () => {
    const of = (more: object) => {
      const r = readConfig({ ...env, ...more });
      return r.ok ? r.config.signIn : r.problem;
    };
    expect(of({})).toBe(false);
    expect(of({ HOST: 'localhost' })).toBe(false);
    expect(of({ HOST: '0.0.0.0' })).toBe(true);
    expect(of({ HOST: '::' })).toBe(true);
    expect(of({ RUDDY_PUBLIC_URL: 'https://bridge.example' })).toBe(true);
    expect(of({ RUDDY_PUBLIC_URL: 'bridge' })).toContain('RUDDY_PUBLIC_URL');
    expect(of({ RUDDY_SIGN_IN: 'always' })).toBe(true);
    expect(of({ RUDDY_SIGN_IN: 'never' })).toContain('RUDDY_SIGN_IN');
  });

  it('says in one line what is wrong', () => {
    expect(readConfig({})).toMatchObject({
      ok: false,
      problem: expect.stringContaining('DATABASE_URL'),
    });
    expect(readConfig({ ...env, RUDDY_NOW: 'yesterday' })).toMatchObject({
      ok: false,
      problem: expect.stringContaining('RUDDY_NOW'),
    });
    expect(readConfig({ ...env, PORT: '99999' }).ok).toBe(false);
  });

  it('takes a fixed clock', () => {
    const r = readConfig({ ...env, RUDDY_NOW: '2026-11-20T18:00:00Z' });
    expect(r.ok && r.config.now().toISOString()).toBe('2026-11-20T18:00:00.000Z');
  });
});
