import type { PciDevice } from '../schema/report';
import { genOf } from './types';

/** A place in the device tree. */
export interface Node {
  readonly device: PciDevice;
  readonly parent: Node | null;
  readonly children: readonly Node[];
}

interface Growing {
  device: PciDevice;
  parent: Growing | null;
  children: Growing[];
}

function place(address: string): { domain: string; bus: number; fn: number } {
  const [domain = '', bus = '0', rest = '0.0'] = address.split(':');
  return { domain, bus: parseInt(bus, 16), fn: Number(rest.split('.')[1] ?? 0) };
}

/** Does this place lie below the other, or is it the same? */
function within(place: Growing, other: Growing): boolean {
  for (let at: Growing | null = place, steps = 0; at; at = at.parent, steps++)
    if (at === other || steps > 300) return true;
  return false;
}

/**
 * Tree of a report: each device below the bridge that its path names, or else whose secondary bus it is on. Devices whose
 * bridge is not in the report are roots, as are bridges that claim a bus above themselves: a report with loops gives
 * a forest, never a loop.
 *
 * @param devices devices of a report, in any order
 * @returns one node a device, in the order given; roots have no parent
 */
export function deviceTree(devices: readonly PciDevice[]): readonly Node[] {
  const nodes = devices.map((device): Growing => ({ device, parent: null, children: [] }));
  const bridges = new Map<string, Growing>();
  for (const n of nodes) {
    const { domain, bus } = place(n.device.address);
    if (n.device.bus && n.device.bus.secondary > bus)
      bridges.set(`${domain}/${n.device.bus.secondary}`, n);
  }
  const named = new Map(nodes.map((n) => [n.device.address, n]));
  for (const n of nodes) {
    const { domain, bus } = place(n.device.address);
    const told = n.device.parent === null ? undefined : named.get(n.device.parent);
    if (told && !within(told, n)) {
      n.parent = told;
      told.children.push(n);
      continue;
    }
    const above = bridges.get(`${domain}/${bus}`);
    if (!above || within(above, n)) continue;
    n.parent = above;
    above.children.push(n);
  }
  return nodes;
}

/**
 * Ancestors of a node.
 *
 * @param node where to start
 * @returns the node itself and everything above it, nearest first
 */
export function above(node: Node): Node[] {
  const list: Node[] = [];
  for (let at: Node | null = node; at && list.length < 64; at = at.parent) list.push(at);
  return list;
}

export type SpanKind = 'real' | 'virtual' | 'inside';

/** A link between a port and what hangs on it, as both ends show it. */
export interface LinkSpan {
  readonly kind: SpanKind;
  readonly upper: PciDevice;
  readonly lower: PciDevice;
  /** Generation and lanes now; null where neither end tells. */
  readonly gen: number | null;
  readonly lanes: number | null;
}

/**
 * Tells the ends of a tunnel's bridge pair: they declare only 2.5 GT/s and four lanes, whatever the tunnel carries.
 *
 * @param d a device of a report
 * @returns true when its link capabilities are exactly that
 */
export function onlySlowFour(d: PciDevice): boolean {
  return d.cap?.gts === 2.5 && d.cap.lanes === 4 && (d.topGts === null || d.topGts === 2.5);
}

/** Same maker, by number where it is printed, by the first word of the name otherwise. */
function sameMaker(a: PciDevice, b: PciDevice): boolean {
  if (a.vendor && b.vendor) return a.vendor === b.vendor;
  const word = (d: PciDevice) => d.name.split(/\s+/, 1)[0]?.toLowerCase() ?? '';
  return word(a) !== '' && word(a) === word(b);
}

/**
 * Tells the bridge pair of a tunnel: both ends declare only 2.5 GT/s with four lanes, and the lower one is a switch.
 * Common practice, no published source.
 *
 * @param upper the port above
 * @param lower the device below it
 * @returns true when the pair's own rate says nothing of the link
 */
export function isVirtual(upper: PciDevice, lower: PciDevice): boolean {
  return lower.port === 'upstream' && onlySlowFour(upper) && onlySlowFour(lower);
}

/**
 * Link span between a node and the port above it.
 *
 * @param node a node of the tree
 * @returns the span; null where its port is not in the report
 */
export function spanAbove(node: Node): LinkSpan | null {
  const upper = node.parent?.device;
  if (!upper) return null;
  const lower = node.device;
  // The two ends of one link agree; the slot's own side is read first, because a card may show what its switch can do.
  const now = [upper.now, lower.now].find((n) => n && n.gts !== null && n.lanes > 0) ?? null;
  const seen = {
    upper,
    lower,
    gen: genOf(now?.gts),
    lanes: now && now.lanes > 0 ? now.lanes : null,
  };
  if (isVirtual(upper, lower)) return { kind: 'virtual', ...seen };
  const outer = node.parent?.parent;
  // Below a switch of its own maker, with a real link above that switch: the pair lies on the card.
  const inner =
    upper.port === 'downstream' &&
    outer?.device.port === 'upstream' &&
    lower.port === 'endpoint' &&
    sameMaker(outer.device, lower) &&
    !(outer.parent && isVirtual(outer.parent.device, outer.device));
  return { kind: inner ? 'inside' : 'real', ...seen };
}
