import { inTransaction } from '../src/platform/db/transaction';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { ChainCheck, LoanRow, MemberRow } from '@ruddy/core/workshop/contract';
import { THIS_MACHINE } from '../src/platform/http/route';
import { exportBundle } from '../src/workshop/bundle-export';
import { loadBundle } from '../src/workshop/bundle-load';
import { removeDemo } from '../src/workshop/demo';
import { addPart, addSetup, demoBundle, NOW, start, type Harness } from './harness';

let h: Harness;
beforeAll(async () => {
  h = await start();
});
afterAll(() => h.close());

async function member(name: string): Promise<MemberRow> {
  const r = await h.api.post('/api/members').send({ id: randomUUID(), name });
  expect(r.status).toBe(201);
  return r.body as MemberRow;
}

async function piece(partId: string, label: string): Promise<string> {
  const id = randomUUID();
  await h.api.post('/api/items').send({ id, partId, label, condition: 'used' }).expect(201);
  return id;
}

const out = {
  fromOn: '2026-11-01',
  dueOn: '2026-11-10',
  condition: 'used',
  along: ['mains cable', 'link cable'],
};
const lend = (itemId: string, memberId: string, over: object = {}) =>
  h.api.post('/api/loans').send({ id: randomUUID(), itemId, memberId, out, ...over });
const back = (loan: LoanRow, over: object = {}) =>
  h.api
    .post(`/api/loans/${loan.id}/back`)
    .set('If-Match', `"${loan.rev}"`)
    .send({ id: randomUUID(), returnedOn: '2026-11-12', tested: 'works', ...over });

describe('a loan', () => {
  it('goes out, is waited for, comes back, names the next', async () => {
    const b = await member('Member B');
    const c = await member('Member C');
    const dock = await addPart(h, 'dock');
    const item = await piece(dock.id, 'D-1 a');
    const loan = (await lend(item, b.id)).body as LoanRow;
    expect(loan).toMatchObject({
      label: 'D-1 a',
      part: 'Alder D-1',
      member: 'Member B',
      along: out.along,
      next: [],
    });
    const again = await lend(item, c.id);
    expect([again.status, again.body.detail]).toEqual([
      409,
      'D-1 a is with Member B; wait for it, or take it back first',
    ]);
    const wish = (await lend(item, c.id, { out: null })).body as LoanRow;
    expect(wish.fromOn).toBeNull();
    expect((await lend(item, c.id, { out: null })).status).toBe(409);
    const open = (await h.api.get('/api/loans')).body.items as LoanRow[];
    expect(open.find((l) => l.id === loan.id)?.next).toEqual([
      { loanId: wish.id, member: 'Member C' },
    ]);

    const done = await back(loan, {
      missing: ['link cable'],
      condition: 'worn',
      looks: 'a scratch',
    });
    expect(done.body).toMatchObject({
      returnedOn: '2026-11-12',
      back: { missing: ['link cable'], tested: 'works' },
    });
    expect(
      (await h.rows<{ condition: string }>('SELECT condition FROM items WHERE id = $1', [item]))[0]
        ?.condition,
    ).toBe('worn');
    const handed = await h.api
      .patch(`/api/loans/${wish.id}`)
      .set('If-Match', `"${wish.rev}"`)
      .send({ out: { ...out, fromOn: '2026-11-13', dueOn: null } });
    expect(handed.body).toMatchObject({ fromOn: '2026-11-13', member: 'Member C' });
    expect((await h.api.get('/api/loans?state=back')).body.items.map((l: LoanRow) => l.id)).toEqual(
      [loan.id],
    );
  });

  it('that fails at its return leaves the fault on the piece, once', async () => {
    const who = await member('Member F');
    const card = await addPart(h, 'card');
    const item = await piece(card.id, 'C-1 a');
    const loan = (await lend(item, who.id)).body as LoanRow;
    expect((await back(loan, { tested: 'fails' })).body.errors[0].path).toBe('testWords');
    expect((await back(loan, { missing: ['a thing nobody lent'] })).body.errors[0].path).toBe(
      'missing',
    );
    expect((await back(loan, { returnedOn: '2026-10-01' })).body.errors[0].path).toBe('returnedOn');
    expect((await back(loan, { returnedOn: '2027-10-01' })).body.detail).toContain('in the future');
    await back(loan, { tested: 'fails', testWords: 'no picture', condition: 'faulty' }).expect(200);
    expect((await back(loan, { tested: 'fails', testWords: 'no picture' })).status).toBe(412);
    const facts = await h.rows<{ words: string }>(
      `SELECT body ->> 'words' AS words FROM item_facts WHERE item_id = $1`,
      [item],
    );
    expect(facts).toEqual([{ words: 'no picture' }]);
  });

  it('goes to one of two who take it at the same moment', async () => {
    const a = await member('Member G');
    const b = await member('Member H');
    const cable = await addPart(h, 'cable');
    const item = await piece(cable.id, 'K-1 a');
    const both = await Promise.all([lend(item, a.id), lend(item, b.id)]);
    expect(both.map((r) => r.status).sort()).toEqual([201, 409]);
  });

  it('is refused with its place for every impossible loan', async () => {
    const who = await member('Member I');
    const cable = await addPart(h, 'cable', { model: 'K-2' });
    const item = await piece(cable.id, 'K-2 a');
    const dead = randomUUID();
    const at = async (r: Promise<{ body: { errors?: { path: string }[] } }>) =>
      (await r).body.errors?.[0]?.path;
    expect(await at(lend(dead, who.id))).toBe('itemId');
    expect(await at(lend(item, dead))).toBe('memberId');
    expect(await at(lend(item, THIS_MACHINE.id))).toBe('memberId');
    expect(await at(lend(item, who.id, { setupId: dead }))).toBe('setupId');
    expect(await at(lend(item, who.id, { out: { ...out, dueOn: '2026-10-01' } }))).toBe(
      'out/dueOn',
    );
    expect(
      (await lend(item, who.id, { out: { ...out, fromOn: '2027-01-01', dueOn: null } })).status,
    ).toBe(422);
    const row = (await lend(item, who.id)).body as LoanRow;
    const people = (await h.api.get('/api/members')).body.items as MemberRow[];
    const rev = people.find((m) => m.id === who.id)?.rev;
    const gone = await h.api
      .patch(`/api/members/${who.id}`)
      .set('If-Match', `"${rev}"`)
      .send({ active: false });
    expect(gone.body.detail).toBe('Member I still has 1 item; take them back first');
    expect(
      (
        await h.api
          .patch(`/api/loans/${row.id}`)
          .set('If-Match', `"${row.rev}"`)
          .send({ withdrawn: true })
      ).status,
    ).toBe(422);
    expect((await h.api.patch(`/api/loans/${row.id}`).send({ dueOn: null })).status).toBe(428);
  });
});

describe("the borrower's chain", () => {
  it('is judged with the piece in its place, before anything is lent', async () => {
    const setup = await addSetup(h, 'Borrowed for');
    const poor = await addPart(h, 'cable', {
      model: 'K-slow',
      connector: 'oculink-4i',
      markedGbps: null,
      construction: null,
    });
    const item = await piece(poor.id, 'K-slow a');
    const r = (await h.api.post('/api/loans/check').send({ itemId: item, setupId: setup.id }))
      .body as ChainCheck;
    expect(r).toMatchObject({
      place: 'as the cable',
      same: false,
      setup: { name: 'Borrowed for' },
    });
    // The same judgement as for a chain that has the cable in it.
    const whole = (chain: object) =>
      h.api.post('/api/evaluate').send({ setupId: setup.id, patch: chain });
    const expected = (await whole({ path: [{ id: poor.id }] })).body;
    expect(r.after).toEqual({
      verdict: expected.evaluation.predicted.verdict.state,
      sentence: expected.sentence,
    });
    expect(r.before.verdict).not.toBe(r.after.verdict);
    expect(r.brings.length).toBeGreaterThan(0);
  });

  it('of a host tries each of its ports and keeps the best', async () => {
    const setup = await addSetup(h, 'Other host');
    const host = await addPart(h, 'host', { model: 'H swapped' });
    const item = await piece(host.id, 'H swapped a');
    const r = (await h.api.post('/api/loans/check').send({ itemId: item, setupId: setup.id }))
      .body as ChainCheck;
    expect(r.after.verdict).toBe(r.before.verdict);
    expect(r.after.verdict).not.toBe('blocked');
  });
});

describe('a piece in two places', () => {
  it('is said on both setups and in the list of pieces', async () => {
    const cable = await addPart(h, 'cable', { model: 'K-both' });
    const item = await piece(cable.id, 'K-both a');
    const one = await addSetup(h, 'One', { path: [cable.id], items: { 'path/0': item } });
    const two = await addSetup(h, 'Two', { path: [cable.id], items: { 'path/0': item } });
    const elsewhere = async (id: string) =>
      (await h.api.get(`/api/setups/${id}/pieces-elsewhere`)).body.items as object[];
    expect(await elsewhere(one.id)).toEqual([]);
    for (const s of [one, two])
      await h.api
        .patch(`/api/setups/${s.id}`)
        .set('If-Match', `"${s.rev}"`)
        .send({ state: 'live' })
        .expect(200);
    expect(await elsewhere(one.id)).toEqual([
      {
        place: 'path/0',
        itemId: item,
        label: 'K-both a',
        liveIn: [{ id: two.id, name: 'Two' }],
        lent: null,
      },
    ]);
    const who = await member('Member J');
    await lend(item, who.id, { setupId: two.id }).expect(201);
    expect(await elsewhere(one.id)).toMatchObject([
      { lent: { member: 'Member J', setup: 'Two', here: false } },
    ]);
    const pieces = (await h.api.get('/api/loans/pieces')).body.items as {
      label: string;
      with: string;
      liveIn: object[];
    }[];
    expect(pieces.find((p) => p.label === 'K-both a')).toMatchObject({
      with: 'Member J',
      liveIn: [{}, {}],
    });
  });
});

describe('members and loans in a file', () => {
  it('come back as they were, without a password', async () => {
    const w = await start({ demo: true });
    const members = (await w.api.get('/api/members')).body.items as MemberRow[];
    const b = members.find((m) => m.name === 'Member B');
    await w.api
      .post(`/api/members/${b?.id}/password`)
      .send({ password: 'a heron in the reeds' })
      .expect(200);
    const file = await exportBundle();
    expect(file.loans).toHaveLength(demoBundle().loans.length);
    expect(JSON.stringify(file)).not.toMatch(/argon2|password/i);
    const pieces = (await w.api.get('/api/loans/pieces')).body.items as {
      id: string;
      label: string;
    }[];
    const free = pieces.find((p) => p.label === 'Q-05 a');
    const own = {
      id: randomUUID(),
      itemId: free?.id,
      memberId: b?.id,
      out: { fromOn: '2026-11-01' },
    };
    await w.api.post('/api/loans').send(own).expect(201);
    await removeDemo();
    const left = (await w.api.get('/api/loans')).body.items as LoanRow[];
    expect(left.map((l) => [l.label, l.member, l.origin])).toEqual([['Q-05 a', 'Member B', 'own']]);
    expect(
      ((await w.api.get('/api/members')).body.items as MemberRow[]).map((m) => m.name),
    ).toEqual(['this machine', 'Member B']);
    const whole = await exportBundle();
    const other = await start();
    await inTransaction(() => loadBundle(whole, { origin: 'own', by: THIS_MACHINE.id, now: NOW }));
    const there = await exportBundle();
    expect([there.members, there.loans]).toEqual([whole.members, whole.loans]);
    await other.close();
    await w.close();
  });
});
