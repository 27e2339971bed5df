import { inTransaction } from '../src/platform/db/transaction';
import { randomUUID } from 'node:crypto';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { Bundle, DemoReport } from '@ruddy/core/workshop/contract';
import { loadBundle } from '../src/workshop/bundle-load';
import { firstStart } from '../src/workshop/demo';
import { THIS_MACHINE } from '../src/platform/http/route';
import { DEMO_FILE } from '../../scripts/lib/paths.mjs';
import { addPart, addSetup, demoBundle, NOW, start, type Harness } from './harness';

let h: Harness;
beforeEach(async () => {
  h = await start();
});
afterEach(() => h.close());

const count = async (table: string) =>
  (await h.rows<{ n: number }>(`SELECT count(*)::int AS n FROM ${table}`))[0]?.n;
const loadDemo = () =>
  inTransaction(() => loadBundle(demoBundle(), { origin: 'demo', by: THIS_MACHINE.id, now: NOW }));
/** Exchange the empty database of a test for one with the demo data. */
const startDemo = async () => {
  await h.close();
  h = await start({ demo: true });
};
const exported = async () => (await h.api.get('/api/bundle')).body as Bundle;

describe('one bundle, one loader', () => {
  it('the demo world holds what it says, over twelve months', async () => {
    await startDemo();
    const kinds = await h.rows<{ kind: string; n: number }>(
      'SELECT kind, count(*)::int AS n FROM parts GROUP BY kind ORDER BY kind',
    );
    expect(kinds).toEqual([
      { kind: 'adapter', n: 3 },
      { kind: 'cable', n: 14 },
      { kind: 'card', n: 20 },
      { kind: 'desktop', n: 2 },
      { kind: 'dock', n: 17 },
      { kind: 'host', n: 14 },
      { kind: 'laptop', n: 2 },
      { kind: 'release', n: 9 },
      { kind: 'requirement', n: 8 },
      { kind: 'screen', n: 5 },
      { kind: 'supply', n: 6 },
      { kind: 'system', n: 4 },
    ]);
    expect([await count('setups'), await count('log_entries')]).toEqual([22, 48]);
    const [span] = await h.rows<{ days: number }>(
      'SELECT max(happened_on) - min(happened_on) AS days FROM log_entries',
    );
    expect(span?.days).toBeGreaterThan(330);
    const verdicts = (
      (await h.api.get('/api/setups?retired=true')).body.items as { glance: { verdict: string } }[]
    ).map((s) => s.glance.verdict);
    expect(new Set(verdicts)).toEqual(new Set(['works', 'care', 'blocked', 'unknown']));
  });

  it('loads on the first start only, and never when unwanted', async () => {
    const s = { now: () => NOW };
    expect(await firstStart(s, null)).toBe('empty');
    expect(await firstStart(s, DEMO_FILE)).toBe('later');
    expect(await count('parts')).toBe(0);
  });

  it('loading twice changes nothing', async () => {
    await startDemo();
    const before = await exported();
    expect((await loadDemo()).stored).toEqual({});
    expect(await exported()).toEqual(before);
  });

  it('export, wipe, import, export: equal', async () => {
    await startDemo();
    const s = await addSetup(h, 'mine', { path: [] });
    await h.api.post(`/api/setups/${s.id}/outcomes`).send({
      id: randomUUID(),
      outcome: 'care',
      happenedOn: '2026-11-01',
      note: 'kept',
      confidence: 0.7,
    });
    await h.api
      .post(`/api/setups/${s.id}/notes`)
      .send({ id: randomUUID(), text: 'a note', happenedOn: '2026-11-02' });
    await h.api.post(`/api/setups/${s.id}/clone`).send({ id: randomUUID(), name: 'mine too' });
    await h.api
      .put('/api/rules/link.flowControlPercent')
      .set('If-Match', '"0"')
      .send({ value: 3, reason: 'measured' });
    const before = await exported();
    const other = await start();
    try {
      const r = await other.api.post('/api/bundle').send(before);
      expect(r.status).toBe(200);
      expect((await other.api.get('/api/bundle')).body).toEqual(before);
    } finally {
      await other.close();
    }
  });

  it('copies of copies are loaded whatever their order in the file', async () => {
    const bundle = demoBundle();
    const base = bundle.setups[0]!;
    bundle.setups = [
      { ...base, id: 'third', clonedFrom: 'second' },
      { ...base, id: 'second', clonedFrom: 'first' },
      { ...base, id: 'first', clonedFrom: null },
    ];
    bundle.outcomes = [];
    bundle.events = [];
    bundle.runs = [];
    bundle.loans = [];
    expect((await h.api.post('/api/bundle').send(bundle)).status).toBe(200);
    const again = await exported();
    const by = (id: string | null) => again.setups.find((s) => s.id === id);
    const third = again.setups.find(
      (s) => s.clonedFrom !== null && by(s.clonedFrom)?.clonedFrom !== null,
    );
    expect(by(by(third!.clonedFrom)!.clonedFrom)?.clonedFrom).toBeNull();
  });

  it('a part known here under another id is met, not doubled', async () => {
    const part = await addPart(h, 'card', { model: 'known' });
    const bundle = {
      ...demoBundle(),
      setups: [],
      events: [],
      outcomes: [],
      items: [],
      itemFacts: [],
      prices: [],
      rates: [],
      statedFigures: [],
      runs: [],
      captures: [],
      profiles: [],
      chains: [],
      claims: [],
      titleNotes: [],
      searches: [],
      feeds: [],
      members: [],
      loans: [],
      sessions: [],
      parts: [{ id: 'their.card', kind: 'card', spec: part.spec }],
    };
    expect((await h.api.post('/api/bundle').send(bundle)).body).toEqual({
      stored: {},
      same: { parts: 1 },
    });
    expect(await count('parts')).toBe(1);
  });

  it.each([
    [
      'a part that is not in the file',
      (b: Bundle) => void (b.setups[3]!.slots.card = 'card.none'),
      'setups/3/slots/card',
    ],
    [
      'an outcome of no setup',
      (b: Bundle) => void (b.outcomes[7]!.setupId = 'nobody'),
      'outcomes/7/setupId',
    ],
    [
      'a port its host does not have',
      (b: Bundle) => void (b.setups[0]!.slots.socket = 'roof'),
      'setups/0/slots/socket',
    ],
    [
      'a value outside its limits',
      (b: Bundle) => void (b.rules = [{ id: 'link.flowControlPercent', value: 99, reason: '' }]),
      'rules/0/value',
    ],
  ])('refuses a file with %s, names the place and stores nothing', async (_what, spoil, place) => {
    const bundle = demoBundle();
    spoil(bundle);
    const r = await h.api.post('/api/bundle').send(bundle);
    expect(r.status).toBe(422);
    expect(r.body.errors[0].path).toBe(place);
    expect([await count('parts'), await count('setups'), await count('events')]).toEqual([0, 0, 0]);
  });

  it('refuses another format by name', async () => {
    const r = await h.api.post('/api/bundle').send({ ...demoBundle(), format: 'something-else' });
    expect(r.body.errors[0]).toEqual({
      path: 'format',
      message: 'format: must be "ruddy-bridge/bundle"',
    });
  });
});

describe('WS-03 removing the demo data', () => {
  const own = 'SELECT id FROM setups WHERE origin <> $1 ORDER BY id';

  it('takes all of it when nothing of mine points to it', async () => {
    await startDemo();
    const mine = await addSetup(h, 'mine');
    const r = (await h.api.delete('/api/demo')).body as DemoReport;
    expect(r).toEqual({ parts: 104, setups: 22, outcomes: 48, adopted: [] });
    expect([await count('setups'), await count('parts'), await count('log_entries')]).toEqual([
      1, 4, 0,
    ]);
    expect((await h.api.get(`/api/setups/${mine.id}`)).body).toEqual(mine);
  });

  it('keeps and adopts demo parts my setup uses', async () => {
    await startDemo();
    const [demo] = (await h.api.get('/api/setups?q=dome desk')).body.items;
    const copy = (
      await h.api.post(`/api/setups/${demo.id}/clone`).send({ id: randomUUID(), name: 'my desk' })
    ).body;
    const before = (await h.api.get('/api/demo')).body as DemoReport;
    expect(before.adopted.map((a) => a.name).sort()).toEqual([
      'Dunlinby C-20',
      'Fenlight V-27',
      'Harnsey L-13',
      'Observatory Desk image',
      'Quillmere D-4',
      'Withyline K-07',
    ]);
    expect(before.adopted[0]?.because).toBe('the setup "my desk" uses it');
    expect((await h.api.delete('/api/demo')).body).toEqual(before);
    const now = (await h.api.get(`/api/setups/${copy.id}`)).body;
    expect(now).toEqual({ ...copy, clonedFrom: null });
    expect(await h.rows("SELECT 1 FROM parts WHERE origin = 'adopted'")).toHaveLength(6);
    expect((await h.api.get('/api/demo')).body).toEqual({
      parts: 0,
      setups: 0,
      outcomes: 0,
      adopted: [],
    });
  });

  it('keeps a demo setup with my outcome and its history', async () => {
    await startDemo();
    const [demo] = (await h.api.get('/api/setups?q=dome desk')).body.items;
    await h.api
      .post(`/api/setups/${demo.id}/outcomes`)
      .send({ id: randomUUID(), outcome: 'works', happenedOn: '2026-11-10' });
    await h.api.delete('/api/demo');
    expect(await h.rows(own, ['demo'])).toEqual([{ id: demo.id }]);
    expect(await count('log_entries')).toBe(6);
  });

  it('a changed example keeps its history, the rest goes', async () => {
    await startDemo();
    const [demo] = (await h.api.get('/api/setups?q=plate')).body.items;
    await h.api
      .patch(`/api/setups/${demo.id}`)
      .set('If-Match', `"${demo.rev}"`)
      .send({ notes: 'mine now' });
    const [old] = (await h.api.get(`/api/outcomes?setupId=${demo.id}`)).body.items;
    await h.api
      .post(`/api/setups/${demo.id}/outcomes`)
      .send({ id: randomUUID(), outcome: 'care', happenedOn: '2026-11-01', corrects: old.id });
    const before = (await h.api.get('/api/demo')).body as DemoReport;
    expect([before.setups, before.outcomes]).toEqual([21, 44]);
    const removed = await h.api.delete('/api/demo');
    expect(removed.body).toEqual(before);
    expect((await h.api.get(`/api/outcomes?setupId=${demo.id}`)).body.items).toHaveLength(5);
    expect([await count('setups'), await count('log_entries')]).toEqual([1, 5]);
  });

  it('what I change becomes mine', async () => {
    await startDemo();
    const [demo] = (await h.api.get('/api/setups?q=plate')).body.items;
    const r = await h.api
      .patch(`/api/setups/${demo.id}`)
      .set('If-Match', `"${demo.rev}"`)
      .send({ notes: 'mine now' });
    expect(r.body.origin).toBe('adopted');
    await h.api.delete('/api/demo');
    expect((await h.api.get(`/api/setups/${demo.id}`)).body.notes).toBe('mine now');
  });

  it('a demo fact cannot be deleted any other way', async () => {
    await startDemo();
    await expect(h.db.query('DELETE FROM log_entries')).rejects.toThrow('append-only');
  });
});
