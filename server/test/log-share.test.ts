import { inTransaction } from '../src/platform/db/transaction';
import { randomUUID } from 'node:crypto';
import { parse } from 'csv-parse/sync';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Page } from '@ruddy/core/base/contract';
import { LOG_COLUMN_IDS } from '@ruddy/core/compatibility';
import type { LogShare, OutcomeEntry } from '@ruddy/core/compatibility/contract';
import type { ImportRow, Job } from '@ruddy/core/parts/contract';
import type { Setup } from '@ruddy/core/setups/contract';
import type { Bundle } from '@ruddy/core/workshop/contract';
import { THIS_MACHINE } from '../src/platform/http/route';
import { loadBundle } from '../src/workshop/bundle-load';
import { demoBundle, start, type Harness } from './harness';

let h: Harness;
/** What the first workshop shared, for those that come after it: the models know one database at a time. */
const home = {
  json: '',
  csv: '',
  november: '',
  n: 0,
  units: [] as object[],
  whole: null as Bundle | null,
};
const load = (bundle: Bundle) =>
  inTransaction(() =>
    loadBundle(bundle, { origin: 'own', by: THIS_MACHINE.id, now: h.clock.now }).then(
      () => undefined,
    ),
  );
/** Leave this workshop for an empty one. */
async function move(): Promise<void> {
  await h.close();
  h = await start();
}
beforeAll(async () => {
  h = await start();
  await load(demoBundle());
  await note(h);
  home.json = await shared(h, 'json');
  home.csv = await shared(h, 'csv');
  home.november = await shared(h, 'json', '?since=2026-11-01');
  home.n = (await count(h)) as number;
  home.units = await units(h);
  home.whole = (await h.api.get('/api/bundle')).body as Bundle;
});
afterAll(() => h.close());

/** An entry with words that must not leave. */
async function note(at: Harness): Promise<void> {
  const s = ((await at.api.get('/api/setups?q=Dome')).body as Page<Setup>).items[0] as Setup;
  const r = await at.api.post(`/api/setups/${s.id}/outcomes`).send({
    id: randomUUID(),
    outcome: 'works',
    happenedOn: '2026-11-19',
    versions: { driver: '41.3' },
    note: 'the password is under the mat',
    symptoms: ['=HYPERLINK("x")'],
  });
  expect(r.status).toBe(201);
}
const shared = async (at: Harness, kind: 'json' | 'csv', query = '') => {
  const r = await at.api.get(`/api/log/share.${kind}${query}`).buffer(true).responseType('text');
  expect(r.status).toBe(200);
  return String(r.body);
};
async function send(at: Harness, text: string, query: object): Promise<Job> {
  const r = await at.api
    .post('/api/log/imports')
    .query({ name: 'log.json', ...query })
    .set('content-type', 'application/json')
    .send(text);
  if (r.status !== 202) throw new Error(JSON.stringify(r.body));
  let job = r.body as Job;
  while (job.state === 'running') {
    await new Promise((resolve) => setTimeout(resolve, 20));
    job = (await at.api.get(`/api/jobs/${job.id}`)).body as Job;
  }
  return job;
}
const fates = async (at: Harness, job: Job) =>
  ((await at.api.get(`/api/jobs/${job.id}/rows?limit=500`)).body as { items: ImportRow[] }).items;
const count = async (at: Harness) =>
  (await at.rows<{ n: number }>('SELECT count(*)::int AS n FROM log_entries'))[0]?.n;
const units = (at: Harness) =>
  at.rows<object>(
    'SELECT unit, chain_key, versions, outcome, told, happened_on::text FROM log_units ORDER BY unit, chain_key, versions',
  );

describe('CO-07 the log as a file', () => {
  it('what leaves is shown first: counts and first entries', async () => {
    const r = (await h.api.get('/api/log/share-report')).body as LogShare;
    expect(r.n).toBe(await count(h));
    expect(r.columns).toEqual(LOG_COLUMN_IDS);
    expect(r.rows).toHaveLength(20);
    expect(r.stays.find((x) => x.what === 'notes to entries')?.n).toBe(
      demoBundle().outcomes.filter((o) => o.note !== '').length + 1,
    );
    expect(r.stays.find((x) => x.what === 'names of setups')?.n).toBeGreaterThan(5);
  });

  it('private fields stay: no note, no name of a setup, nobody', async () => {
    for (const kind of ['json', 'csv'] as const) {
      const text = await shared(h, kind);
      expect(text).not.toContain('under the mat');
      expect(text).not.toContain('Dome desk');
      expect(text).not.toContain('this machine');
      expect(text).not.toContain('saltings-log');
    }
    const cells = parse(await shared(h, 'csv')) as string[][];
    expect(cells[0]).toEqual(LOG_COLUMN_IDS);
    expect(cells.flat().some((c) => c.startsWith('='))).toBe(false);
  });

  it('one entry, a chain or what a filter picks', async () => {
    const one = ((await h.api.get('/api/outcomes?limit=1')).body as Page<OutcomeEntry>)
      .items[0] as OutcomeEntry;
    const file = JSON.parse(await shared(h, 'json', `?id=${one.id}`)) as Bundle;
    expect(file.outcomes.map((o) => o.id)).toEqual([one.id]);
    expect(file.chains).toHaveLength(1);
    const told = JSON.parse(await shared(h, 'json', '?known=told')) as Bundle;
    expect(told.outcomes.length).toBeGreaterThan(0);
    expect(told.outcomes.every((o) => o.provenance === 'told')).toBe(true);
    expect((await h.api.get('/api/log/share-report?known=told')).body.n).toBe(told.outcomes.length);
  });

  it("one's own file changes nothing here, though a note stayed at home", async () => {
    const before = await count(h);
    const job = await send(h, await shared(h, 'json'), { mode: 'store' });
    expect(job.result).toMatchObject({ stored: true, fates: { same: before, new: 0, asks: 0 } });
    expect(await count(h)).toBe(before);
  });

  it.each([
    ['{', /Not JSON/],
    ['{"format":"other"}', /format/],
    ['{"format":"ruddy-bridge/bundle","version":1,"outcomes":[]}', /no entries/],
    ['{"format":"ruddy-bridge/bundle","version":1,"parts":[{}],"outcomes":[{}]}', /Workshop, Data/],
    ['', /empty/],
    ['day;outcome\n1;2', /no column "id"/],
  ])('a file that is none is refused with why: %s', async (text, why) => {
    const job = await send(h, text, { mode: 'store' });
    expect([job.state, job.message]).toEqual(['failed', expect.stringMatching(why)]);
  });
});

/** The shared file with its first entry turned round. */
const altered = () => {
  const file = JSON.parse(home.november) as Bundle;
  const [first] = file.outcomes;
  file.outcomes[0] = {
    ...first,
    outcome: first?.outcome === 'fails' ? 'works' : 'fails',
  } as Bundle['outcomes'][number];
  return { text: JSON.stringify(file), id: first?.id as string };
};

describe('CO-07 where entries disagree', () => {
  it('of a setup that is here the correction is on its record', async () => {
    const { text, id } = altered();
    expect((await send(h, text, { mode: 'store', keep: 'file' })).result).toMatchObject({
      stored: true,
    });
    const [event] = await h.rows<{ kind: string; corrects: string }>(
      'SELECT kind, corrects FROM events WHERE corrects = $1',
      [id],
    );
    expect(event).toEqual({ kind: 'outcome', corrects: id });
  });

  it('contradicting ids and corrections of nothing are wrong', async () => {
    const file = JSON.parse(home.november) as Bundle;
    const [first] = file.outcomes as [Bundle['outcomes'][number]];
    const id = randomUUID();
    file.outcomes.push({ ...first, id, corrects: null, happenedOn: '2025-01-01' });
    file.outcomes.push({ ...first, id, corrects: null, happenedOn: '2025-01-02' });
    file.outcomes.push({
      ...first,
      id: randomUUID(),
      corrects: randomUUID(),
      happenedOn: '2025-01-03',
    });
    const job = await send(h, JSON.stringify(file), { mode: 'try' });
    const wrong = (await fates(h, job)).filter((f) => f.fate === 'wrong');
    expect(wrong.map((w) => w.notes[0]?.column)).toEqual(['id', 'corrects']);
  });

  it('a CSV knows known entries, unknown names are wrong rows', async () => {
    expect((await send(h, home.csv, { mode: 'try' })).result?.fates).toMatchObject({
      wrong: 0,
      asks: 0,
      same: home.n,
    });
    const job = await send(h, home.csv.replace(/L-13/, 'L-99'), { mode: 'store', keep: 'here' });
    expect(job.result).toMatchObject({ stored: false });
    const host = (await fates(h, job)).find((f) => f.fate === 'wrong');
    expect(host?.notes[0]).toMatchObject({ column: 'host', what: expect.stringContaining('L-99') });
  });
});

describe('CO-07 another workshop', () => {
  it('one bad row stores nothing and is named by row and field', async () => {
    await move();
    const file = JSON.parse(home.json) as Bundle;
    file.outcomes[3] = {
      ...file.outcomes[3],
      outcome: 'splendid' as never,
    } as Bundle['outcomes'][number];
    file.outcomes[5] = { ...file.outcomes[5], chain: 9999 } as Bundle['outcomes'][number];
    const job = await send(h, JSON.stringify(file), { mode: 'store' });
    expect(job.result).toMatchObject({ stored: false, fates: { wrong: 2 } });
    expect(await count(h)).toBe(0);
    const wrong = (await fates(h, job)).filter((f) => f.fate === 'wrong');
    expect(wrong.map((w) => [w.row, w.notes[0]?.column])).toEqual([
      [4, 'outcome'],
      [6, 'chain'],
    ]);
  });

  it('export, wipe and import are equal; again changes nothing', async () => {
    const tried = await send(h, home.json, { mode: 'try' });
    expect(tried.result).toMatchObject({
      stored: false,
      fates: { new: home.n, wrong: 0, asks: 0, same: 0 },
    });
    expect(await count(h)).toBe(0);
    expect((await send(h, home.json, { mode: 'store' })).result?.stored).toBe(true);
    expect(await units(h)).toEqual(home.units);
    const [sent, again] = [JSON.parse(home.json), JSON.parse(await shared(h, 'json'))] as [
      Bundle,
      Bundle,
    ];
    const named = (b: Bundle) => b.outcomes.map((o) => ({ ...o, cameFrom: 'log.json' }));
    expect(named(again)).toEqual(named(sent));
    expect(again.chains).toEqual(sent.chains);
    const second = await send(h, home.json, { mode: 'store' });
    expect(second.result).toMatchObject({ fates: { new: 0, same: home.n, asks: 0 } });
    expect(await count(h)).toBe(home.n);
  });

  it('its entries are listed with where they came from, and count', async () => {
    const list = ((await h.api.get('/api/outcomes?known=file&limit=5')).body as Page<OutcomeEntry>)
      .items;
    expect(list[0]).toMatchObject({
      setupId: null,
      setupName: '',
      cameFrom: 'log.json',
      origin: 'imported',
    });
    const table = (await h.api.get('/api/compatibility?limit=1')).body as {
      items: { seen: { n: number } }[];
    };
    expect(table.items[0]?.seen.n).toBeGreaterThan(0);
  });

  it('disagreeing entries stand side by side until decided', async () => {
    const job = await send(h, altered().text, { mode: 'store' });
    expect(job.result).toMatchObject({ stored: false, fates: { asks: 1 } });
    const asks = (await fates(h, job)).find((f) => f.fate === 'asks');
    expect(asks?.notes[0]).toMatchObject({
      column: 'outcome',
      here: expect.any(String),
      file: expect.any(String),
    });
    expect(asks?.notes[0]?.here).not.toBe(asks?.notes[0]?.file);
    expect(await count(h)).toBe(home.n);
  });

  it('keeping changes nothing, taking corrects the entry once', async () => {
    const { text, id } = altered();
    expect((await send(h, text, { mode: 'store', keep: 'here' })).result).toMatchObject({
      stored: true,
    });
    expect(await count(h)).toBe(home.n);
    expect(
      (await send(h, text, { mode: 'store', keep: 'here', except: '1' })).result,
    ).toMatchObject({ stored: true });
    expect(await count(h)).toBe(home.n + 1);
    const [old] = await h.rows<{ n: number }>(
      'SELECT count(*)::int AS n FROM log_entries WHERE supersedes = $1',
      [id],
    );
    expect(old?.n).toBe(1);
    expect((await send(h, text, { mode: 'store', keep: 'file' })).result).toMatchObject({
      fates: { asks: 0 },
    });
    expect(await count(h)).toBe(home.n + 1);
  });

  it('they travel in a full export', async () => {
    const whole = (await h.api.get('/api/bundle')).body as Bundle;
    await move();
    await load(whole);
    expect(((await h.api.get('/api/bundle')).body as Bundle).outcomes).toEqual(whole.outcomes);
  });

  it('the CSV round-trips where the parts are known', async () => {
    await move();
    const nothing = {
      setups: [],
      events: [],
      outcomes: [],
      chains: [],
      runs: [],
      captures: [],
      items: [],
      itemFacts: [],
      prices: [],
      sessions: [],
      loans: [],
    };
    await load({ ...(home.whole as Bundle), ...nothing });
    expect((await send(h, home.csv, { mode: 'store' })).result).toMatchObject({
      stored: true,
      fates: { wrong: 0, new: home.n },
    });
    const rows = (text: string) => parse(text) as string[][];
    expect(rows(await shared(h, 'csv'))).toEqual(rows(home.csv));
    expect((await send(h, home.csv, { mode: 'store' })).result?.fates).toMatchObject({
      new: 0,
      same: home.n,
    });
  });
});
