import { exact, union, isOpen, type Num, type Range, type RuleBook, toRange } from '../../base';
import { CONNECTOR_LANES, type ControllerClass, type PortStandard } from '../../parts';
import type { AttrPath, Slot } from '../schema/chain';
import type { Load } from '../schema/loads';
import { isAdapter } from '../schema/shape';
import { compareVersions } from '../software/version';
import { cablesOf, directGen, passiveLengthMm, usbCableRate } from './cable';
import { protocolGenerationOf } from './mode';
import {
  ASYMMETRIC_GBPS,
  DOMAIN,
  portDomain,
  TRANSPORT_80,
  transportGbps,
  tunnelOf,
  type TUNNELS,
} from './standards';
import type { Limit, SlotFacts } from './types';
import { socketPath } from './completions';

/** A limit by a number a person states; while it is not known its domain stands for it. */
function stated(attr: AttrPath, slot: Slot, kind: Limit['kind'], value: Num, domain: Range): Limit {
  return { attr, slot, kind, value: toRange(value, domain), open: isOpen(value) };
}

/** A limit that nothing is left to learn about. */
function fixed(attr: AttrPath, slot: Slot, kind: Limit['kind'], value: number): Limit {
  return { attr, slot, kind, value: exact(value), open: false };
}

/**
 * Limits a dock sets: the PCIe of its slot and behind its tunnel.
 * @param facts the slots of a chain in one completion
 * @returns limits with the attributes they come from
 */
export function dockLimits({ dock }: SlotFacts): Limit[] {
  if (!dock) return [];
  return [
    stated('dock/slotGen', 'dock', 'gen', dock.slotGen, DOMAIN.slotGen),
    stated('dock/slotLanes', 'dock', 'lanes', dock.slotLanes, DOMAIN.slotLanes),
  ];
}

/**
 * Limits a card sets: generation and lanes of its own connector.
 * @param facts the slots of a chain in one completion
 * @returns limits with the attributes they come from
 */
export function cardLimits({ card }: SlotFacts): Limit[] {
  if (!card) return [];
  return [
    stated('card/pcieGen', 'card', 'gen', card.pcieGen, DOMAIN.cardGen),
    stated('card/lanes', 'card', 'lanes', card.lanes, DOMAIN.cardLanes),
  ];
}

/**
 * Limits a port sets: PCIe between the host and the chip that makes it.
 * @param facts the slots of a chain in one completion
 * @returns limits with the attributes they come from
 */
export function socketLimits({ socket }: SlotFacts): Limit[] {
  if (!socket) return [];
  const domain = portDomain(socket.connector, socket.standard);
  return [
    stated(socketPath(socket.key, 'pcieGen'), 'socket', 'gen', socket.pcieGen, domain.gen),
    stated(socketPath(socket.key, 'lanes'), 'socket', 'lanes', socket.lanes, domain.lanes),
  ];
}

type Turned = 'yes' | 'no' | 'maybe';

/** Whether a screen turned a lane of an 80 Gb/s link round. */
function turnedRound(loads: readonly Load[]): Turned {
  const screens = loads.filter((l) => l.kind === 'video');
  if (screens.some((s) => s.asymmetric === 'yes')) return 'yes';
  return screens.some((s) => s.asymmetric !== 'no') ? 'maybe' : 'no';
}

function transportLimit(attr: AttrPath, slot: Slot, standard: PortStandard, turned: Turned): Limit {
  const usual = transportGbps(standard);
  if (turned === 'no' || usual < TRANSPORT_80) return fixed(attr, slot, 'transport', usual);
  const { down, up } = ASYMMETRIC_GBPS;
  const both =
    turned === 'yes'
      ? { value: exact(down), up: exact(up) }
      : { value: { lo: usual, hi: down }, up: { lo: up, hi: usual } };
  return { attr, slot, kind: 'transport', ...both, open: turned === 'maybe' };
}

/**
 * Limits of the link protocol of the ends: its transport rate, and the PCIe tunnel rate of their standards.
 * @param facts the slots of a chain in one completion
 * @returns limits with the attributes they come from
 */
export function standardLimits({ socket, dock, loads }: SlotFacts): Limit[] {
  const turned = protocolGenerationOf(socket, dock) === 'usb4-v2' ? turnedRound(loads) : 'no';
  const ends = [
    ...(socket
      ? [
          {
            attr: socketPath(socket.key, 'standard'),
            slot: 'socket' as const,
            standard: socket.standard,
          },
        ]
      : []),
    ...(dock ? [{ attr: 'dock/uplink', slot: 'dock' as const, standard: dock.uplink }] : []),
  ];
  return ends.flatMap(({ attr, slot, standard }) => {
    const behind = tunnelOf(standard)?.behind;
    return [
      transportLimit(attr, slot, standard, turned),
      ...(behind
        ? [fixed(attr, slot, 'gen', behind.gen), fixed(attr, slot, 'lanes', behind.lanes)]
        : []),
    ];
  });
}

/**
 * Limits the USB-C cables of a tunnel set.
 * @param f the slots of a chain in one completion
 * @param rules house rules
 * @returns limits with the attributes they come from
 */
export function usbCableLimits(f: SlotFacts, rules: RuleBook): Limit[] {
  const pieces = f.path?.pieces ?? [];
  const passive = passiveLengthMm(pieces);
  const era = protocolGenerationOf(f.socket, f.dock);
  return cablesOf(pieces, 'usb-c').flatMap(({ key, spec }): Limit[] => {
    const { byMark, byLength, lengthMatters } = usbCableRate(spec, passive, era, rules);
    const at = (attr: string, value: Range, open: boolean): Limit => ({
      attr: `path/${key}/${attr}`,
      slot: 'path',
      kind: 'transport',
      value,
      open,
    });
    const mark = at('markedGbps', byMark, isOpen(spec.markedGbps));
    // A length that holds nothing back is no limit; what is not known about it is its construction or its length.
    if (!lengthMatters) return [mark];
    const attr = spec.construction === null && spec.lengthMm !== null ? 'construction' : 'lengthMm';
    return [mark, at(attr, byLength, spec.construction === null || isOpen(spec.lengthMm))];
  });
}

/**
 * Limits of the cables, adapters and plugs of a direct path.
 * @param f the slots of a chain in one completion
 * @param rules house rules
 * @returns limits with the attributes they come from
 */
export function directPathLimits(f: SlotFacts, rules: RuleBook): Limit[] {
  const pieces = f.path?.pieces ?? [];
  const byPiece = pieces.flatMap(({ key, spec }): Limit[] => {
    const at = (attr: string) => `path/${key}/${attr}`;
    const gen = stated(
      at('pcieGen'),
      'path',
      'gen',
      spec.pcieGen,
      isAdapter(spec) ? DOMAIN.adapterGen : DOMAIN.directCableGen,
    );
    const plugs = isAdapter(spec) ? [spec.hostEnd, spec.farEnd] : [spec.connector];
    const room = plugs.flatMap((p) => {
      const lanes = CONNECTOR_LANES[p];
      return lanes
        ? [fixed(at(isAdapter(spec) ? 'hostEnd' : 'connector'), 'path', 'lanes', lanes)]
        : [];
    });
    return [
      gen,
      ...room,
      ...(isAdapter(spec)
        ? [stated(at('lanes'), 'path', 'lanes', spec.lanes, DOMAIN.adapterLanes)]
        : []),
    ];
  });
  const unmeasured = pieces.find(({ spec }) => isOpen(spec.lengthMm));
  const attr = `path/${unmeasured?.key ?? pieces[0]?.key ?? ''}/lengthMm`;
  // For one piece the promise decides, or its domain while it is not known: the lengths are a rule of thumb and must not exclude it.
  const length: Limit[] =
    pieces.length > 1
      ? [
          {
            attr,
            slot: 'path',
            kind: 'gen',
            value: directGen(pieces, (id) => rules.get(id)).gen,
            open: unmeasured !== undefined,
          },
        ]
      : [];
  const dockLanes = f.dock ? CONNECTOR_LANES[f.dock.connector] : undefined;
  return [
    ...byPiece,
    ...length,
    ...(dockLanes ? [fixed('dock/connector', 'dock', 'lanes', dockLanes)] : []),
  ];
}

const USUAL: Readonly<Record<Exclude<Load['kind'], 'video'>, Range>> = {
  hub: DOMAIN.hubGbps,
  lan: DOMAIN.lanGbps,
  drive: DOMAIN.driveGbps,
};
const NOTHING: Range = { lo: 0, hi: 0 };

function orNothing(r: Range): Range {
  return { lo: 0, hi: r.hi };
}

/**
 * What one device beside the card takes of the link. A screen takes what its stream carries, host to dock only: a
 * USB4 adapter sends the symbols of the picture and drops the stuffing of the trained DisplayPort link, and PCIe
 * uses whatever the other tunnels leave. Bandwidth allocation moves what is reserved against further screens, not
 * what PCIe finds on the wire. The trained rate is the most a stream can be.
 *
 * Source: USB4 Specification 1.0, section 10 (DisplayPort tunnelling) and 9 (PCIe tunnelling is scheduled last),
 * from memory.
 * @param load the device
 * @param dockLead whether devices of this dock have a lead to the host of their own; null where not stated
 * @returns Gb/s each way, and the attribute to ask for
 */
export function takesOf(
  load: Load,
  dockLead: 'yes' | 'no' | null,
): { down: Range; up: Range; asks: string | null } {
  if (load.kind === 'video') {
    const trained = toRange(load.downGbps, DOMAIN.videoGbps);
    const picture = toRange(load.pictureGbps, { lo: 0, hi: trained.hi });
    const down = {
      lo: Math.min(picture.lo, trained.lo),
      hi: Math.min(picture.hi, trained.hi),
    };
    return { down, up: NOTHING, asks: isOpen(load.pictureGbps) ? 'pictureGbps' : null };
  }
  const lead = (typeof load.ownLead === 'string' ? load.ownLead : null) ?? dockLead;
  if (lead === 'yes') return { down: NOTHING, up: NOTHING, asks: null };
  const down = toRange(load.downGbps, USUAL[load.kind]);
  const up = toRange(load.upGbps, USUAL[load.kind]);
  if (lead === null) return { down: orNothing(down), up: orNothing(up), asks: 'ownLead' };
  return { down, up, asks: isOpen(load.downGbps) || isOpen(load.upGbps) ? 'downGbps' : null };
}

/**
 * Limits that devices on the dock set by using the link.
 * @param facts the slots of a chain in one completion
 * @returns limits with the attributes they come from
 */
export function loadLimits({ loads, dock }: SlotFacts): Limit[] {
  const lead = typeof dock?.ownLead === 'string' ? dock.ownLead : null;
  return loads.flatMap((load, i): Limit[] => {
    const { down, up, asks } = takesOf(load, lead);
    if (down.hi === 0 && up.hi === 0) return [];
    return [
      {
        attr: `loads/${i}/${asks ?? 'downGbps'}`,
        slot: 'loads',
        kind: 'takes',
        value: down,
        up,
        open: asks !== null,
      },
    ];
  });
}

/**
 * Controller classes a dock's link allows. From memory of the trade: A and B are earlier Thunderbolt 3 chips, C the later ones and
 * Thunderbolt 4, D passes whatever its PCIe carries.
 */
const CLASSES: Readonly<Partial<Record<keyof typeof TUNNELS, readonly ControllerClass[]>>> = {
  'thunderbolt-3': ['a', 'b', 'c'],
  'usb4-20': ['c', 'd'],
  'usb4-40': ['c', 'd'],
  'thunderbolt-4': ['c'],
};

function classCap(c: ControllerClass, rules: RuleBook): number {
  if (c === 'a') return rules.get('dock.classACapGbps');
  return c === 'b' ? rules.get('dock.classBCapGbps') : Infinity;
}

/**
 * The cap of a dock on the usable rate: a measured one wins over that of its class; a firmware version may have
 * changed it.
 * @param facts the slots of a chain in one completion
 * @param rules house rules
 * @returns limits with the attributes they come from
 */
export function capLimits({ dock, installed }: SlotFacts, rules: RuleBook): Limit[] {
  const tunnel = dock && tunnelOf(dock.uplink);
  if (!dock || !tunnel) return [];
  const allowed = CLASSES[dock.uplink as keyof typeof TUNNELS] ?? ['d'];
  const stated = dock.controllerClass;
  const classes: readonly ControllerClass[] =
    stated === null ? allowed : typeof stated === 'string' ? [stated] : stated.oneOf;
  const byClass = union(...classes.map((c) => exact(classCap(c, rules))));
  const after = dock.capGbps === null ? byClass : toRange(dock.capGbps, byClass);
  const limits: Limit[] = [];
  // Class C is what Gen3 with four lanes gives; only class D passes more where the slot has it.
  if (dock.capGbps === null && classes.includes('c')) {
    const gen = classes.includes('d') ? { lo: 3, hi: 5 } : exact(3);
    if (!tunnel.behind)
      limits.push({
        attr: 'dock/controllerClass',
        slot: 'dock',
        kind: 'gen',
        value: gen,
        open: classes.length > 1,
      });
  }
  const cap = byFirmware(dock, installed.dockFirmware, after);
  if (Number.isFinite(cap.value.lo))
    limits.push({
      slot: 'dock',
      kind: 'cap',
      ...cap,
      open: cap.attr.startsWith('installed') || classes.length > 1,
    });
  return limits;
}

/** A cap before and after a firmware version: which of the two holds, or both while that is not known. */
function byFirmware(
  dock: NonNullable<SlotFacts['dock']>,
  version: string,
  after: Range,
): { attr: AttrPath; value: Range } {
  const attr = dock.capGbps === null ? 'dock/controllerClass' : 'dock/capGbps';
  if (dock.capFirmware === '') return { attr, value: after };
  const before = toRange(dock.capBeforeGbps, { lo: 0, hi: after.hi });
  const compared = compareVersions(version, dock.capFirmware);
  if (compared === null) return { attr: 'installed/dockFirmware', value: union(before, after) };
  return compared < 0 ? { attr: 'installed/dockFirmware', value: before } : { attr, value: after };
}
