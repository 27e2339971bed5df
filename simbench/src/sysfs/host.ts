import { tunnelOf } from '@ruddy/core/chain';
import { carriesTunnel, type SocketSpec } from '@ruddy/core/parts';
import { settle, word } from '../parts';
import type { Topology } from '../link';
import { bridgesUp, fault, currentTopology, type SimulatedBench } from '../simulated-bench';
import { cardPort } from './card';
import { bridge, gts, MAKER, node, VIRTUAL, type Node } from './node';

/** Does this port of the host carry a tunnel, as far as its system can tell? */
export function tunnels(w: SimulatedBench, s: SocketSpec): boolean {
  if (!carriesTunnel(s.connector)) return false;
  if (w.plugged === s.key && fault(w, 'look-alike-port') > 0) return false;
  const standard = word(s.standard, s.connector === 'mini-dp' ? 'thunderbolt-2' : 'usb4-40');
  const t = tunnelOf(standard);
  return t !== null && (t.pcie === 'required' || word(s.tunnelling, 'yes') === 'yes');
}

/** Ports by how they are driven; separate chips have two ports each. */
export interface Ports {
  readonly builtIn: readonly SocketSpec[];
  readonly chips: readonly (readonly SocketSpec[])[];
  readonly direct: readonly SocketSpec[];
}

export function portsOf(w: SimulatedBench): Ports {
  const all = w.chain.host?.sockets ?? [];
  const tunnel = all.filter((s) => tunnels(w, s));
  const apart = tunnel.filter((s) => word(s.controller, 'built-in') === 'separate');
  return {
    builtIn: tunnel.filter((s) => !apart.includes(s)),
    chips: Array.from({ length: Math.ceil(apart.length / 2) }, (_, i) =>
      apart.slice(2 * i, 2 * i + 2),
    ),
    direct: all.filter((s) => !carriesTunnel(s.connector)),
  };
}

/** What hangs behind the port of a tunnel while its bridges are up. */
function behindTunnel(w: SimulatedBench, k: Topology | null, s: SocketSpec): Node[] {
  if (w.plugged !== s.key || !k || k.kind !== 'tunnel' || !bridgesUp(w)) return [];
  const hub = node({
    dev: 0,
    driver: 'xhci_hcd',
    made: {
      vendor: MAKER.dock,
      device: 2,
      classCode: 0x0c0330,
      port: 'endpoint',
      link: { ...VIRTUAL, capLanes: 1, nowLanes: 1 },
    },
  });
  const ports = [
    bridge({ dev: 0, children: [hub] }, MAKER.dock, 'downstream', {
      ...VIRTUAL,
      capLanes: 1,
      nowLanes: 1,
    }),
    cardPort(w, k, { dev: 1 }, MAKER.dock, 'downstream'),
    bridge({ dev: 4, reserve: 4 }, MAKER.dock, 'downstream', VIRTUAL, { hotplug: true }),
  ];
  return [bridge({ dev: 0, children: ports }, MAKER.dock, 'upstream', VIRTUAL)];
}

function builtIn(w: SimulatedBench, k: Topology | null, list: readonly SocketSpec[]): Node[] {
  const ports = list.map((s, i) =>
    bridge(
      { dev: 7, fn: i, children: behindTunnel(w, k, s), reserve: 16 },
      MAKER.host,
      'root',
      VIRTUAL,
      { hotplug: true },
    ),
  );
  const hosts = Array.from({ length: Math.ceil(list.length / 2) }, (_, i) =>
    node({
      dev: 13,
      fn: 2 + i,
      driver: 'thunderbolt',
      made: { vendor: MAKER.host, device: 2, classCode: 0x0c0340 },
    }),
  );
  return [...ports, ...hosts];
}

/** A separate controller: a switch behind a real link of the host, with its own host interface and USB beside the ports. */
function chip(w: SimulatedBench, k: Topology | null, list: readonly SocketSpec[], i: number): Node {
  const of = list.find((s) => s.key === w.plugged) ?? list[0];
  const cap = {
    gen: settle(of?.pcieGen, 3, w.noise, 'host gen'),
    lanes: settle(of?.lanes, 4, w.noise, 'host lanes'),
  };
  const now = k?.host && of?.key === w.plugged ? k.host.now : cap;
  const own = {
    capGts: gts(cap.gen),
    capLanes: cap.lanes,
    nowGts: gts(now.gen),
    nowLanes: now.lanes,
  };
  const slow = { ...VIRTUAL };
  const nhi = node({
    dev: 0,
    driver: 'thunderbolt',
    made: { vendor: MAKER.chip, device: 2, classCode: 0x088000, port: 'endpoint', link: slow },
  });
  const usb = node({
    dev: 0,
    driver: 'xhci_hcd',
    made: { vendor: MAKER.chip, device: 3, classCode: 0x0c0330, port: 'endpoint', link: slow },
  });
  const ports = list.map((s, n) =>
    bridge(
      { dev: n === 0 ? 1 : 4, children: behindTunnel(w, k, s), reserve: 16 },
      MAKER.chip,
      'downstream',
      VIRTUAL,
      {
        hotplug: true,
      },
    ),
  );
  const children = [
    bridge({ dev: 0, children: [nhi] }, MAKER.chip, 'downstream', slow),
    ports[0] as Node,
    bridge({ dev: 2, children: [usb] }, MAKER.chip, 'downstream', slow),
    ...ports.slice(1),
  ];
  const up = bridge({ dev: 0, children }, MAKER.chip, 'upstream', { ...own, active: false });
  return bridge(
    { dev: 28, fn: 4 + i, children: [up] },
    MAKER.host,
    'root',
    { ...own, active: true },
    { present: true },
  );
}

/** What sits in a slot inside the host while nothing of ours does. */
function inside(w: SimulatedBench, s: SocketSpec): Node[] {
  const holds = word(s.holds, 'nothing');
  if (w.plugged === s.key || holds === 'nothing') return [];
  const link = {
    capGts: gts(settle(s.pcieGen, 3, w.noise, s.key)),
    capLanes: s.connector === 'm2' ? 4 : 1,
  };
  const drive = holds !== 'radio';
  return [
    node({
      dev: 0,
      driver: drive ? 'nvme' : 'benchradio',
      made: {
        vendor: MAKER.drive,
        device: drive ? 1 : 2,
        classCode: drive ? 0x010802 : 0x028000,
        port: 'endpoint',
        link: { ...link, nowGts: link.capGts, nowLanes: link.capLanes },
      },
    }),
  ];
}

/** Ports of the host itself: OCuLink, a maker's own, and slots under the cover. */
function directPort(w: SimulatedBench, k: Topology | null, s: SocketSpec, i: number): Node {
  const at = { dev: 1, fn: i };
  if (w.plugged === s.key && k?.kind === 'direct') return cardPort(w, k, at, MAKER.host, 'root');
  const holds = inside(w, s);
  const usual = s.connector === 'mini-card' || s.connector === 'expresscard' ? 1 : 4;
  const cap = {
    gen: settle(s.pcieGen, usual === 1 ? 2 : 4, w.noise, s.key),
    lanes: settle(s.lanes, usual, w.noise, s.key),
  };
  const link = { capGts: gts(cap.gen), capLanes: cap.lanes };
  const now =
    holds.length > 0
      ? { nowGts: link.capGts, nowLanes: link.capLanes }
      : { nowGts: 2.5, nowLanes: 0 };
  return bridge(
    { ...at, children: holds },
    MAKER.host,
    'root',
    { ...link, ...now, active: holds.length > 0 },
    {
      present: holds.length > 0,
    },
  );
}

/** Every function the running host shows, before buses are numbered. */
export function hostNodes(w: SimulatedBench): Node[] {
  const k = currentTopology(w);
  const ports = portsOf(w);
  const graphics = node({
    dev: 2,
    driver: 'benchigfx',
    files: { boot_vga: '1\n' },
    made: {
      vendor: MAKER.host,
      device: 3,
      classCode: 0x030000,
      regions: [{ at: 0x60_0000_0000n, bytes: 256n * 1024n * 1024n }],
    },
  });
  return [
    node({ dev: 0, made: { vendor: MAKER.host, device: 4, classCode: 0x060000 } }),
    ...ports.direct.map((s, i) => directPort(w, k, s, i)),
    ...(word(w.chain.host?.graphics, 'internal') === 'none' ? [] : [graphics]),
    ...builtIn(w, k, ports.builtIn),
    ...ports.chips.map((list, i) => chip(w, k, list, i)),
  ];
}
