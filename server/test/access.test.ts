import { randomUUID } from 'node:crypto';
import { pino } from 'pino';
import request from 'supertest';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { RULES } from '../src/platform/access/tries';
import { createApp, ROUTES } from '../src/app';
import { giveKeeper } from '../src/workshop/members';
import { SPECS, start, type Harness } from './harness';

const PASSWORD = 'fen mist over the long dyke';
let h: Harness;
const agents: Record<string, ReturnType<typeof request.agent>> = {};
const ids: Record<string, string> = {};

async function signedIn(name: string): Promise<ReturnType<typeof request.agent>> {
  const agent = request.agent(h.app);
  const r = await agent.post('/api/sign-in').send({ name, password: PASSWORD });
  expect(r.status).toBe(200);
  return agent;
}

beforeAll(async () => {
  h = await start({ access: { secure: false } });
  ids['keeper'] = randomUUID();
  await giveKeeper({ now: () => h.clock.now }, ids['keeper'], 'Keeper K', PASSWORD);
  agents['keeper'] = await signedIn('keeper k');
  for (const role of ['member', 'reader']) {
    ids[role] = randomUUID();
    await agents['keeper']
      .post('/api/members')
      .send({ id: ids[role], name: `Some ${role}`, role, password: PASSWORD })
      .expect(201);
    agents[role] = await signedIn(`Some ${role}`);
  }
});
afterAll(() => h.close());

const signInAs = (name: string, password: string) =>
  h.api.post('/api/sign-in').send({ name, password });

/** What the application answers to, read from its own router, not from the list it was made of. */
function mounted(): string[] {
  interface Layer {
    route?: { path: string; methods: Record<string, boolean> };
    handle?: { stack?: Layer[] };
  }
  const walk = (layers: readonly Layer[]): string[] =>
    layers.flatMap((l) => [
      ...(l.route ? Object.keys(l.route.methods).map((m) => `${m} ${l.route?.path ?? ''}`) : []),
      ...walk(l.handle?.stack ?? []),
    ]);
  return walk((h.app as unknown as { router: { stack: Layer[] } }).router.stack);
}

describe('roles', () => {
  it('every address there is stands in the document with a role', async () => {
    const doc = (await h.api.get('/api/openapi.json')).body as {
      paths: Record<string, Record<string, { 'x-role'?: string }>>;
    };
    const found = mounted();
    expect(found.length).toBeGreaterThan(120);
    for (const line of found) {
      const [method = '', path = ''] = line.split(' ');
      const role = doc.paths[path.replace(/:(\w+)/g, '{$1}')]?.[method]?.['x-role'];
      expect([line, ['anyone', 'reader', 'member', 'keeper'].includes(role ?? '')]).toEqual([
        line,
        true,
      ]);
    }
  });

  it('only these tell anything to somebody who has not signed in', () => {
    expect(
      ROUTES.filter((r) => r.contract.role === 'anyone').map(
        (r) => `${r.method.toLowerCase()} ${r.path}`,
      ),
    ).toEqual([
      'get /api/health',
      'get /api/live',
      'get /api/ready',
      'get /api/metrics',
      'get /api/me',
      'post /api/sign-in',
      'post /api/sign-out',
      'get /api/openapi.json',
    ]);
  });

  const RANK = { anyone: 0, reader: 1, member: 2, keeper: 3 } as const;
  const dead = '00000000-0000-7000-8000-00000000dead';
  // A stream stays open when it is let in; it has its own test.
  const cases = ROUTES.filter((r) => r.path !== '/api/stream').map(
    (r) => [`${r.method} ${r.path}`, r] as const,
  );
  it.each(cases)('%s is refused below its role, before its body is read', async (_name, r) => {
    const { role, body } = r.contract;
    const method = r.method.toLowerCase() as Lowercase<typeof r.method>;
    const path = r.path
      .replace(/:sha256/g, 'a'.repeat(64))
      .replace(/:name/g, 'ruddy-20260101-000000-abcdef.dump')
      .replace(/:\w+/g, dead);
    for (const who of ['anyone', 'reader', 'member'] as const) {
      if (RANK[who] >= RANK[role]) continue;
      const agent = who === 'anyone' ? request(h.app) : agents[who];
      const sent = await agent?.[method](path)
        .set('content-type', 'application/json')
        .send(body ? '{"broken' : undefined);
      expect([who, sent?.status]).toEqual([who, who === 'anyone' ? 401 : 403]);
    }
    // Who has the role gets past the check: whatever is wrong then is something else.
    if (role === 'anyone' || r.path === '/api/demo' || r.path === '/api/bundle') return;
    const letIn = await agents[role]?.[method](path)
      .set('content-type', 'application/json')
      .send(body ? '{"broken' : undefined);
    expect([401, 403]).not.toContain(letIn?.status);
  });

  it('an open stream is refused without a session', async () => {
    expect((await h.api.get('/api/stream?topics=job/x')).status).toBe(401);
  });

  it('what a member does is done in their name', async () => {
    const id = randomUUID();
    await agents['member']
      ?.post('/api/parts')
      .send({ id, kind: 'cable', spec: { ...SPECS.cable, model: 'By a member' } })
      .expect(201);
    const [row] = await h.rows<{ created_by: string }>(
      'SELECT created_by FROM parts WHERE id = $1',
      [id],
    );
    expect(row?.created_by).toBe(ids['member']);
  });
});

describe('signing in', () => {
  it('wrong names and wrong passwords look the same, without a session', async () => {
    const wrong = await h.api
      .post('/api/sign-in')
      .send({ name: 'Some member', password: 'not this one at all' });
    const nobody = await h.api
      .post('/api/sign-in')
      .send({ name: 'Nobody here', password: PASSWORD });
    expect([wrong.status, wrong.body.title]).toEqual([401, nobody.body.title]);
    expect(wrong.headers['set-cookie']).toBeUndefined();
    const builtIn = await h.api
      .post('/api/sign-in')
      .send({ name: 'this machine', password: PASSWORD });
    expect(builtIn.status).toBe(401);
  });

  it('gives a new session, ends the old, keeps only its hash', async () => {
    const agent = request.agent(h.app);
    const cookie = async () => {
      const r = await agent.post('/api/sign-in').send({ name: 'Some member', password: PASSWORD });
      return String(r.headers['set-cookie']);
    };
    const first = await cookie();
    const second = await cookie();
    expect(first).toMatch(/^ruddy=[\w-]{43};.*HttpOnly.*SameSite=Strict/);
    expect(second).not.toBe(first);
    const old = await h.api.get('/api/setups').set('Cookie', first.split(';')[0] ?? '');
    expect(old.status).toBe(401);
    const token = /ruddy=([\w-]+)/.exec(second)?.[1] ?? '';
    const hashes = await h.rows<{ t: string }>(
      `SELECT encode(token_hash, 'escape') AS t FROM sessions`,
    );
    expect(hashes.some((r) => r.t.includes(token))).toBe(false);
    await agent.post('/api/sign-out').send({}).expect(200);
    expect((await h.api.get('/api/setups').set('Cookie', second.split(';')[0] ?? '')).status).toBe(
      401,
    );
  });

  it('under the old password never outlives its change', async () => {
    const id = randomUUID();
    const name = 'Racing R';
    const password = (n: number) => `the heron waits, ${n} times`;
    const create = { id, name, role: 'member', password: password(0) };
    await agents['keeper']?.post('/api/members').send(create).expect(201);
    let alive = 0;
    let letIn = 0;
    for (let n = 0; n < 20; n++) {
      const mine = (await signInAs(name, password(n))).headers['set-cookie']?.[0] ?? '';
      const change = h.api
        .post(`/api/members/${id}/password`)
        .set('Cookie', mine.split(';')[0] ?? '')
        .send({ current: password(n), password: password(n + 1) });
      const [changed, ...races] = await Promise.all([
        change,
        ...Array.from({ length: 3 }, () => signInAs(name, password(n))),
      ]);
      expect(changed.status).toBe(200);
      for (const r of races.filter((x) => x.status === 200)) {
        letIn += 1;
        const cookie = (r.headers['set-cookie']?.[0] ?? '').split(';')[0] ?? '';
        const me = await h.api.get('/api/me').set('Cookie', cookie);
        if (me.body.member !== null) alive += 1;
      }
      await h.db.query('DELETE FROM sign_in_tries');
    }
    expect(alive).toBe(0);
    // Some were let in before the change: the race was one.
    expect(letIn).toBeGreaterThan(0);
  });

  it('an encrypted way in makes a cookie that travels no other way', async () => {
    const names = { beyond: false, publicUrl: new URL('https://bridge.example') };
    const app = createApp(
      { now: () => h.clock.now, access: { secure: true } },
      { webDir: null, logger: pino({ level: 'silent' }), names },
    );
    const r = await request(app)
      .post('/api/sign-in')
      .set('Host', 'bridge.example')
      .set('Origin', 'https://bridge.example')
      .send({ name: 'Keeper K', password: PASSWORD });
    expect(String(r.headers['set-cookie'])).toMatch(
      /^__Host-ruddy=.*Path=\/.*HttpOnly; Secure; SameSite=Strict/,
    );
  });

  it('ends after two weeks without a visit, at once when dismissed', async () => {
    const agent = await signedIn('Some reader');
    const begun = h.clock.now;
    h.clock.now = new Date(begun.getTime() + 13 * 86_400_000);
    await agent.get('/api/setups').expect(200);
    h.clock.now = new Date(begun.getTime() + 26 * 86_400_000);
    await agent.get('/api/setups').expect(200);
    h.clock.now = new Date(begun.getTime() + 31 * 86_400_000);
    await agent.get('/api/setups').expect(401);
    h.clock.now = begun;
    agents['keeper'] = await signedIn('Keeper K');
    agents['member'] = await signedIn('Some member');
    const again = await signedIn('Some reader');
    const row = (await agents['keeper'].get('/api/members')).body.items.find(
      (m: { id: string }) => m.id === ids['reader'],
    );
    await agents['keeper']
      .patch(`/api/members/${ids['reader']}`)
      .set('If-Match', `"${row.rev}"`)
      .send({ active: false })
      .expect(200);
    await again.get('/api/setups').expect(401);
    expect(
      (await h.api.post('/api/sign-in').send({ name: 'Some reader', password: PASSWORD })).status,
    ).toBe(401);
  });

  describe('wrong tries', () => {
    const guess = (name: string, from: string, cookie = '') =>
      proxied
        .post('/api/sign-in')
        .set('X-Forwarded-For', from)
        .set('Cookie', cookie)
        .send({ name, password: 'one guess after another' });
    let proxied: ReturnType<typeof request>;
    const { free } = RULES.name;
    const cookieOf = (r: request.Response) =>
      (r.headers['set-cookie'] as unknown as string[]).map((c) => c.split(';')[0]).join('; ');
    beforeAll(async () => {
      const services = { now: () => h.clock.now, access: { secure: false } };
      const logger = pino({ level: 'silent' });
      proxied = request(createApp(services, { webDir: null, logger, proxies: 1 }));
      await agents['keeper']
        ?.post('/api/members')
        .send({ id: randomUUID(), name: 'Guessed at', password: PASSWORD })
        .expect(201);
    });
    beforeEach(() => h.db.query('DELETE FROM sign_in_tries'));

    it('of one name are slowed over all addresses, counted before the look', async () => {
      // All at once and each from elsewhere: none slips past the count.
      const many = await Promise.all(
        Array.from({ length: free + 8 }, (_, k) => guess('Guessed at', `198.51.100.${k}`)),
      );
      // One more than the free ones passes the gate that it closes behind it.
      expect(many.filter((r) => r.status === 401).length).toBeLessThanOrEqual(free + 2);
      const refused = many.find((r) => r.status === 429);
      expect(refused?.body.detail).toMatch(/^Too many tries; the next one in \d+ seconds?$/);
      expect(Number(refused?.headers['retry-after'])).toBeGreaterThan(0);
    });

    it('of one address let everybody else there in again soon', async () => {
      for (let k = 0; k < 100; k++) await guess(`Nobody ${k}`, '203.0.113.9');
      const owner = await proxied
        .post('/api/sign-in')
        .set('X-Forwarded-For', '203.0.113.9')
        .send({ name: 'Guessed at', password: PASSWORD });
      expect([200, 429]).toContain(owner.status);
      if (owner.status === 429)
        expect(Number(owner.headers['retry-after'])).toBeLessThanOrEqual(RULES.address.longestS);
    });

    it('count a network of version 6 as one address', async () => {
      for (let k = 0; k < RULES.address.free + 3; k++)
        await guess(`Nobody ${k}`, `2001:db8:1:2::${(k + 1).toString(16)}`);
      expect((await guess('Nobody else', '2001:db8:1:2:aaaa::1')).status).toBe(429);
      expect((await guess('Nobody else', '2001:db8:1:3::1')).status).toBe(401);
    });

    it('by others do not lock a browser out that was here before', async () => {
      const right = () =>
        proxied
          .post('/api/sign-in')
          .set('X-Forwarded-For', '198.51.100.7')
          .send({ name: 'Guessed at', password: PASSWORD });
      const mine = cookieOf(await right());
      for (let k = 0; k < free + 6; k++) await guess('Guessed at', '198.51.100.8');
      expect((await right()).status).toBe(429);
      const again = await right().set('Cookie', mine);
      expect(again.status).toBe(200);
      // The old token is used up, and it says nothing of another name.
      expect((await right().set('Cookie', mine)).status).toBe(429);
      for (let k = 0; k < free + 3; k++) await guess('Some reader', '198.51.100.8');
      const other = await guess('Some reader', '198.51.100.7', cookieOf(again));
      expect(other.status).toBe(429);
    });

    it('keep no typed name in the database', async () => {
      await guess('hunter of the fen', '198.51.100.9');
      const rows = await h.rows<{ key: string }>('SELECT key FROM sign_in_tries');
      expect(rows.length).toBeGreaterThan(1);
      expect(JSON.stringify(rows)).not.toContain('hunter');
    });
  });
});

describe('passwords', () => {
  it('are stored as a memory-hard hash, refused when short or named', async () => {
    const [row] = await h.rows<{ password_hash: string }>(
      'SELECT password_hash FROM members WHERE id = $1',
      [ids['keeper']],
    );
    expect(row?.password_hash).toMatch(/^\$argon2id\$v=19\$m=19456,t=2,p=1\$/);
    const add = (over: object) =>
      agents['keeper']
        ?.post('/api/members')
        .send({ id: randomUUID(), name: 'Newcomer', password: PASSWORD, ...over });
    expect((await add({ password: 'short' }))?.body.errors[0].path).toBe('password');
    expect((await add({ password: 'newcomer of the fen' }))?.body.errors[0].message).toContain(
      'must not hold the name',
    );
    expect((await add({ name: 'SOME MEMBER' }))?.body.errors[0].path).toBe('name');
    const list = JSON.stringify((await agents['keeper']?.get('/api/members'))?.body);
    expect(list).not.toContain('argon2');
  });

  it("one's own needs the current one; other sessions end", async () => {
    const here = await signedIn('Some member');
    const there = await signedIn('Some member');
    const at = `/api/members/${ids['member']}/password`;
    const next = 'reeds and a slow heron';
    expect(
      (await here.post(at).send({ current: 'something else', password: next })).body.errors[0].path,
    ).toBe('current');
    await here.post(at).send({ current: PASSWORD, password: next }).expect(200);
    await here.get('/api/setups').expect(200);
    await there.get('/api/setups').expect(401);
    await here.post(`/api/members/${ids['keeper']}/password`).send({ password: next }).expect(403);
    await agents['keeper']?.post(at).send({ password: PASSWORD }).expect(200);
    await here.get('/api/setups').expect(401);
  });

  it('the last keeper who can sign in stays one', async () => {
    const second = randomUUID();
    await agents['keeper']
      ?.post('/api/members')
      .send({ id: second, name: 'Second keeper', role: 'keeper', password: PASSWORD })
      .expect(201);
    const rows = (await agents['keeper']?.get('/api/members'))?.body.items as {
      id: string;
      rev: number;
    }[];
    const demote = (id = '') =>
      agents['keeper']
        ?.patch(`/api/members/${id}`)
        .set('If-Match', `"${rows.find((m) => m.id === id)?.rev}"`)
        .send({ role: 'reader' });
    const both = await Promise.all([demote(ids['keeper']), demote(second)]);
    expect(both.map((r) => r?.status).sort()).not.toEqual([200, 200]);
    const [left] = await h.rows<{ n: number }>(
      `SELECT count(*)::int AS n FROM members WHERE role = 'keeper' AND active AND password_hash IS NOT NULL`,
    );
    expect(left?.n).toBe(1);
  });
});
