import { describe, expect, it } from 'vitest';
import { compareVersions, DISPLAYPORT_GBPS, type Load } from '../src/chain';
import { portRoles } from '../src/plan';
import { card, dock, host, judge, load, rates, socket, tunnelChain } from './make';

const context = { asOf: '2026-11-20', house: {} };
const with40 = (...loads: Load[]) =>
  judge(tunnelChain({ dock: { slotGen: 4, controllerClass: 'd' }, loads }));
const screen = (over: Partial<Load> = {}) =>
  load({ kind: 'video', downGbps: DISPLAYPORT_GBPS.hbr3, upGbps: 0, allocates: 'no', ...over });

describe('PL-08 what takes from the link', () => {
  it('a hub takes each way first: 38.79 − 5, 38.79 − 3', () => {
    const e = with40(load({ downGbps: 5, upGbps: 3 }));
    // 33.79 × 128/152 × 0.98 = 27.88; 35.79 × 128/156 × 0.98 = 28.78: arithmetic.
    expect(rates(e, 1)).toBe('27.9/28.8');
    expect(e.predicted.link.hops[1]?.takes).toHaveLength(1);
    expect(e.findings.find((f) => f.code === 'link/shared')?.params).toMatchObject({
      what: 'USB hub',
    });
  });

  it('while PCIe behind the tunnel binds, a small hub costs nothing', () => {
    expect(rates(judge(tunnelChain({ loads: [load({ downGbps: 5, upGbps: 5 })] })), 1)).toBe(
      '26.0/25.3',
    );
  });

  // Source: DisplayPort Standard, HBR3 with four lanes after encoding: 25.92 Gb/s; from memory.
  it('a screen takes at most its trained rate, host to dock only', () => {
    const e = with40(screen({ pictureGbps: DISPLAYPORT_GBPS.hbr3 }));
    expect(rates(e, 1)).toBe('10.6/31.2');
    expect(e.predicted.link.pinch).toMatchObject({ part: 'loads' });
    expect(e.predicted.link.pinch.rest?.lo.toFixed(1)).toBe('32.0');
  });

  // 38.79 − 12, then 26.79 × 128/152 × 0.98 = 22.1: arithmetic.
  it.each(['yes', 'no', null] as const)(
    'a screen takes its picture, whether bandwidth is allocated or not (%s)',
    (allocates) => {
      expect(rates(with40(screen({ allocates, pictureGbps: 12 })), 1)).toBe('22.1/31.2');
    },
  );

  it('an unknown picture takes anything up to its trained rate', () => {
    const e = with40(screen({ pictureGbps: null }));
    const u = e.predicted.link.usable?.down;
    expect([u?.lo.toFixed(1), u?.hi.toFixed(1)]).toEqual(['10.6', '32.0']);
    expect(e.toVerify.map((v) => v.path)).toContain('loads/0/pictureGbps');
  });

  it('more than the link has leaves nothing, not less than nothing', () => {
    const e = judge(
      tunnelChain({
        socket: { standard: 'usb4-20' },
        loads: [screen({ pictureGbps: DISPLAYPORT_GBPS.hbr3 }), load()],
      }),
    );
    expect(e.predicted.link.usable?.down).toMatchObject({ lo: 0, hi: 0 });
  });

  it('a hub on its own cable takes nothing', () => {
    expect(rates(with40(load({ ownLead: 'yes' })), 1)).toBe('32.0/31.2');
    const lead = (ownLead: 'yes' | null) =>
      judge(
        tunnelChain({
          dock: { slotGen: 4, controllerClass: 'd', ownLead },
          loads: [load({ ownLead: null })],
        }),
      );
    expect(rates(lead('yes'), 1)).toBe('32.0/31.2');
    expect(lead(null).predicted.link.usable?.down).toMatchObject({
      lo: expect.closeTo(27.9, 1),
      hi: expect.closeTo(32.0, 1),
    });
    expect(lead(null).toVerify.map((v) => v.path)).not.toContain('loads/0/downGbps');
  });

  // Source: USB4 Specification, asymmetric links: three lanes out, one back; from memory.
  it('80 Gb/s turned to 120/40 leaves 40 back, PCIe unchanged', () => {
    const v2 = {
      socket: { standard: 'thunderbolt-5' as const },
      dock: { uplink: 'thunderbolt-5' as const, slotGen: 4 },
    };
    const u = judge(tunnelChain({ ...v2, loads: [screen({ asymmetric: 'yes' })] })).predicted.link
      .hops[1]?.usable;
    expect(u?.down.lo.toFixed(1)).toBe('52.0');
    // 40 × 128/156 × 0.98 = 32.16: arithmetic.
    expect(u?.up.lo.toFixed(1)).toBe('32.2');
  });

  it('a direct link carries nothing else', () => {
    expect(with40().predicted.link.hops[1]?.takes).toEqual([]);
  });
});

describe('PL-06 expected read-outs', () => {
  const outs = (over: Parameters<typeof tunnelChain>[0]) =>
    judge(tunnelChain(over)).predicted.link.readouts;

  it('a built-in controller: one virtual pair to ignore, then the slot', () => {
    const r = outs({});
    expect(r.pairs.map((p) => `${p.kind} ${p.from}-${p.to} ${p.gen?.lo}x${p.lanes?.lo}`)).toEqual([
      'virtual socket-dock 1x4',
      'real dock-card 3x4',
    ]);
    expect(r.router).toEqual({ laneGbps: { lo: 20, hi: 20 }, lanes: { lo: 2, hi: 2 } });
    expect(r.copy?.down.lo.toFixed(1)).toBe('26.0');
    // 0.82 of 26.0: what practitioners call good begins at about 22; common practice, no published source.
    expect(r.healthyFrom?.down.lo.toFixed(1)).toBe('21.3');
  });

  it('a separate controller shows a real span, two lanes here', () => {
    const r = outs({ socket: { controller: 'separate', pcieGen: 3, lanes: 2 } });
    expect(r.pairs[0]).toMatchObject({
      kind: 'real',
      from: 'host',
      to: 'socket',
      lanes: { lo: 2, hi: 2 },
      certain: true,
    });
  });

  it('half a rate shows on the router, not on the slot', () => {
    const r = outs({ cable: { markedGbps: 20 } });
    expect(r.router).toEqual({ laneGbps: { lo: 10, hi: 10 }, lanes: { lo: 2, hi: 2 } });
    expect(r.pairs[1]).toMatchObject({ gen: { lo: 3 }, lanes: { lo: 4 } });
  });

  it.each([
    ['full', 4, 16],
    ['one-lane', 1, 1],
  ] as const)('a switch on the card (%s) shows the same always', (innerSwitch, gen, lanes) => {
    expect(outs({ card: { innerSwitch } }).pairs.at(-1)).toMatchObject({
      kind: 'inside',
      gen: { lo: gen, hi: gen },
      lanes: { lo: lanes, hi: lanes },
    });
  });
});

describe('PL-03 port roles', () => {
  const ports = [
    socket({ key: 'rear', position: 'left, rear' }),
    socket({ key: 'front', position: 'left, front', standard: 'usb4-20', mark: '20' }),
    socket({ key: 'right', position: 'right', standard: 'usb-c', tunnelling: 'no', mark: '' }),
    socket({ key: 'flat', connector: 'oculink-4i', standard: 'oculink', tunnelling: null }),
    socket({ key: 'bottom', position: 'bottom', standard: null, tunnelling: null }),
  ];
  const c = { ...tunnelChain(), host: { ...host(), sockets: ports }, socket: 'front' };

  it("names the dock's port, alternatives, free ones and unknown", () => {
    const roles = portRoles({ chain: c, context });
    expect(roles.map((r) => r.role)).toEqual(['dock', 'also', 'free', 'other-plug', 'open']);
    expect(roles[0]?.usable?.lo.toFixed(1)).toBe('26.0');
    expect(roles[1]).toMatchObject({ inUse: true, usable: { lo: expect.closeTo(16.0, 1) } });
  });

  it('warns of look-alikes: same plug, another role', () => {
    const roles = portRoles({ chain: c, context });
    expect(roles[0]?.looksLike).toEqual(['left, front', 'right', 'bottom']);
    expect(roles[3]?.looksLike).toEqual([]);
    expect(judge(c).findings.find((f) => f.code === 'host/look-alike')?.params).toMatchObject({
      n: 3,
      mark: '20',
    });
  });

  it('two equal ports: the one in use takes the dock', () => {
    const two = {
      ...c,
      host: { ...host(), sockets: [socket({ key: 'a' }), socket({ key: 'b' })] },
      socket: 'b',
    };
    expect(portRoles({ chain: two, context }).map((r) => r.role)).toEqual(['also', 'dock']);
    expect(portRoles({ chain: { ...two, host: null, socket: null }, context })).toEqual([]);
  });
});

describe('firmware numbers', () => {
  it.each([
    ['1.9', '1.10', -1],
    ['2.0', '2', 0],
    ['38.0', '36.1', 2],
    ['', '1', null],
  ] as const)('"%s" against "%s": %s', (a, b, expected) => {
    expect(compareVersions(a, b)).toBe(expected);
  });

  it('parts made for these tests pass their own schemas', () => {
    expect([dock(), card()].every((p) => p.maker === 'Alder')).toBe(true);
  });
});
