import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addPart, addSetup, start, type Harness } from './harness';

let h: Harness;
beforeAll(async () => {
  h = await start();
});
afterAll(() => h.close());

const patch = (id: string, rev: number, body: object) =>
  h.api.patch(`/api/setups/${id}`).set('If-Match', `"${rev}"`).send(body);

describe('PL-24 setups', () => {
  it('starts empty, is judged, and is answered when repeated', async () => {
    const body = { id: randomUUID(), name: 'Fresh' };
    expect((await h.api.post('/api/setups').send(body)).status).toBe(201);
    expect((await h.api.post('/api/setups').send(body)).status).toBe(200);
    const [row] = (await h.api.get('/api/setups?q=fresh')).body.items;
    expect(row.glance).toMatchObject({ verdict: 'unknown', pinch: { usable: null } });
  });

  it('changes one slot and leaves the others', async () => {
    const s = await addSetup(h, 'one slot');
    const other = await addPart(h, 'cable', { model: 'long', lengthMm: 1500 });
    const r = await patch(s.id, 1, { slots: { path: [other.id] } });
    expect(r.body.slots).toEqual({ ...s.slots, path: [other.id] });
    const [row] = (await h.api.get('/api/setups?q=one slot')).body.items;
    expect(row.glance.verdict).toBe('care');
  });

  it('an empty path is "no cable", null is "not chosen"', async () => {
    const s = await addSetup(h, 'no cable');
    expect((await patch(s.id, 1, { slots: { path: [] } })).body.slots.path).toEqual([]);
    expect((await h.api.get(`/api/setups/${s.id}`)).body.slots.path).toEqual([]);
    expect((await patch(s.id, 2, { slots: { path: null } })).body.slots.path).toBeNull();
  });

  it('a new host takes the old port with it', async () => {
    const s = await addSetup(h, 'new host');
    const host = await addPart(h, 'host', { model: 'second' });
    expect((await patch(s.id, 1, { slots: { host: host.id } })).body.slots).toMatchObject({
      host: host.id,
      socket: null,
    });
  });

  it('refuses wrong kinds, unknown parts and missing ports', async () => {
    const s = await addSetup(h, 'refuse');
    const wrong = await patch(s.id, 1, { slots: { card: s.slots.dock } });
    expect(wrong.body.errors).toEqual([{ path: 'slots/card', message: 'No card has this id' }]);
    expect((await patch(s.id, 1, { slots: { path: [randomUUID()] } })).body.errors[0].path).toBe(
      'slots/path/0',
    );
    expect((await patch(s.id, 1, { slots: { socket: 'top' } })).body.errors[0].path).toBe(
      'slots/socket',
    );
    expect((await h.api.get(`/api/setups/${s.id}`)).body).toEqual(s);
  });

  it('of two people the second is shown what is stored', async () => {
    const s = await addSetup(h, 'two');
    const [a, b] = await Promise.all([
      patch(s.id, 1, { name: 'two A' }),
      patch(s.id, 1, { name: 'two B' }),
    ]);
    expect([a.status, b.status].sort()).toEqual([200, 412]);
    const lost = a.status === 412 ? a : b;
    const won = a.status === 200 ? a : b;
    expect(lost.body.current.name).toBe(won.body.name);
  });

  it('coalesces an edit session into one revision for ten minutes', async () => {
    const s = await addSetup(h, 'fold');
    const session = randomUUID();
    const revisions = () =>
      h.rows<{ rev: number }>('SELECT rev FROM setup_revisions WHERE setup_id = $1 ORDER BY rev', [
        s.id,
      ]);
    await patch(s.id, 1, { notes: 'a', session });
    await patch(s.id, 2, { notes: 'ab', session });
    expect(await revisions()).toEqual([{ rev: 1 }, { rev: 3 }]);
    h.clock.now = new Date(h.clock.now.getTime() + 11 * 60_000);
    await patch(s.id, 3, { notes: 'abc', session });
    expect(await revisions()).toEqual([{ rev: 1 }, { rev: 3 }, { rev: 4 }]);
  });

  it('clones under another name, planned, and remembers the original', async () => {
    const s = await addSetup(h, 'original');
    await patch(s.id, 1, { state: 'live', notes: 'kept' });
    const r = await h.api
      .post(`/api/setups/${s.id}/clone`)
      .send({ id: randomUUID(), name: 'copy' });
    expect(r.body).toMatchObject({
      name: 'copy',
      state: 'planned',
      notes: 'kept',
      slots: s.slots,
      clonedFrom: s.id,
    });
    const record = (await h.api.get(`/api/setups/${r.body.id}/record`)).body.items;
    expect(record).toEqual([
      expect.objectContaining({ kind: 'cloned', body: { from: 'original' } }),
    ]);
  });

  it('CO-01 the record tells changes of parts and state, newest first', async () => {
    const s = await addSetup(h, 'told');
    const other = await addPart(h, 'dock', { model: 'D told 2' });
    h.clock.now = new Date(h.clock.now.getTime() + 60_000);
    await patch(s.id, 1, { slots: { dock: other.id }, state: 'building', session: randomUUID() });
    const items = (await h.api.get(`/api/setups/${s.id}/record`)).body.items as {
      kind: string;
      body: object;
    }[];
    expect(items.map((e) => e.kind).sort()).toEqual(['created', 'parts', 'state']);
    expect(items.find((e) => e.kind === 'parts')?.body).toEqual({
      changes: [{ slot: 'dock', from: 'Alder D told', to: 'Alder D told 2' }],
    });
    expect(items[items.length - 1]?.kind).toBe('created');
  });

  it('retired setups leave the list and the counts, and come when asked', async () => {
    const s = await addSetup(h, 'retire me');
    const before = (await h.api.get('/api/setups/summary')).body.n as number;
    await patch(s.id, 1, { state: 'retired' });
    expect((await h.api.get('/api/setups/summary')).body.n).toBe(before - 1);
    const find = async (q: string) =>
      ((await h.api.get(`/api/setups?q=retire me${q}`)).body.items as unknown[]).length;
    expect([await find(''), await find('&retired=true'), await find('&state=retired')]).toEqual([
      0, 1, 1,
    ]);
  });

  it('an id that is none and an id nobody has', async () => {
    expect((await h.api.get('/api/setups/42')).status).toBe(400);
    expect((await h.api.get(`/api/setups/${randomUUID()}`)).status).toBe(404);
    expect((await h.api.get(`/api/setups/${randomUUID()}/record`)).status).toBe(404);
  });
});
