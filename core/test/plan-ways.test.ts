import { describe, expect, it } from 'vitest';
import type { Chain } from '../src/chain';
import {
  adjustmentsFor,
  applyAdjust,
  preFlight,
  rankFixes,
  routesOf,
  swapSteps,
} from '../src/plan';
import { swapWords } from '../src/plan/text';
import { cable, card, host, judge, path, requirement, socket, tunnelChain } from './make';
import { whole } from './provoked';

const context = { asOf: '2026-11-20', house: {} };
const m2 = { connector: 'm2', standard: 'pcie', tunnelling: null, controller: null } as const;

describe('PL-04 routes', () => {
  const many = {
    ...host(),
    lan: 'no' as const,
    sockets: [
      socket({ key: 'plain', standard: 'usb-c', tunnelling: 'no' }),
      socket({ key: 'usb4', chargeInW: 100 }),
      socket({ key: 'm2-1', ...m2, holds: 'system-drive', reach: 'cover' }),
      socket({ key: 'm2-2', ...m2, holds: 'nothing', reach: 'cover' }),
      socket({
        key: 'radio',
        ...m2,
        connector: 'mini-card',
        lanes: 1,
        pcieGen: 2,
        holds: 'radio',
        reach: 'cut',
      }),
    ],
  };
  const routes = routesOf(many, 'usb4', context);
  const by = (key: string) => routes.find((r) => r.key === key)!;

  it('every port and slot is a route, the best rate first', () => {
    expect(routes.map((r) => [r.key, r.kind])).toEqual([
      ['m2-1', 'direct'],
      ['m2-2', 'direct'],
      ['usb4', 'tunnel'],
      ['radio', 'direct'],
      ['plain', 'none'],
    ]);
    // Gen4 ×4 direct at 256 bytes, and the same behind USB4 40's transport (ENGINE's check values).
    expect(by('m2-2').usable?.lo.toFixed(1)).toBe('57.3');
    expect(by('usb4').usable?.lo.toFixed(1)).toBe('32.0');
    expect(by('plain').usable).toEqual({ lo: 0, hi: 0 });
  });

  it('slots name what leaves, boots, networks and how to reach them', () => {
    expect(by('m2-1')).toMatchObject({
      evicts: 'system-drive',
      bootTo: ['left'],
      opening: 'cover',
      portable: false,
      hotPlug: false,
    });
    expect(by('m2-2')).toMatchObject({ evicts: 'nothing', bootTo: [], network: 'as before' });
    expect(by('radio')).toMatchObject({ evicts: 'radio', network: 'none', opening: 'cut' });
    expect(by('usb4')).toMatchObject({
      evicts: null,
      hotPlug: true,
      chargeW: { lo: 100, hi: 100 },
      inUse: true,
      portable: true,
    });
  });
});

describe('Try it', () => {
  const chain = whole({ cable: { lengthMm: 1200 } });
  const input = { chain, context };
  const swap = (name: string, over: object): { name: string; chain: Chain } => ({
    name,
    chain: { ...chain, path: path(cable({ markedW: 100, ...over })) },
  });

  it('keeps changes that remove the finding and stop nothing', () => {
    const fixes = rankFixes(input, { code: 'cable/too-long' }, [
      swap('longer', { lengthMm: 1500 }),
      swap('charging cable', { lengthMm: 500, markedGbps: 0.48 }),
      swap('short, marked 20', { lengthMm: 500, markedGbps: 20 }),
      swap('short, marked 40', { lengthMm: 500 }),
    ]);
    expect(fixes.map((f) => [f.candidate.name, f.verdict])).toEqual([
      ['short, marked 40', 'works'],
      ['short, marked 20', 'care'],
    ]);
    expect(fixes[0]?.usable?.lo).toBeCloseTo(26.0, 1);
  });

  it('a finding that is not made has no fix', () => {
    expect(rankFixes(input, { code: 'power/over' }, [swap('any', {})])).toEqual([]);
  });

  it.each([
    ['charging/drains', { host: { drawW: 95 } }],
    ['power/tight', { dock: { supplyW: 370 } }],
    ['software/approval', { settings: { approval: 'once' } }],
    ['preflight/way-back', { settings: { internalGraphics: 'off' } }],
    ['screen/panel', { settings: { toPanel: 'yes' } }],
  ] as const)('%s has a change that needs no part and takes it away', (code, over) => {
    const c = whole(over);
    const f = judge(c).findings.find((x) => x.code === code)!;
    const all = adjustmentsFor(f, c).map((a) => ({ words: a.words, chain: applyAdjust(c, a) }));
    expect(rankFixes({ chain: c, context }, f, all)[0]?.verdict).toBe('works');
  });

  it('an update is tried as installed', () => {
    const c = whole({ installed: { dockFirmware: '1.6' } });
    const withNeed = { ...context, requirements: [requirement()] };
    const f = judge(c, withNeed).findings.find((x) => x.code === 'software/firmware-first')!;
    const [a] = adjustmentsFor(f, c);
    expect(a).toEqual({ words: 'Install 1.8', installed: { dockFirmware: '1.8' } });
    expect(judge(applyAdjust(c, a!), withNeed).predicted.verdict.state).toBe('works');
  });
});

describe('PL-17 pre-flight', () => {
  const ids = (c: Chain) => preFlight(judge(c)).map((i) => `${i.id} ${i.state}`);

  it('is short where nothing asks more, and asks where unknown', () => {
    expect(ids(whole({ settings: { encryption: 'no' } }))).toEqual([
      'save usual',
      'versions usual',
      'print usual',
    ]);
    expect(ids(whole())).toContain('key look');
  });

  it('print before the picture may go, and a way back', () => {
    const list = ids(whole({ settings: { encryption: 'yes', internalGraphics: 'off' } }));
    expect(list).toEqual([
      'save usual',
      'key must',
      'versions usual',
      'way-back must',
      'print must',
    ]);
  });
});

describe('PL-25 several cards on one dock', () => {
  it('names steps in order, cables, and a driver for another family', () => {
    const c = tunnelChain({
      dock: { supply: 'inside', supplyW: 750, cables8Pin: 3, screws: 6 },
      card: { family: 'Birch', plugs8Pin: 1 },
    });
    const to = card({ model: 'C-2', family: 'Oak', plugs8Pin: 2 });
    const steps = swapSteps(c, to, judge({ ...c, card: to }));
    expect(steps.map((s) => s.id)).toEqual([
      'off',
      'open',
      'unplug',
      'seat',
      'plug',
      'close',
      'driver',
      'start',
    ]);
    expect(steps.map(swapWords).join(' ')).toMatch(
      /6 screws.*8-pin cable 1, 8-pin cable 2.*Driver for Oak/,
    );
    expect(steps.map((s) => swapWords(s))[0]).toMatch(/^Mains out/);
    const same = card({ model: 'C-3', family: 'Birch' });
    expect(swapSteps(c, same, judge({ ...c, card: same })).map((s) => s.id)).not.toContain(
      'driver',
    );
  });
});
