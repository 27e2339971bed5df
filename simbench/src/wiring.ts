import type { RouterReading, SpanReading } from '@ruddy/core/schema';
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

/** Bytes of a packet: payload, and what stands before it each way. Source: PCI Express Base Specification, from memory. */
const PAYLOAD = 128;
const HEADER = { down: 20, up: 24 } as const;
const TUNNEL_HEADER = 4;
/** What flow control and acknowledges leave. Common practice, no published source. */
const REST = 0.98;

/** Gb/s of payload that a raw rate carries. */
export function carried(rawGbps: number, way: 'down' | 'up', tunnelled: boolean): number {
  return (rawGbps * REST * PAYLOAD) / (PAYLOAD + HEADER[way] + (tunnelled ? TUNNEL_HEADER : 0));
}

/** Gb/s a span carries. */
export function spanRate(s: Span, way: 'down' | 'up'): number {
  return carried(pcieRawGbps(s.gen, s.lanes), way, false);
}

/** A span as the system writes it. */
export function reading(s: Span): SpanReading {
  return { gen: s.gen, lanes: s.lanes };
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
