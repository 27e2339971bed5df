import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { chainSchema } from '@ruddy/core/chain';
import { evaluate } from '@ruddy/core/plan';
import { addSetup, SPECS, start, type Harness } from './harness';

let h: Harness;
beforeAll(async () => {
  h = await start();
});
afterAll(() => h.close());

const oculink = {
  host: {
    ...SPECS.host,
    sockets: [{ key: 'back', connector: 'oculink-4i', standard: 'oculink', pcieGen: 4, lanes: 4 }],
  },
  socket: 'back',
  path: [
    {
      maker: 'Alder',
      model: 'Q',
      connector: 'oculink-4i',
      construction: 'passive',
      lengthMm: 500,
      pcieGen: 4,
    },
  ],
  dock: { ...SPECS.dock, connector: 'oculink-4i', uplink: 'oculink', slotGen: 4 },
  card: SPECS.card,
};
const tunnel = {
  host: SPECS.host,
  socket: 'left',
  path: [SPECS.cable],
  dock: SPECS.dock,
  card: SPECS.card,
};
const judge = (body: object) => h.api.post('/api/evaluate').send(body);

describe('PL-05 POST /api/evaluate', () => {
  it.each([
    ['USB4 40 tunnel', tunnel, 'works', 26.0],
    ['OCuLink 4i', oculink, 'works', 57.3],
    ['USB-C without tunnelling', { ...tunnel, socket: 'right' }, 'blocked', 0],
  ])('judges whole parts inline: %s', async (_name, chain, state, gbps) => {
    const r = await judge({ chain });
    expect(r.status).toBe(200);
    expect(r.body.evaluation.predicted.verdict.state).toBe(state);
    expect(r.body.evaluation.predicted.link.usable.down.lo).toBeCloseTo(gbps, 1);
  });

  it('an unknown tunnelling flag is not enough known, and named', async () => {
    const host = { ...SPECS.host, sockets: [{ ...SPECS.host.sockets[0], tunnelling: null }] };
    const r = await judge({ chain: { ...tunnel, host } });
    expect(r.body.evaluation.predicted.verdict).toMatchObject({
      state: 'unknown',
      wouldDecide: ['host/sockets/left/tunnelling'],
    });
    expect(r.body.sentence).toContain('First: whether the left port tunnels PCIe, 10 minutes.');
  });

  it('a chain of link only is not known, area by area', async () => {
    const { connector, uplink, slotGen, slotLanes, form } = SPECS.dock;
    const { pcieGen, lanes } = SPECS.card;
    const named = { maker: 'Alder', model: 'Only a link' };
    const bare = {
      ...tunnel,
      dock: { ...named, connector, uplink, slotGen, slotLanes, form },
      card: { ...named, pcieGen, lanes },
    };
    const r = await judge({ chain: bare });
    const { verdict, areas, coverage } = r.body.evaluation.predicted;
    expect(verdict.state).toBe('unknown');
    const state = Object.fromEntries(
      areas.map((a: { area: string; state: string }) => [a.area, a.state]),
    );
    expect(state).toMatchObject({
      link: 'good',
      room: 'open',
      plugs: 'open',
      watts: 'open',
      software: 'good',
    });
    expect(areas.find((a: { area: string }) => a.area === 'room').open).toContain('card/lengthMm');
    expect(coverage.known).toBeLessThan(coverage.of);
    expect(r.body.sentence).toMatch(
      /^Not enough known\. Link fine at 26\.0 Gb\/s\. Not known: power plugs, watts and room\. First: /,
    );
  });

  it('gives what the core gives for the same chain, through ids too', async () => {
    const s = await addSetup(h, 'same');
    const r = await judge({ setupId: s.id });
    const direct = evaluate({
      chain: chainSchema.parse(r.body.chain),
      context: { asOf: '2026-11-20', house: {} },
    });
    expect(r.body.evaluation).toEqual(JSON.parse(JSON.stringify(direct)));
    const ids = {
      host: { id: s.slots.host },
      socket: 'left',
      path: [{ id: s.slots.path?.[0] }],
      dock: { id: s.slots.dock },
      card: { id: s.slots.card },
    };
    expect((await judge({ chain: ids })).body.evaluation).toEqual(r.body.evaluation);
  });

  it('a patch replaces whole slots and stores nothing', async () => {
    const s = await addSetup(h, 'patched');
    const r = await judge({ setupId: s.id, patch: { path: [{ ...SPECS.cable, lengthMm: 1500 }] } });
    expect(r.body.evaluation.predicted.verdict.state).toBe('care');
    expect((await h.api.get(`/api/setups/${s.id}`)).body).toEqual(s);
  });

  it('says exactly where a body is wrong', async () => {
    const paths = async (body: object) =>
      ((await judge(body)).body.errors as { path: string }[]).map((e) => e.path);
    expect(await paths({})).toEqual(['chain']);
    expect(await paths({ chain: { ...tunnel, dock: { id: randomUUID() } } })).toEqual([
      'chain/dock/id',
    ]);
    expect(await paths({ chain: { ...tunnel, socket: 'top' } })).toEqual(['chain/socket']);
    expect(
      await paths({ chain: { ...tunnel, path: [{ ...SPECS.cable, lengthMm: -3 }] } }),
    ).toContain('chain/path/0/lengthMm');
    expect(await paths({ chain: tunnel, rules: { 'link.flowControlPercent': 90 } })).toEqual([
      'rules/link.flowControlPercent',
    ]);
  });

  it('bounds the path and the body', async () => {
    expect((await judge({ chain: { ...tunnel, path: Array(7).fill(SPECS.cable) } })).status).toBe(
      422,
    );
    const big = await judge({
      chain: { ...tunnel, host: { ...SPECS.host, maker: 'x'.repeat(300_000) } },
    });
    expect(big.status).toBe(413);
  });
});

describe('WS-02 house rules', () => {
  it('a rule with its reason counts everywhere and can go back', async () => {
    const id = 'cable.passiveFullRateMm';
    const put = (rev: number, body: object) =>
      h.api.put(`/api/rules/${id}`).set('If-Match', `"${rev}"`).send(body);
    const chain = { ...tunnel, path: [{ ...SPECS.cable, lengthMm: 1000 }] };
    expect((await judge({ chain })).body.evaluation.predicted.verdict.state).toBe('care');
    expect((await put(0, { value: 1200, reason: '' })).body.errors[0].path).toBe('reason');
    expect((await put(0, { value: 9, reason: 'x' })).body.errors[0].path).toBe('value');
    expect((await put(0, { value: 1200, reason: 'ours were tested to it' })).body).toMatchObject({
      value: 1200,
      rev: 1,
    });
    expect((await put(0, { value: 1300, reason: 'late' })).status).toBe(412);
    const now = (await judge({ chain })).body.evaluation;
    expect(now.predicted.verdict.state).toBe('works');
    expect(now.assumptions).toContainEqual({ rule: id, value: 1200, unit: 'mm', setBy: 'house' });
    await put(1, { value: null, reason: '' });
    expect((await judge({ chain })).body.evaluation.predicted.verdict.state).toBe('care');
  });
});
