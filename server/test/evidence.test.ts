import { inTransaction } from '../src/platform/db/transaction';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { RULES, wilson } from '@ruddy/core/base';
import type { Page } from '@ruddy/core/base/contract';
import type { Chain } from '@ruddy/core/chain';
import { factorsOf, matchOf, nearWeights, type Versions } from '@ruddy/core/compatibility';
import type { CompatRow, EvidenceAnswer, OutcomeEntry } from '@ruddy/core/compatibility/contract';
import { type EvidenceSummary, expectation, NO_EVIDENCE } from '@ruddy/core/plan';
import type { Setup } from '@ruddy/core/setups/contract';
import { THIS_MACHINE } from '../src/platform/http/route';
import { loadBundle } from '../src/workshop/bundle-load';
import { addSetup, demoBundle, start, type Harness } from './harness';

let h: Harness;
beforeAll(async () => {
  h = await start();
});
afterAll(() => h.close());

async function log(
  setup: Setup,
  outcome: string,
  happenedOn: string,
  versions: object = {},
  more: object = {},
) {
  const id = randomUUID();
  const r = await h.api
    .post(`/api/setups/${setup.id}/outcomes`)
    .send({ id, outcome, happenedOn, versions, ...more });
  if (r.status !== 201) throw new Error(JSON.stringify(r.body));
  return id;
}
const ask = async (body: object) => {
  const r = await h.api.post('/api/evidence').send(body);
  if (r.status !== 200) throw new Error(JSON.stringify(r.body));
  return r.body as EvidenceAnswer;
};
const alone = { limit: 200 };

describe('PL-18 what the log says of exactly this chain', () => {
  it('n = 0: zero entries, nothing known, no prior', async () => {
    const s = await addSetup(h, 'Zero');
    const e = await ask({
      setupId: s.id,
      ...alone,
      weights: { host: 0, link: 0, dock: 0, family: 0 },
    });
    expect(e.summary).toEqual(NO_EVIDENCE);
    expect(e.expected).toMatchObject({ mean: 0.5, prior: null });
    expect(e.entries).toEqual([]);
  });

  it('n = 1 counts, with an interval showing how little', async () => {
    const s = await addSetup(h, 'One');
    await log(s, 'works', '2026-05-01');
    const e = await ask({ setupId: s.id });
    expect(e.summary.exact).toMatchObject({ n: 1, works: 1, newest: '2026-05-01' });
    expect(wilson(1, e.summary.exact.n).lo).toBeCloseTo(0.2065, 4);
    expect(e.entries.filter((x) => x.exact)).toHaveLength(1);
  });

  it('all failures, contradictory entries: counted as they are', async () => {
    const a = await addSetup(h, 'Never');
    const b = await addSetup(h, 'Torn');
    for (const d of ['1', '2', '3', '4']) await log(a, 'fails', '2026-05-01', { driver: d });
    for (const d of ['1', '2', '3', '4'])
      await log(b, d < '3' ? 'works' : 'unreliable', '2026-05-01', { driver: d });
    expect((await ask({ setupId: a.id })).summary.exact).toMatchObject({
      n: 4,
      fails: 4,
      works: 0,
    });
    expect((await ask({ setupId: b.id })).summary.exact).toMatchObject({
      n: 4,
      works: 2,
      unreliable: 2,
    });
    const judged = await h.api.post('/api/evaluate').send({ setupId: a.id, evidence: 'log' });
    expect(judged.body.sentence).toBe(
      'Predicted to work, seen to fail 4 of 4 times. Trust the log; the reason is not known.',
    );
    const torn = await h.api.post('/api/evaluate').send({ setupId: b.id, evidence: 'log' });
    expect(torn.body.evaluation.predicted.verdict.state).toBe('works');
  });

  it('ten retries in one evening count once, new versions again', async () => {
    const s = await addSetup(h, 'Evening');
    for (let i = 0; i < 10; i += 1)
      await log(
        s,
        i === 9 ? 'works' : 'fails',
        '2026-05-02',
        { driver: '40.1' },
        { symptoms: [`try ${i}`] },
      );
    const one = await ask({ setupId: s.id });
    expect(one.summary.exact).toMatchObject({ n: 1, works: 1, fails: 0 });
    await log(s, 'fails', '2026-05-03', { driver: '40.2' });
    expect((await ask({ setupId: s.id })).summary.exact).toMatchObject({
      n: 2,
      works: 1,
      fails: 1,
    });
  });

  it('hearsay counts apart by confidence, corrected entries no more', async () => {
    const s = await addSetup(h, 'Told');
    await log(s, 'works', '2026-05-01', { driver: '1' }, { provenance: 'told', confidence: 0.6 });
    const wrong = await log(s, 'works', '2026-05-02', { driver: '2' });
    await log(s, 'fails', '2026-05-02', { driver: '2' }, { corrects: wrong });
    const e = await ask({ setupId: s.id, weights: { host: 0, link: 0, dock: 0, family: 0 } });
    expect(e.summary.exact).toMatchObject({ n: 1, fails: 1 });
    expect(e.summary.told).toEqual({ n: 1, worked: 1 });
    expect(e.summary.weighted.worked).toBeCloseTo(0.6, 3);
    expect(e.summary.weighted.failed).toBe(1);
  });

  it('versions that changed halve the weight; the same ones are quoted first', async () => {
    const s = await addSetup(h, 'Moved');
    await log(s, 'works', '2026-05-01', { driver: '1' });
    await log(s, 'works', '2026-05-02', { driver: '2' });
    const patch = {
      installed: { systemBuild: '', driver: '2', hostFirmware: '', dockFirmware: '' },
    };
    const current = (await h.api.get(`/api/setups/${s.id}`)).body as Setup;
    const r = await h.api
      .patch(`/api/setups/${s.id}`)
      .set('If-Match', `"${current.rev}"`)
      .send({ installed: { ...current.installed, ...patch.installed } });
    expect(r.status).toBe(200);
    const e = await ask({ setupId: s.id });
    expect(e.summary.same).toEqual({ n: 1, worked: 1 });
    expect(e.summary.weighted).toEqual({ worked: 1.5, failed: 0 });
    expect(
      (await h.api.post('/api/evaluate').send({ setupId: s.id, evidence: 'log' })).body.sentence,
    ).toContain('seen to work once under these versions');
  });
});

describe('PL-18 what if this entry is left out', () => {
  it('its unit falls back to the entry before, or goes', async () => {
    const s = await addSetup(h, 'Out');
    const first = await log(s, 'fails', '2026-05-01', { driver: '1' });
    const second = await log(s, 'works', '2026-05-02', { driver: '1' });
    expect((await ask({ setupId: s.id })).summary.exact).toMatchObject({ n: 1, works: 1 });
    const without = await ask({ setupId: s.id, without: second });
    expect(without.summary.exact).toMatchObject({ n: 1, works: 0, fails: 1 });
    expect(without.entries[0]?.entry.id).toBe(first);
    expect((await ask({ setupId: s.id, without: first })).summary.exact).toMatchObject({
      n: 1,
      works: 1,
    });
    expect((await ask({ setupId: s.id })).summary.exact).toMatchObject({ n: 1, works: 1 });
  });
});

describe('the statement and the core weigh alike', () => {
  it('equals the plain sum over the whole demo log', async () => {
    await inTransaction(() =>
      loadBundle(demoBundle(), {
        origin: 'demo',
        by: THIS_MACHINE.id,
        now: h.clock.now,
      }).then(() => undefined),
    );
    const weights = nearWeights((id) => RULES[id].default);
    const units = await h.rows<{
      chain: Chain;
      versions: Versions;
      told: boolean;
      confidence: number;
      worked: boolean;
    }>(
      `SELECT e.chain, u.versions, u.told, round(u.confidence::numeric, 3)::float8 AS confidence, u.worked FROM log_units u JOIN log_entries e ON e.id = u.entry_id`,
    );
    const setups = (await h.api.get('/api/setups?limit=100')).body as Page<Setup>;
    for (const setup of setups.items) {
      const { chain } = (await h.api.post('/api/evaluate').send({ setupId: setup.id })).body as {
        chain: Chain;
      };
      const match = matchOf(chain);
      const { systemBuild, driver, hostFirmware, dockFirmware } = chain.installed;
      const versions = Object.fromEntries(
        Object.entries({ system: systemBuild, driver, hostFirmware, dockFirmware }).filter(
          ([, v]) => v !== '',
        ),
      );
      const near = { n: 0, weight: 0, worked: 0 };
      const weighted = { worked: 0, failed: 0 };
      for (const u of units) {
        const f = factorsOf(match, versions, { ...u, match: matchOf(u.chain) }, weights);
        if (matchOf(u.chain).key === match.key)
          weighted[u.worked ? 'worked' : 'failed'] += f.weight;
        else if (f.weight > 0) {
          near.n += 1;
          near.weight += f.weight;
          near.worked += u.worked ? f.weight : 0;
        }
      }
      const e = await ask({ setupId: setup.id });
      expect([setup.name, e.summary.near.n]).toEqual([setup.name, near.n]);
      for (const k of ['weight', 'worked'] as const)
        expect(e.summary.near[k]).toBeCloseTo(near[k], 9);
      for (const k of ['worked', 'failed'] as const)
        expect(e.summary.weighted[k]).toBeCloseTo(weighted[k], 9);
      expect(e.expected).toEqual(expectation(e.summary as EvidenceSummary, weights.strength));
      const shown = e.entries.filter((x) => !x.exact);
      for (const x of shown) expect(x.weight).toBeCloseTo(x.shared * x.versions * x.told, 9);
      expect(shown.map((x) => x.weight)).toEqual(
        [...shown.map((x) => x.weight)].sort((a, b) => b - a),
      );
      expect(e.more).toBe(e.summary.near.n - shown.length);
    }
  });

  it('house rules move the weights, bad ones are refused', async () => {
    const s = ((await h.api.get('/api/setups?q=Dome')).body as Page<Setup>).items[0] as Setup;
    const before = await ask({ setupId: s.id });
    const r = await h.api
      .put('/api/rules/near.host')
      .set('If-Match', '"0"')
      .send({ value: 0, reason: 'hosts are all alike here' });
    expect(r.status).toBe(200);
    expect((await ask({ setupId: s.id })).summary.near.weight).not.toBe(before.summary.near.weight);
    const bad = await h.api.post('/api/evidence').send({ setupId: s.id, weights: { host: 2 } });
    expect([bad.status, bad.body.errors[0].path]).toEqual([422, 'weights/host']);
    await h.api
      .put('/api/rules/near.host')
      .set('If-Match', '"1"')
      .send({ value: null, reason: '' });
  });
});

describe('CO-03 found by any part, standard, controller, system, symptom, fix and day', () => {
  const find = async (q: string) =>
    ((await h.api.get(`/api/outcomes?limit=200&${q}`)).body as Page<OutcomeEntry>).items;

  it.each([
    ['host', 'L-13'],
    ['dock', 'D-4'],
    ['card', 'C-20'],
    ['symptom', 'black screen'],
    ['fix', 'dock firmware'],
    ['q', 'L-13'],
  ])('%s', async (key, words) => {
    const all = await find('');
    const found = await find(`${key}=${encodeURIComponent(words)}`);
    expect(found.length).toBeGreaterThan(0);
    expect(found.length).toBeLessThan(all.length);
    const text = (e: OutcomeEntry) =>
      JSON.stringify([e.chain, e.symptoms, e.fixes, e.setupName]).toLowerCase();
    for (const e of found) expect(text(e)).toContain(words.toLowerCase());
  });

  it('filters narrow it, and nothing fitting is an empty page', async () => {
    for (const e of await find('standard=oculink')) expect(e.chainKey).toContain('"oculink"');
    expect((await find('controller=built-in')).length).toBeGreaterThan(0);
    expect((await find('system=6118')).every((e) => e.versions.system === '6118')).toBe(true);
    expect(
      (await find('since=2026-10-01&until=2026-10-31')).every((e) =>
        e.happenedOn.startsWith('2026-10'),
      ),
    ).toBe(true);
    expect((await find('known=told')).every((e) => e.provenance === 'told')).toBe(true);
    expect(await find('q=%25%25')).toEqual([]);
    expect(await find('host=no%20such%20host')).toEqual([]);
    expect((await h.api.get('/api/outcomes?since=yesterday')).status).toBe(400);
  });

  it('exactly these first, then near ones with what they share', async () => {
    const names = (await h.api.get('/api/compatibility/names')).body as {
      host: string[];
      dock: string[];
      card: string[];
    };
    const all = (await h.api.get('/api/compatibility?limit=100')).body as Page<CompatRow>;
    const one = all.items.find((r) => names.dock.includes(r.dock)) as CompatRow;
    const query = `near=true&sort=near&limit=100&host=${encodeURIComponent(one.host)}&dock=${encodeURIComponent(one.dock)}&card=${encodeURIComponent(one.card)}&standard=${one.standard}`;
    const near = (await h.api.get(`/api/compatibility?${query}`)).body as Page<CompatRow>;
    expect(near.items[0]).toMatchObject({
      key: one.key,
      shared: { parts: ['host', 'link', 'dock', 'family'] },
    });
    expect(near.items.length).toBeGreaterThan(1);
    const weights = near.items.map((r) => r.shared?.weight ?? -1);
    expect(weights).toEqual([...weights].sort((a, b) => b - a));
    expect(weights.at(-1)).toBeGreaterThan(0);
    const exact = (
      await h.api.get(
        `/api/compatibility?host=${encodeURIComponent(one.host)}&dock=${encodeURIComponent(one.dock)}`,
      )
    ).body as Page<CompatRow>;
    expect(
      exact.items.every((r) => r.host === one.host && r.dock === one.dock && r.shared === null),
    ).toBe(true);
  });
});
