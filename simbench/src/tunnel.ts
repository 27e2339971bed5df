import {
  compareVersions,
  isAdapter,
  pcieRawGbps,
  trainedWidth,
  tunnelOf,
  TUNNELS,
} from '@ruddy/core/chain';
import type { CableSpec, PortStandard, TunnelStandard } from '@ruddy/core/parts';
import { cardEnd, settle, slotEnd, strength, word, type Parts } from './parts';
import { carried, spanRate, type Barrier, type Span, type Topology } from './link';

/** Gb/s of a lane as the kernel writes it, its lanes, and the generation of the router. From memory of the kernel's ABI. */
const ROUTER: Readonly<
  Record<TunnelStandard, { lane: number; lanes: number; generation: number }>
> = {
  'thunderbolt-1': { lane: 10, lanes: 1, generation: 1 },
  'thunderbolt-2': { lane: 10, lanes: 2, generation: 2 },
  'thunderbolt-3': { lane: 20, lanes: 2, generation: 3 },
  'usb4-20': { lane: 10, lanes: 2, generation: 4 },
  'usb4-40': { lane: 20, lanes: 2, generation: 4 },
  'thunderbolt-4': { lane: 20, lanes: 2, generation: 4 },
  'usb4-80': { lane: 40, lanes: 2, generation: 4 },
  'thunderbolt-5': { lane: 40, lanes: 2, generation: 4 },
};

/** Gb/s of transport that a lane carries after its line code: 64b/66b where it runs slow, the standard's own above. */
function transportOf(lane: number, lanes: number, older: boolean): number {
  if (older) return lane * lanes;
  if (lane >= 40) return lane * lanes;
  return lane * lanes * (lane >= 20 ? 128 / 132 : 64 / 66);
}

/** Gb/s of a lane that one cable lets through. Lengths from memory of the USB Type-C cable specification. */
function cableLane(spec: CableSpec, passiveMm: number, p: Parts, key: string): number {
  if (spec.connector !== 'usb-c') return 40;
  const marked = settle(spec.markedGbps, 40, p.noise, `mark ${key}`);
  if (marked < 5) return 0;
  const active =
    word(
      spec.construction,
      settle(spec.lengthMm, 700, p.noise, `length ${key}`) > 1000 ? 'active' : 'passive',
    ) === 'active';
  const byMark = marked >= 80 ? 40 : marked >= 40 ? (active ? 20 : 40) : 10;
  if (active) return byMark;
  const byLength =
    passiveMm <= 800 || (marked >= 80 && passiveMm <= 1000) ? 40 : passiveMm <= 2000 ? 10 : 0;
  return Math.min(byMark, byLength);
}

function pathLane(p: Parts): number {
  const cables = (p.chain.path ?? []).flatMap(({ spec, key }) =>
    isAdapter(spec) ? [] : [{ spec, key }],
  );
  const length = (c: { spec: CableSpec; key: string }) =>
    settle(c.spec.lengthMm, 700, p.noise, `length ${c.key}`);
  const passive = cables.filter(
    (c) => word(c.spec.construction, length(c) > 1000 ? 'active' : 'passive') === 'passive',
  );
  const mm = passive.reduce((sum, c) => sum + length(c), 0);
  return Math.min(40, ...cables.map((c) => cableLane(c.spec, mm, p, c.key)));
}

/** Older Thunderbolt meets USB4 only where the USB4 end speaks it; Thunderbolt 4 and 5 must. From memory of the USB4 specification. */
function tooOld(p: Parts, a: TunnelStandard, b: TunnelStandard): boolean {
  const x = TUNNELS[a].era;
  const y = TUNNELS[b].era;
  if ((x === 'thunderbolt') === (y === 'thunderbolt')) return false;
  const [newer, said] =
    x === 'thunderbolt' ? [b, p.chain.dock?.tb3Compat] : [a, p.socket?.tb3Compat];
  return TUNNELS[newer].pcie !== 'required' && word(said, 'yes') === 'no';
}

function barrier(
  p: Parts,
  port: PortStandard,
  uplink: TunnelStandard,
  lane: number,
): Barrier | null {
  if (strength(p, 'plug-not-home') >= 0.7) return 'no-contact';
  const tunnel = tunnelOf(port);
  if (!tunnel || strength(p, 'look-alike-port') > 0) return 'no-tunnel';
  if (tunnel.pcie === 'optional' && word(p.socket?.tunnelling, 'yes') === 'no') return 'no-tunnel';
  if (lane === 0 || strength(p, 'cable-charges-only') > 0) return 'no-data';
  return tooOld(p, port as TunnelStandard, uplink) ? 'too-old' : null;
}

/** What hangs from the dock and comes through the link, Gb/s each way. A screen takes the whole trained rate, and always. */
function takes(p: Parts, traffic: boolean): { down: number; up: number } {
  const sum = { down: 0, up: 0 };
  for (const l of p.chain.loads) {
    const lead = word(l.ownLead, word(p.chain.dock?.ownLead, 'no'));
    if (l.kind === 'video')
      sum.down += settle(
        word(l.allocates, 'no') === 'yes' ? l.pictureGbps : l.downGbps,
        17.28,
        p.noise,
        'video',
      );
    else if (traffic && lead === 'no') {
      sum.down += settle(l.downGbps, 2, p.noise, `${l.kind} down`);
      sum.up += settle(l.upGbps, 2, p.noise, `${l.kind} up`);
    }
  }
  const busy = strength(p, 'hub-traffic');
  return busy > 0 ? { down: sum.down + 12 + 12 * busy, up: sum.up + 12 + 12 * busy } : sum;
}

/** What the dock's controller passes on at most, Gb/s down. Classes are common practice, no published source. */
function capOf(p: Parts): number {
  const { dock, installed } = p.chain;
  if (!dock) return Infinity;
  const cap =
    dock.capGbps === null
      ? { a: 17.6, b: 22, c: Infinity, d: Infinity }[word(dock.controllerClass, 'c')]
      : settle(dock.capGbps, 26, p.noise, 'cap');
  const early =
    dock.capFirmware !== '' && (compareVersions(installed.dockFirmware, dock.capFirmware) ?? 0) < 0;
  const stated = early ? settle(dock.capBeforeGbps, cap, p.noise, 'cap before') : cap;
  const fault = strength(p, 'dock-firmware-cap');
  return fault > 0 ? Math.min(stated, 17 - 5 * fault) : stated;
}

/** The two routers of a tunnel: what their lanes carry together, and what the standards put behind them. */
interface Routers {
  port: PortStandard;
  uplink: TunnelStandard;
  lane: number;
  lanes: number;
  generation: number;
  /** Gb/s of a lane that the cables let through. */
  cable: number;
  older: boolean;
  behind: { gen: number; lanes: number }[];
}

function routersOf(p: Parts): Routers {
  const { socket, chain } = p;
  const usual = socket?.connector === 'mini-dp' ? 'thunderbolt-2' : 'usb4-40';
  const port = word<PortStandard>(socket?.standard, usual);
  // An end that speaks no tunnel at all is held up by its barrier; what it would carry is then of no matter.
  const tunnelled = (s: PortStandard): TunnelStandard =>
    s in ROUTER ? (s as TunnelStandard) : 'usb4-40';
  const near = tunnelled(port);
  const uplink = tunnelled(word<PortStandard>(chain.dock?.uplink, 'usb4-40'));
  const a = ROUTER[near];
  const b = ROUTER[uplink];
  const half = strength(p, 'cable-half-rate') > 0 ? 10 : 40;
  const cable = pathLane(p);
  return {
    port,
    uplink,
    lane: Math.min(a.lane, b.lane, cable, half),
    lanes: strength(p, 'cable-one-lane') > 0 ? 1 : Math.min(a.lanes, b.lanes),
    generation: Math.min(a.generation, b.generation),
    cable,
    older: [near, uplink].some((s) => TUNNELS[s].era === 'thunderbolt'),
    behind: [near, uplink].flatMap((s) => TUNNELS[s].behind ?? []),
  };
}

/** The slot of the dock with its card: generation and lanes they train to. */
function slotSpan(p: Parts, port: Span, card: Span): Span {
  const seat = strength(p, 'card-not-seated');
  const lost = seat === 0 ? 1 : seat < 0.4 ? 2 : 4;
  return {
    gen: strength(p, 'driver-clamp') > 0 ? 1 : Math.min(port.gen, card.gen),
    lanes: trainedWidth(Math.max(1, Math.min(port.lanes, card.lanes) / lost)),
  };
}

/** The lanes of a host to the chip that makes its port, as they are wired and as they run. */
function hostSpans(
  p: Parts,
  older: boolean,
): { wired: Span; now: Span; separate: boolean; known: boolean } {
  const { socket, noise } = p;
  const wired = {
    gen: settle(socket?.pcieGen, older ? 3 : 4, noise, 'host gen'),
    lanes: settle(socket?.lanes, 4, noise, 'host lanes'),
  };
  const separate = word(socket?.controller, 'built-in') === 'separate';
  const now = strength(p, 'two-lanes') > 0 ? { ...wired, lanes: Math.min(2, wired.lanes) } : wired;
  const stated = typeof socket?.pcieGen === 'number' && typeof socket.lanes === 'number';
  return { wired, now, separate, known: separate || stated };
}

/** Gb/s that PCIe has inside the tunnel: what the controllers put behind it holds generation and lanes down to the slot's. */
function innerGbps({ chain }: Parts, r: Routers, slotPort: Span): number {
  // Class C is what Gen3 with four lanes gives, where the dock's own standard does not settle it.
  const narrow =
    word(chain.dock?.controllerClass, 'c') === 'c' &&
    chain.dock?.capGbps === null &&
    !TUNNELS[r.uplink].behind;
  const gen = Math.min(slotPort.gen, narrow ? 3 : 5, ...r.behind.map((x) => x.gen));
  return pcieRawGbps(gen, Math.min(slotPort.lanes, ...r.behind.map((x) => x.lanes)));
}

/** A tunnel: the router link, the PCIe the standards put behind it, and the slot of the dock. */
export function tunnelTopology(p: Parts): Topology {
  const r = routersOf(p);
  const slotPort = slotEnd(p, { gen: 3, lanes: 4 });
  const card = cardEnd(p);
  const slot = slotSpan(p, slotPort, card);
  const host = hostSpans(p, r.older);
  const cap = capOf(p);
  const inner = innerGbps(p, r, slotPort);
  const usable = (traffic: boolean) => {
    const t = takes(p, traffic);
    const way = (d: 'down' | 'up') => {
      const left = Math.max(0, transportOf(r.lane, r.lanes, r.older) - t[d]);
      const tunnel = Math.min(
        carried(Math.min(left, inner), d, 'tunnel', true),
        d === 'down' ? cap : (cap * 152) / 156,
      );
      return Math.min(
        tunnel,
        spanRate(slot, d, 'tunnel'),
        host.known ? spanRate(host.now, d, 'tunnel') : Infinity,
      );
    };
    return { down: way('down'), up: way('up') };
  };
  return {
    kind: 'tunnel',
    barrier: barrier(p, r.port, r.uplink, r.cable),
    router: { laneGbps: r.lane, lanes: r.lanes, generation: r.generation },
    host: host.separate ? { now: host.now, cap: host.wired } : null,
    slot,
    port: slotPort,
    card,
    usable,
  };
}
