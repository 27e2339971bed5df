import { describe, expect, it } from 'vitest';
import { directChain, down, judge, plainChain, rates, tunnelChain } from './make';

const link = (c: Parameters<typeof judge>[0]) => judge(c).predicted.link;

describe('PL-05 the tunnel: USB4 40', () => {
  it('gives 26.0 down and 25.3 up through a Gen3 ×4 slot', () => {
    const e = judge(tunnelChain());
    expect(e.predicted.link.hops.map((h) => h.kind)).toEqual(['pcie', 'tunnel', 'pcie']);
    expect([rates(e, 0), rates(e, 1), rates(e, 2)]).toEqual([
      '53.4/52.0',
      '26.0/25.3',
      '26.7/26.0',
    ]);
  });

  it('is bound by its transport behind Gen4: 32.0 down, 31.2 up', () => {
    const e = judge(tunnelChain({ dock: { fixedLead: 'yes', slotGen: 4, controllerClass: 'd' } }));
    expect(rates(e, 1)).toBe('32.0/31.2');
    // Port, cable and dock share that limit: no single part sets it, so the rest is the same.
    expect(e.predicted.link.pinch.part).toBeNull();
    expect(e.predicted.link.pinch.rest?.hi.toFixed(1)).toBe('32.0');
  });

  it('falls to USB4 20 by a 20 Gb/s cable: 16.0, 15.6', () => {
    const e = judge(tunnelChain({ cable: { markedGbps: 20 } }));
    expect(rates(e, 1)).toBe('16.0/15.6');
    expect(e.predicted.link.pinch).toMatchObject({
      hops: [1],
      certain: true,
      part: 'path',
      setBy: ['path/a/markedGbps'],
    });
    expect(e.predicted.link.pinch.rest?.hi.toFixed(1)).toBe('26.0');
    expect(e.predicted.verdict.state).toBe('care');
  });

  it('Thunderbolt 4 tunnels without being told so', () => {
    const e = judge(tunnelChain({ socket: { standard: 'thunderbolt-4', tunnelling: null } }));
    expect(e.predicted.verdict.state).toBe('works');
  });

  it('a discrete controller on two lanes is the bottleneck at 13.4', () => {
    const e = judge(tunnelChain({ socket: { controller: 'separate', pcieGen: 3, lanes: 2 } }));
    expect(rates(e, 0)).toBe('13.4/13.0');
    expect(e.predicted.link.pinch).toMatchObject({ hops: [0], part: 'socket' });
    expect(e.predicted.link.pinch.setBy).toContain('host/sockets/left/lanes');
  });

  it('a built-in controller of unknown width is not the bottleneck', () => {
    const l = link(tunnelChain({ socket: { lanes: null } }));
    expect(l.hops[0]).toMatchObject({ state: 'unknown', usable: null });
    expect(l.pinch.hops).toEqual([1]);
  });

  it('a separate controller of unknown width may be the bottleneck', () => {
    const e = judge(
      tunnelChain({ socket: { controller: 'separate', pcieGen: null, lanes: null } }),
    );
    expect(down(e, 0)).toEqual({ lo: 13.4, hi: 53.4 });
    expect(e.predicted.link.pinch.certain).toBe(false);
    expect(e.predicted.link.pinch.hops).toEqual([0, 1]);
    expect(e.toVerify.map((v) => v.path)).toContain('host/sockets/left/lanes');
  });
});

describe('PL-05 direct PCIe: OCuLink 4i', () => {
  it('one hop Gen4 ×4 with 256-byte payload is 57.3, 56.5', () => {
    const e = judge(directChain());
    expect(e.predicted.link.hops).toHaveLength(1);
    expect(rates(e, 0)).toBe('57.3/56.5');
    expect(e.predicted.verdict.state).toBe('works');
  });

  it('trains to the lower generation and the widest shared width', () => {
    const l = link(directChain({ cable: { pcieGen: 3 }, card: { lanes: 8 } }));
    expect(l.hops[0]).toMatchObject({ gen: { lo: 3, hi: 3 }, lanes: { lo: 4, hi: 4 } });
    expect(l.pinch).toMatchObject({ part: 'path', setBy: ['path/a/pcieGen'] });
  });

  it('an eight-lane card in a two-lane slot shows ×2', () => {
    const e = judge(directChain({ dock: { slotLanes: 2 } }));
    expect(e.predicted.link.readouts).toMatchObject({ gen: { lo: 4 }, lanes: { lo: 2 } });
  });

  it('says that the cable is plugged with everything off', () => {
    expect(judge(directChain()).findings.map((f) => f.code)).toContain('link/all-off');
    expect(judge(tunnelChain()).findings.map((f) => f.code)).not.toContain('link/all-off');
  });
});

describe('PL-05 a USB-C port without tunnelling', () => {
  it("won't work: 0 Gb/s reach the dock, whatever dock and cable", () => {
    const e = judge(plainChain());
    expect(e.predicted.verdict).toMatchObject({ state: 'blocked', because: ['link/no-tunnel'] });
    expect(e.predicted.link.hops.map((h) => h.state)).toEqual(['ok', 'broken', 'ok']);
    expect(e.predicted.link.usable?.down.hi).toBe(0);
    expect(e.predicted.link.pinch.part).toBe('socket');
  });

  it('an OCuLink dock does not go into a USB-C port', () => {
    const c = { ...tunnelChain(), dock: directChain().dock, path: directChain().path };
    const e = judge(c);
    expect(e.predicted.verdict.because).toEqual(['link/plug-mismatch']);
    expect(e.findings[0]?.params).toMatchObject({ a: 'socket', b: 'path' });
  });

  it('a USB4 port whose tunnelling is switched off is blocked too', () => {
    expect(judge(tunnelChain({ socket: { tunnelling: 'no' } })).predicted.verdict.state).toBe(
      'blocked',
    );
  });
});

describe('cables', () => {
  // Lengths from memory of the USB Type-C Cable and Connector Specification.
  it.each([
    ['passive', 800, 40, '26.0'],
    ['passive', 801, 40, '16.0'],
    ['passive', 2000, 40, '16.0'],
    ['active', 2000, 40, '26.0'],
    ['passive', 1500, 20, '16.0'],
    ['passive', 500, 80, '26.0'],
  ] as const)('%s, %i mm, marked %i: %s Gb/s', (construction, lengthMm, markedGbps, gbps) => {
    const e = judge(tunnelChain({ cable: { construction, lengthMm, markedGbps } }));
    expect(down(e, 1).hi.toFixed(1)).toBe(gbps);
  });

  it('names the length, not the mark, when the length holds it', () => {
    const e = judge(tunnelChain({ cable: { lengthMm: 1200 } }));
    expect(e.predicted.link.pinch.setBy).toEqual(['path/a/lengthMm']);
    expect(e.findings.map((f) => f.code)).toEqual(
      expect.arrayContaining(['cable/too-long', 'link/pinch']),
    );
  });

  it('beyond two metres nothing is promised: 0 to 16.0', () => {
    const e = judge(tunnelChain({ cable: { lengthMm: 2500 } }));
    expect(down(e, 1)).toEqual({ lo: 0, hi: 16 });
    expect(e.findings.map((f) => f.code)).toContain('cable/beyond-standard');
  });

  it('a charging cable carries no tunnel, whatever its watts', () => {
    const e = judge(tunnelChain({ cable: { markedGbps: 0.48, markedW: 240 } }));
    expect(e.predicted.verdict).toMatchObject({ state: 'blocked', because: ['cable/no-data'] });
    expect(e.findings.find((f) => f.code === 'cable/watts')?.params).toMatchObject({
      watts: 240,
      marked: 0.48,
    });
  });

  it('two joined passive cables count as one long one', () => {
    const c = tunnelChain();
    const piece = c.path?.[0];
    if (!piece) throw new Error('the chain has a cable');
    const e = judge({ ...c, path: [piece, { key: 'b', spec: piece.spec }] });
    expect(down(e, 1).hi).toBe(16);
    expect(e.findings.map((f) => f.code)).toContain('cable/joined');
  });

  it('no separate cable is no limit', () => {
    const e = judge({
      ...tunnelChain({ dock: { fixedLead: 'yes', slotGen: 4, controllerClass: 'd' } }),
      path: [],
    });
    expect(rates(e, 1)).toBe('32.0/31.2');
    expect(e.predicted.verdict.state).toBe('works');
  });
});

describe('house rules', () => {
  it('WS-02 a changed rule changes the result and is an assumption', () => {
    const e = judge(tunnelChain({ cable: { lengthMm: 1200 } }), {
      house: { 'cable.passiveFullRateMm': 1300 },
    });
    expect(rates(e, 1)).toBe('26.0/25.3');
    expect(e.assumptions.find((a) => a.rule === 'cable.passiveFullRateMm')).toEqual({
      rule: 'cable.passiveFullRateMm',
      value: 1300,
      unit: 'mm',
      setBy: 'house',
    });
  });

  it('only rules that were read are assumptions', () => {
    const direct = judge(directChain()).assumptions.map((a) => a.rule);
    expect(direct).toContain('link.payloadDirectBytes');
    expect(direct).not.toContain('link.payloadTunnelBytes');
  });

  it('PL-01 an OCuLink host with nothing else known keeps its one hop', () => {
    const c = directChain({ socket: { pcieGen: null, lanes: null } });
    expect(c.host?.sockets[0]).toMatchObject({
      connector: 'oculink-4i',
      pcieGen: null,
      lanes: null,
    });
    expect(down(judge(c), 0)).toEqual({ lo: 14.3, hi: 57.3 });
  });
});
