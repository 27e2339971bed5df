import { describe, expect, it } from 'vitest';
import { type CableSpec, type DockSpec, NOTHING_INSTALLED, type SocketSpec } from '../src/parts';
import { adapter, cable, card, chain, dock, judge, path, rates, socket } from './make';

/** A chain through a tunnel with a short full-rate cable: each example says its ends. */
function tunnel(s: Partial<SocketSpec>, d: Partial<DockSpec>, c: Partial<CableSpec> = {}) {
  return chain({ socket: s, path: path(cable({ lengthMm: 500, ...c })), dock: dock(d) });
}
const mini = { connector: 'mini-dp' } as const;
const old = (n: 1 | 2) =>
  ({ ...mini, standard: `thunderbolt-${n}`, tunnelling: null, pcieGen: 2, lanes: 4 }) as const;
const oldDock = (n: 1 | 2) =>
  ({ ...mini, uplink: `thunderbolt-${n}`, slotGen: 2, slotLanes: 4 }) as const;
const tb3 = {
  standard: 'thunderbolt-3',
  tunnelling: null,
  controller: 'separate',
  pcieGen: 3,
  lanes: 4,
} as const;
const tb3Dock = { uplink: 'thunderbolt-3', controllerClass: 'c' } as const;
const v2 = { standard: 'thunderbolt-5', tunnelling: null, controller: 'built-in' } as const;
const v2Dock = { uplink: 'thunderbolt-5', slotGen: 4, controllerClass: 'd' } as const;

// Rates by arithmetic over the tables of the standards; transport and PCIe behind each link from memory of the Thunderbolt
// and USB4 specifications; caps of the controller classes: common practice, no published source.
describe('PL-07 tunnels of every age, usable down/up', () => {
  it.each([
    // 10.00 transport binds: 10 × 128/152 × 0.98 = 8.25, back 10 × 128/156 × 0.98 = 8.04.
    ['Thunderbolt 1', old(1), oldDock(1), mini, '8.3/8.0'],
    // Gen2 ×4 behind 20.00 binds: 16 × 128/152 × 0.98 = 13.20.
    ['Thunderbolt 2', old(2), oldDock(2), mini, '13.2/12.9'],
    ['Thunderbolt 3, class C', tb3, tb3Dock, {}, '26.0/25.3'],
    ['Thunderbolt 3, half rate by the cable', tb3, tb3Dock, { markedGbps: 20 }, '16.5/16.1'],
    [
      'Thunderbolt 3, class A after its update',
      tb3,
      { ...tb3Dock, controllerClass: 'a' },
      {},
      '17.6/17.1',
    ],
    ['Thunderbolt 3, class B', tb3, { ...tb3Dock, controllerClass: 'b' }, {}, '22.0/21.4'],
    ['USB4 20', { standard: 'usb4-20' }, { uplink: 'usb4-20' }, { markedGbps: 20 }, '16.0/15.6'],
    ['USB4 40 behind Gen3', {}, {}, {}, '26.0/25.3'],
    ['USB4 40 behind Gen4, class D', {}, { slotGen: 4, controllerClass: 'd' }, {}, '32.0/31.2'],
    [
      'Thunderbolt 4',
      { standard: 'thunderbolt-4', tunnelling: null },
      { uplink: 'thunderbolt-4' },
      {},
      '26.0/25.3',
    ],
    [
      'Thunderbolt 4 holds a Gen4 slot to Gen3',
      { standard: 'thunderbolt-4' },
      { slotGen: 4, controllerClass: 'd' },
      {},
      '26.0/25.3',
    ],
  ] as [string, Partial<SocketSpec>, Partial<DockSpec>, Partial<CableSpec>, string][])(
    '%s',
    (_name, s, d, c, expected) => {
      expect(rates(judge(tunnel(s, d, c)), 1)).toBe(expected);
    },
  );

  it.each([
    ['Thunderbolt 5', v2, v2Dock],
    ['USB4 80', { standard: 'usb4-80' }, { ...v2Dock, uplink: 'usb4-80' }],
  ] as [string, Partial<SocketSpec>, Partial<DockSpec>][])(
    '%s behind Gen4 ×4: 52.0 to 56.5 down, 50.7 to 55.7 back',
    (_n, s, d) => {
      const u = judge(tunnel(s, d)).predicted.link.hops[1]?.usable;
      expect([u?.down.lo, u?.down.hi, u?.up.lo, u?.up.hi].map((x) => x?.toFixed(1))).toEqual([
        '52.0',
        '56.5',
        '50.7',
        '55.7',
      ]);
    },
  );

  it('an older dock on a newer host runs as the older', () => {
    const e = judge(chain({ socket: v2, path: path(cable()), dock: dock({ uplink: 'usb4-40' }) }));
    expect(rates(e, 1)).toBe('26.0/25.3');
    expect(e.predicted.link.readouts.router).toEqual({
      laneGbps: { lo: 20, hi: 20 },
      lanes: { lo: 2, hi: 2 },
    });
  });

  it('a Thunderbolt 2 dock works through its adapter, either way round', () => {
    for (const ends of [
      { hostEnd: 'usb-c', farEnd: 'mini-dp' },
      { hostEnd: 'mini-dp', farEnd: 'usb-c' },
    ] as const) {
      const e = judge(
        chain({ socket: tb3, path: path(adapter(ends), cable(mini)), dock: dock(oldDock(2)) }),
      );
      expect(rates(e, 1)).toBe('13.2/12.9');
      expect(e.predicted.verdict.because).not.toContain('link/plug-mismatch');
    }
  });
});

// Source: USB4 Specification, that Thunderbolt 3 compatibility is optional on hosts and peripherals; from memory.
describe('PL-07 Thunderbolt 3 compatibility', () => {
  const state = (s: Partial<SocketSpec>, d: Partial<DockSpec>) =>
    judge(tunnel(s, d)).predicted.verdict;

  it('takes the lower of both with it, no card without', () => {
    expect(state({ tb3Compat: 'yes' }, tb3Dock).state).toBe('works');
    expect(state({ tb3Compat: 'no' }, tb3Dock)).toMatchObject({
      state: 'blocked',
      because: ['link/too-old'],
    });
    expect(state({}, tb3Dock)).toMatchObject({
      state: 'unknown',
      wouldDecide: ['host/sockets/left/tb3Compat'],
    });
    expect(state(tb3, {})).toMatchObject({ state: 'unknown', wouldDecide: ['dock/tb3Compat'] });
  });

  it('Thunderbolt 4 and 5 always have it, USB4 ends never need it', () => {
    expect(state({ standard: 'thunderbolt-4' }, tb3Dock).state).toBe('works');
    expect(state(v2, tb3Dock).state).toBe('works');
    expect(state({ tb3Compat: 'no' }, { tb3Compat: 'no' }).state).toBe('works');
  });
});

describe('PL-07 two lanes, classes, firmware', () => {
  it('a two-lane host is held by its own port: 13.4', () => {
    const e = judge(tunnel({ ...tb3, lanes: 2 }, tb3Dock));
    expect(rates(e, 0)).toBe('13.4/13.0');
    expect(e.predicted.link.pinch).toMatchObject({
      part: 'socket',
      setBy: expect.arrayContaining(['host/sockets/left/lanes']) as string[],
    });
  });

  it('a dock without a class is judged over all of them', () => {
    const e = judge(tunnel(tb3, { uplink: 'thunderbolt-3' }));
    expect(e.predicted.link.usable?.down).toMatchObject({ lo: 17.6, hi: expect.closeTo(26.0, 1) });
    expect(e.toVerify.map((v) => v.path)).toContain('dock/controllerClass');
  });

  it('a measured cap wins over the class', () => {
    expect(rates(judge(tunnel(tb3, { ...tb3Dock, controllerClass: 'a', capGbps: 20 })), 1)).toBe(
      '20.0/19.5',
    );
  });

  const capped = {
    ...tb3Dock,
    controllerClass: 'a',
    capFirmware: '1.8',
    capBeforeGbps: 12,
  } as const;
  it.each([
    ['1.6', '12.0', 'certain'],
    ['1.8', '17.6', null],
    ['1.10', '17.6', null],
    ['', '12.0', 'possible'],
    ['beta', '12.0', 'possible'],
  ] as const)('firmware "%s" gives at least %s', (version, gbps, certainty) => {
    const c = {
      ...tunnel(tb3, capped),
      installed: { ...NOTHING_INSTALLED, dockFirmware: version },
    };
    const e = judge(c);
    expect(e.predicted.link.usable?.down.lo.toFixed(1)).toBe(gbps);
    expect(e.findings.find((f) => f.code === 'dock/firmware-cap')?.certainty ?? null).toBe(
      certainty,
    );
  });

  it('a host reading in 64-byte pieces is slower to the card', () => {
    const e = judge(tunnel({ completionBytes: 64 }, {}));
    // 31.51 × 64/88 × 0.98 = 22.46: arithmetic.
    expect(rates(e, 1)).toBe('22.5/25.3');
  });

  it.each([
    [900, 80, '52.0'],
    [900, 40, '16.0'],
    [700, 40, '52.0'],
    [1100, 80, '16.0'],
  ])('an 80 Gb/s link over passive %i mm marked %i: %s', (lengthMm, markedGbps, gbps) => {
    const e = judge(tunnel(v2, v2Dock, { lengthMm, markedGbps }));
    expect(e.predicted.link.hops[1]?.usable?.down.lo.toFixed(1)).toBe(gbps);
  });
});

// Payload 256 on direct links, lanes of the connectors: from memory of the PCI Express specifications.
describe('PL-05 direct PCIe of every kind, one hop', () => {
  const direct = (s: Partial<SocketSpec>) =>
    ({ standard: 'pcie', tunnelling: null, controller: null, ...s }) as Partial<SocketSpec>;
  const board = (d: Partial<DockSpec>) =>
    dock({ form: 'open-board', uplink: 'pcie', slotGen: 4, slotLanes: 16, ...d });

  it.each([
    [
      'OCuLink 8i, Gen4 ×8',
      { connector: 'oculink-8i', standard: 'oculink', pcieGen: 4, lanes: 8 },
      '114.6/112.9',
    ],
    [
      'OCuLink 4i, Gen3 ×4',
      { connector: 'oculink-4i', standard: 'oculink', pcieGen: 3, lanes: 4 },
      '28.6/28.2',
    ],
  ] as [string, Partial<SocketSpec>, string][])('%s', (_n, s, expected) => {
    const connector = s.connector as 'oculink-4i' | 'oculink-8i';
    const e = judge(
      chain({
        socket: direct(s),
        path: path(cable({ connector, pcieGen: 4 })),
        dock: board({ connector, uplink: 'oculink' }),
      }),
    );
    expect(e.predicted.link.hops).toHaveLength(1);
    expect(rates(e, 0)).toBe(expected);
  });

  it('M.2 through an adapter to OCuLink takes the slot and says so', () => {
    const s = direct({
      connector: 'm2',
      key: 'm2-2',
      position: 'M.2 slot 2',
      pcieGen: 4,
      lanes: 4,
    });
    const p = path(adapter(), cable({ connector: 'oculink-4i', pcieGen: 4, lengthMm: 300 }));
    const e = judge(
      chain({ socket: s, path: p, dock: board({ connector: 'oculink-4i', uplink: 'oculink' }) }),
    );
    expect(rates(e, 0)).toBe('57.3/56.5');
    expect(e.findings.map((f) => f.code)).toEqual(
      expect.arrayContaining(['path/slot-used', 'link/all-off']),
    );
  });

  it('M.2 to a card slot needs no dock', () => {
    const s = direct({ connector: 'm2', pcieGen: 4, lanes: 4 });
    const plugless = card({ boardW: 70, plugs8Pin: 0 });
    const e = judge(
      chain({
        socket: s,
        path: path(adapter({ farEnd: 'pcie-slot', pcieGen: 3, lengthMm: 200 })),
        card: plugless,
      }),
    );
    expect(rates(e, 0)).toBe('28.6/28.2');
    expect(e.predicted.verdict.state).toBe('care');
    expect(e.findings.some((f) => f.code === 'plan/unchosen')).toBe(false);
  });

  it.each([
    // Gen2 ×1: 4 × 256/276 × 0.98 = 3.64; Gen1 ×1: half of it.
    ['a mini card slot', 'mini-card', 2, '3.6/3.6'],
    ['an ExpressCard slot', 'expresscard', 1, '1.8/1.8'],
  ] as const)(
    '%s has one lane, and its cable can look like video',
    (_n, connector, pcieGen, expected) => {
      const e = judge(
        chain({
          socket: direct({ connector, pcieGen, lanes: 1 }),
          path: [],
          dock: board({ connector }),
        }),
      );
      expect(rates(e, 0)).toBe(expected);
      expect(e.findings.map((f) => f.code)).toContain('link/looks-like-video');
    },
  );

  it("a maker's own port goes with its own family only", () => {
    const s = direct({ connector: 'own-port', family: 'Long plug', pcieGen: 4, lanes: 8 });
    const own = (family: string) =>
      judge(
        chain({
          socket: s,
          path: [],
          dock: board({ connector: 'own-port', fixedLead: 'yes', family, slotLanes: 8 }),
          card: card(),
        }),
      );
    expect(rates(own('long plug'), 0)).toBe('114.6/112.9');
    expect(own('Wide plug').predicted.verdict).toMatchObject({
      state: 'blocked',
      because: ['link/other-family'],
    });
    expect(own('').predicted.verdict).toMatchObject({
      state: 'unknown',
      wouldDecide: ['dock/family'],
    });
  });

  it('a SATA slot carries no PCIe, an unread one is asked', () => {
    const sata = (standard: SocketSpec['standard']) =>
      judge(
        chain({
          socket: direct({ connector: 'm2', standard, lanes: 4, pcieGen: 3 }),
          path: path(adapter({ farEnd: 'pcie-slot' })),
          card: card({ boardW: 70, plugs8Pin: 0 }),
        }),
      );
    expect(sata('sata').predicted.verdict).toMatchObject({
      state: 'blocked',
      because: ['link/no-pcie'],
    });
    expect(sata(null).predicted.verdict).toMatchObject({
      state: 'unknown',
      wouldDecide: ['host/sockets/left/standard'],
    });
  });

  it('joints count as length: a direct path too long falls a generation', () => {
    const s = direct({ connector: 'm2', pcieGen: 4, lanes: 4 });
    const p = (lengthMm: number) =>
      path(adapter(), cable({ connector: 'oculink-4i', pcieGen: 4, lengthMm }));
    const at = (mm: number) =>
      judge(
        chain({
          socket: s,
          path: p(mm),
          dock: board({ connector: 'oculink-4i', uplink: 'oculink' }),
        }),
      );
    expect(at(400).predicted.link.hops[0]?.gen).toEqual({ lo: 4, hi: 4 });
    expect(at(500).predicted.link.hops[0]?.gen).toEqual({ lo: 3, hi: 3 });
    expect(at(500).findings.find((f) => f.code === 'cable/direct-long')?.params['length']).toEqual({
      lo: 600,
      hi: 600,
    });
  });

  it('a tunnel port and a direct dock are different links', () => {
    expect(
      judge(chain({ socket: {}, path: [], dock: board({ connector: 'm2' }) })).predicted.verdict
        .because,
    ).toContain('link/plug-mismatch');
    expect(
      socket({ connector: 'mini-dp', standard: 'displayport', tunnelling: 'no' }).standard,
    ).toBe('displayport');
  });
});
