import type { RouterReading } from '@ruddy/core/bring-up';
import { pcieRawGbps } from '@ruddy/core/chain';

/** What holds a link of this kind back from ever coming up, or null. */
export type Barrier = 'misfit' | 'no-contact' | 'no-tunnel' | 'too-old' | 'no-data' | 'no-pcie';

/** What the parts on the bench give when they are joined and everything is on. Nothing here hangs on time. */
export interface Topology {
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
export function carried(
  rawGbps: number,
  way: 'down' | 'up',
  path: 'tunnel' | 'direct',
  inTunnel = false,
): number {
  const payload = PAYLOAD[path];
  return (rawGbps * REST * payload) / (payload + HEADER[way] + (inTunnel ? TUNNEL_HEADER : 0));
}

/** Gb/s a span carries on a path of its kind. */
export function spanRate(s: Span, way: 'down' | 'up', path: 'tunnel' | 'direct'): number {
  return carried(pcieRawGbps(s.gen, s.lanes), way, path);
}
