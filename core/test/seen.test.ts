import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type CauseId, SYMPTOM_IDS, type SymptomId } from '../src/base';
import { FAULT_IDS, FAULTS, faultsOf, LOG_CODES } from '../src/bench';
import { benchLine, benchSentence, benchTime, FAULT_WORDS } from '../src/bench/text';
import { deviceTree, type Report, reportSchema } from '../src/bring-up';
import {
  answersOf,
  type ChainObservation,
  countsBetween,
  errorTotals,
  failsAt,
  netFor,
  NOTHING_SEEN,
  rankedCauses,
  seenOf,
} from '../src/troubleshoot';
import { CAUSE_WORDS } from '../src/troubleshoot/text';
import { directChain, tunnelChain } from './make';

const bridge = {
  classCode: '0604',
  cap: { gts: 2.5, lanes: 4 },
  now: { gts: 2.5, lanes: 4 },
  topGts: 2.5,
};
const device = (address: string, parent: string | null, over: object) => ({
  address,
  parent,
  ...over,
});
/** A tunnel with a dock and a card, as a probe reports it; what differs is said by the test. */
function report(over: Partial<Report> = {}, card: object | null = {}): Report {
  return reportSchema.parse({
    format: 'ruddy-bridge/report',
    version: 1,
    devices: [
      device('0000:00:07.0', null, { ...bridge, port: 'root', hotplug: true }),
      device('0000:01:00.0', '0000:00:07.0', { ...bridge, port: 'upstream' }),
      device('0000:02:01.0', '0000:01:00.0', {
        ...bridge,
        port: 'downstream',
        hotplug: true,
        present: card !== null,
        cap: { gts: 8, lanes: 4 },
        now: { gts: 8, lanes: 4 },
        topGts: 8,
        errors: { corrected: 3, nonfatal: 0, fatal: 0 },
      }),
      ...(card
        ? [
            device('0000:03:00.0', '0000:02:01.0', {
              classCode: '0300',
              port: 'endpoint',
              driver: 'x',
              assigned: true,
              ...card,
            }),
          ]
        : []),
    ],
    routers: [{ route: '0-0' }, { route: '0-1', rxLanes: 2, authorized: 1 }],
    domains: [{ id: 0 }],
    ports: [{ domain: 0, port: 1, plug: 0 }],
    plugs: [{ index: 0, partner: true }],
    ...over,
  });
}
const said = (seen: Partial<ChainObservation>): ChainObservation => ({ ...NOTHING_SEEN, ...seen });

describe('what a report says to the causes', () => {
  it('a card that is up', () => {
    expect(seenOf(report(), 'tunnel')).toMatchObject({
      partner: true,
      usb4: true,
      router: true,
      authorized: 1,
      bridges: true,
      card: 'there',
      driver: true,
      assigned: true,
      present: null,
      asleep: false,
      screen: null,
    });
  });

  it('reads an empty slot, a fallen card, an unclaimed plug', () => {
    expect(seenOf(report({}, null), 'tunnel')).toMatchObject({
      bridges: true,
      card: 'absent',
      present: false,
    });
    expect(seenOf(report({}, { state: 'gone' }), 'tunnel')).toMatchObject({
      card: 'gone',
      driver: null,
    });
    expect(
      seenOf(report({ ports: [{ domain: 0, port: 1, link: null, plug: 1 }] }), 'tunnel').usb4,
    ).toBe(false);
  });

  it('a bus listing is silent on plugs, routers and screens', () => {
    const listing = report({ source: 'lspci', routers: [], domains: [], ports: [], plugs: [] });
    expect(seenOf(listing, 'tunnel')).toMatchObject({
      partner: null,
      usb4: null,
      router: null,
      screen: null,
    });
  });
});

describe('causes ranked by what was seen', () => {
  const ranked = (symptom: SymptomId, seen: Partial<ChainObservation>) =>
    rankedCauses(netFor(tunnelChain()), symptom, answersOf(said(seen), null));
  // Each pair of looks is common practice, no published source: where the trade looks to tell these causes apart.
  it.each([
    ['nothing-listed', { router: false, partner: true, usb4: true, lamp: true }, 'cable-charges'],
    [
      'nothing-listed',
      { router: false, partner: true, usb4: false, lamp: true },
      'look-alike-port',
    ],
    ['nothing-listed', { router: false, partner: false, usb4: true, lamp: true }, 'plug-not-home'],
    ['nothing-listed', { router: false, partner: false, lamp: false }, 'dock-off'],
    [
      'router-no-card',
      { router: true, authorized: 0, security: 'user', bridges: false },
      'not-approved',
    ],
    [
      'router-no-card',
      { router: true, authorized: 0, security: 'nopcie', bridges: false },
      'no-tunnelling',
    ],
    [
      'router-no-card',
      { router: true, authorized: 1, bridges: true, card: 'absent', present: false },
      'card-seat',
    ],
    [
      'router-no-card',
      { router: true, authorized: 1, bridges: true, card: 'absent', present: true },
      'power-cables',
    ],
  ] as [SymptomId, Partial<ChainObservation>, CauseId][])(
    '%s and %j: %s first',
    (symptom, seen, cause) => {
      expect(ranked(symptom, seen)[0]).toBe(cause);
    },
  );

  it('seeing more never removes a cause, seeing nothing answers nothing', () => {
    const any = fc.record({
      lamp: fc.constantFrom(null, true, false),
      router: fc.constantFrom(null, true, false),
      partner: fc.constantFrom(null, true, false),
      authorized: fc.constantFrom(null, 0, 1),
      bridges: fc.constantFrom(null, true, false),
      card: fc.constantFrom(null, 'there', 'gone', 'absent' as const),
      assigned: fc.constantFrom(null, true, false),
      lampWentOut: fc.constantFrom(null, true, false),
    });
    fc.assert(
      fc.property(any, fc.constantFrom(...SYMPTOM_IDS), fc.boolean(), (seen, symptom, tunnel) => {
        const net = netFor(tunnel ? tunnelChain() : directChain());
        const all = rankedCauses(
          net,
          symptom,
          answersOf(said(seen as Partial<ChainObservation>), null),
        );
        expect([...all].sort()).toEqual([...net.causes].sort());
      }),
    );
    expect(answersOf(NOTHING_SEEN, null)).toEqual([]);
  });

  it('every fault of the bench leads to a cause with words', () => {
    for (const f of FAULT_IDS) expect(CAUSE_WORDS[FAULTS[f].cause].help.length).toBeGreaterThan(10);
  });
});

describe('BU-15 counters before a load and after it', () => {
  const counted = (corrected: number, fatal = 0) =>
    report({}, { errors: { corrected, nonfatal: fatal, fatal: 0 } });

  it('takes the end that saw more, and what came between', () => {
    expect(errorTotals(counted(5), 'tunnel')).toEqual({ corrected: 5, fatal: 0 });
    expect(errorTotals(counted(1), 'tunnel')).toEqual({ corrected: 3, fatal: 0 });
    expect(
      countsBetween(counted(5), counted(17), 'tunnel', { minutes: 10, downs: 0 }),
    ).toMatchObject({
      correctedBefore: 5,
      correctedAfter: 17,
      downs: 0,
    });
  });

  it('a restarted counter counts from zero; no card leaves the end open', () => {
    expect(
      countsBetween(counted(50), counted(4), 'tunnel', { minutes: 10, downs: 1 }),
    ).toMatchObject({
      correctedBefore: 0,
      correctedAfter: 4,
    });
    expect(
      countsBetween(counted(5), report({}, null), 'tunnel', { minutes: 10, downs: 1 }),
    ).toMatchObject({
      correctedBefore: 5,
      correctedAfter: null,
    });
  });
});

describe('what a look says is wrong at a step', () => {
  it.each([
    ['dock-on', { lamp: false }, 'no-lamp'],
    ['dock-on', { lamp: true }, null],
    ['approve', { router: false }, 'nothing-listed'],
    ['listed', { card: 'gone' }, 'seen-then-lost'],
    ['driver-holds', { card: 'there', driver: false }, 'error-no-driver'],
    ['driver-holds', { card: 'there', driver: null }, null],
    ['screen-path', { screen: false }, 'no-picture'],
    ['programs', { screen: false }, null],
  ] as const)('%s, %j: %s', (step, seen, symptom) => {
    expect(failsAt(step, { seen: said(seen), check: null })).toBe(symptom);
  });
});

describe('paths in a report', () => {
  it('decide over bus numbers; ones that loop make no loop', () => {
    const address = fc.constantFrom('0000:00:01.0', '0000:00:02.0', '0000:00:03.0', '0000:00:04.0');
    const any = fc.uniqueArray(fc.tuple(address, fc.option(address)), {
      selector: ([a]) => a,
      minLength: 1,
    });
    fc.assert(
      fc.property(any, (list) => {
        const devices = report({
          devices: list.map(([a, p]) => device(a, p, {})) as never,
        }).devices;
        const nodes = deviceTree(
          reportSchema.parse({ format: 'ruddy-bridge/report', version: 1, devices }).devices,
        );
        for (const n of nodes) {
          let steps = 0;
          for (let at: (typeof nodes)[number] | null = n; at; at = at.parent)
            expect(++steps).toBeLessThan(10);
        }
      }),
    );
  });
});

describe('BE-02 faults of a chain, and the words of a bench', () => {
  it('tunnels have no direct-path faults, nor the other way round', () => {
    const tunnel = faultsOf(tunnelChain());
    const direct = faultsOf(directChain());
    expect(tunnel).toContain('cable-half-rate');
    expect(tunnel).not.toContain('direct-cable-margin');
    expect(direct).toContain('direct-cable-margin');
    expect(direct).not.toContain('approval-kept-out');
    expect(faultsOf(tunnelChain({ socket: { controller: 'separate' } }))).toContain('two-lanes');
    expect(tunnel).not.toContain('two-lanes');
  });

  it('every log line ends as a sentence, every fault is named', () => {
    for (const code of LOG_CODES) expect(benchLine({ code, params: {} })).toMatch(/^[A-Z].*\.$/);
    for (const id of FAULT_IDS) expect(FAULT_WORDS[id].length).toBeGreaterThan(5);
  });

  it('bench time, and a sentence with a number for every state', () => {
    expect([benchTime(0), benchTime(725_000), benchTime(3_725_999)]).toEqual([
      '0:00',
      '12:05',
      '1:02:05',
    ]);
    const state = {
      ms: 61_000,
      since: 4000,
      host: 'on',
      downs: 2,
      router: { laneGbps: 20, lanes: 2 },
      cardSpan: null,
      usable: null,
    };
    for (const stage of [
      'unplugged',
      'attached',
      'router',
      'awaiting',
      'tunnel',
      'windows',
      'bound',
      'in-use',
      'suspended',
      'lost',
    ])
      expect(benchSentence({ ...state, stage } as never)).toMatch(/\d/);
    for (const host of ['frozen', 'asks-key'])
      expect(benchSentence({ ...state, stage: 'lost', host } as never)).toMatch(/\d/);
  });
});
