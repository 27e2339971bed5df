import { type Range, stated } from '../base';
import { type Chain, chainSchema, portName, tunnelOf } from '../chain';
import {
  cableSchema,
  type CableSpec,
  cardSchema,
  CARRIES,
  carriesTunnel,
  dockSchema,
  hasPcie,
  type HostSpec,
  isInside,
  type SocketSpec,
} from '../parts';
import { freeSlots } from '../setups';
import { evaluate } from './evaluate';
import type { Context, VerdictState } from './types';

/** One way a host can reach a card, and what it costs. */
export interface Route {
  readonly key: string;
  readonly name: string;
  readonly kind: 'tunnel' | 'direct' | 'none';
  readonly inUse: boolean;
  /** With the best cable, dock and card there could be: what the port itself allows, Gb/s to the card. */
  readonly usable: Range | null;
  readonly verdict: VerdictState;
  readonly hotPlug: boolean;
  /** Power the port accepts to charge the host, W; null when it carries no power or the value is unknown. */
  readonly chargeW: Range | null;
  readonly opening: 'none' | 'cover' | 'cut' | 'not known';
  /** What leaves the slot. */
  readonly evicts: 'system-drive' | 'drive' | 'radio' | 'nothing' | 'not known' | null;
  /** Where the system boots: from the same drive, or another place it could move to. */
  readonly bootTo: readonly string[];
  /** Which network is left. */
  readonly network: 'as before' | 'lan' | 'none' | 'not known';
  readonly portable: boolean;
}

/**
 * A cable that holds nothing back.
 * @param connector the plug
 * @returns the cable; null for a plug that is not cabled
 */
export function idealCable(connector: SocketSpec['connector']): CableSpec | null {
  const cabled =
    carriesTunnel(connector) || connector === 'oculink-4i' || connector === 'oculink-8i';
  if (!cabled) return null;
  return cableSchema.parse({
    maker: 'any',
    model: 'any',
    connector,
    construction: 'passive',
    lengthMm: 200,
    ...(connector === 'usb-c' && { markedGbps: 120 }),
    ...(!carriesTunnel(connector) && { pcieGen: 5 }),
  });
}

/** The best counterpart a port could meet: it never holds the chain back, so what is left is the port's own limit. */
function best(host: HostSpec, socket: SocketSpec): Chain {
  const named = { maker: 'any', model: 'any' };
  const may = CARRIES[socket.connector].filter(hasPcie);
  const cable = idealCable(socket.connector);
  const tunnel = carriesTunnel(socket.connector);
  const told =
    typeof socket.standard === 'string' && hasPcie(socket.standard) ? socket.standard : null;
  return chainSchema.parse({
    host,
    socket: socket.key,
    path: cable ? [{ key: 'a', spec: cable }] : [],
    dock: dockSchema.parse({
      ...named,
      form: 'enclosure',
      connector: socket.connector,
      uplink: told ?? (tunnel ? null : may[0]),
      ...(tunnel && { tb3Compat: 'yes', controllerClass: 'd' }),
      slotGen: 5,
      slotLanes: 16,
      family: socket.family,
    }),
    card: cardSchema.parse({ ...named, pcieGen: 5, lanes: 16 }),
  });
}

function networkAfter(host: HostSpec, holds: Route['evicts']): Route['network'] {
  if (holds !== 'radio') return 'as before';
  return host.lan === 'yes' ? 'lan' : host.lan === 'no' ? 'none' : 'not known';
}

/**
 * Every port and slot of a host as a route to a card, with what it costs: what leaves the slot, where the system
 * boots then, which network is left, whether the host must be opened. Slots are real: an adapter evicts what is in
 * them.
 * @param host the host
 * @param inUse key of the port that is chosen; null where none is
 * @param context date and house rules
 * @returns best rate first
 */
export function routesOf(
  host: HostSpec,
  inUse: string | null,
  context: Pick<Context, 'asOf' | 'house'>,
): Route[] {
  const routes = host.sockets.map((socket): Route => {
    const e = evaluate({ chain: best(host, socket), context });
    const blocked = e.findings.some(
      (f) => f.severity === 'blocks' && f.certainty === 'certain' && f.area === 'link',
    );
    const tunnel = carriesTunnel(socket.connector);
    const inside = isInside(socket.connector);
    const evicts = inside ? (typeof socket.holds === 'string' ? socket.holds : 'not known') : null;
    const standard = typeof socket.standard === 'string' ? tunnelOf(socket.standard) : null;
    return {
      key: socket.key,
      name: portName(socket),
      kind: blocked ? 'none' : tunnel ? 'tunnel' : 'direct',
      inUse: socket.key === inUse,
      usable: blocked ? { lo: 0, hi: 0 } : (e.predicted.link.usable?.down ?? null),
      verdict: blocked
        ? 'blocked'
        : e.findings.some((f) => f.severity === 'blocks')
          ? 'unknown'
          : 'works',
      hotPlug: tunnel && !blocked && standard !== null,
      chargeW:
        socket.connector === 'usb-c' && (stated(socket.chargeInW)?.hi ?? 0) > 0
          ? stated(socket.chargeInW)
          : null,
      opening: !inside
        ? 'none'
        : socket.reach === 'cut'
          ? 'cut'
          : socket.reach === 'outside'
            ? 'none'
            : socket.reach === null
              ? 'not known'
              : 'cover',
      evicts,
      bootTo: evicts === 'system-drive' ? freeSlots(host, socket.key) : [],
      network: networkAfter(host, evicts),
      portable: !inside,
    };
  });
  return routes.sort(
    (a, b) =>
      (b.usable?.lo ?? 0) - (a.usable?.lo ?? 0) || (b.usable?.hi ?? 0) - (a.usable?.hi ?? 0),
  );
}
