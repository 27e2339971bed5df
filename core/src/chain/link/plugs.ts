import { stated } from '../../base';
import {
  CABLE_CONNECTORS,
  carriesTunnel,
  type Connector,
  type DockSpec,
  type PieceSpec,
  type SocketSpec,
} from '../../parts';
import type { Slot } from '../schema/chain';
import { isAdapter } from '../schema/shape';
import type { KnownPath, SlotFacts } from './types';

/** What of a chain its plugs are: enough to see whether they go together, whatever else is known. */
interface Chained {
  readonly socket: Pick<SocketSpec, 'key' | 'connector' | 'family'> | null;
  readonly path: Pick<KnownPath, 'pieces'> | null;
  readonly dock: Pick<DockSpec, 'connector' | 'family'> | null;
}

/** Towards the host and towards the card; a cable has the same plug at both ends. */
function ends(spec: PieceSpec): { near: Connector; far: Connector } {
  return isAdapter(spec)
    ? { near: spec.hostEnd, far: spec.farEnd }
    : { near: spec.connector, far: spec.connector };
}

/**
 * Does a chain begin as direct PCIe? The port decides; without one the first piece or the dock does.
 * @param f what of the chain is chosen
 * @returns true where it does
 */
export function isDirect(f: Chained): boolean {
  const first = f.path?.pieces[0]?.spec;
  const connector =
    f.socket?.connector ?? (first ? ends(first).near : undefined) ?? f.dock?.connector ?? 'usb-c';
  return !carriesTunnel(connector);
}

interface End {
  readonly slot: Slot;
  readonly connector: Connector;
}
export interface Mismatch {
  readonly a: End;
  readonly b: End;
}

/**
 * The first two neighbours whose plugs do not go together. An adapter between two tunnel plugs works both ways.
 * @param f what of the chain is chosen
 * @returns the two with their plugs, host side first; null where all go together
 */
export function plugMismatch(f: Chained): Mismatch | null {
  let far: End | null = f.socket ? { slot: 'socket', connector: f.socket.connector } : null;
  for (const { spec } of f.path?.pieces ?? []) {
    const e = ends(spec);
    const turned =
      carriesTunnel(e.near) && far !== null && far.connector !== e.near && far.connector === e.far;
    const [near, next] = turned ? [e.far, e.near] : [e.near, e.far];
    if (far && far.connector !== near) return { a: far, b: { slot: 'path', connector: near } };
    far = { slot: 'path', connector: next };
  }
  if (f.dock && far && far.connector !== f.dock.connector)
    return { a: far, b: { slot: 'dock', connector: f.dock.connector } };
  return null;
}

/** The path and dock of a chain, as far as what bridges the way to the dock. */
interface PathToDock {
  readonly path: readonly { readonly key: string; readonly spec: PieceSpec }[];
  readonly dock: Pick<DockSpec, 'connector' | 'fixedLead'>;
}

/**
 * Has a path a cable of its own?
 * @param path the path; null while none is chosen
 * @returns true where one of its pieces is a cable
 */
export function hasCable(path: PathToDock['path']): boolean {
  return path.some((p) => !isAdapter(p.spec));
}

/**
 * Does anything bridge the way to the dock: a cable, the ribbon of a direct adapter, or a fixed lead? A dock that
 * plugs into a slot brings its own lead.
 * @param stretch path and dock; a dock with a port, no fixed lead and an empty path lacks a cable
 * @returns whether something does, and the attributes it depends on where that is open
 */
export function bridged({ path, dock }: PathToDock): {
  readonly reaches: 'yes' | 'no' | 'open';
  readonly hangsOn: readonly string[];
} {
  if (hasCable(path) || !(dock.connector in CABLE_CONNECTORS))
    return { reaches: 'yes', hangsOn: [] };
  const last = path.at(-1);
  // Only a direct adapter has a ribbon; one that joins two tunnel plugs still needs a cable.
  const direct =
    last !== undefined && isAdapter(last.spec) && !carriesTunnel(last.spec.hostEnd)
      ? last.spec
      : null;
  const ribbon = direct ? (stated(direct.lengthMm) ?? { lo: 0, hi: Infinity }) : { lo: 0, hi: 0 };
  if (dock.fixedLead === 'yes' || ribbon.lo > 0) return { reaches: 'yes', hangsOn: [] };
  const hangsOn = [
    ...(dock.fixedLead === 'no' ? [] : ['dock/fixedLead']),
    ...(ribbon.hi > 0 ? [`path/${last?.key ?? ''}/lengthMm`] : []),
  ];
  return { reaches: hangsOn.length > 0 ? 'open' : 'no', hangsOn };
}

/**
 * Names of makers' own ports along a chain.
 * @param f what of the chain is chosen
 * @returns names with the attribute that states each; empty where it is not stated
 */
export function portFamilies(f: Chained): { slot: Slot; attr: string; name: string }[] {
  const found: { slot: Slot; attr: string; name: string }[] = [];
  if (f.socket?.connector === 'own-port')
    found.push({
      slot: 'socket',
      attr: `host/sockets/${f.socket.key}/family`,
      name: f.socket.family,
    });
  for (const { key, spec } of f.path?.pieces ?? [])
    if (!isAdapter(spec) && spec.connector === 'own-port')
      found.push({ slot: 'path', attr: `path/${key}/family`, name: spec.family });
  if (f.dock?.connector === 'own-port')
    found.push({ slot: 'dock', attr: 'dock/family', name: f.dock.family });
  return found;
}

/**
 * Slots of a chain that are empty though something is needed there.
 * @param f the slots of a chain
 * @param slots those that are needed
 * @returns the empty ones
 */
export function missing(
  f: SlotFacts,
  slots: readonly ('socket' | 'path' | 'dock' | 'card')[],
): Slot[] {
  return slots.filter((s) => f[s] === null && !(s === 'dock' && f.path?.endsInSlot));
}
