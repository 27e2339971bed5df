import { randomUUID } from 'node:crypto';
import { generateSync, verifySync } from 'otplib';
import request from 'supertest';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { Account } from '@ruddy/core/workshop/contract';
import { stepOf } from '../src/platform/access/one-time-codes';
import { easilyGuessed } from '../src/platform/access/password';
import { delayAfter, addressBlock, RULES } from '../src/platform/access/tries';
import { giveKeeper } from '../src/workshop/members';
import { start, type Harness } from './harness';

const PASSWORD = 'fen mist over the long dyke';
const MINUTE = 60_000;
let h: Harness;
let begun: Date;

beforeAll(async () => {
  h = await start({ access: { secure: false } });
  begun = h.clock.now;
  await giveKeeper({ now: () => h.clock.now }, randomUUID(), 'Keeper K', PASSWORD);
});
afterAll(() => h.close());
beforeEach(async () => {
  h.clock.now = begun;
  await h.db.query('DELETE FROM sign_in_tries');
});

type Agent = ReturnType<typeof request.agent>;
const later = (minutes: number) =>
  (h.clock.now = new Date(h.clock.now.getTime() + minutes * MINUTE));
async function signedIn(name: string, more: object = {}): Promise<Agent> {
  const agent = request.agent(h.app).set('User-Agent', 'a browser of the bench');
  await agent
    .post('/api/sign-in')
    .send({ name, password: PASSWORD, ...more })
    .expect(200);
  return agent;
}
async function member(role = 'member'): Promise<{ id: string; name: string }> {
  const id = randomUUID();
  const name = `Member ${id.slice(0, 8)}`;
  const keeper = await signedIn('Keeper K');
  await keeper.post('/api/members').send({ id, name, role, password: PASSWORD }).expect(201);
  return { id, name };
}
const account = async (a: Agent) => (await a.get('/api/me/account').expect(200)).body as Account;

describe('one-time codes', () => {
  // RFC 6238, appendix B, SHA-1: the last six of the eight digits given there; the secret is its ASCII seed in base32.
  const SEED = 'GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ';
  it.each([
    [59, '287082'],
    [1111111109, '081804'],
    [1111111111, '050471'],
    [1234567890, '005924'],
    [2000000000, '279037'],
    [20000000000, '353130'],
  ])('at %i s the code is that of RFC 6238', (epoch, code) => {
    expect(stepOf(SEED, code, 0, new Date(epoch * 1000))).toBe(Math.floor(epoch / 30));
    expect(stepOf(SEED, code, 0, new Date((epoch + 61) * 1000))).toBeNull();
  });

  it('no code counts twice, nor one of before', () => {
    const at = new Date(1234567890_000);
    const step = stepOf(SEED, '005924', 0, at)!;
    expect(stepOf(SEED, '005924', step, at)).toBeNull();
    expect(stepOf(SEED, '005924', step - 1, at)).toBe(step);
    expect(stepOf(SEED, '005924', step + 40, at)).toBeNull();
  });

  it('count once a code was given; then the sign-in asks', async () => {
    const { name } = await member();
    const mine = await signedIn(name);
    const begin = await mine.post('/api/me/one-time-codes').send({}).expect(200);
    const { secret, uri, qr } = begin.body as { secret: string; uri: string; qr: string };
    expect(uri).toContain(`secret=${secret}`);
    expect(qr).toMatch(/^<svg /);
    await signedIn(name);
    const at = () => Math.floor(h.clock.now.getTime() / 1000);
    const code = () => generateSync({ secret, epoch: at() });
    expect(verifySync({ secret, token: code(), epoch: at() }).valid).toBe(true);
    await mine.put('/api/me/one-time-codes').send({ code: '12345' }).expect(422);
    const done = await mine.put('/api/me/one-time-codes').send({ code: code() }).expect(200);
    const { recovery } = done.body as { recovery: string[] };
    expect(new Set(recovery).size).toBe(10);
    expect(await account(mine)).toMatchObject({ oneTimeCodes: true, recoveryLeft: 10 });

    const without = await h.api.post('/api/sign-in').send({ name, password: PASSWORD });
    expect([without.status, without.body.type]).toEqual([401, 'urn:ruddy:problem:code-needed']);
    const signIn = (more: object) =>
      h.api.post('/api/sign-in').send({ name, password: PASSWORD, ...more });
    // The code that began it is used up.
    expect((await signIn({ code: code() })).body.errors[0].path).toBe('code');
    later(1);
    await signIn({ code: code() }).expect(200);
    await signIn({ code: code() }).expect(401);
    // A wrong code under the right password is on record; the question for one is not.
    const refused = await h.rows<{ about: string; why: string }>(
      `SELECT about, why FROM audit_events WHERE kind = 'sign-in' AND status >= 400 AND about = $1`,
      [name],
    );
    expect(refused).toHaveLength(2);
    expect(refused[0]!.why).toContain('One-time code: does not fit');
    await signIn({ code: recovery[0]!.toUpperCase() }).expect(200);
    await signIn({ code: recovery[0]! }).expect(401);
    await signIn({ password: 'another one entirely', code: recovery[1]! }).expect(401);
    await signIn({ code: recovery[1]! }).expect(200);
    const stored = JSON.stringify(await h.rows('SELECT * FROM recovery_codes'));
    expect(stored).not.toContain(recovery[2]);
  });

  it('a keeper takes off those of who lost the device', async () => {
    const { id, name } = await member();
    await h.rows(`UPDATE members SET code_secret = 'GEZDGNBVGY3TQOJQ' WHERE id = $1 RETURNING id`, [
      id,
    ]);
    await h.api.post('/api/sign-in').send({ name, password: PASSWORD }).expect(401);
    const other = await member();
    await (await signedIn(other.name)).delete(`/api/members/${id}/one-time-codes`).expect(403);
    await (await signedIn('Keeper K')).delete(`/api/members/${id}/one-time-codes`).expect(200);
    await signedIn(name);
  });
});

describe('the password again', () => {
  it('is asked for five minutes after it was given', async () => {
    const keeper = await signedIn('Keeper K');
    const add = () =>
      keeper
        .post('/api/members')
        .send({ id: randomUUID(), name: `New ${randomUUID()}`, password: null });
    await add().expect(201);
    later(6);
    const refused = await add().expect(403);
    expect(refused.body.type).toBe('urn:ruddy:problem:confirm-first');
    const wrong = await keeper.post('/api/me/confirm').send({ password: 'another one' });
    expect([wrong.status, wrong.body.errors[0].path]).toEqual([422, 'password']);
    await add().expect(403);
    await keeper.post('/api/me/confirm').send({ password: PASSWORD }).expect(200);
    await add().expect(201);
  });

  it('guards roles, passwords of others, restores and removals', async () => {
    const { id } = await member();
    const keeper = await signedIn('Keeper K');
    later(6);
    const name = 'ruddy-20260101-000000-abcdef.dump';
    const acts = {
      role: keeper.patch(`/api/members/${id}`).set('If-Match', '"1"').send({ role: 'keeper' }),
      password: keeper
        .post(`/api/members/${id}/password`)
        .send({ password: 'three slow herons waiting' }),
      restore: keeper.post(`/api/backups/${name}/restore`).send({}),
      backup: keeper.delete(`/api/backups/${name}`),
      demo: keeper.delete('/api/demo'),
      rule: keeper.put('/api/audit/rule').set('If-Match', '"0"').send({ days: 30 }),
    };
    for (const [what, act] of Object.entries(acts))
      expect([what, (await act).body.type]).toEqual([what, 'urn:ruddy:problem:confirm-first']);
  });
});

describe('own sessions', () => {
  it('are listed with where they began, and ended one by one', async () => {
    const { name } = await member();
    const here = await signedIn(name);
    const there = await signedIn(name);
    const third = await signedIn(name);
    const { sessions } = await account(here);
    expect(sessions).toHaveLength(3);
    expect(sessions.filter((s) => s.here)).toHaveLength(1);
    expect(sessions[0]).toMatchObject({
      browser: 'a browser of the bench',
      address: expect.stringMatching(/127\.0\.0\.1|::1/),
    });
    const of = async (a: Agent) => (await account(a)).sessions.find((s) => s.here)!.id;
    await here.delete(`/api/me/sessions/${await of(here)}`).expect(422);
    await here.delete(`/api/me/sessions/${await of(there)}`).expect(200);
    await there.get('/api/setups').expect(401);
    await third.get('/api/setups').expect(200);
    // Of another member a session is not found.
    const other = await signedIn('Keeper K');
    await here.delete(`/api/me/sessions/${await of(other)}`).expect(404);
    const left = (await here.delete('/api/me/sessions').expect(200)).body as Account;
    expect(left.sessions).toHaveLength(1);
    await third.get('/api/setups').expect(401);
    await other.get('/api/setups').expect(200);
    expect(JSON.stringify(left)).not.toMatch(/token/i);
  });
});

describe('passwords', () => {
  // On the lists of common passwords since they were first published (common practice, no published source).
  it.each([
    'password1234',
    'qwertyuiop12',
    'iloveyou1234',
    'aaaaaaaaaaaa',
    '123456789012',
    'abcabcabcabc',
  ])('%s is refused', async (password) => {
    const keeper = await signedIn('Keeper K');
    const r = await keeper.post('/api/members').send({ id: randomUUID(), name: 'Weak', password });
    expect([r.status, r.body.errors[0].path]).toEqual([422, 'password']);
    expect(r.body.detail).toContain('easily guessed');
  });
  it.each([PASSWORD, 'reeds and a slow heron', 'vT9#kq2LwzPd'])('%s is taken', (password) => {
    expect(easilyGuessed(password, 'Some member')).toBeNull();
  });
});

describe('delays', () => {
  it('grow from nothing to their longest', () => {
    const { free, longestS } = RULES.name;
    const steps = [1, free, free + 1, free + 2, free + 5, free + 60];
    expect(steps.map((n) => delayAfter(n, RULES.name))).toEqual([0, 0, 1, 2, 16, longestS]);
  });
  it('an address stands for its network of version 6', () => {
    expect(addressBlock('2001:db8:1:2::5')).toBe(addressBlock('2001:db8:1:2:ffff::1'));
    expect(addressBlock('2001:db8:1:2::5')).not.toBe(addressBlock('2001:db8:1:3::5'));
    expect(addressBlock('::ffff:198.51.100.4')).toBe('198.51.100.4');
  });
});

describe('where nobody signs in', () => {
  it('no password is asked for, and there are no accounts', async () => {
    const alone = await start();
    await alone.api.post('/api/members').send({ id: randomUUID(), name: 'Lender' }).expect(201);
    expect((await alone.api.get('/api/me/account')).status).toBe(409);
    await alone.close();
  });
});
