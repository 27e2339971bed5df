import { randomUUID } from 'node:crypto';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { SetupEvent } from '@ruddy/core/compatibility/contract';
import type { Evaluation } from '@ruddy/core/plan';
import type { FixRow, TouchedRow } from '@ruddy/core/plan/contract';
import type { Setup } from '@ruddy/core/setups/contract';
import { addPart, addSetup, start, type Harness } from './harness';

let h: Harness;
beforeEach(async () => {
  h = await start();
});
afterEach(() => h.close());

const patch = (s: Setup, body: object) =>
  h.api.patch(`/api/setups/${s.id}`).set('If-Match', `"${s.rev}"`).send(body);
const judged = async (body: object) =>
  (await h.api.post('/api/evaluate').send(body)).body as {
    sentence: string;
    evaluation: Evaluation;
  };
const codes = (e: Evaluation) => e.findings.map((f) => f.code);

describe('what stands round the link survives', () => {
  it('PL-11 PL-09 PL-25 supplies, screens, system and spares round-trip', async () => {
    const s = await addSetup(h, 'Round');
    const [supply, screen, system, other] = await Promise.all([
      addPart(h, 'supply'),
      addPart(h, 'screen'),
      addPart(h, 'system'),
      addPart(h, 'card', { model: 'C-9' }),
    ]);
    const slots = {
      supplies: [{ part: supply.id, feeds: 'card' }],
      screens: [{ part: screen.id, by: 'dock', plug: 'hdmi' }],
      system: system.id,
      spares: [{ part: other.id, purpose: 'film evenings' }],
    };
    const settings = { encryption: 'yes', recoveryKey: 'no', hostDrawW: { lo: 40, hi: 60 } };
    const r = await patch(s, {
      slots,
      settings,
      uses: [{ work: 'cad', resolution: '1440p' }],
      present: 'the old card',
    });
    expect(r.status).toBe(200);
    const back = (await h.api.get(`/api/setups/${s.id}`)).body as Setup;
    expect(back.slots).toMatchObject({ ...slots, host: s.slots.host, path: s.slots.path });
    expect(back.settings).toMatchObject(settings);
    expect([back.uses[0]?.work, back.present]).toEqual(['cad', 'the old card']);
    const { evaluation } = await judged({ setupId: s.id });
    expect(codes(evaluation)).toContain('preflight/recovery-key');
    // The dock's own supply stays beside it and feeds the dock.
    expect(
      evaluation.predicted.body.power.feeders.map((f) => [f.name, f.feedsCard, f.feedsDock]),
    ).toEqual([
      ['the supply of Alder D Round', false, true],
      ['Alder S-1', true, false],
    ]);
    const record = JSON.stringify((await h.api.get(`/api/setups/${s.id}/record`)).body);
    expect(record).toContain('Alder S-1 (the card)');
  });

  it('a part of another kind is refused at its place', async () => {
    const s = await addSetup(h, 'Wrong');
    const r = await patch(s, { slots: { supplies: [{ part: s.slots.card, feeds: 'both' }] } });
    expect(r.status).toBe(422);
    expect(JSON.stringify(r.body)).toContain('slots/supplies/0/part');
    expect(((await h.api.get(`/api/setups/${s.id}`)).body as Setup).rev).toBe(s.rev);
  });

  it('a requirement that says neither from nor until which version is refused', async () => {
    const r = await h.api.post('/api/parts').send({
      id: randomUUID(),
      kind: 'requirement',
      spec: {
        maker: 'any',
        model: 'any',
        variant: 'x',
        subject: 'dock',
        needs: 'driver',
        severity: 'care',
        effect: 'y',
        source: 'z',
      },
    });
    expect(r.status).toBe(422);
    expect(JSON.stringify(r.body)).toContain('Say from which version');
  });
});

describe('PL-14 requirements of the catalogue', () => {
  it('judge setups, lists and evaluation alike, their parts only', async () => {
    const a = await addSetup(h, 'A');
    const b = await addSetup(h, 'B');
    await addPart(h, 'requirement', { model: 'D A' });
    await addPart(h, 'release', { model: 'D A' });
    await patch(a, { installed: { dockFirmware: '1.6' } });
    const { evaluation } = await judged({ setupId: a.id });
    expect(
      evaluation.findings.find((f) => f.code === 'software/firmware-first')?.params,
    ).toMatchObject({
      have: '1.6',
      to: '1.8',
    });
    expect(codes((await judged({ setupId: b.id })).evaluation)).not.toContain(
      'software/firmware-first',
    );
    const list = (await h.api.get('/api/setups')).body as {
      items: { name: string; glance: { verdict: string; sentence: string } }[];
    };
    expect(list.items.map((s) => [s.name, s.glance.verdict])).toEqual([
      ['A', 'care'],
      ['B', 'works'],
    ]);
    expect(list.items[0]?.glance.sentence).toContain('1.6 to 1.8');
  });

  it('a retired one speaks no more; one given inline stands alone', async () => {
    const s = await addSetup(h, 'A');
    const r = await addPart(h, 'requirement', { model: 'D A', severity: 'care' });
    await patch(s, { installed: { dockFirmware: '1.6' } });
    await h.api.patch(`/api/parts/${r.id}`).set('If-Match', '"1"').send({ retired: true });
    expect(codes((await judged({ setupId: s.id })).evaluation)).not.toContain(
      'software/firmware-first',
    );
    const inline = await judged({ setupId: s.id, requirements: [{ ...r.spec, model: 'any' }] });
    expect(codes(inline.evaluation)).toContain('software/firmware-first');
  });
});

describe('Try it: fixes', () => {
  const fixes = async (body: object) =>
    (await h.api.post('/api/fixes').send(body)).body as { items: FixRow[]; tried: number };

  it('finds a catalogue cable that removes the finding', async () => {
    const s = await addSetup(h, 'Long');
    const long = await addPart(h, 'cable', { model: 'K-long', lengthMm: 1500 });
    await addPart(h, 'cable', { model: 'K-charge', lengthMm: 300, markedGbps: 0.48 });
    const now = (await patch(s, { slots: { path: [long.id] } })).body as Setup;
    const r = await fixes({ setupId: now.id, code: 'cable/too-long' });
    expect(r.items[0]).toMatchObject({
      words: 'Take Alder K Long',
      verdict: 'works',
      change: { part: { slot: 'path', index: 0, id: s.slots.path?.[0] } },
    });
    expect(r.items.map((i) => i.words)).not.toContain('Take Alder K-charge');
    expect(((await h.api.get(`/api/setups/${s.id}`)).body as Setup).slots.path).toEqual([long.id]);
  });

  it('offers another port, and a setting where that suffices', async () => {
    const s = await addSetup(h, 'Port', { socket: 'right' });
    expect((await fixes({ setupId: s.id, code: 'link/no-tunnel' })).items[0]).toMatchObject({
      words: 'Use the port left',
      change: { socket: 'left' },
    });
    await patch(s, { settings: { approval: 'once' }, slots: { socket: 'left' } });
    expect((await fixes({ setupId: s.id, code: 'software/approval' })).items).toEqual([
      expect.objectContaining({
        words: 'Approve the dock always',
        change: { settings: { approval: 'always' } },
        verdict: 'works',
      }),
    ]);
  });

  it('a part in a fix brings its own requirements', async () => {
    const s = await addSetup(h, 'Needs');
    const weak = await addPart(h, 'dock', { model: 'D-weak', slotLanes: 1 });
    await addPart(h, 'requirement', { model: 'D Needs' });
    const now = (await patch(s, { slots: { dock: weak.id } })).body as Setup;
    const { items } = await fixes({ setupId: now.id, code: 'link/pinch' });
    expect(items[0]).toMatchObject({ words: 'Take Alder D Needs', verdict: 'care', care: 1 });
  });

  it('an absent finding has none, unknown codes are refused', async () => {
    const s = await addSetup(h, 'None');
    expect(await fixes({ setupId: s.id, code: 'power/over' })).toEqual({ items: [], tried: 0 });
    expect(
      (await h.api.post('/api/fixes').send({ setupId: s.id, code: 'power/none' })).status,
    ).toBe(422);
  });
});

describe('PA-06 releases by hand', () => {
  const mark = (s: Setup, body: object, rev = s.rev) =>
    h.api
      .post(`/api/setups/${s.id}/installed`)
      .set('If-Match', `"${rev}"`)
      .send({ id: randomUUID(), role: 'dockFirmware', version: '1.8', on: '2026-11-01', ...body });

  it('names setups a release touches and what it would fix', async () => {
    const a = await addSetup(h, 'A');
    await addSetup(h, 'B');
    const release = await addPart(h, 'release', { model: 'D A' });
    await addPart(h, 'requirement', { model: 'D A' });
    await patch(a, { installed: { dockFirmware: '1.10' } });
    const touched = async () =>
      ((await h.api.get(`/api/releases/${release.id}/setups`)).body as { items: TouchedRow[] })
        .items;
    expect(await touched()).toEqual([
      expect.objectContaining({
        name: 'A',
        part: 'Alder D A',
        have: '1.10',
        stands: 'newer',
        mends: [],
      }),
    ]);
    const now = (await h.api.get(`/api/setups/${a.id}`)).body as Setup;
    await patch(now, { installed: { dockFirmware: '1.6' } });
    expect((await touched())[0]).toMatchObject({
      stands: 'older',
      mends: ['Dock firmware before first use'],
    });
    expect((await h.api.get(`/api/releases/${a.slots.dock}/setups`)).status).toBe(404);
  });

  it('marking installed changes the version, on record and log', async () => {
    const s = await addSetup(h, 'A');
    const r = await mark(s, {
      outcome: { id: randomUUID(), outcome: 'works', note: 'first start' },
    });
    expect(r.status).toBe(201);
    expect((r.body as Setup).installed.dockFirmware).toBe('1.8');
    const items = ((await h.api.get(`/api/setups/${s.id}/record`)).body as { items: SetupEvent[] })
      .items;
    expect(items.map((e) => e.kind).sort()).toEqual(['created', 'outcome', 'version']);
    expect(items.find((e) => e.kind === 'version')).toMatchObject({
      happenedAt: '2026-11-01T12:00:00.000Z',
      body: { from: '', to: '1.8' },
    });
    const log = (await h.api.get(`/api/outcomes?setupId=${s.id}`)).body as {
      items: { versions: object }[];
    };
    expect(log.items[0]?.versions).toEqual({ dockFirmware: '1.8' });
  });

  it('repeats are answered once, stale and future ones refused', async () => {
    const s = await addSetup(h, 'A');
    const id = randomUUID();
    await mark(s, { id });
    expect((await mark(s, { id })).status).toBe(201);
    expect((await mark(s, {})).status).toBe(412);
    expect((await mark(s, { on: '2027-01-01' }, 2)).status).toBe(422);
    const items = ((await h.api.get(`/api/setups/${s.id}/record`)).body as { items: SetupEvent[] })
      .items;
    expect(items.filter((e) => e.kind === 'version')).toHaveLength(1);
  });
});
