import { inTransaction } from '../src/platform/db/transaction';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Page } from '@ruddy/core/base/contract';
import type { UsedRow } from '@ruddy/core/bring-up/contract';
import { cellContradicts, type CellGrounds, predictCell } from '@ruddy/core/compatibility';
import type { ClaimEntry, GridAnswer, Register } from '@ruddy/core/compatibility/contract';
import type { CardSpec, DockSpec, HostSpec } from '@ruddy/core/parts';
import type { Setup } from '@ruddy/core/setups/contract';
import type { Bundle } from '@ruddy/core/workshop/contract';
import { THIS_MACHINE } from '../src/platform/http/route';
import { loadBundle } from '../src/workshop/bundle-load';
import { demoBundle, start, type Harness } from './harness';

let h: Harness;
beforeAll(async () => {
  h = await start();
  await inTransaction(() =>
    loadBundle(demoBundle(), { origin: 'own', by: THIS_MACHINE.id, now: h.clock.now }).then(
      () => undefined,
    ),
  );
});
afterAll(() => h.close());

const claims = async () => (await h.api.get('/api/claims')).body.items as ClaimEntry[];
const state = (over: object) =>
  h.api.post('/api/claims').send({
    id: randomUUID(),
    words: 'A 40 Gb/s link costs 20 %',
    measure: 'lost',
    lo: 15,
    hi: 25,
    ...over,
  });
/** A claim that is stated, as it was judged. */
const judged = async (over: { words?: string } & Record<string, unknown>) => {
  const r = await state(over);
  if (r.status !== 201) throw new Error(JSON.stringify(r.body));
  const words = over.words ?? 'A 40 Gb/s link costs 20 %';
  return (r.body.items as ClaimEntry[]).find((c) => c.words === words) as ClaimEntry;
};
const setupNamed = async (q: string) =>
  ((await h.api.get(`/api/setups?q=${q}`)).body as Page<Setup>).items[0] as Setup;

describe('CO-06 claims', () => {
  it('are held against every measurement there is, with counts, interval and exceptions', async () => {
    const c = await judged({ where: [{ tag: 'standard', has: 'usb4' }] });
    expect(c?.judged.n).toBeGreaterThan(2);
    expect(c?.judged.within).toBeLessThanOrEqual(c?.judged.n ?? 0);
    expect(c?.judged.against).toHaveLength((c?.judged.n ?? 0) - (c?.judged.within ?? 0));
    const wide = await judged({ words: 'It costs something', lo: null, hi: 100 });
    expect(wide.judged.within).toBe(wide.judged.n);
    expect(wide.judged.share.hi).toBe(1);
    expect(wide.judged.state).toBe(wide.judged.share.lo > 0.5 ? 'holds' : 'open');
  });

  it('shares of working setups count units, without hearsay', async () => {
    const c = await judged({ words: 'Nine of ten work', measure: 'works', lo: 90, hi: null });
    const [n] = await h.rows<{ n: number }>(
      'SELECT count(*)::int AS n FROM log_units WHERE NOT told',
    );
    expect(c.judged.n).toBe(n?.n);
    expect(c.judged.state).toBe('fails');
    const none = await judged({
      words: 'Docks of glass work',
      measure: 'works',
      lo: 90,
      hi: null,
      where: [{ tag: 'dock', has: 'glass' }],
    });
    expect(none.judged).toMatchObject({ n: 0, state: 'none', seen: null });
  });

  it('copy rates are those read to the card; none is idle', async () => {
    const c = await judged({ words: 'At least 5 Gb/s', measure: 'copy', lo: 5, hi: null });
    expect(c.judged.n).toBeGreaterThan(3);
  });

  it('bad ones are refused, repeated once, retracted gone', async () => {
    const bad = async (over: object, path: string) => {
      const r = await state(over);
      expect([r.status, r.body.errors?.[0]?.path]).toEqual([422, path]);
    };
    await bad({ lo: null, hi: null }, 'lo');
    await bad({ lo: 30, hi: 20 }, 'hi');
    await bad({ measure: 'speed' }, 'measure');
    await bad({ words: '' }, 'words');
    await bad({ where: [{ tag: 'owner', has: 'x' }] }, 'where/0/tag');
    const before = (await claims()).length;
    expect((await state({ where: [{ tag: 'standard', has: 'usb4' }] })).status).toBe(201);
    expect(await claims()).toHaveLength(before);
    const [first] = await claims();
    await h.api.post(`/api/claims/${first?.id ?? ''}/withdraw`).send({});
    expect(await claims()).toHaveLength(before - 1);
    expect((await h.api.post(`/api/claims/${randomUUID()}/withdraw`).send({})).status).toBe(404);
  });
});

describe('CO-10 the register of titles', () => {
  const register = async () => (await h.api.get('/api/register')).body as Register;

  it('holds dated statements and what runs show', async () => {
    const before = await register();
    const title = before.titles[0] as { id: string; name: string };
    const r = await h.api.post('/api/register').send({
      id: randomUUID(),
      titleId: title.id,
      standard: 'usb4-40',
      says: ['wont-start', 'delay'],
      version: '1.4.2',
      on: '2026-11-02',
      words: 'stops at its launcher',
    });
    expect(r.status).toBe(201);
    const mine = (r.body as Register).items.filter((i) => i.version === '1.4.2');
    expect(mine.map((i) => [i.title, i.say, i.provenance])).toEqual([
      [title.name, 'wont-start', 'own'],
      [title.name, 'delay', 'own'],
    ]);
    expect((r.body as Register).silent.some((t) => t.id === title.id)).toBe(false);
    const runs = before.items.filter((i) => i.provenance === 'runs');
    expect(runs.length).toBeGreaterThan(0);
    expect(runs.every((i) => i.id === null && i.n > 0 && i.words !== '')).toBe(true);
  });

  it('needs something to say, of a title that is known', async () => {
    const title = (await register()).titles[0] as { id: string };
    const base = { id: randomUUID(), titleId: title.id, standard: 'any', on: '2026-11-02' };
    expect(
      (await h.api.post('/api/register').send({ ...base, says: [] })).body.errors[0].path,
    ).toBe('says');
    expect(
      (await h.api.post('/api/register').send({ ...base, titleId: randomUUID(), says: ['worth'] }))
        .status,
    ).toBe(404);
  });

  it('claims and statements travel in the whole export and come back equal', async () => {
    const whole = (await h.api.get('/api/bundle')).body as Bundle;
    expect(whole.claims.length).toBeGreaterThan(2);
    expect(whole.titleNotes.length).toBeGreaterThan(0);
    await h.close();
    h = await start();
    await inTransaction(() =>
      loadBundle(whole, { origin: 'own', by: THIS_MACHINE.id, now: h.clock.now }).then(
        () => undefined,
      ),
    );
    const again = (await h.api.get('/api/bundle')).body as Bundle;
    expect([again.claims, again.titleNotes]).toEqual([whole.claims, whole.titleNotes]);
  });
});

describe('CO-04 the grid', () => {
  const grid = async (q = '') => {
    const r = await h.api.get(`/api/grid${q}`);
    if (r.status !== 200) throw new Error(JSON.stringify(r.body));
    return r.body as GridAnswer;
  };

  it('begins with owned parts, counted per pair, equal to the table', async () => {
    const own = await grid();
    const all = await grid('?scope=all');
    expect(own.rows.length).toBeGreaterThan(2);
    expect(all.rows.length).toBeGreaterThanOrEqual(own.rows.length);
    expect(all.cols.length).toBeGreaterThan(own.cols.length);
    const [n] = await h.rows<{ n: number }>(
      `SELECT count(*)::int AS n FROM log_units WHERE NOT told AND dock NOT LIKE 'no dock%'`,
    );
    expect(all.seen.reduce((sum, s) => sum + s[2], 0)).toBe(n?.n);
    for (const [r, c, n2, worked] of all.seen) {
      expect(worked).toBeLessThanOrEqual(n2);
      const [u] = await h.rows<{ n: number }>(
        'SELECT count(*)::int AS n FROM log_units WHERE NOT told AND host = $1 AND dock = $2',
        [all.rows[r]?.name.toLowerCase(), all.cols[c]?.name.toLowerCase()],
      );
      expect(u?.n).toBe(n2);
    }
  });

  it('a third part narrows it, every axis has a default', async () => {
    const any = await grid('?scope=all');
    expect(any.third).toBeNull();
    const narrow = await grid(`?scope=all&third=${any.thirds[0]?.id ?? ''}`);
    const sum = (g: GridAnswer) => g.seen.reduce((n, s) => n + s[2], 0);
    expect(sum(narrow)).toBeLessThan(sum(any));
    for (const axes of ['host-card', 'dock-card'])
      expect((await grid(`?axes=${axes}`)).third).not.toBeNull();
    expect((await h.api.get('/api/grid?axes=card-dock')).status).toBe(400);
  });

  it('cells are predictable from it, contradictions are intervals', async () => {
    const g = await grid('?scope=all');
    const states = g.rows.flatMap((r) =>
      g.cols.map(
        (c) =>
          predictCell(
            { host: r.spec as HostSpec, dock: c.spec as DockSpec, card: null as CardSpec | null },
            g.grounds as unknown as CellGrounds,
          ).state,
      ),
    );
    expect(new Set(states).size).toBeGreaterThan(2);
    const s = await setupNamed('Dome');
    for (const driver of Array.from({ length: 40 }, (_, i) => `x${i}`))
      await h.api.post(`/api/setups/${s.id}/outcomes`).send({
        id: randomUUID(),
        outcome: 'fails',
        happenedOn: '2026-11-18',
        versions: { driver },
      });
    const after = await grid('?scope=all');
    const hit = after.seen.filter(([r, c, n, worked, told, newest]) => {
      const parts = {
        host: after.rows[r]?.spec as HostSpec,
        dock: after.cols[c]?.spec as DockSpec,
        card: null,
      };
      return cellContradicts(predictCell(parts, after.grounds as unknown as CellGrounds), {
        n,
        worked,
        told,
        newest,
      });
    });
    expect(hit.length).toBeGreaterThan(0);
  });
});

describe('CO-11 hours in use', () => {
  const use = (id: string, over: object) =>
    h.api.post(`/api/setups/${id}/used`).send({
      id: randomUUID(),
      from: '2026-11-01',
      until: '2026-11-07',
      hours: 40,
      drops: 1,
      freezes: 0,
      ...over,
    });
  const rows = async () => (await h.api.get('/api/used')).body.items as UsedRow[];

  it('are added up by setup; what is deleted no longer counts', async () => {
    const s = await setupNamed('Dome');
    const before = (await rows()).find((r) => r.setupId === s.id)?.hours ?? 0;
    const id = randomUUID();
    expect((await use(s.id, { id })).status).toBe(201);
    expect((await use(s.id, { hours: 20, drops: 0, freezes: 2 })).status).toBe(201);
    expect((await rows()).find((r) => r.setupId === s.id)?.hours).toBe(before + 60);
    await h.api
      .post(`/api/setups/${s.id}/struck`)
      .send({ id: randomUUID(), corrects: id, reason: 'wrong setup' });
    expect((await rows()).find((r) => r.setupId === s.id)?.hours).toBe(before + 20);
  });

  it('no more hours than the days have, no days to come', async () => {
    const s = await setupNamed('Dome');
    expect((await use(s.id, { hours: 200 })).body.errors[0]).toMatchObject({
      path: 'hours',
      message: 'Hours: 7 days have 168 at most',
    });
    expect((await use(s.id, { until: '2026-10-01' })).body.errors[0].path).toBe('until');
    expect((await use(s.id, { until: '2027-01-01' })).status).toBe(422);
    expect((await use(s.id, { drops: 1.5 })).body.errors[0].path).toBe('drops');
  });
});

describe('CO-08 pins and BU-07 orders of the log', () => {
  it('a version hold keeps its reason; two for a kind are refused', async () => {
    const s = await setupNamed('Dome');
    const pins = [{ role: 'driver', version: '41.2', reason: 'the next one freezes' }];
    const r = await h.api.patch(`/api/setups/${s.id}`).set('If-Match', `"${s.rev}"`).send({ pins });
    expect([r.status, r.body.pins]).toEqual([200, pins]);
    const twice = await h.api
      .patch(`/api/setups/${s.id}`)
      .set('If-Match', `"${s.rev + 1}"`)
      .send({ pins: [...pins, ...pins] });
    expect(twice.status).toBe(422);
    const record = (await h.api.get(`/api/setups/${s.id}/record`)).body.items as {
      kind: string;
      body: object;
    }[];
    expect(JSON.stringify(record.filter((e) => e.kind === 'parts').slice(0, 3))).toContain(
      'card driver 41.2',
    );
  });

  it('an order of another workshop counts among these tries', async () => {
    const s = await setupNamed('Dome');
    const tried = async () =>
      (await h.api.get(`/api/setups/${s.id}/bring-up`)).body.tried as {
        setupId: string | null;
        order: string;
      }[];
    const before = await tried();
    const file = JSON.parse(
      String(
        (await h.api.get('/api/log/share.json?host=L-13').buffer(true).responseType('text')).body,
      ),
    ) as Bundle;
    const like = file.outcomes.find((o) =>
      JSON.stringify(file.chains[o.chain as number]).includes('"usb4-40"'),
    ) as Bundle['outcomes'][number];
    const chain = (await h.api.post('/api/evaluate').send({ setupId: s.id })).body
      .chain as Bundle['chains'][number];
    file.chains = [chain];
    file.outcomes = [
      {
        ...like,
        id: randomUUID(),
        unit: randomUUID(),
        chain: 0,
        corrects: null,
        order: 'dock-first',
        outcome: 'works',
        provenance: 'own',
      },
    ];
    const r = await h.api
      .post('/api/log/imports?mode=store&name=theirs.json')
      .set('content-type', 'application/json')
      .send(JSON.stringify(file));
    let job = r.body as { id: string; state: string; message: string };
    while (job.state === 'running')
      job = (await h.api.get(`/api/jobs/${job.id}`)).body as typeof job;
    expect([job.state, job.message]).toEqual(['done', '']);
    const after = await tried();
    expect(after).toHaveLength(before.length + 1);
    expect(after.filter((t) => t.setupId === null)).toHaveLength(
      before.filter((t) => t.setupId === null).length + 1,
    );
    expect(after.filter((t) => t.setupId === null).every((t) => t.order === 'dock-first')).toBe(
      true,
    );
  });
});
