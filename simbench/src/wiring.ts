import type { RouterReading } from '@ruddy/core/schema';
import { endsInSlot } from '@ruddy/core/schema';
import { isDirect, pcieRawGbps, plugMismatch, portFamilies } from '@ruddy/core/link';
import type { Parts } from './parts';
import { directLink } from './direct';
import { tunnelLink } from './tunnel';

/** What holds a link of this kind back from ever coming up, or null. */
export type Barrier = 'misfit' | 'no-contact' | 'no-tunnel' | 'too-old' | 'no-data' | 'no-pcie';

/** What the parts on the bench give when they are joined and everything is on. Nothing here hangs on time. */
export interface Wiring {
  readonly kind: 'tunnel' | 'direct';
  readonly barrier: Barrier | null;
  readonly router: (RouterReading & { generation: number }) | null;
  /** The span of a separate controller of the host; null for one built in. */
  readonly host: { now: Span; cap: Span } | null;
  /** The span before the card, as it trains under load; what the port could do; what the card could do. */
  readonly slot: Span;
  readonly port: Span;
  readonly card: Span;
  /** Usable Gb/s both ways with and without what else hangs from the dock. */
  usable(traffic: boolean): { down: number; up: number };
}
export interface Span {
  readonly gen: number;
  readonly lanes: number;
}

/**
 * Bytes of a packet: payload, and what stands before it each way. Source: PCI Express Base Specification, from memory; that direct links
 * take twice the payload of a tunnel is common practice.
 */
const PAYLOAD = { tunnel: 128, direct: 256 } as const;
const HEADER = { down: 20, up: 24 } as const;
const TUNNEL_HEADER = 4;
/** What flow control and acknowledges leave. Common practice, no published source. */
const REST = 0.98;

/** Gb/s of payload that a raw rate carries, on a path of its kind, one way; through the tunnel itself each packet has a longer header. */
export function carried(rawGbps: number, way: 'down' | 'up', path: 'tunnel' | 'direct', inTunnel = false): number {
  const payload = PAYLOAD[path];
  return (rawGbps * REST * payload) / (payload + HEADER[way] + (inTunnel ? TUNNEL_HEADER : 0));
}

/** Gb/s a span carries on a path of its kind. */
export function spanRate(s: Span, way: 'down' | 'up', path: 'tunnel' | 'direct'): number {
  return carried(pcieRawGbps(s.gen, s.lanes), way, path);
}

/** The plugs along the chain, and whether a maker's own port meets another maker's. */
function fits(p: Parts): boolean {
  const { socket, chain } = p;
  const path = chain.path ? { pieces: chain.path, endsInSlot: endsInSlot(chain.path) } : null;
  const known = { socket: socket as never, path, dock: chain.dock as never };
  const names = new Set(portFamilies(known).flatMap((f) => (f.name === '' ? [] : [f.name.toLowerCase()])));
  return plugMismatch(known) === null && names.size < 2;
}

/** Wire the parts up: null while there is no port, or nothing to plug into it. */
export function wire(p: Parts): Wiring | null {
  const { socket, chain } = p;
  if (!socket || (!chain.dock && !endsInSlot(chain.path))) return null;
  const direct = isDirect({ socket: socket as never, path: null, dock: null });
  const made = direct ? directLink(p) : tunnelLink(p);
  return fits(p) ? made : { ...made, barrier: 'misfit' };
}
