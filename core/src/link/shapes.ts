import { exact, isOpen, minOf, toRange, type Num, type Range } from '../units';
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

/** Connectors along the path, host side first, each with the slot that has it. */
function connectors(f: SlotFacts): { slot: Slot; connector: string }[] {
  const ends: { slot: Slot; connector: string }[] = [];
  if (f.socket) ends.push({ slot: 'socket', connector: f.socket.connector });
  for (const { spec } of f.path?.pieces ?? []) ends.push({ slot: 'path', connector: spec.connector });
  if (f.dock) ends.push({ slot: 'dock', connector: f.dock.connector });
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

/** A limit by a number a person states; while it is not known its domain stands for it. */
function stated(attr: AttrPath, slot: Slot, kind: Limit['kind'], value: Num, domain: Range): Limit {
  return { attr, slot, kind, value: toRange(value, domain), open: isOpen(value) };
}

/** A limit that nothing is left to learn about. */
function fixed(attr: AttrPath, slot: Slot, kind: Limit['kind'], value: number): Limit {
  return { attr, slot, kind, value: exact(value), open: false };
}

function dockLimits({ dock }: SlotFacts): Limit[] {
  if (!dock) return [];
  return [
    stated('dock/slotGen', 'dock', 'gen', dock.slotGen, DOMAIN.slotGen),
    stated('dock/slotLanes', 'dock', 'lanes', dock.slotLanes, DOMAIN.slotLanes),
  ];
}

function cardLimits({ card }: SlotFacts): Limit[] {
  if (!card) return [];
  return [
    stated('card/pcieGen', 'card', 'gen', card.pcieGen, DOMAIN.cardGen),
    stated('card/lanes', 'card', 'lanes', card.lanes, DOMAIN.cardLanes),
  ];
}

function socketLimits({ socket }: SlotFacts, gen: Range, lanes: Range): Limit[] {
  if (!socket) return [];
  return [
    stated(socketPath(socket.key, 'pcieGen'), 'socket', 'gen', socket.pcieGen, gen),
    stated(socketPath(socket.key, 'lanes'), 'socket', 'lanes', socket.lanes, lanes),
  ];
}

function usbCableLimits({ path }: SlotFacts, rules: RuleBook): Limit[] {
  const passive = passiveLengthMm(path?.pieces ?? []);
  return (path?.pieces ?? []).flatMap(({ key, spec }): Limit[] => {
    const { byMark, byLength } = usbCableRate(spec, passive, rules);
    const mark: Limit = {
      attr: `path/${key}/markedGbps`,
      slot: 'path',
      kind: 'transport',
      value: byMark,
      open: isOpen(spec.markedGbps),
    };
    // A length that holds nothing back is no limit; what is not known about it is its construction or its length.
    if (byLength.lo >= TRANSPORT_40) return [mark];
    const attr = spec.construction === null && spec.lengthMm !== null ? 'construction' : 'lengthMm';
    const open = spec.construction === null || isOpen(spec.lengthMm);
    return [mark, { attr: `path/${key}/${attr}`, slot: 'path', kind: 'transport', value: byLength, open }];
  });
}

function missing(f: SlotFacts, slots: readonly ('socket' | 'path' | 'dock' | 'card')[]): Slot[] {
  return slots.filter((s) => f[s] === null);
}

function directShape(f: SlotFacts): HopShape[] {
  const cable = (f.path?.pieces ?? []).flatMap(({ key, spec }): Limit[] => [
    stated(`path/${key}/pcieGen`, 'path', 'gen', spec.pcieGen, DOMAIN.directCableGen),
    fixed(`path/${key}/connector`, 'path', 'lanes', OCULINK_4I_LANES),
  ]);
  const socket = socketLimits(f, DOMAIN.directSocketGen, DOMAIN.directSocketLanes);
  const limits = [...socket, ...cable, ...dockLimits(f), ...cardLimits(f)];
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
  const { socket, dock } = f;
  const builtIn = socket?.controller !== 'separate';
  const idle = socket !== null && builtIn && (socket.pcieGen === null || socket.lanes === null);
  const transport: Limit[] = [
    ...(socket ? [fixed(socketPath(socket.key, 'standard'), 'socket', 'transport', transportGbps(socket.standard))] : []),
    ...usbCableLimits(f, rules),
    ...(dock ? [fixed('dock/uplink', 'dock', 'transport', transportGbps(dock.uplink))] : []),
  ];
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
      limits: [...transport, ...dockLimits(f)],
    },
    {
      from: 'dock',
      to: 'card',
      kind: 'pcie',
      brokenBy: null,
      idle: false,
      unchosen: missing(f, ['dock', 'card']),
      limits: [...dockLimits(f), ...cardLimits(f)],
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
  return minOf(MOST_GEN, ...of);
}
