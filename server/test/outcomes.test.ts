import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { OutcomeEntry } from '@ruddy/core/compatibility/contract';
import { addPart, addSetup, start, type Harness } from './harness';

let h: Harness;
beforeAll(async () => {
  h = await start();
});
afterAll(() => h.close());

const outcome = (over: object = {}) => ({
  id: randomUUID(),
  outcome: 'works',
  happenedOn: '2026-11-03',
  versions: { driver: '41.2' },
  ...over,
});
const log = (id: string, over: object = {}) =>
  h.api.post(`/api/setups/${id}/outcomes`).send(outcome(over));
const evidence = async (setupId: string) =>
  (await h.api.post('/api/evaluate').send({ setupId, evidence: 'log' })).body.evaluation.observed
    .exact;

describe('CO-02 outcomes', () => {
  it('is stored with its chain, in record and log', async () => {
    const s = await addSetup(h, 'log it');
    const r = await log(s.id, { symptoms: ['coil whine'], note: 'private words' });
    expect(r.status).toBe(201);
    const other = await addPart(h, 'card', { model: 'later' });
    await h.api
      .patch(`/api/setups/${s.id}`)
      .set('If-Match', '"1"')
      .send({ slots: { card: other.id } });
    const [entry] = (await h.api.get(`/api/outcomes?setupId=${s.id}`)).body.items as OutcomeEntry[];
    expect(entry).toMatchObject({
      outcome: 'works',
      symptoms: ['coil whine'],
      note: 'private words',
      chain: { card: 'Alder C log it' },
    });
    const record = (await h.api.get(`/api/setups/${s.id}/record`)).body.items as {
      kind: string;
      body: { note?: string };
    }[];
    expect(record.find((e) => e.kind === 'outcome')?.body.note).toBe('private words');
    expect((await h.api.get('/api/outcomes?q=coil whine')).body.items).toHaveLength(1);
  });

  it('answers a repeated request and refuses the same outcome under another id', async () => {
    const s = await addSetup(h, 'twice');
    const body = outcome();
    expect((await h.api.post(`/api/setups/${s.id}/outcomes`).send(body)).status).toBe(201);
    expect((await h.api.post(`/api/setups/${s.id}/outcomes`).send(body)).status).toBe(200);
    expect((await log(s.id)).status).toBe(409);
    expect(
      await h.rows('SELECT 1 FROM events WHERE setup_id = $1 AND kind = $2', [s.id, 'outcome']),
    ).toHaveLength(1);
  });

  it('ten retries of one evening count once; other versions count apart', async () => {
    const s = await addSetup(h, 'retries');
    for (let i = 0; i < 9; i++) await log(s.id, { outcome: 'fails', note: `try ${i}` });
    await log(s.id, { outcome: 'works', note: 'try 10' });
    expect(await evidence(s.id)).toMatchObject({ n: 1, works: 1, fails: 0 });
    await log(s.id, { outcome: 'fails', versions: { driver: '41.3' }, happenedOn: '2026-11-04' });
    expect(await evidence(s.id)).toMatchObject({ n: 2, works: 1, fails: 1, newest: '2026-11-04' });
  });

  it('another setup of the chain counts, another card does not', async () => {
    const s = await addSetup(h, 'same chain');
    const cable = await addPart(h, 'cable', { model: 'other cable' });
    const card = await addPart(h, 'card', { model: 'other card' });
    const make = async (over: object) =>
      (
        await h.api
          .post('/api/setups')
          .send({ id: randomUUID(), name: 'x', slots: { ...s.slots, ...over } })
      ).body.id as string;
    await log(await make({ path: [cable.id] }));
    await log(await make({ card: card.id }), { outcome: 'fails' });
    expect(await evidence(s.id)).toMatchObject({ n: 1, works: 1 });
  });

  it('a correction stands in for what it corrects; both stay on record', async () => {
    const s = await addSetup(h, 'correct');
    const wrong = (await log(s.id, { outcome: 'fails' })).body as OutcomeEntry;
    const right = await log(s.id, { outcome: 'care', corrects: wrong.id });
    expect(right.body.corrects).toBe(wrong.id);
    expect(await evidence(s.id)).toMatchObject({ n: 1, care: 1, fails: 0 });
    const all = (await h.api.get(`/api/outcomes?setupId=${s.id}`)).body.items as OutcomeEntry[];
    expect(all.find((e) => e.id === wrong.id)?.correctedBy).toBe(right.body.id);
    const stranger = await addSetup(h, 'stranger');
    expect(
      (await log(stranger.id, { corrects: wrong.id, note: 'other' })).body.errors[0].path,
    ).toBe('corrects');
  });

  it('is superseded when the setup is logged later under other versions', async () => {
    const s = await addSetup(h, 'superseded');
    await log(s.id, { happenedOn: '2026-10-01', versions: { driver: '40' } });
    await log(s.id, { happenedOn: '2026-11-01', versions: { driver: '41' } });
    const all = (await h.api.get(`/api/outcomes?setupId=${s.id}`)).body.items as OutcomeEntry[];
    expect(all.map((e) => e.superseded)).toEqual([false, true]);
    expect((await h.api.get(`/api/outcomes?setupId=${s.id}&newest=true`)).body.items).toHaveLength(
      1,
    );
  });

  it('refuses future days, unknown outcomes and setups without parts', async () => {
    const s = await addSetup(h, 'bad');
    expect((await log(s.id, { happenedOn: '2026-12-01' })).body.errors[0]).toMatchObject({
      path: 'happenedOn',
    });
    expect((await log(s.id, { outcome: 'great' })).body.errors[0]).toMatchObject({
      path: 'outcome',
    });
    expect((await log(s.id, { happenedOn: '2026-02-30' })).status).toBe(422);
    const empty = (await h.api.post('/api/setups').send({ id: randomUUID(), name: 'nothing' }))
      .body;
    expect((await log(empty.id)).body.detail).toContain('no parts yet');
    expect(await h.rows('SELECT 1 FROM log_entries WHERE setup_id = $1', [s.id])).toHaveLength(0);
  });

  it('numbers facts without a gap when many arrive at once', async () => {
    const s = await addSetup(h, 'gapless');
    const sent = await Promise.all(
      Array.from({ length: 12 }, (_, i) => log(s.id, { note: `n${i}` })),
    );
    expect(sent.every((r) => r.status === 201)).toBe(true);
    const rows = await h.rows<{ seq: number }>(
      'SELECT seq FROM events WHERE setup_id = $1 ORDER BY seq',
      [s.id],
    );
    expect(rows.map((r) => r.seq)).toEqual(Array.from({ length: 13 }, (_, i) => i + 1));
  });

  it('the database refuses to change facts, only private words go', async () => {
    const s = await addSetup(h, 'facts');
    const { id } = (await log(s.id, { note: 'my name' })).body;
    await expect(
      h.db.query(`UPDATE log_entries SET outcome = 'fails' WHERE id = '${id}'`),
    ).rejects.toThrow('append-only');
    await expect(h.db.query(`DELETE FROM events WHERE id = '${id}'`)).rejects.toThrow(
      'append-only',
    );
    await h.db.query(`UPDATE log_entries SET private = NULL WHERE id = '${id}'`);
    const [entry] = (await h.api.get(`/api/outcomes?setupId=${s.id}`)).body.items;
    expect(entry).toMatchObject({ outcome: 'works', note: '' });
  });
});
