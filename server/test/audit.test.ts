import { randomUUID } from 'node:crypto';
import { parse } from 'csv-parse/sync';
import { pino } from 'pino';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { AuditRow } from '@ruddy/core/workshop/contract';
import { createApp, ROUTES } from '../src/app';
import { pruneAudit } from '../src/workshop/audit';
import { giveKeeper } from '../src/workshop/members';
import { start, type Harness } from './harness';

const PASSWORD = 'fen mist over the long dyke';
let h: Harness;
let keeper: ReturnType<typeof request.agent>;

beforeAll(async () => {
  h = await start({ access: { secure: false } });
  await giveKeeper({ now: () => h.clock.now }, randomUUID(), 'Keeper K', PASSWORD);
  keeper = request.agent(h.app);
  await keeper.post('/api/sign-in').send({ name: 'Keeper K', password: PASSWORD }).expect(200);
});
afterAll(() => h.close());

const trail = async (query = '') =>
  (await keeper.get(`/api/audit?limit=500${query}`).expect(200)).body.items as AuditRow[];

describe('the audit trail', () => {
  it('every removal, and every act of keepers, is part of it', () => {
    const unrecorded = ROUTES.filter(
      ({ method, contract: c }) =>
        (method === 'DELETE' || (c.role === 'keeper' && method !== 'GET')) && !c.audit,
    );
    expect(unrecorded.map((r) => `${r.method} ${r.path}`)).toEqual([]);
  });

  it('says who signed in from where, and who did not', async () => {
    await h.api.post('/api/sign-in').send({ name: 'keeper k', password: 'not this one at all' });
    await h.api.post('/api/sign-in').send({ name: 'my password by mistake', password: PASSWORD });
    const [unknown, wrong, right] = await trail('&kind=sign-in');
    expect(right).toMatchObject({ actor: 'Keeper K', status: 200, why: '' });
    expect(right!.address).toMatch(/127\.0\.0\.1|::1/);
    expect(right!.requestId).toMatch(/^[0-9a-f-]{36}$/);
    expect(wrong).toMatchObject({ actor: '', about: 'Keeper K', status: 401 });
    expect(unknown!.about).toBe('a name that is no member');
    const whole = JSON.stringify(await trail());
    for (const secret of ['by mistake', 'not this one', PASSWORD])
      expect(whole).not.toContain(secret);
  });

  it('says what was refused to whom', async () => {
    const id = randomUUID();
    await keeper
      .post('/api/members')
      .send({ id, name: 'Reader R', role: 'reader', password: PASSWORD });
    const reader = request.agent(h.app);
    await reader.post('/api/sign-in').send({ name: 'Reader R', password: PASSWORD }).expect(200);
    await reader.delete('/api/demo').expect(403);
    await reader.get('/api/audit').expect(403);
    const [removal] = await trail('&kind=removal&result=refused');
    expect(removal).toMatchObject({ actor: 'Reader R', act: 'DELETE /api/demo', status: 403 });
    expect((await trail('&kind=member'))[0]).toMatchObject({
      actor: 'Keeper K',
      about: 'Reader R: reader',
    });
    // Without a session nothing is written: nobody fills the trail from outside.
    const before = (await trail()).length;
    await request(h.app).delete('/api/demo').expect(401);
    expect(await trail()).toHaveLength(before);
  });

  it('is found by words and days, page after page', async () => {
    for (let k = 0; k < 5; k++) await keeper.post('/api/me/confirm').send({ password: PASSWORD });
    expect((await trail('&q=READER r')).every((e) => /Reader R/.test(e.actor + e.about))).toBe(
      true,
    );
    expect(await trail('&to=2020-01-01')).toEqual([]);
    expect((await trail('&from=2020-01-01')).length).toBeGreaterThan(5);
    const seen: string[] = [];
    let cursor = '';
    do {
      const page = (await keeper.get(`/api/audit?limit=3${cursor && `&cursor=${cursor}`}`)).body;
      seen.push(...page.items.map((e: AuditRow) => e.id));
      cursor = page.next ?? '';
    } while (cursor);
    expect(seen).toEqual((await trail()).map((e) => e.id));
    expect(new Set(seen).size).toBe(seen.length);
  });

  it('goes out as CSV that computes nothing, and as JSON', async () => {
    const name = '=1+2';
    await keeper.post('/api/members').send({ id: randomUUID(), name }).expect(201);
    const csv = await keeper.get('/api/audit-file?kind=member').buffer(true);
    const rows = parse(csv.text, { columns: true }) as Record<string, string>[];
    expect(rows.map((r) => r['about'])).toContain(`'${name}: member`);
    const json = JSON.parse(
      (await keeper.get('/api/audit-file?format=json&kind=member')).text,
    ) as AuditRow[];
    expect(json).toEqual(await trail('&kind=member'));
    expect((await trail('&kind=download')).length).toBe(2);
    expect((await keeper.get('/api/audit-file?format=json&to=2020-01-01')).body).toEqual([]);
  });

  it('is only added to', async () => {
    for (const sql of [
      `UPDATE audit_events SET actor = 'somebody else'`,
      'DELETE FROM audit_events',
      'TRUNCATE audit_events',
    ])
      await expect(h.db.query(sql)).rejects.toThrow(/append-only/);
  });

  it('older entries go by the rule, which is an entry', async () => {
    const rule = (await keeper.get('/api/audit/rule')).body;
    expect(rule).toMatchObject({ days: 400, rev: 0, warning: '' });
    const put = (days: number) =>
      keeper.put('/api/audit/rule').set('If-Match', `"${rule.rev}"`).send({ days });
    await put(5).expect(422);
    await put(60).expect(200);
    await put(60).expect(412);
    const now = h.clock.now;
    const after = { now: () => new Date(now.getTime() + 61 * 86_400_000) };
    const n = (await trail()).length;
    expect(await pruneAudit({ now: () => now })).toBe(0);
    expect(await pruneAudit(after)).toBeGreaterThanOrEqual(n);
    const [left, ...others] = await h.rows<{ about: string }>('SELECT about FROM audit_events');
    expect([left!.about, others]).toEqual([
      expect.stringMatching(/^\d+ older entries removed$/),
      [],
    ]);
  });

  it('warns of a forwarding header that nobody configured', async () => {
    const lines: string[] = [];
    const logger = pino({ level: 'warn' }, { write: (line: string) => void lines.push(line) });
    const services = { now: () => h.clock.now, access: { secure: false } };
    const app = createApp(services, { webDir: null, logger });
    for (let k = 0; k < 2; k++)
      await request(app).get('/api/live').set('X-Forwarded-For', '198.51.100.1');
    expect(lines.filter((l) => l.includes('RUDDY_PROXIES'))).toHaveLength(1);
    expect((await keeper.get('/api/audit/rule')).body.warning).toContain('RUDDY_PROXIES');
  });
});
