import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Practice, PracticeList } from '@ruddy/core/bench/contract';
import type { TablesRead } from '@ruddy/core/troubleshoot/contract';
import { addSetup, start, type Harness } from './harness';

let h: Harness;
beforeAll(async () => {
  h = await start();
});
afterAll(() => h.close());

async function begin(body: object = {}): Promise<Practice> {
  const r = await h.api.post('/api/practices').send({ id: randomUUID(), ...body });
  expect([r.status, r.body.errors]).toEqual([201, undefined]);
  return r.body as Practice;
}
const ask = (p: Practice, test: string) =>
  h.api.post(`/api/practices/${p.id}/tests`).send({ id: randomUUID(), test });
const name = (p: Practice, cause: string) =>
  h.api.post(`/api/practices/${p.id}/named`).send({ cause });

describe('BE-05 practice on a hidden fault', () => {
  it('hidden things stay hidden until a cause is named', async () => {
    const p = await begin({ caseNo: 4 });
    expect(p).toMatchObject({
      grade: 'middle',
      symptoms: ['low-copy'],
      steps: [],
      named: null,
      right: null,
      bestMinutes: null,
      ended: null,
    });
    const asked = (await ask(p, 'router-speed')).body as Practice;
    expect(asked.steps).toEqual([{ test: 'router-speed', says: 'yes' }]);
    for (const body of [
      p,
      asked,
      (await h.api.get(`/api/practices/${p.id}`)).body,
      (await h.api.get('/api/practices')).body,
    ])
      expect(JSON.stringify(body)).not.toMatch(/half-rate|"truth"|"faults"|"seed"/);
  });

  it('naming ends it with fault, best path and detour', async () => {
    const p = await begin({ caseNo: 4 });
    await ask(p, 'desktop-slot');
    await ask(p, 'router-speed');
    const over = (await name(p, 'cable-class')).body as Practice;
    expect(over).toMatchObject({
      right: true,
      named: 'cable-class',
      ended: { truth: ['cable-class'], faults: { 'cable-half-rate': 1 } },
    });
    expect(over.minutes).toBe(32 + 3);
    expect(over.ended?.best.says).toBe('cable-class');
    expect(over.ended?.best.minutes).toBeLessThan(over.minutes);
    expect(over.bestMinutes).toBe(over.ended?.best.minutes);
    expect(over.ended?.left).toMatchObject({ at: 0, why: 'worth' });
    expect((await name(p, 'heat')).status).toBe(409);
    expect((await ask(p, 'reseat')).status).toBe(409);
  });

  it('wrong names are wrong, repeated tests change nothing', async () => {
    const p = await begin({ caseNo: 1 });
    await ask(p, 'dock-dark');
    expect(((await ask(p, 'dock-dark')).body as Practice).steps).toHaveLength(1);
    expect(((await name(p, 'heat')).body as Practice).right).toBe(false);
    const again = await h.api.post('/api/practices').send({ id: p.id, caseNo: 2 });
    expect([again.status, (again.body as Practice).caseNo]).toEqual([200, 1]);
  });

  it('hides at random by seed; two at once count either', async () => {
    const setup = await addSetup(h, 'Practised on');
    const a = await begin({ setupId: setup.id, seed: 5 });
    const b = await begin({ setupId: setup.id, seed: 5 });
    expect(a.name).toBe('A hidden fault in Practised on');
    expect([b.symptoms, b.order]).toEqual([a.symptoms, a.order]);
    const two = await begin({ seed: 11, two: true });
    const over = (await name(two, 'none-of-these')).body as Practice;
    expect(Object.keys(over.ended?.faults ?? {})).toHaveLength(2);
    const right = (
      await name(
        await begin({ seed: 11, two: true }),
        over.ended!.truth[1] ?? over.ended!.truth[0]!,
      )
    ).body as Practice;
    expect(right.right).toBe(true);
  });

  it('says where nothing can be hidden, or what was wrong', async () => {
    const id = randomUUID();
    await h.api.post('/api/setups').send({ id, name: 'Nothing in it' });
    const empty = await h.api.post('/api/practices').send({ id: randomUUID(), setupId: id });
    expect([empty.status, empty.body.title]).toEqual([409, 'Nothing can be hidden in this chain']);
    const bad = async (body: object, place: string) => {
      const r = await h.api.post('/api/practices').send({ id: randomUUID(), ...body });
      expect([r.status, r.body.errors?.[0]?.path]).toEqual([422, place]);
    };
    await bad({ caseNo: 99 }, 'caseNo');
    await bad({ caseNo: 1, two: true }, 'caseNo');
    await bad({ seed: -1 }, 'seed');
    const p = await begin({ caseNo: 3 });
    const direct = await ask(p, 'router-listed');
    expect([direct.status, direct.body.errors?.[0]?.path]).toEqual([422, 'test']);
    expect((await ask(p, 'textures')).status).toBe(422);
    expect((await h.api.get(`/api/practices/${randomUUID()}`)).status).toBe(404);
  });

  it('lists cases, removes one, and never counts in the log', async () => {
    const list = (await h.api.get('/api/practices')).body as PracticeList;
    expect(list.cases.map((c) => c.grade)).toEqual(
      expect.arrayContaining(['easy', 'middle', 'hard']),
    );
    expect(list.items.length).toBeGreaterThan(3);
    const [first] = list.items;
    expect((await h.api.delete(`/api/practices/${first!.id}`)).status).toBe(200);
    expect(((await h.api.get('/api/practices')).body as PracticeList).items).toHaveLength(
      list.items.length - 1,
    );
    expect((await h.api.delete(`/api/practices/${first!.id}`)).status).toBe(404);
    expect(((await h.api.get('/api/faults/tables')).body as TablesRead).cases).toBe(0);
  });
});
