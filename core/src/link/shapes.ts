import { toRange, type Range } from '../units';
import type { AttrPath, Slot } from '../schema';
import type { RuleBook } from '../house';
import { passiveLengthMm, usbCableRate } from './cable';
import { DOMAIN, OCULINK_4I_LANES, TRANSPORT_40, transportGbps } from './standards';
import type { HopShape, Limit, SlotFacts } from './types';
import { socketPath } from './worlds';

const MOST_GEN: Range = { lo: 5, hi: 5 };

/** Does the chain start as direct PCIe? The socket decides; without one the first cable or the dock does. */
export function isDirect(f: SlotFacts): boolean {
  const connector = f.socket?.connector ?? f.path?.pieces[0]?.spec.connector ?? f.dock?.connector ?? 'usb-c';
  return connector === 'oculink-4i';
}

/** Connectors along the path, host side first, each with the slot and attribute that has it. */
function connectors(f: SlotFacts): { slot: Slot; attr: AttrPath; connector: string }[] {
  const ends: { slot: Slot; attr: AttrPath; connector: string }[] = [];
  if (f.socket) ends.push({ slot: 'socket', attr: socketPath(f.socket.key, 'connector'), connector: f.socket.connector });
  for (const { key, spec } of f.path?.pieces ?? [])
    ends.push({ slot: 'path', attr: `path/${key}/connector`, connector: spec.connector });
  if (f.dock) ends.push({ slot: 'dock', attr: 'dock/connector', connector: f.dock.connector });
  return ends;
}

export interface Mismatch {
  readonly a: { slot: Slot; connector: string };
  readonly b: { slot: Slot; connector: string };
}

/** The first two neighbours whose plugs do not go together, host side first; null when all do. */
export function plugMismatch(f: SlotFacts): Mismatch | null {
  const ends = connectors(f);
  const at = ends.findIndex((e, i) => i > 0 && e.connector !== ends[i - 1]?.connector);
  const [a, b] = [ends[at - 1], ends[at]];
  return a && b ? { a, b } : null;
}

function slotLimits(f: SlotFacts, to: readonly ('dock' | 'card')[]): Limit[] {
  const limits: Limit[] = [];
  if (f.dock && to.includes('dock')) {
    limits.push({ attr: 'dock/slotGen', slot: 'dock', kind: 'gen', value: toRange(f.dock.slotGen, DOMAIN.slotGen) });
    limits.push({ attr: 'dock/slotLanes', slot: 'dock', kind: 'lanes', value: toRange(f.dock.slotLanes, DOMAIN.slotLanes) });
  }
  if (f.card && to.includes('card')) {
    limits.push({ attr: 'card/pcieGen', slot: 'card', kind: 'gen', value: toRange(f.card.pcieGen, DOMAIN.cardGen) });
    limits.push({ attr: 'card/lanes', slot: 'card', kind: 'lanes', value: toRange(f.card.lanes, DOMAIN.cardLanes) });
  }
  return limits;
}

function socketLimits(f: SlotFacts, gen: Range, lanes: Range): Limit[] {
  if (!f.socket) return [];
  const at = (attr: string) => socketPath(f.socket?.key ?? '', attr);
  return [
    { attr: at('pcieGen'), slot: 'socket', kind: 'gen', value: toRange(f.socket.pcieGen, gen) },
    { attr: at('lanes'), slot: 'socket', kind: 'lanes', value: toRange(f.socket.lanes, lanes) },
  ];
}

function missing(f: SlotFacts, slots: readonly ('socket' | 'path' | 'dock' | 'card')[]): Slot[] {
  return slots.filter((s) => f[s] === null);
}

function directShape(f: SlotFacts): HopShape[] {
  const cable = (f.path?.pieces ?? []).flatMap(({ key, spec }): Limit[] => [
    { attr: `path/${key}/pcieGen`, slot: 'path', kind: 'gen', value: toRange(spec.pcieGen, DOMAIN.directCableGen) },
    { attr: `path/${key}/connector`, slot: 'path', kind: 'lanes', value: { lo: OCULINK_4I_LANES, hi: OCULINK_4I_LANES } },
  ]);
  const limits = [
    ...socketLimits(f, DOMAIN.directSocketGen, DOMAIN.directSocketLanes),
    ...cable,
    ...slotLimits(f, ['dock', 'card']),
  ];
  const brokenBy = plugMismatch(f)?.b.slot ?? null;
  return [
    {
      from: 'host',
      to: 'card',
      kind: 'pcie',
      limits,
      unchosen: missing(f, ['socket', 'path', 'dock', 'card']),
      brokenBy,
      idle: false,
    },
  ];
}

function tunnelShapes(f: SlotFacts, rules: RuleBook): HopShape[] {
  const { socket, path, dock } = f;
  const builtIn = socket?.controller !== 'separate';
  const idle = socket !== null && builtIn && (socket.pcieGen === null || socket.lanes === null);
  const transport: Limit[] = [];
  if (socket) {
    const gbps = transportGbps(socket.standard);
    transport.push({
      attr: socketPath(socket.key, 'standard'),
      slot: 'socket',
      kind: 'transport',
      value: { lo: gbps, hi: gbps },
    });
  }
  const passive = passiveLengthMm(path?.pieces ?? []);
  for (const { key, spec } of path?.pieces ?? []) {
    const { byMark, byLength } = usbCableRate(spec, passive, rules);
    transport.push({ attr: `path/${key}/markedGbps`, slot: 'path', kind: 'transport', value: byMark });
    // A length that holds nothing back is no limit; what is not known about it is its construction or its length.
    const attr = spec.construction === null && spec.lengthMm !== null ? 'construction' : 'lengthMm';
    if (byLength.lo < TRANSPORT_40)
      transport.push({ attr: `path/${key}/${attr}`, slot: 'path', kind: 'transport', value: byLength });
  }
  if (dock) {
    const gbps = transportGbps(dock.uplink);
    transport.push({ attr: 'dock/uplink', slot: 'dock', kind: 'transport', value: { lo: gbps, hi: gbps } });
  }
  const stopped = socket && !socket.tunnels ? 'socket' : (transport.find((l) => l.value.hi === 0)?.slot ?? null);
  return [
    {
      from: 'host',
      to: 'socket',
      kind: 'pcie',
      brokenBy: null,
      idle,
      unchosen: missing(f, ['socket']),
      limits: idle ? [] : socketLimits(f, DOMAIN.tunnelSocketGen, DOMAIN.tunnelSocketLanes),
    },
    {
      from: 'socket',
      to: 'dock',
      kind: 'tunnel',
      idle: false,
      brokenBy: stopped ?? plugMismatch(f)?.b.slot ?? null,
      unchosen: missing(f, ['socket', 'path', 'dock']),
      limits: [...transport, ...slotLimits(f, ['dock'])],
    },
    {
      from: 'dock',
      to: 'card',
      kind: 'pcie',
      brokenBy: null,
      idle: false,
      unchosen: missing(f, ['dock', 'card']),
      limits: slotLimits(f, ['dock', 'card']),
    },
  ];
}

/** The hops of a chain from the host to the card: one when it is direct PCIe, three through a tunnel. */
export function hopShapes(f: SlotFacts, rules: RuleBook): HopShape[] {
  return isDirect(f) ? directShape(f) : tunnelShapes(f, rules);
}

/** The generation a limit list allows: the least of its limits, Gen5 when there is none. */
export function leastGen(limits: readonly Limit[]): Range {
  const of = limits.filter((l) => l.kind === 'gen').map((l) => l.value);
  return of.reduce((a, b) => ({ lo: Math.min(a.lo, b.lo), hi: Math.min(a.hi, b.hi) }), MOST_GEN);
}
