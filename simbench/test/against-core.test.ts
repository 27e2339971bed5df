import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Act } from '@ruddy/core/bench';
import { type Chain, chainSchema } from '@ruddy/core/chain';
import { CONNECTOR_LANES } from '@ruddy/core/parts';
import { bundleSchema } from '@ruddy/core/workshop/contract';
import { directChain, judge, load, tunnelChain } from '../../core/test/make';
import { simulate } from '../src';
import { timed } from './benches';

/** The same chain in two models that share only tables of standards: evaluate predicts, the bench is joined and carries. */
function joined(chain: Chain) {
  const acts: Act[] = [
    { act: 'security', level: 'none' },
    { act: 'traffic', on: true },
    { act: 'plug', socket: chain.socket ?? '' },
    { act: 'mains', on: true },
    { act: 'dock', on: true },
    { act: 'host', to: 'on' },
  ];
  const late = timed([{ act: 'load', on: true }], 40_000);
  return simulate({ chain, seed: 3 }, [...timed(acts), ...late], 60_000).state;
}

/**
 * `slack`: where a USB4 end speaks Thunderbolt 3 to an older one the wires run by the older line code, 3 % faster than its own, up to 6.6 %
 * of what 10 Gb/s of traffic leave; evaluate takes the lesser of both.
 */
function agree(chain: Chain, slack = 1): void {
  const e = judge(chain);
  const s = joined(chain);
  const { hops, readouts } = e.predicted.link;
  const broken = hops.some((h) => h.state === 'broken') || readouts.copy?.down.hi === 0;
  expect(
    s.usable === null,
    `${s.stage}, predicted ${JSON.stringify(hops.map((h) => h.state))}`,
  ).toBe(broken);
  if (!s.usable || !readouts.copy) return;
  for (const way of ['down', 'up'] as const) {
    expect(s.usable[way]).toBeGreaterThanOrEqual(readouts.copy[way].lo - 0.01);
    expect(s.usable[way]).toBeLessThanOrEqual(readouts.copy[way].hi * slack + 0.01);
  }
  expect([s.cardSpan?.gen, s.cardSpan?.lanes]).toEqual([readouts.gen?.lo, readouts.lanes?.lo]);
  if (readouts.router)
    expect([s.router?.laneGbps, s.router?.lanes]).toEqual([
      readouts.router.laneGbps.lo,
      readouts.router.lanes.lo,
    ]);
}

const STANDARDS = [
  'thunderbolt-3',
  'usb4-20',
  'usb4-40',
  'thunderbolt-4',
  'usb4-80',
  'thunderbolt-5',
] as const;
const yesNo = fc.constantFrom('yes', 'no' as const);
const hub = fc.integer({ min: 0, max: 10 });

describe('BE-01 a bench and the plan agree, though neither calls the other', () => {
  it('on tunnels of every age, cable, class and load', () => {
    const any = fc.record({
      port: fc.constantFrom(...STANDARDS),
      uplink: fc.constantFrom(...STANDARDS),
      controller: fc.constantFrom('separate', 'built-in' as const),
      lanes: fc.constantFrom(2, 4),
      tb3: yesNo,
      dockTb3: yesNo,
      tunnelling: yesNo,
      lengthMm: fc.integer({ min: 100, max: 2000 }),
      markedGbps: fc.constantFrom(0.48, 5, 20, 40, 80),
      construction: fc.constantFrom('passive', 'active' as const),
      slotGen: fc.constantFrom(3, 4),
      slotLanes: fc.constantFrom(1, 2, 4, 16),
      cardGen: fc.integer({ min: 2, max: 5 }),
      cardLanes: fc.constantFrom(1, 4, 8, 16),
      hub,
    });
    fc.assert(
      fc.property(any, (k) => {
        const own = {
          'thunderbolt-3': 'b',
          'usb4-20': 'd',
          'usb4-40': 'c',
          'thunderbolt-4': 'c',
          'usb4-80': 'd',
          'thunderbolt-5': 'd',
        } as const;
        const chain = tunnelChain({
          socket: {
            standard: k.port,
            tunnelling: k.port.startsWith('usb4') ? k.tunnelling : 'yes',
            tb3Compat: k.tb3,
            controller: k.controller,
            pcieGen: k.port === 'thunderbolt-3' ? 3 : 4,
            lanes: k.lanes,
          },
          cable: { construction: k.construction, lengthMm: k.lengthMm, markedGbps: k.markedGbps },
          dock: {
            uplink: k.uplink,
            tb3Compat: k.dockTb3,
            controllerClass: own[k.uplink],
            slotGen: k.slotGen,
            slotLanes: k.slotLanes,
            ownLead: 'no',
          },
          card: { pcieGen: k.cardGen, lanes: k.cardLanes },
          loads: [load({ kind: 'hub', downGbps: k.hub, upGbps: k.hub, ownLead: 'no' })],
        });
        agree(chain, (k.port === 'thunderbolt-3') === (k.uplink === 'thunderbolt-3') ? 1 : 1.066);
      }),
      { numRuns: 400 },
    );
  });

  it('on direct paths of every width and generation', () => {
    const any = fc.record({
      connector: fc.constantFrom('oculink-4i', 'oculink-8i' as const),
      gen: fc.integer({ min: 3, max: 5 }),
      lanes: fc.constantFrom(1, 2, 4),
      cableGen: fc.integer({ min: 3, max: 4 }),
      slotGen: fc.integer({ min: 3, max: 5 }),
      slotLanes: fc.constantFrom(1, 4, 8, 16),
      cardGen: fc.integer({ min: 2, max: 5 }),
      cardLanes: fc.constantFrom(1, 4, 8, 16),
    });
    fc.assert(
      fc.property(any, (k) => {
        const plug = { connector: k.connector } as const;
        const chain = directChain({
          socket: {
            ...plug,
            pcieGen: k.gen,
            lanes: Math.min(k.lanes, CONNECTOR_LANES[k.connector] ?? 16),
          },
          cable: { ...plug, pcieGen: k.cableGen },
          dock: { ...plug, slotGen: k.slotGen, slotLanes: k.slotLanes },
          card: { pcieGen: k.cardGen, lanes: k.cardLanes },
        });
        agree(chain);
      }),
      { numRuns: 400 },
    );
  });
});

describe('BE-01 every setup of the demo on a bench', () => {
  const bundle = bundleSchema.parse(
    JSON.parse(readFileSync(new URL('../../demo/observatory.json', import.meta.url), 'utf8')),
  );
  const spec = (id: string | null) => bundle.parts.find((p) => p.id === id)?.spec ?? null;

  it.each(
    bundle.setups.filter((s) => s.slots.host && s.slots.card).map((s) => [s.name, s] as const),
  )('%s', (_name, s) => {
    const chain = chainSchema.parse({
      host: spec(s.slots.host),
      socket: s.slots.socket,
      path: s.slots.path?.map((id, i) => ({ key: 'abcdef'.charAt(i), spec: spec(id) })) ?? null,
      dock: spec(s.slots.dock),
      card: spec(s.slots.card),
      supplies: s.slots.supplies.map((x, i) => ({
        key: 'abc'.charAt(i),
        feeds: x.feeds,
        spec: spec(x.part),
      })),
    });
    const state = joined(chain);
    const { hops, readouts } = judge(chain).predicted.link;
    const broken = hops.some((h) => h.state === 'broken');
    const whole = hops.every((h) => h.unchosen.length === 0);
    // Where the plan says "nothing, or something", two long cables in a row, a bench may do either.
    if (broken) expect(state.usable).toBeNull();
    else if (whole && (readouts.copy?.down.lo ?? 0) > 0) expect(state.usable).not.toBeNull();
    expect(state.ms).toBe(60_000);
  });
});
