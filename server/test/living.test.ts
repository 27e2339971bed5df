import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { BringUp } from '@ruddy/core/bring-up/contract';
import type { SetupEvent } from '@ruddy/core/compatibility/contract';
import { NO_DOCKED } from '@ruddy/core/setups';
import type { Setup } from '@ruddy/core/setups/contract';
import { bundleSchema } from '@ruddy/core/workshop/contract';
import { bench, at, problem } from './bench';
import { addSetup, start, type Harness } from './harness';

let h: Harness;
beforeAll(async () => {
  h = await start();
});
afterAll(() => h.close());

const { note, read, begun } = bench(() => h);

describe('BU-08, BU-09 and CO-01 what belongs to the setup', () => {
  it('docked settings, programs, buttons and tuning survive on record', async () => {
    const setup = await addSetup(h, 'Docked');
    const docked = {
      ...NO_DOCKED,
      docked: { ...NO_DOCKED.docked, sustainedW: 28, peakW: 54 },
      programs: [{ name: 'Star stacker', uses: 'outside', forced: 'system', note: '' }],
      tuning: [{ what: 'Undervolt', from: '0', to: '-50 mV', gainPercent: 2, on: '2026-11-01' }],
    };
    const r = await h.api.patch(`/api/setups/${setup.id}`).set('If-Match', '"1"').send({ docked });
    expect((r.body as Setup).docked).toEqual(docked);
    const { items } = (await h.api.get(at(setup, 'record'))).body as { items: SetupEvent[] };
    const change = items.find((e) => e.kind === 'parts')?.body['changes'] as {
      slot: string;
      to: string;
    }[];
    expect(change.map((c) => [c.slot, c.to])).toEqual([
      ['docked settings', 'sustained 28 W, peak 54 W'],
      ['programs', 'Star stacker: the outside card, system setting per program'],
      ['tuning', 'Undervolt 0 to -50 mV: +2 %'],
    ]);
    const wrong = await h.api
      .patch(`/api/setups/${setup.id}`)
      .set('If-Match', '"2"')
      .send({ docked: { docked: { sustainedW: 4000 } } });
    expect(problem(wrong).errors?.[0]).toEqual({
      path: 'docked/docked/sustainedW',
      message: 'Sustained power: a number from 1 to 400 W, or nothing',
    });
  });

  it('a note names its photo and may be corrected', async () => {
    const setup = await addSetup(h, 'Notes');
    const first = {
      id: randomUUID(),
      text: 'fan cable torn',
      happenedOn: '2026-11-01',
      photo: 'shelf drive, 2026-11, IMG 14',
    };
    await h.api.post(at(setup, 'notes')).send(first);
    await h.api.post(at(setup, 'notes')).send({
      id: randomUUID(),
      text: 'not torn, only loose',
      happenedOn: '2026-11-02',
      corrects: first.id,
    });
    await h.api.post('/api/prices').send({
      id: randomUUID(),
      partId: setup.slots.dock,
      kind: 'paid',
      minor: 19900,
      currency: 'EUR',
      onDate: '2026-10-01',
    });
    const { items } = (await h.api.get(at(setup, 'record'))).body as { items: SetupEvent[] };
    expect(items.find((e) => e.id === first.id)?.body).toEqual({
      text: 'fan cable torn',
      photo: first.photo,
    });
    expect(items.find((e) => e.corrects === first.id)?.body['text']).toBe('not torn, only loose');
    expect(items.find((e) => e.kind === 'price')?.body).toMatchObject({
      part: 'Alder D Notes',
      minor: 19900,
      currency: 'EUR',
    });
    const bad = await h.api
      .post(at(setup, 'notes'))
      .send({ ...first, id: randomUUID(), corrects: randomUUID() });
    expect(problem(bad).errors?.[0]?.path).toBe('corrects');
  });

  it('BU-15 a reading keeps cable, piece and attempt until retracted', async () => {
    const { setup, attempt } = await begun('Readings');
    const item = randomUUID();
    await h.api.post('/api/items').send({ id: item, partId: setup.slots.path![0], label: 'K-07' });
    const { rev } = (await read(setup)).setup;
    const named = await h.api
      .patch(`/api/setups/${setup.id}`)
      .set('If-Match', `"${rev}"`)
      .send({ slots: { items: { 'path/0': item } } });
    expect(named.status).toBe(200);
    const id = randomUUID();
    const counts = { correctedBefore: 1, correctedAfter: 3, downs: 0, minutes: 10 };
    const reading = {
      load: 'load',
      cardSpan: { gen: 3, lanes: 4 },
      counts,
      window: { nowMB: 256 },
    };
    const r = await h.api.post(at(setup, 'readings')).send({ id, reading, attempt });
    expect((r.body as { items: object[] }).items[0]).toMatchObject({
      through: { cable: 'Alder K Readings', piece: 'K-07', port: 'left' },
      seen: { routerGbps: null, lanes: 4, gen: 3 },
      attempt,
      reading: { counts: { correctedAfter: 3 } },
    });
    await h.api
      .post(at(setup, 'struck'))
      .send({ id: randomUUID(), corrects: id, reason: 'wrong cable' });
    expect(((await h.api.get(at(setup, 'readings'))).body as { items: object[] }).items).toEqual(
      [],
    );
  });
});

it('export, import and export again are equal, corrections included', async () => {
  const { setup, attempt } = await begun('Carried');
  await note(setup, attempt, 'listed', {
    installed: { driver: '40' },
    state: 'failed',
    symptom: 'nothing-listed',
  });
  const id = randomUUID();
  await h.api
    .post(at(setup, 'tries'))
    .send({ id, order: 'dock-first', on: '2026-01-04', worked: false });
  await h.api
    .post(at(setup, 'struck'))
    .send({ id: randomUUID(), corrects: id, reason: 'mixed up' });
  await h.api
    .post(at(setup, 'notes'))
    .send({ id: randomUUID(), text: 'x', happenedOn: '2026-01-05', photo: 'here' });
  const good = { id: randomUUID(), outcome: 'care', good: true };
  await note(setup, attempt, 'log-entry', { outcome: good, ends: true });
  const file = (await h.api.get('/api/bundle')).body as {
    events: { body: { attempt?: unknown } }[];
  };
  expect(bundleSchema.safeParse(file).success).toBe(true);
  const broken = structuredClone(file) as unknown as {
    events: { kind: string; body: Record<string, unknown> }[];
  };
  const step = broken.events.findIndex((e) => e.kind === 'step');
  broken.events[step]!.body['state'] = 'perhaps';
  // Last in the file: the models belong to the connection opened last.
  const other = await start();
  try {
    expect((await other.api.post('/api/bundle').send(broken)).body).toMatchObject({
      errors: [{ path: `events/${step}/body/state` }],
    });
    expect((await other.api.post('/api/bundle').send(file)).status).toBe(200);
    expect((await other.api.get('/api/bundle')).body).toEqual(file);
    const there = (await other.api.get(at(setup, 'bring-up'))).body as BringUp;
    expect(there.attempts[0]).toMatchObject({ no: 1, ended: { outcome: 'passed', worked: false } });
    expect(there.tried).toMatchObject([{ order: 'all-off', worked: false }]);
  } finally {
    await other.close();
  }
});
