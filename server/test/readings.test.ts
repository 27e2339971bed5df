import type { ReadingEntry } from '@ruddy/core/bring-up/contract';
import { NOTHING_INSTALLED } from '@ruddy/core/parts';
import type { Setup } from '@ruddy/core/setups/contract';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addPart, addSetup, start, type Harness } from './harness';

let h: Harness;
beforeAll(async () => {
  h = await start();
});
afterAll(() => h.close());

const copy = { value: 24, unit: 'Gb/s', direction: 'down', memory: 'pinned' };
async function post(setup: Setup, reading: object, id: string = randomUUID()) {
  return h.api.post(`/api/setups/${setup.id}/readings`).send({ id, reading });
}
const newest = (r: { body: unknown }) =>
  (r.body as { items: ReadingEntry[] }).items[0] as ReadingEntry;

const LISTING = [
  '00:07.0 PCI bridge [0604]: Harnsey L-13 root port [e001:0001]',
  '\tBus: primary=00, secondary=20, subordinate=49, sec-latency=0',
  '\tCapabilities: [40] Express (v2) Root Port (Slot+), MSI 00',
  '\t\tLnkCap: Port #7, Speed 2.5GT/s, Width x4',
  '\t\tLnkSta: Speed 2.5GT/s, Width x4',
  '\tCapabilities: [148 v1] Device Serial Number 48-b0-2d-ff-ff-1a-2b-3c',
  '02:00.0 Ethernet controller [0200]: Harnsey LAN [e001:0009]',
  '\tCapabilities: [40] Express (v2) Endpoint, MSI 00',
].join('\n');

describe('BU-06 readings are kept as they were graded', () => {
  it('a copy rate is graded against the chain and survives', async () => {
    const setup = await addSetup(h, 'Graded');
    const r = await post(setup, { load: 'load', copy });
    expect(r.status).toBe(201);
    expect(newest(r)).toMatchObject({
      grade: 'healthy',
      overall: 'healthy',
      gbps: 24,
      core: '7.0',
      reading: { copy: { value: 24 } },
    });
    expect(newest(r).sentence).toBe('24.0 of 26.0 Gb/s, 92 %: healthy.');
    const again = await h.api.get(`/api/setups/${setup.id}/readings`);
    expect(newest(again)).toEqual(newest(r));
    const record = await h.api.get(`/api/setups/${setup.id}/record`);
    expect((record.body as { items: { kind: string }[] }).items.map((e) => e.kind)).toContain(
      'reading',
    );
  });

  it('a later plan leaves the grade, the record is append-only', async () => {
    const setup = await addSetup(h, 'Kept');
    const first = newest(await post(setup, { load: 'load', copy }));
    const cable = await addPart(h, 'cable', { model: 'K half', markedGbps: 20 });
    await h.api
      .patch(`/api/setups/${setup.id}`)
      .set('If-Match', '"1"')
      .send({ slots: { path: [cable.id] } });
    const second = newest(await post(setup, { load: 'load', copy }));
    expect([first.grade, second.grade]).toEqual(['healthy', 'impossible']);
    const kept = (await h.api.get(`/api/setups/${setup.id}/readings`)).body as {
      items: ReadingEntry[];
    };
    expect(kept.items.map((e) => e.grade)).toEqual(['impossible', 'healthy']);
    await expect(h.rows(`DELETE FROM events WHERE kind = 'reading'`)).rejects.toThrow(
      /append-only/,
    );
  });

  it('a repeated id is answered, another fact with it refused', async () => {
    const a = await addSetup(h, 'Once');
    const b = await addSetup(h, 'Other');
    const id = randomUUID();
    expect((await post(a, { load: 'load', copy }, id)).status).toBe(201);
    expect((await post(a, { load: 'load', copy }, id)).status).toBe(200);
    expect((await post(b, { load: 'load', copy }, id)).status).toBe(409);
    expect(
      ((await h.api.get(`/api/setups/${a.id}/readings`)).body as { items: unknown[] }).items,
    ).toHaveLength(1);
  });

  it.each([
    [{ load: 'load' }, 'reading/copy'],
    [{ copy: { ...copy, value: -1 } }, 'reading/copy/value'],
    [{ copy: { ...copy, unit: 'bananas' } }, 'reading/copy/unit'],
    [{ cardSpan: { gen: 9, lanes: 4 } }, 'reading/cardSpan/gen'],
    [{ copy, serial: '1' }, 'reading'],
  ])('%j is refused at %s, and nothing is stored', async (reading, place) => {
    const setup = await addSetup(h, randomUUID().slice(0, 8));
    const r = await post(setup, reading);
    expect(r.status).toBe(422);
    expect((r.body as { errors: { path: string }[] }).errors[0]?.path).toBe(place);
    expect(
      ((await h.api.get(`/api/setups/${setup.id}/readings`)).body as { items: unknown[] }).items,
    ).toEqual([]);
  });

  it('a reading from tomorrow is refused', async () => {
    const setup = await addSetup(h, 'Future');
    const body = {
      id: randomUUID(),
      happenedAt: '2026-11-22T00:00:00Z',
      reading: { load: 'load', copy },
    };
    expect((await h.api.post(`/api/setups/${setup.id}/readings`).send(body)).status).toBe(422);
    expect(
      (
        await h.api
          .post(`/api/setups/${randomUUID()}/readings`)
          .send({ ...body, happenedAt: undefined })
      ).status,
    ).toBe(404);
  });
});

describe('BU-06 pasted listings', () => {
  it('are read unstored; stored reports lose serial numbers', async () => {
    const r = await h.api.post('/api/reports').send({ text: LISTING });
    expect(r.status).toBe(200);
    expect(JSON.stringify(r.body)).not.toContain('48-b0');
    const setup = await addSetup(h, 'Pasted');
    const stored = newest(
      await post(setup, { load: 'load', report: (r.body as { report: object }).report }),
    );
    expect(stored.overall).toBe('no-card');
    expect(stored.reading.report?.devices.map((d) => d.address)).toEqual(['0000:00:07.0']);
  });

  it.each([
    ['', 'Nothing was pasted'],
    ['x'.repeat(5_000_000), '5.0 million characters'],
    ['\u0001\u0002', 'is no text'],
    ['hello', 'no line begins like a device'],
  ])('%#: a clear error', async (text, words) => {
    const r = await h.api.post('/api/reports').send({ text });
    expect(r.status).toBe(422);
    expect(JSON.stringify(r.body)).toContain(words);
  });

  it('the report has a published schema', async () => {
    const r = await h.api.get('/api/schemas/report');
    expect(r.body).toMatchObject({ type: 'object', properties: { devices: { type: 'array' } } });
    expect((await h.api.get('/api/schemas/adapter')).status).toBe(200);
  });
});

describe('PA-01 adapters and what hangs on the dock', () => {
  it('an adapter fills a slot of the path, and loads survive', async () => {
    const setup = await addSetup(h, 'Adapted');
    const spec = {
      maker: 'Alder',
      model: 'T-1',
      hostEnd: 'm2',
      farEnd: 'oculink-4i',
      pcieGen: 4,
      lanes: 4,
    };
    const adapter = await h.api
      .post('/api/parts')
      .send({ id: randomUUID(), kind: 'adapter', spec });
    expect(adapter.status).toBe(201);
    const load = { kind: 'hub', downGbps: 5, upGbps: 2, ownLead: 'no' };
    const r = await h.api
      .patch(`/api/setups/${setup.id}`)
      .set('If-Match', '"1"')
      .send({
        slots: { path: [(adapter.body as { id: string }).id] },
        loads: [load],
        installed: { dockFirmware: '1.8' },
      });
    expect(r.status).toBe(200);
    const back = (await h.api.get(`/api/setups/${setup.id}`)).body as Setup;
    expect(back.loads[0]).toMatchObject(load);
    expect(back.installed).toEqual({ ...NOTHING_INSTALLED, dockFirmware: '1.8' });
    const e = await h.api.post('/api/evaluate').send({ setupId: setup.id });
    expect((e.body as { chain: { loads: unknown[] } }).chain.loads).toHaveLength(1);
    const record = JSON.stringify((await h.api.get(`/api/setups/${setup.id}/record`)).body);
    expect(record).toContain('"slot":"loads"');
  });

  it('a dock is no piece of a path', async () => {
    const setup = await addSetup(h, 'Wrong piece');
    const r = await h.api
      .patch(`/api/setups/${setup.id}`)
      .set('If-Match', '"1"')
      .send({ slots: { path: [setup.slots.dock] } });
    expect(JSON.stringify(r.body)).toContain('No cable or adapter has this id');
  });
});

// Last: a second database takes the models with it.
describe('WS-03 readings in the one file', () => {
  it('readings leave with the export and come back from it', async () => {
    const setup = await addSetup(h, 'Exported');
    const stored = newest(await post(setup, { load: 'load', copy, note: 'window open' }));
    const bundle = (await h.api.get('/api/bundle')).body as {
      events: { id: string; body: unknown }[];
    };
    const other = await start();
    try {
      expect((await other.api.post('/api/bundle').send(bundle)).status).toBe(200);
      const back = newest(await other.api.get(`/api/setups/${setup.id}/readings`));
      expect(back.reading).toEqual(stored.reading);
      const broken = {
        ...bundle,
        events: bundle.events.map((e) =>
          e.id === stored.id ? { ...e, id: randomUUID(), body: { reading: 1 } } : e,
        ),
      };
      const refused = await other.api.post('/api/bundle').send(broken);
      expect(refused.status).toBe(422);
      expect(JSON.stringify(refused.body)).toContain('/body/reading');
    } finally {
      await other.close();
    }
  });
});
