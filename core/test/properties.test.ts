import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { contains, type Num } from '../src/base';
import { type Chain, DISPLAYPORT_GBPS, DOMAIN } from '../src/chain';
import { directChain, judge, load, tunnelChain, type Over } from './make';
import { scaled } from '../../scripts/lib/test-scale.mjs';

const gens = (d: { lo: number; hi: number }) => fc.integer({ min: d.lo, max: d.hi });
const yesNo = fc.constantFrom('yes', 'no' as const);
const STANDARDS = [
  'thunderbolt-3',
  'usb4-20',
  'usb4-40',
  'thunderbolt-4',
  'usb4-80',
  'thunderbolt-5',
] as const;
const known = fc.record({
  standard: fc.constantFrom('usb-c' as const, ...STANDARDS),
  tunnelling: yesNo,
  socketTb3: yesNo,
  socketGen: gens({ lo: 3, hi: 4 }),
  socketLanes: gens({ lo: 2, hi: 4 }),
  construction: fc.constantFrom('passive', 'active' as const),
  lengthMm: fc.integer({ min: DOMAIN.cableMm.lo, max: DOMAIN.cableMm.hi }),
  markedGbps: fc.constantFrom(0.48, 5, 10, 20, 40, 80),
  cableGen: gens(DOMAIN.directCableGen),
  uplink: fc.constantFrom(...STANDARDS),
  dockTb3: yesNo,
  controllerClass: fc.constantFrom('a', 'b', 'c', 'd' as const),
  slotGen: gens(DOMAIN.slotGen),
  slotLanes: gens(DOMAIN.slotLanes),
  cardGen: gens(DOMAIN.cardGen),
  cardLanes: gens(DOMAIN.cardLanes),
  hubGbps: fc.double({ min: DOMAIN.hubGbps.lo, max: DOMAIN.hubGbps.hi, noNaN: true }),
  videoGbps: fc.constantFrom(DISPLAYPORT_GBPS.hbr, DISPLAYPORT_GBPS.hbr2, DISPLAYPORT_GBPS.hbr3),
  allocates: yesNo,
  asymmetric: yesNo,
  ownLead: yesNo,
  firmware: fc.constantFrom('1.2', '1.10', '2.0'),
});
type Known = typeof known extends fc.Arbitrary<infer T> ? T : never;
const MASK = Object.keys(fc.sample(known, 1)[0] as Known) as (keyof Known)[];
const masks = fc.subarray(MASK);

/** The classes a dock's link allows: a class is drawn from them, because an unknown one stands for these. */
function classOf(k: Known): Known['controllerClass'] {
  if (k.uplink === 'thunderbolt-3') return k.controllerClass === 'd' ? 'c' : k.controllerClass;
  if (k.uplink === 'thunderbolt-4') return 'c';
  if (k.uplink === 'usb4-80' || k.uplink === 'thunderbolt-5') return 'd';
  return k.controllerClass === 'a' || k.controllerClass === 'b' ? 'c' : k.controllerClass;
}

function over(k: Known, open: readonly string[], direct: boolean): Over {
  const has = <V>(key: keyof Known, value: V) => (open.includes(key) ? null : value);
  // What a standard settles is not a choice: plain USB-C never tunnels, Thunderbolt always does.
  const optional = k.standard.startsWith('usb4');
  const tunnelling = optional
    ? k.tunnelling
    : k.standard === 'usb-c'
      ? ('no' as const)
      : ('yes' as const);
  const screen = {
    kind: 'video' as const,
    downGbps: has('videoGbps', k.videoGbps),
    upGbps: 0,
    pictureGbps: 6,
    ownLead: null,
  };
  return {
    socket: {
      pcieGen: has('socketGen', k.standard === 'thunderbolt-3' ? 3 : k.socketGen),
      lanes: has('socketLanes', k.socketLanes),
      controller: 'separate',
      tb3Compat: has('socketTb3', k.socketTb3),
      ...(!direct && {
        standard: has('standard', k.standard),
        tunnelling: has('tunnelling', tunnelling),
      }),
    },
    cable: {
      construction: has('construction', k.construction),
      lengthMm: has('lengthMm', k.lengthMm),
      ...(direct
        ? { pcieGen: has('cableGen', k.cableGen) }
        : { markedGbps: has('markedGbps', k.markedGbps) }),
    },
    dock: {
      slotGen: has('slotGen', k.slotGen),
      slotLanes: has('slotLanes', k.slotLanes),
      ...(!direct && {
        uplink: has('uplink', k.uplink),
        tb3Compat: has('dockTb3', k.dockTb3),
        controllerClass: has('controllerClass', classOf(k)),
        ownLead: has('ownLead', k.ownLead),
        capFirmware: '1.10',
        capBeforeGbps: 15,
      }),
    },
    card: { pcieGen: has('cardGen', k.cardGen), lanes: has('cardLanes', k.cardLanes) },
    loads: [
      load({
        kind: 'hub',
        downGbps: has('hubGbps', k.hubGbps),
        upGbps: has('hubGbps', k.hubGbps),
        ownLead: null,
      }),
      load({
        ...screen,
        allocates: has('allocates', k.allocates),
        asymmetric: has('asymmetric', k.asymmetric),
      }),
    ],
    installed: { dockFirmware: open.includes('firmware') ? '' : k.firmware },
  };
}

const kinds: [string, boolean, (o: Over) => Chain][] = [
  ['tunnel', false, tunnelChain],
  ['direct', true, directChain],
];

describe.each(kinds)('properties of evaluate, %s', (_name, direct, make) => {
  it('the range contains the result of every completion', () => {
    fc.assert(
      fc.property(known, masks, (k, open) => {
        const wide = judge(make(over(k, open, direct))).predicted.link;
        const full = judge(make(over(k, [], direct))).predicted.link;
        full.hops.forEach((h, i) => {
          const outer = wide.hops[i]?.usable;
          expect(outer && h.usable && contains(outer.down, h.usable.down)).toBe(true);
          expect(outer && h.usable && contains(outer.up, h.usable.up)).toBe(true);
        });
        expect(wide.usable && full.usable && contains(wide.usable.down, full.usable.down)).toBe(
          true,
        );
        if (wide.pinch.certain && !full.hops.some((h) => h.state === 'broken')) {
          const least = Math.min(...full.hops.map((h) => h.usable?.down.lo ?? Infinity));
          const at = full.hops[wide.pinch.hops[0] ?? -1]?.usable?.down.lo;
          expect(at).toBeCloseTo(least, 9);
        }
      }),
      { numRuns: scaled(80) },
    );
  });

  it('narrowing inputs never widens results or unsays certain findings', () => {
    fc.assert(
      fc.property(known, masks, fc.constantFrom(...MASK), (k, open, filled) => {
        const before = judge(make(over(k, [...open, filled], direct)));
        const after = judge(
          make(
            over(
              k,
              open.filter((o) => o !== filled),
              direct,
            ),
          ),
        );
        const a = before.predicted.link.usable;
        const b = after.predicted.link.usable;
        expect(a && b && contains(a.down, b.down)).toBe(true);
        const certain = before.findings
          .filter((f) => f.certainty === 'certain' && f.severity === 'blocks')
          .map((f) => f.code);
        for (const code of certain) expect(after.findings.map((f) => f.code)).toContain(code);
      }),
      { numRuns: scaled(80) },
    );
  });

  it('a better part never lowers a rate', () => {
    fc.assert(
      fc.property(known, (k) => {
        const base = judge(make(over(k, [], direct))).predicted.link.usable?.down.lo ?? 0;
        const better: Partial<Known>[] = [
          { slotGen: Math.min(4, k.slotGen + 1) },
          { slotLanes: 16 },
          { cardGen: 5, cardLanes: 16 },
          { lengthMm: 100 },
          { markedGbps: 80 },
          { socketLanes: 4, socketGen: 4 },
          { cableGen: 4 },
        ];
        for (const b of better)
          expect(
            judge(make(over({ ...k, ...b }, [], direct))).predicted.link.usable?.down.lo,
          ).toBeGreaterThanOrEqual(base);
      }),
      { numRuns: scaled(40) },
    );
  });

  it('the bottleneck is the minimum, nearest the host in a tie', () => {
    fc.assert(
      fc.property(known, (k) => {
        const { hops, usable, pinch } = judge(make(over(k, [], direct))).predicted.link;
        const rates = hops.map((h) => h.usable?.down.lo ?? Infinity);
        expect(usable?.down.lo).toBe(Math.min(...rates));
        expect(pinch.hops).toEqual([rates.indexOf(Math.min(...rates))]);
        expect(pinch.rest?.lo ?? Infinity).toBeGreaterThanOrEqual((usable?.down.lo ?? 0) - 1e-9);
      }),
      { numRuns: scaled(40) },
    );
  });

  it('a range between two limits behaves like the numbers in it', () => {
    fc.assert(
      fc.property(known, fc.integer({ min: 1, max: 16 }), (k, other) => {
        const lanes: Num = { lo: Math.min(other, k.slotLanes), hi: Math.max(other, k.slotLanes) };
        const o = over(k, [], direct);
        const ranged = judge(make({ ...o, dock: { ...o.dock, slotLanes: lanes } })).predicted.link
          .usable;
        const one = judge(make(o)).predicted.link.usable;
        expect(ranged && one && contains(ranged.down, one.down)).toBe(true);
      }),
      { numRuns: scaled(40) },
    );
  });
});
