import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { TEST_IDS } from '@ruddy/core/base';
import type { OutcomeEntry, SetupEvent } from '@ruddy/core/compatibility/contract';
import type { Setup } from '@ruddy/core/setups/contract';
import { START_STRENGTH } from '@ruddy/core/troubleshoot';
import type { TablesRead, TroubleRow, Troubles } from '@ruddy/core/troubleshoot/contract';
import { addSetup, start, type Harness } from './harness';

let h: Harness;
beforeAll(async () => {
  h = await start();
});
afterAll(() => h.close());

const path = (s: Setup, rest = '') => `/api/setups/${s.id}/troubles${rest}`;
const read = async (s: Setup) => ((await h.api.get(path(s))).body as Troubles).troubles;
const tables = async () => (await h.api.get('/api/faults/tables')).body as TablesRead;
async function begun(s: Setup, symptoms = ['low-copy'], more: object = {}): Promise<string> {
  const id = randomUUID();
  const r = await h.api.post(path(s)).send({ id, symptoms, ...more });
  expect([r.status, r.body.errors]).toEqual([201, undefined]);
  return id;
}
const note = (s: Setup, id: string, body: object, more: object = {}) =>
  h.api.post(path(s, `/${id}/notes`)).send({ id: randomUUID(), note: body, ...more });
const says = (t: TroubleRow | undefined) => t?.notes.map((n) => n.note.what);

describe('TR-01, TR-04 a search on a setup', () => {
  it('begins from a failed step, every note on record', async () => {
    const setup = await addSetup(h, 'Searched');
    const answers = [{ id: randomUUID(), test: 'router-speed', says: 'yes' }];
    const id = await begun(setup, ['low-copy', 'router-slow'], {
      from: { kind: 'step', what: 'copy-down' },
      answers,
    });
    expect(
      (
        await note(setup, id, {
          what: 'test',
          test: 'short-cable',
          says: 'yes',
          words: 'the one from the box',
        })
      ).status,
    ).toBe(201);
    const [t] = await read(setup);
    expect(t).toMatchObject({ id, from: { kind: 'step', what: 'copy-down' }, said: null });
    expect(t?.notes.map((n) => n.note)).toMatchObject([
      { what: 'seen', symptoms: ['low-copy', 'router-slow'] },
      { what: 'test', test: 'router-speed', says: 'yes', by: 'reading' },
      { what: 'test', test: 'short-cable', says: 'yes', by: 'hand', words: 'the one from the box' },
    ]);
    const { items } = (await h.api.get(`/api/setups/${setup.id}/record`)).body as {
      items: SetupEvent[];
    };
    expect(items.filter((e) => e.kind === 'trouble')).toHaveLength(3);
  });

  it('a repeated note is stored once, two searches refused', async () => {
    const setup = await addSetup(h, 'Twice');
    const id = await begun(setup);
    const body = { id: randomUUID(), note: { what: 'test', test: 'reseat', says: 'no' } };
    expect((await h.api.post(path(setup, `/${id}/notes`)).send(body)).status).toBe(201);
    expect((await h.api.post(path(setup, `/${id}/notes`)).send(body)).status).toBe(200);
    expect(says((await read(setup))[0])).toEqual(['seen', 'test']);
    const second = await h.api.post(path(setup)).send({ id: randomUUID(), symptoms: ['heat'] });
    expect(second.status).toBe(422);
    expect(
      (await h.api.post(path(setup)).send({ id: randomUUID(), symptoms: ['no-lamp'] })).status,
    ).toBe(409);
  });

  it('the last note is retracted, the beginning cannot be', async () => {
    const setup = await addSetup(h, 'Undone');
    const id = await begun(setup);
    await note(setup, id, { what: 'test', test: 'reseat', says: 'no' });
    expect((await h.api.post(path(setup, `/${id}/undo`)).send({ id: randomUUID() })).status).toBe(
      201,
    );
    expect(says((await read(setup))[0])).toEqual(['seen']);
    expect((await h.api.post(path(setup, `/${id}/undo`)).send({ id: randomUUID() })).status).toBe(
      409,
    );
    const rows = await h.rows<{ n: number }>(
      "SELECT count(*)::int AS n FROM events WHERE setup_id = $1 AND kind = 'trouble'",
      [setup.id],
    );
    expect(rows[0]?.n).toBe(2);
  });

  it('solved closes it and writes the log when asked', async () => {
    const setup = await addSetup(h, 'Solved');
    const id = await begun(setup);
    await note(setup, id, { what: 'fix', cause: 'cable-class', result: 'solved' });
    const entry = randomUUID();
    const closed = {
      what: 'closed',
      outcome: 'solved',
      cause: 'cable-class',
      words: 'short cable stays',
    };
    const r = await note(setup, id, closed, { log: { id: entry, outcome: 'works' } });
    expect([r.status, r.body.errors]).toEqual([201, undefined]);
    const { items } = (await h.api.get(`/api/outcomes?setupId=${setup.id}`)).body as {
      items: OutcomeEntry[];
    };
    expect(items).toMatchObject([
      {
        id: entry,
        outcome: 'works',
        symptoms: ['the copy rate is low'],
        fixes: ['the cable is too long or of a low class'],
      },
    ]);
    expect((await note(setup, id, { what: 'seen', symptoms: [] })).status).toBe(409);
    expect((await note(setup, randomUUID(), { what: 'seen', symptoms: [] })).status).toBe(404);
  });

  it('unsolved is kept, its search setup put aside', async () => {
    const setup = await addSetup(h, 'Only for this');
    const said = { form: 'laptop', port: 'usb-c', lamp: 'on', screen: null };
    const id = await begun(setup, ['no-picture'], { said });
    await note(setup, id, { what: 'fix', cause: 'screen-input', result: 'stopped' });
    await note(setup, id, { what: 'closed', outcome: 'unsolved', cause: null }, { retire: true });
    const [t] = await read(setup);
    expect(t?.said).toEqual(said);
    expect(t?.notes.at(-1)?.note).toMatchObject({ what: 'closed', outcome: 'unsolved' });
    expect(((await h.api.get(`/api/setups/${setup.id}`)).body as Setup).state).toBe('retired');
  });

  it.each([
    [{ symptoms: [] }, 'symptoms'],
    [{ symptoms: ['slow'] }, 'symptoms/0'],
    [{ symptoms: ['low-copy'], from: { kind: 'dream' } }, 'from/kind'],
    [
      { symptoms: ['low-copy'], answers: [{ id: randomUUID(), test: 'flash', says: 'yes' }] },
      'answers/0/test',
    ],
    [{ symptoms: ['low-copy'], happenedAt: '2030-01-01T00:00:00Z' }, 'happenedAt'],
  ])('a bad beginning %j names its place and stores nothing', async (body, place) => {
    const setup = await addSetup(h, `Bad ${randomUUID()}`);
    const r = await h.api.post(path(setup)).send({ id: randomUUID(), ...body });
    expect([r.status, r.body.errors?.[0]?.path]).toEqual([422, place]);
    expect(await read(setup)).toEqual([]);
  });

  it('only closing writes the log; risky acts are no tests', async () => {
    const setup = await addSetup(h, 'Early');
    const id = await begun(setup);
    const r = await note(
      setup,
      id,
      { what: 'test', test: 'reseat', says: 'no' },
      { log: { id: randomUUID(), outcome: 'works' } },
    );
    expect([r.status, r.body.errors?.[0]?.path]).toEqual([422, 'log']);
    for (const test of ['flash-dock', 'internal-off', 'repackaged-driver', 'go-back'])
      expect((await note(setup, id, { what: 'test', test, says: 'yes' })).status).toBe(422);
    expect(TEST_IDS).toHaveLength(new Set(TEST_IDS).size);
  });
});

describe('TR-05 what moves the figures', () => {
  it('solved searches count; unsolved, discarded and retracted do not', async () => {
    const before = await tables();
    const setup = await addSetup(h, 'Counted');
    const id = await begun(setup, ['errors-rise']);
    await note(setup, id, { what: 'test', test: 'plug-seen', says: 'yes' });
    await note(setup, id, { what: 'fix', cause: 'plug-not-home', result: 'solved' });
    await note(setup, id, { what: 'closed', outcome: 'solved', cause: 'plug-not-home' });
    const now = await tables();
    expect(now.cases).toBe(before.cases + 1);
    expect(now.counts['cause/plug-not-home']).toEqual({ k: 1, n: now.cases });
    expect(now.counts['symptom/errors-rise/plug-not-home']).toEqual({ k: 1, n: 1 });
    expect(now.counts['symptom/low-copy/plug-not-home']).toEqual({ k: 0, n: 1 });
    expect(now.counts['test/plug-seen/plug-not-home']).toEqual({ k: 1, n: 1 });
    const other = await begun(setup, ['errors-rise']);
    await note(setup, other, { what: 'closed', outcome: 'discarded', cause: null });
    expect((await tables()).cases).toBe(now.cases);
    expect(START_STRENGTH).toBe(4);
  });

  it('a parameter is set with reason and revision, and reset', async () => {
    const put = (body: object, rev = 0) =>
      h.api.put('/api/faults/figures').set('If-Match', `"${rev}"`).send(body);
    const key = 'symptom/low-copy/cable-class';
    const set = (await put({ key, value: 0.6, reason: 'half of ours were fine' }))
      .body as TablesRead;
    expect(set.figures).toEqual([{ key, value: 0.6, reason: 'half of ours were fine', rev: 1 }]);
    expect((await put({ key, value: 0.5, reason: 'again' })).status).toBe(412);
    expect(((await put({ key, value: null }, 1)).body as TablesRead).figures).toEqual([]);
    expect(
      ((await put({ key, value: 0.7, reason: 'back' }, 2)).body as TablesRead).figures,
    ).toHaveLength(1);
  });

  it.each([
    ['symptom/low-copy/nobody', 0.5, 'key'],
    ['test/flash/dock-firmware', 0.5, 'key'],
    ['link.flowControlPercent', 0.5, 'key'],
    ['symptom/low-copy/heat', 1, 'value'],
    ['test/reseat/any', 0, 'value'],
    ['cause/heat', 101, 'value'],
  ])('the figure %s = %s is refused at %s', async (key, value, place) => {
    const r = await h.api
      .put('/api/faults/figures')
      .set('If-Match', '"0"')
      .send({ key, value, reason: 'x' });
    expect([r.status, r.body.errors?.[0]?.path]).toEqual([422, place]);
  });

  it('searches and parameters round-trip and count the same', async () => {
    const setup = await addSetup(h, 'Travels');
    const id = await begun(setup, ['no-lamp']);
    await note(setup, id, { what: 'fix', cause: 'dock-off', result: 'solved' });
    const here = await tables();
    const bundle = (await h.api.get('/api/bundle')).body as {
      figures: unknown[];
      events: { kind: string; body: { trouble?: string } }[];
    };
    expect(bundle.figures).toEqual(
      here.figures.map(({ key, value, reason }) => ({ key, value, reason })),
    );
    const again = await h.api.post('/api/bundle').send(bundle);
    expect([again.status, again.body.stored]).toEqual([200, {}]);
    const bad = await h.api
      .post('/api/bundle')
      .send({ ...bundle, figures: [{ key: 'cause/nobody', value: 1, reason: '' }] });
    expect([bad.status, bad.body.errors?.[0]?.path]).toEqual([422, 'figures/0/key']);
    // Read in where nothing is: the same searches, the same counts.
    await h.rows('TRUNCATE setups, parts, settings CASCADE');
    expect((await tables()).cases).toBe(0);
    expect((await h.api.post('/api/bundle').send(bundle)).status).toBe(200);
    expect(await tables()).toEqual({
      ...here,
      figures: here.figures.map((f) => ({ ...f, rev: 1 })),
    });
  });
});
