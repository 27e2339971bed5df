import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addPart, addSetup, SPECS, start, type Harness } from './harness';

let h: Harness;
beforeAll(async () => {
  h = await start();
});
afterAll(() => h.close());

describe('PA-01 the catalogue', () => {
  it('adds a part once and refuses another under its id', async () => {
    const id = randomUUID();
    const body = { id, kind: 'dock', spec: { ...SPECS.dock, model: 'repeat' } };
    expect((await h.api.post('/api/parts').send(body)).status).toBe(201);
    expect((await h.api.post('/api/parts').send(body)).status).toBe(200);
    const other = await h.api
      .post('/api/parts')
      .send({ ...body, spec: { ...SPECS.dock, model: 'another' } });
    expect(other.status).toBe(409);
    expect(await h.rows('SELECT 1 FROM parts WHERE id = $1', [id])).toHaveLength(1);
    expect(await h.rows('SELECT 1 FROM part_revisions WHERE part_id = $1', [id])).toHaveLength(1);
  });

  it('refuses a second part of one name, whatever the letters', async () => {
    await addPart(h, 'card', { model: 'Twin' });
    const r = await h.api.post('/api/parts').send({
      id: randomUUID(),
      kind: 'card',
      spec: { ...SPECS.card, maker: 'ALDER', model: 'twin' },
    });
    expect(r.status).toBe(409);
    expect(r.body.title).toContain('exists already');
  });

  it('names the place of bad values and stores nothing', async () => {
    const spec = {
      ...SPECS.host,
      sockets: [{ ...SPECS.host.sockets[0], lanes: 64, key: 'Left Rear' }],
    };
    const r = await h.api.post('/api/parts').send({ id: randomUUID(), kind: 'host', spec });
    expect(r.status).toBe(422);
    expect(r.type).toBe('application/problem+json');
    const paths = (r.body.errors as { path: string }[]).map((e) => e.path);
    expect(paths).toEqual(expect.arrayContaining(['spec/sockets/0/lanes', 'spec/sockets/0/key']));
    expect(
      await h.rows(`SELECT 1 FROM parts WHERE spec->'sockets'->0->>'key' = 'Left Rear'`),
    ).toHaveLength(0);
  });

  it('refuses a socket whose connector and standard do not go together', async () => {
    const spec = {
      ...SPECS.host,
      model: 'odd',
      sockets: [{ ...SPECS.host.sockets[0], connector: 'oculink-4i' }],
    };
    const r = await h.api.post('/api/parts').send({ id: randomUUID(), kind: 'host', spec });
    expect(r.body.errors[0]).toEqual({
      path: 'spec/sockets/0/standard',
      message: 'OCuLink 4i (small, four lanes) cannot carry "USB4, 40 Gb/s"',
    });
  });

  it('edits under If-Match only: 428 without, 412 with what is stored', async () => {
    const part = await addPart(h, 'cable', { model: 'edit' });
    const url = `/api/parts/${part.id}`;
    expect((await h.api.patch(url).send({ spec: { lengthMm: 900 } })).status).toBe(428);
    const first = await h.api
      .patch(url)
      .set('If-Match', '"1"')
      .send({ spec: { lengthMm: 900, markedGbps: null } });
    expect(first.status).toBe(200);
    expect(first.headers['etag']).toBe('"2"');
    expect(first.body.spec).toMatchObject({
      lengthMm: 900,
      markedGbps: null,
      construction: 'passive',
    });
    const late = await h.api
      .patch(url)
      .set('If-Match', '"1"')
      .send({ spec: { lengthMm: 100 } });
    expect(late.status).toBe(412);
    expect(late.body.current).toMatchObject({ rev: 2, spec: { lengthMm: 900 } });
    expect(
      await h.rows<{ rev: number }>(
        'SELECT rev FROM part_revisions WHERE part_id = $1 ORDER BY rev',
        [part.id],
      ),
    ).toEqual([{ rev: 1 }, { rev: 2 }]);
  });

  it('retires and brings back; the name is free meanwhile', async () => {
    const part = await addPart(h, 'card', { model: 'leaves' });
    await h.api.patch(`/api/parts/${part.id}`).set('If-Match', '"1"').send({ retired: true });
    const listed = async (q: string) =>
      ((await h.api.get(`/api/parts?kind=card&q=leaves${q}`)).body.items as unknown[]).length;
    expect(await listed('')).toBe(0);
    expect(await listed('&retired=true')).toBe(1);
    const twin = await addPart(h, 'card', { model: 'leaves' });
    const back = await h.api
      .patch(`/api/parts/${part.id}`)
      .set('If-Match', '"2"')
      .send({ retired: false });
    expect(back.status).toBe(409);
    await h.api.patch(`/api/parts/${twin.id}`).set('If-Match', '"1"').send({ retired: true });
    expect(
      (await h.api.patch(`/api/parts/${part.id}`).set('If-Match', '"2"').send({ retired: false }))
        .status,
    ).toBe(200);
  });

  it('PL-01 sockets keep their ids; one in use cannot leave its host', async () => {
    const setup = await addSetup(h, 'sockets');
    const host = (await h.api.get(`/api/parts/${setup.slots.host}`)).body;
    const ids = () =>
      h.rows<{ key: string; id: string; retired: boolean }>(
        'SELECT key, id, retired_at IS NOT NULL AS retired FROM sockets WHERE part_id = $1 ORDER BY key',
        [host.id],
      );
    const before = await ids();
    const gone = await h.api
      .patch(`/api/parts/${host.id}`)
      .set('If-Match', '"1"')
      .send({ spec: { sockets: [host.spec.sockets[1]] } });
    expect(gone.status).toBe(422);
    expect(gone.body.detail).toContain('used by the setup "sockets"');
    await h.api
      .patch(`/api/parts/${host.id}`)
      .set('If-Match', '"1"')
      .send({ spec: { sockets: [host.spec.sockets[0]] } });
    expect((await ids()).map((s) => s.retired)).toEqual([false, true]);
    await h.api
      .patch(`/api/parts/${host.id}`)
      .set('If-Match', '"2"')
      .send({ spec: { sockets: host.spec.sockets } });
    expect(await ids()).toEqual(before);
  });

  it('pages through a list without losing or repeating a row', async () => {
    for (let i = 0; i < 7; i++) await addPart(h, 'dock', { model: `page ${i}` });
    const seen: string[] = [];
    let cursor = '';
    do {
      const r = await h.api.get(`/api/parts?kind=dock&q=page&limit=3${cursor}`);
      seen.push(...(r.body.items as { spec: { model: string } }[]).map((p) => p.spec.model));
      cursor = r.body.next ? `&cursor=${r.body.next as string}` : '';
    } while (cursor);
    expect(seen).toEqual([0, 1, 2, 3, 4, 5, 6].map((i) => `page ${i}`));
    expect((await h.api.get('/api/parts?cursor=nonsense')).status).toBe(400);
  });

  it('finds words that a pattern would read otherwise', async () => {
    await addPart(h, 'card', { model: '100%_sure' });
    const found = async (q: string) =>
      ((await h.api.get(`/api/search?q=${encodeURIComponent(q)}`)).body.items as unknown[]).length;
    expect(await found('100%_')).toBe(1);
    expect(await found('%%%')).toBe(0);
  });
});
