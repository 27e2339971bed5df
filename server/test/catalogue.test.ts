import { inTransaction } from '../src/platform/db/transaction';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { PriceEntry } from '@ruddy/core/buy/contract';
import type { ItemEntry, Revision } from '@ruddy/core/parts/contract';
import type { Setup } from '@ruddy/core/setups/contract';
import { addPart, addSetup, demoBundle, start, type Harness } from './harness';
import { loadBundle } from '../src/workshop/bundle-load';
import { THIS_MACHINE } from '../src/platform/http/route';

let h: Harness;
beforeAll(async () => {
  h = await start();
});
afterAll(() => h.close());

const price = (partId: string, over: object = {}) => ({
  id: randomUUID(),
  partId,
  kind: 'offer',
  minor: 3800,
  currency: 'EUR',
  onDate: '2026-11-01',
  source: 'counter',
  ...over,
});
const item = (partId: string, over: object = {}) => ({
  id: randomUUID(),
  partId,
  label: 'K-1 a',
  ...over,
});

describe('PA-01 pieces of a part', () => {
  it('are stored, changed under their revision, counted, serials private', async () => {
    const part = await addPart(h, 'cable', { model: 'Pieces' });
    const body = item(part.id, { serial: 'S-77', claim: '40 Gbps' });
    expect((await h.api.post('/api/items').send(body)).status).toBe(201);
    expect((await h.api.post('/api/items').send(body)).status).toBe(200);
    const [made] = (await h.api.get(`/api/parts/${part.id}/items`)).body.items as ItemEntry[];
    expect(made).toMatchObject({ label: 'K-1 a', serial: 'S-77', rev: 1, best: null, usedIn: [] });
    expect((await h.api.patch(`/api/items/${body.id}`).send({ label: 'K-1 b' })).status).toBe(428);
    const changed = await h.api
      .patch(`/api/items/${body.id}`)
      .set('If-Match', '"1"')
      .send({ label: 'K-1 b', how: 'gone' });
    expect(changed.body).toMatchObject({ label: 'K-1 b', how: 'gone', rev: 2, serial: 'S-77' });
    expect(
      (await h.api.patch(`/api/items/${body.id}`).set('If-Match', '"1"').send({ note: 'x' }))
        .status,
    ).toBe(412);
    expect((await h.api.get(`/api/parts/${part.id}`)).body.pieces).toBe(0);
  });

  it('may differ from their part, each value with its source', async () => {
    const cable = await addPart(h, 'cable', { model: 'Shortened', lengthMm: 1900 });
    const body = item(cable.id);
    await h.api.post('/api/items').send(body);
    const setup = await addSetup(h, 'Shortened');
    const long = { slots: { path: [cable.id], items: {} } };
    const put = (patch: object, rev: number) =>
      h.api.patch(`/api/setups/${setup.id}`).set('If-Match', `"${rev}"`).send(patch);
    await put(long, 1);
    const state = async (chain?: object) => {
      const r = await h.api.post('/api/evaluate').send(chain ? { chain } : { setupId: setup.id });
      return [r.body.evaluation.predicted.verdict.state, r.body.chain.path[0].spec.lengthMm];
    };
    expect(await state()).toEqual(['care', 1900]);
    const source = { from: 'measured', on: '2026-11-20', note: '', kept: false };
    const differs = { lengthMm: { value: 700, source } };
    const changed = await h.api
      .patch(`/api/items/${body.id}`)
      .set('If-Match', '"1"')
      .send({ differs });
    expect((changed.body as ItemEntry).differs).toEqual(differs);
    // Not named yet: the part itself counts.
    expect(await state()).toEqual(['care', 1900]);
    await put({ slots: { items: { 'path/0': body.id } } }, 2);
    expect(await state()).toEqual(['works', 700]);
    const { host, dock, card } = setup.slots;
    const chain = { host: { id: host }, socket: 'left', dock: { id: dock }, card: { id: card } };
    expect(await state({ ...chain, path: [{ id: cable.id, piece: body.id }] })).toEqual([
      'works',
      700,
    ]);
    const stray = await h.api
      .post('/api/evaluate')
      .send({ chain: { ...chain, path: [{ id: cable.id, piece: randomUUID() }] } });
    expect([stray.status, stray.body.errors[0].path]).toEqual([422, 'chain/path/0/piece']);
    // Its part stays as it is, and what makes a part that part cannot differ.
    expect((await h.api.get(`/api/parts/${cable.id}`)).body.spec.lengthMm).toBe(1900);
    for (const [attr, value] of [
      ['connector', 'mini-dp'],
      ['colour', 'red'],
      ['lengthMm', 5],
    ] as const) {
      const odd = await h.api
        .patch(`/api/items/${body.id}`)
        .set('If-Match', '"2"')
        .send({ differs: { [attr]: { value, source } } });
      expect([odd.status, odd.body.errors[0].path]).toEqual([422, `differs/${attr}`]);
    }
  });

  it('of an unknown part, or without a label, nothing is stored', async () => {
    const stray = await h.api.post('/api/items').send(item(randomUUID()));
    expect([stray.status, stray.body.errors[0].path]).toEqual([422, 'partId']);
    const part = await addPart(h, 'cable', { model: 'No label' });
    const bare = await h.api.post('/api/items').send(item(part.id, { label: ' ' }));
    expect([bare.status, bare.body.errors[0].message]).toEqual([422, 'Label: must not be empty']);
  });

  it('observations stay; future days and empty notes are refused', async () => {
    const part = await addPart(h, 'cable', { model: 'Facts' });
    const body = item(part.id);
    await h.api.post('/api/items').send(body);
    const fact = {
      id: randomUUID(),
      itemId: body.id,
      kind: 'measured',
      happenedOn: '2026-11-02',
      gbps: 22.4,
    };
    expect((await h.api.post('/api/item-facts').send(fact)).body).toMatchObject({
      best: { gbps: 22.4, on: '2026-11-02' },
    });
    expect(
      (
        await h.api
          .post('/api/item-facts')
          .send({ ...fact, id: randomUUID(), happenedOn: '2026-12-01' })
      ).status,
    ).toBe(422);
    expect(
      (await h.api.post('/api/item-facts').send({ ...fact, id: randomUUID(), kind: 'fault' }))
        .status,
    ).toBe(422);
    await expect(h.db.query(`UPDATE item_facts SET happened_on = '2020-01-01'`)).rejects.toThrow();
    await expect(h.db.query(`DELETE FROM item_facts`)).rejects.toThrow();
  });

  it('a setup names a piece of its part until that changes', async () => {
    const setup = await addSetup(h, 'Named');
    const [cable] = setup.slots.path ?? [];
    const body = item(cable ?? '');
    await h.api.post('/api/items').send(body);
    const named = await h.api
      .patch(`/api/setups/${setup.id}`)
      .set('If-Match', '"1"')
      .send({ slots: { items: { 'path/0': body.id } } });
    expect((named.body as Setup).slots.items).toEqual({ 'path/0': body.id });
    const told = (await h.api.get(`/api/setups/${setup.id}/record`)).body.items as {
      body: { changes?: object[] };
    }[];
    expect(told.flatMap((e) => e.body.changes ?? [])).toContainEqual({
      slot: 'pieces',
      from: '',
      to: 'K-1 a',
    });
    expect(
      ((await h.api.get(`/api/parts/${cable}/items`)).body.items as ItemEntry[])[0]?.usedIn,
    ).toMatchObject([{ name: 'Named' }]);
    const wrong = await h.api
      .patch(`/api/setups/${setup.id}`)
      .set('If-Match', '"2"')
      .send({ slots: { items: { dock: body.id } } });
    expect([wrong.status, wrong.body.errors[0].path]).toEqual([422, 'slots/items/dock']);
    const other = await addPart(h, 'cable', { model: 'Other' });
    const moved = await h.api
      .patch(`/api/setups/${setup.id}`)
      .set('If-Match', '"2"')
      .send({ slots: { path: [other.id] } });
    expect((moved.body as Setup).slots.items).toEqual({});
  });
});

describe('PA-03 the cable register', () => {
  it('lists every piece with its best rate, and unowned cables', async () => {
    await loadBundleHere();
    const rows = (await h.api.get('/api/cables')).body.items as {
      label: string;
      part: string;
      best: unknown;
      itemId: string | null;
    }[];
    expect(rows.find((r) => r.label === 'K-02 a')).toMatchObject({
      part: 'Withyline K-02',
      best: { gbps: 25.1, on: '2026-02-14' },
    });
    // From a reading of the setup that names the piece.
    expect(rows.find((r) => r.label === 'K-20 a')).toMatchObject({
      best: { where: 'Plate scanner' },
    });
    expect(rows.some((r) => r.itemId === null && r.part === 'Withyline K-80')).toBe(true);
  });
});

let loaded = false;
async function loadBundleHere(): Promise<void> {
  if (loaded) return;
  loaded = true;
  await inTransaction(() =>
    loadBundle(demoBundle(), { origin: 'demo', by: THIS_MACHINE.id, now: h.clock.now }),
  );
}

describe('PA-07 prices over time', () => {
  it('are kept newest first, boxes too; retracted ones do not count', async () => {
    const card = await addPart(h, 'card', { model: 'Priced' });
    const dock = await addPart(h, 'dock', { model: 'Boxed' });
    const old = price(card.id, { onDate: '2026-06-01', minor: 50_000 });
    await h.api.post('/api/prices').send(old);
    await h.api.post('/api/prices').send(price(card.id, { minor: 46_900 }));
    await h.api.post('/api/prices').send(price(dock.id, { minor: 65_900, withIds: [card.id] }));
    const list = () =>
      h.api
        .get(`/api/parts/${card.id}/prices`)
        .then((r) => (r.body.items as PriceEntry[]).map((p) => p.minor));
    expect(new Set((await list()).slice(0, 2))).toEqual(new Set([65_900, 46_900]));
    expect((await list())[2]).toBe(50_000);
    expect((await h.api.delete(`/api/prices/${old.id}`)).status).toBe(200);
    expect(await list()).not.toContain(50_000);
    expect((await h.api.delete(`/api/prices/${old.id}`)).status).toBe(404);
  });

  it.each([
    ['a currency that is none', { currency: 'QQQ' }, 'currency'],
    ['half a cent', { minor: 0.5 }, 'minor'],
    ['below nothing', { minor: -1 }, 'minor'],
    ['a day to come', { onDate: '2026-12-24' }, 'onDate'],
    ['itself in its box', {}, 'withIds'],
  ])('%s is refused at its place', async (name, over, path) => {
    const part = await addPart(h, 'card', { model: `Refused ${name}` });
    const r = await h.api
      .post('/api/prices')
      .send(price(part.id, name.startsWith('itself') ? { withIds: [part.id] } : over));
    expect([r.status, r.body.errors[0].path]).toEqual([422, path]);
  });

  it('rates are dated, between two currencies, and can be struck', async () => {
    const rate = { id: randomUUID(), from: 'GBP', to: 'EUR', rate: 1.2, onDate: '2026-11-10' };
    expect((await h.api.post('/api/rates').send(rate)).status).toBe(201);
    expect(
      (await h.api.post('/api/rates').send({ ...rate, id: randomUUID(), to: 'GBP' })).status,
    ).toBe(422);
    expect(
      (await h.api.post('/api/rates').send({ ...rate, id: randomUUID(), rate: 0 })).status,
    ).toBe(422);
    expect(
      (await h.api.get('/api/rates')).body.items.some((r: { rate: number }) => r.rate === 1.2),
    ).toBe(true);
    expect((await h.api.delete(`/api/rates/${rate.id}`)).status).toBe(200);
  });
});

describe('PL-19 the grounds of a cost', () => {
  it('hold prices, pieces, uses, all-in-ones and boxes', async () => {
    await loadBundleHere();
    const all = (await h.api.get('/api/setups?q=Dome%20desk')).body.items as Setup[];
    const { slots, id } = all[0]!;
    const parts = [
      { slot: 'dock', id: slots.dock },
      { slot: 'card', id: slots.card },
    ];
    const body = (await h.api.post('/api/cost').send({ setupId: id, parts })).body;
    expect(
      body.pieces.map((p: { label: string; usedIn: string | null }) => [p.label, p.usedIn]),
    ).toEqual(
      expect.arrayContaining([
        ['C-20 a', null],
        ['D-4 by the dome', 'Sky survey rig'],
      ]),
    );
    expect(body.prices.some((p: PriceEntry) => p.withIds.length > 0)).toBe(true);
    expect(body.allInOne).toHaveLength(3);
    expect(body.rates[0]).toMatchObject({ from: 'GBP', rate: 1.18 });
  });

  it('a fix that takes a part says what it costs', async () => {
    await loadBundleHere();
    const [setup] = (await h.api.get('/api/setups?q=Dome%20desk')).body.items as Setup[];
    const judged = (await h.api.post('/api/evaluate').send({ setupId: setup!.id })).body;
    const finding = judged.evaluation.findings.find((f: { slots: string[] }) =>
      f.slots.includes('path'),
    );
    const ask = { setupId: setup!.id, code: finding.code, about: finding.about };
    const found = async () =>
      (await h.api.post('/api/fixes').send(ask)).body.items as {
        change: { part?: { id: string } };
        price: { owned: boolean; minor: number | null } | null;
      }[];
    const fixes = await found();
    const bought = fixes.filter((f) => f.change.part);
    expect(bought.length).toBeGreaterThan(0);
    for (const f of bought) expect(f.price).not.toBeNull();
    // Which parts are found first among equals is chance: the first one gets an offer.
    const id = bought.find((f) => !f.price?.owned)?.change.part?.id ?? '';
    await h.api.post('/api/prices').send(price(id, { minor: 12_300, onDate: '2026-11-20' }));
    const offered = (await found()).find((f) => f.change.part?.id === id);
    expect(offered?.price?.minor).toBe(12_300);
    for (const f of fixes.filter((x) => !x.change.part)) expect(f.price).toBeNull();
  });
});

describe('PA-01 the past of a part, and many at once', () => {
  it('keeps every revision with sources; old values return as new', async () => {
    const part = await addPart(h, 'cable', { model: 'Past' });
    const label = { from: 'label', on: '2026-11-01', note: '', kept: false };
    await h.api
      .patch(`/api/parts/${part.id}`)
      .set('If-Match', '"1"')
      .send({ spec: { lengthMm: 900 }, sources: { lengthMm: label } });
    const [now, first] = (await h.api.get(`/api/parts/${part.id}/revisions`)).body
      .items as Revision[];
    expect([now?.rev, now?.sources, first?.spec]).toMatchObject([
      2,
      { lengthMm: { from: 'label' } },
      { lengthMm: 700 },
    ]);
    const back = await h.api
      .patch(`/api/parts/${part.id}`)
      .set('If-Match', '"2"')
      .send({ spec: first?.spec, sources: first?.sources });
    expect(back.body).toMatchObject({ rev: 3, sources: {}, spec: { lengthMm: 700 } });
    expect((await h.api.get(`/api/parts/${randomUUID()}/revisions`)).status).toBe(404);
  });

  it('changes many parts or none', async () => {
    const parts = [
      await addPart(h, 'cable', { model: 'Bulk 1' }),
      await addPart(h, 'cable', { model: 'Bulk 2' }),
    ];
    const ids = parts.map((p) => p.id);
    expect(
      (await h.api.post('/api/parts/bulk').send({ ids, patch: { spec: { markedW: 100 } } })).body,
    ).toEqual({ changed: 2 });
    const bad = await h.api
      .post('/api/parts/bulk')
      .send({ ids, patch: { spec: { markedW: 1000 } } });
    expect([bad.status, bad.body.detail]).toEqual([422, expect.stringContaining('Alder Bulk')]);
    const mixed = await h.api
      .post('/api/parts/bulk')
      .send({ ids: [...ids, randomUUID()], patch: { retired: true } });
    expect(mixed.status).toBe(404);
    const now = await Promise.all(
      ids.map((id) => h.api.get(`/api/parts/${id}`).then((r) => r.body)),
    );
    expect(now.map((p) => [p.spec.markedW, p.retiredAt, p.rev])).toEqual([
      [100, null, 2],
      [100, null, 2],
    ]);
  });

  it('the list narrows by attribute, socket, and what is here', async () => {
    await loadBundleHere();
    const total = (q: string) => h.api.get(`/api/parts?${q}`).then((r) => r.body.total as number);
    const [all, mini, oculink, here] = await Promise.all([
      total('kind=host'),
      total('kind=host&where=form:mini-pc'),
      total('kind=host&where=connector:oculink-4i'),
      total('kind=card&owned=true'),
    ]);
    expect(mini).toBeGreaterThan(0);
    expect(mini).toBeLessThan(all!);
    expect(oculink).toBeGreaterThan(0);
    expect(here).toBe(3);
    expect((await h.api.get("/api/parts?where=x';--:y")).status).toBe(400);
  });
});

describe('PL-24 a share file', () => {
  it('holds the plan and its parts, nothing private, and comes in elsewhere', async () => {
    const setup = await addSetup(h, 'Given');
    const [cable] = setup.slots.path ?? [];
    const body = item(cable ?? '', { label: 'secret label', serial: 'S-1', owner: 'somebody' });
    await h.api.post('/api/items').send(body);
    await h.api.post('/api/prices').send(price(cable ?? '', { note: 'private words' }));
    await h.api
      .patch(`/api/setups/${setup.id}`)
      .set('If-Match', '"1"')
      .send({
        slots: { items: { 'path/0': body.id } },
        notes: 'my notes',
        present: 'old box',
        cost: { ...setup.cost, budgetMinor: 77_700 },
      });
    const report = (await h.api.get(`/api/setups/${setup.id}/share`)).body;
    const stays = Object.fromEntries(
      report.stays.map((l: { what: string; n: number }) => [l.what.split(':')[0], l.n]),
    );
    expect(stays).toMatchObject({
      'notes and present graphics, your words': 2,
      items: 1,
      'serial numbers': 1,
    });
    const bare = (await h.api.get(`/api/setups/${setup.id}/share-file`)).body;
    expect([bare.parts.length, bare.setups.length, bare.prices.length]).toEqual([4, 1, 0]);
    const priced = await h.api.get(`/api/setups/${setup.id}/share-file?prices=true`);
    expect([bare.setups[0].cost.budgetMinor, priced.body.setups[0].cost.budgetMinor]).toEqual([
      null,
      77_700,
    ]);
    expect(priced.body.prices).toHaveLength(1);
    expect(priced.text).not.toMatch(/secret label|S-1|somebody|private words|my notes|old box/);
    const loaded = await h.api.post('/api/bundle').send(priced.body);
    expect(loaded.body.same).toMatchObject({ parts: 4, setups: 1 });
    expect((await h.api.get(`/api/setups/${randomUUID()}/share-file`)).status).toBe(404);
  });
});

describe('PL-19 what is said of the money is kept with the setup', () => {
  it('as a whole, checked, in its history and in a clone', async () => {
    const setup = await addSetup(h, 'Money');
    const cost = {
      ...setup.cost,
      currency: 'GBP',
      budgetMinor: 50_000,
      forgotten: { input: { have: true, minor: null } },
    };
    const kept = await h.api.patch(`/api/setups/${setup.id}`).set('If-Match', '"1"').send({ cost });
    expect(kept.body.cost).toEqual(cost);
    const clone = await h.api
      .post(`/api/setups/${setup.id}/clone`)
      .send({ id: randomUUID(), name: 'Money copy' });
    expect(clone.body.cost).toEqual(cost);
    const odd = await h.api
      .patch(`/api/setups/${setup.id}`)
      .set('If-Match', '"2"')
      .send({ cost: { ...cost, currency: 'XQX' } });
    expect([odd.status, odd.body.errors[0].path]).toEqual([422, 'cost/currency']);
  });
});
