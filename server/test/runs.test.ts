import { randomUUID } from 'node:crypto';
import { gzipSync } from 'node:zlib';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { RunEntry } from '@ruddy/core/runs/contract';
import type { Setup } from '@ruddy/core/setups/contract';
import { addSetup, NOW, start, type Harness } from './harness';
import { addRun, packed, put, send, steady, title } from './make-runs';

let h: Harness;
let setup: Setup;
beforeEach(async () => {
  h = await start();
  setup = await addSetup(h, 'Runs');
});
afterEach(() => h.close());

const count = async (table: string) =>
  (await h.rows<{ n: number }>(`SELECT count(*)::int AS n FROM ${table}`))[0]?.n;

describe('values', () => {
  it('are kept under what they unpack to, once', async () => {
    const p = packed([10, 20, 30]);
    expect((await put(h, p.sha256, 3, p.data)).status).toBe(201);
    expect((await put(h, p.sha256, 3, p.data)).status).toBe(200);
    expect(await count('captures')).toBe(1);
  });

  it('are refused when not what they claim, nothing saved', async () => {
    const p = packed([10, 20, 30]);
    const other = packed([1, 2, 3]);
    for (const [sha, n, data, status, words] of [
      [other.sha256, 3, p.data, 422, 'SHA-256'],
      [p.sha256, 4, p.data, 422, 'declares 4 values and holds 3'],
      [p.sha256, 2, p.data, 422, 'more than the 2 values'],
      [p.sha256, 3, Buffer.from('no gzip'), 422, 'no gzip'],
      [p.sha256, 0, p.data, 400, 'n'],
      ['abc', 3, p.data, 400, 'SHA-256'],
    ] as const) {
      const r = await put(h, sha, n, data);
      expect([r.status, JSON.stringify(r.body)]).toEqual([status, expect.stringContaining(words)]);
    }
    expect(await count('captures')).toBe(0);
  });

  it('stop inflating at the declared size', async () => {
    const bomb = gzipSync(Buffer.alloc(64 * 1024 * 1024));
    expect(bomb.length).toBeLessThan(100_000);
    const r = await put(h, '0'.repeat(64), 1000, bomb);
    expect([r.status, r.body.errors[0].message]).toEqual([
      422,
      expect.stringContaining('more than the 1000 values'),
    ]);
  });

  it('must be bytes', async () => {
    const r = await h.api.put(`/api/captures/${'0'.repeat(64)}?n=3`).send({ a: 1 });
    expect(r.status).toBe(415);
  });

  it('nobody points to go a day later', async () => {
    await send(h, [1, 2]);
    h.clock.now = new Date(NOW.getTime() + 25 * 3_600_000);
    await send(h, [3, 4]);
    expect(await count('captures')).toBe(1);
  });
});

describe('a run', () => {
  it('is stored with its chain and statistics, on record', async () => {
    const run = await addRun(h, setup.id, [...steady(900, 10), ...steady(100, 20)], {
      settings: { resolution: '2560x1440', lid: 'open' },
      saw: 'a jerk',
    });
    expect(run.stats).toMatchObject({
      frames: 1000,
      averageFps: expect.closeTo(1_000_000 / 11_000, 6) as number,
    });
    expect(run.facts).toMatchObject({
      card: 'Alder C Runs',
      resolution: '2560x1440',
      title: 'Peat Rally',
      driver: '',
    });
    expect(run.saw).toBe('a jerk');
    const record = (await h.api.get(`/api/setups/${setup.id}/record`)).body.items as {
      kind: string;
      body: object;
    }[];
    expect(record.find((e) => e.kind === 'run')?.body).toMatchObject({
      title: 'Peat Rally',
      kind: 'frames',
    });
    const back = await h.api
      .get(`/api/runs/${run.id}/channels/frames`)
      .buffer(true)
      .parse((res, done) => {
        const parts: Buffer[] = [];
        res.on('data', (d: Buffer) => parts.push(d));
        res.on('end', () => done(null, Buffer.concat(parts)));
      });
    expect(back.body.equals(packed([...steady(900, 10), ...steady(100, 20)]).data)).toBe(true);
  });

  it('keeps its chain when the setup changes', async () => {
    const run = await addRun(h, setup.id, steady(100, 10));
    const other = await addSetup(h, 'Other');
    await h.api
      .patch(`/api/setups/${setup.id}`)
      .set('If-Match', `"${setup.rev}"`)
      .send({ slots: { card: other.slots.card } });
    expect((await h.api.get(`/api/runs/${run.id}`)).body.facts.card).toBe('Alder C Runs');
  });

  it('is answered, not doubled, when it comes twice', async () => {
    const id = randomUUID();
    await addRun(h, setup.id, steady(100, 10), { id });
    const body = {
      id,
      titleId: await title(h),
      kind: 'frames',
      channels: [{ channel: 'frames', ...(await send(h, steady(100, 10))) }],
    };
    expect((await h.api.post(`/api/setups/${setup.id}/runs`).send(body)).status).toBe(200);
    expect([await count('runs'), await count(`events WHERE kind = 'run'`)]).toEqual([1, 1]);
  });

  it.each([
    [
      'frames that were never sent',
      { kind: 'frames', channels: [{ channel: 'frames', n: 3, sha256: 'a'.repeat(64) }] },
      'have not been sent',
    ],
    ['no frames', { kind: 'frames' }, 'needs its frames'],
    ['a score without one', { kind: 'score' }, 'Result'],
    ['a time of nothing', { kind: 'time', result: { value: 0, unit: 's' } }, 'above 0'],
    ['no reason', { kind: 'none' }, 'Why'],
    [
      'a resolution that is none',
      { kind: 'none', reason: 'x', settings: { resolution: 'big' } },
      '2560x1440',
    ],
    [
      'a scene that ends before it begins',
      { kind: 'none', reason: 'x', segments: [{ name: 'a', fromS: 5, toS: 4 }] },
      'after the beginning',
    ],
    [
      'a title nobody knows',
      { kind: 'none', reason: 'x', titleId: randomUUID() },
      'No title has this id',
    ],
    ['the future', { kind: 'none', reason: 'x', happenedAt: '2027-01-01T00:00:00Z' }, 'future'],
  ])('is refused with %s, and nothing is stored', async (_, body, words) => {
    const r = await h.api
      .post(`/api/setups/${setup.id}/runs`)
      .send({ id: randomUUID(), titleId: await title(h), ...body });
    expect(r.status).toBeGreaterThanOrEqual(400);
    expect(JSON.stringify(r.body)).toContain(words);
    expect([await count('runs'), await count(`events WHERE kind = 'run'`)]).toEqual([0, 0]);
  });

  it('is never changed in the database', async () => {
    const run = await addRun(h, setup.id, steady(10, 10));
    await expect(
      h.db.query('UPDATE runs SET kind = $1 WHERE id = $2', { bind: ['score', run.id] }),
    ).rejects.toThrow(/append-only/);
  });
});

describe('what is said of a run later', () => {
  it('holds from then on, the newest word wins', async () => {
    const run = await addRun(h, setup.id, steady(100, 10), { settings: { lid: 'open' } });
    const say = (body: object) =>
      h.api.post(`/api/runs/${run.id}/said`).send({ id: randomUUID(), ...body });
    await say({
      settings: { lid: 'closed', preset: 'High' },
      context: { method: 'trace' },
      saw: 'nothing odd',
    });
    const now = (await say({ settings: { preset: 'Low' } })).body as RunEntry;
    expect(now.settings).toMatchObject({ lid: 'closed', preset: 'Low' });
    expect([now.context.method, now.saw, now.facts.lid]).toEqual([
      'trace',
      'nothing odd',
      'closed',
    ]);
    expect((await h.rows<{ s: { lid: string } }>('SELECT settings AS s FROM runs'))[0]?.s.lid).toBe(
      'open',
    );
  });

  it('makes figures anew: a beginning cut, scenes of their own', async () => {
    const run = await addRun(h, setup.id, [...steady(50, 40), ...steady(400, 10)]);
    const r = await h.api
      .post(`/api/runs/${run.id}/said`)
      .send({ id: randomUUID(), cutS: 2, segments: [{ name: 'start', fromS: 0, toS: 2 }] });
    expect(r.body.stats).toMatchObject({
      frames: 400,
      averageFps: expect.closeTo(100, 6) as number,
    });
    expect(r.body.segmentStats[0]).toMatchObject({ frames: 50, below30: { frames: 50 } });
    const all = await h.api.post(`/api/runs/${run.id}/said`).send({ id: randomUUID(), cutS: 900 });
    expect([all.status, all.body.errors[0].message]).toEqual([
      422,
      expect.stringContaining('nothing is left'),
    ]);
    expect((await h.api.get(`/api/runs/${run.id}`)).body.cutS).toBe(2);
  });

  it('adds sensors and moves them, and never replaces frames', async () => {
    const run = await addRun(h, setup.id, steady(100, 10));
    const sensor = { channel: 'card-w', t0Ms: 0, dtMs: 500, ...(await send(h, [100, 120])) };
    const r = await h.api
      .post(`/api/runs/${run.id}/said`)
      .send({ id: randomUUID(), channels: [sensor] });
    expect(r.body.channels).toContainEqual(sensor);
    const moved = await h.api
      .post(`/api/runs/${run.id}/said`)
      .send({ id: randomUUID(), starts: { 'card-w': -500 } });
    expect(moved.body.channels.find((c: { channel: string }) => c.channel === 'card-w').t0Ms).toBe(
      -500,
    );
    const frames = { channel: 'frames', ...(await send(h, [1])) };
    expect(
      (await h.api.post(`/api/runs/${run.id}/said`).send({ id: randomUUID(), channels: [frames] }))
        .status,
    ).toBe(422);
  });

  it('a retracted run is read no more, but on record', async () => {
    const run = await addRun(h, setup.id, steady(100, 10));
    const r = await h.api
      .post(`/api/setups/${setup.id}/struck`)
      .send({ id: randomUUID(), corrects: run.id, reason: 'another setup' });
    expect(r.status).toBeLessThan(300);
    expect((await h.api.get('/api/runs')).body.items).toEqual([]);
    expect((await h.api.get(`/api/runs/${run.id}`)).status).toBe(404);
    expect(await count('runs')).toBe(1);
  });
});

describe('lists, titles, layouts, sessions', () => {
  it('pages through runs without losing or doubling one', async () => {
    for (let i = 0; i < 5; i++) await addRun(h, setup.id, steady(10 + i, 10));
    const seen: string[] = [];
    let cursor = '';
    do {
      const page = (
        await h.api.get(`/api/runs?limit=2${cursor && `&cursor=${encodeURIComponent(cursor)}`}`)
      ).body as {
        items: RunEntry[];
        next: string | null;
      };
      seen.push(...page.items.map((r) => r.id));
      cursor = page.next ?? '';
    } while (cursor);
    expect(new Set(seen).size).toBe(5);
    expect(seen).toHaveLength(5);
  });

  it('meets a title of its name, refuses other kinds', async () => {
    expect(await title(h, 'Peat Rally')).toBe(await title(h, 'peat rally'));
    expect(
      (
        await h.api
          .post('/api/profiles')
          .send({ id: randomUUID(), name: 'Peat Rally', kind: 'work' })
      ).status,
    ).toBe(409);
  });

  it('remembers how a layout is read, the newest word', async () => {
    const mapping = {
      delimiter: ',',
      decimal: '.',
      comment: '',
      skip: 0,
      header: true,
      columns: [{ role: 'frame', unit: 'ms' }],
    };
    await h.api.post('/api/csv-mappings').send({ signature: ',.a', mapping });
    await h.api
      .post('/api/csv-mappings')
      .send({ signature: ',.a', mapping: { ...mapping, decimal: ',' } });
    const { items } = (await h.api.get('/api/csv-mappings')).body;
    expect(items).toHaveLength(1);
    expect(items[0].mapping.decimal).toBe(',');
  });

  it('plans and drops a session', async () => {
    const body = {
      id: randomUUID(),
      name: 'a',
      factors: [{ dimension: 'lid', levels: ['open', 'closed'], minutes: 1 }],
      repeats: 3,
      percent: 5,
    };
    expect((await h.api.post('/api/sessions').send(body)).status).toBe(201);
    expect((await h.api.post('/api/sessions').send(body)).status).toBe(200);
    expect(
      (await h.api.post('/api/sessions').send({ ...body, id: randomUUID(), factors: [] })).status,
    ).toBe(422);
    expect((await h.api.delete(`/api/sessions/${body.id}`)).body.items).toEqual([]);
    expect((await h.api.delete(`/api/sessions/${body.id}`)).status).toBe(404);
  });
});
