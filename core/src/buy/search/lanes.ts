import { stated } from '../../base';
import { bridged, endsInSlot, hasCable, plugMismatch } from '../../chain';
import { type Connector, type DockSpec, isInside } from '../../parts';
import type { Partials } from './partials';
import { BIT } from './reasons';
import type { ScoutInput } from './types';

/** Everything of a combination but its card and screen; -1: no supply of its own. */
export interface CandidatePath {
  readonly route: number;
  readonly dock: number;
  readonly supply: number;
}
export const NO_PIECE = -1;

export interface Lanes {
  readonly lanes: CandidatePath[];
  /** Combinations whose plugs do not meet, or that lack a cable or have one too many. */
  readonly apart: number;
  /** Plugs of docks that need a cable of which the search holds none. */
  readonly uncabled: readonly Connector[];
}

/**
 * Enumerates candidate paths whose plugs meet, dock by dock. A dock with a fixed lead takes no other cable; a dock without
 * one takes no route that lacks a cable.
 *
 * @param parts partial evaluations of the search
 * @returns the paths, the number of combinations that cannot be connected, and dock plugs without a cable
 */
export function layLanes(parts: Partials): Lanes {
  const { input } = parts;
  const lanes: CandidatePath[] = [];
  const uncabled = new Set<Connector>();
  let apart = 0;
  const ways = input.routes.map((_, route) => {
    const chain = parts.routed(route);
    const socket = chain.host?.sockets.find((s) => s.key === chain.socket) ?? null;
    return { socket, path: { pieces: chain.path ?? [] }, slot: endsInSlot(chain.path) };
  });
  parts.docks.forEach((spec, dock) => {
    const wants = spec === null || spec.supply === 'separate';
    const supplies =
      wants && input.supplies.length > 0 ? input.supplies.map((_, i) => i) : [NO_PIECE];
    let reached = false;
    let bare = false;
    ways.forEach(({ socket, path, slot }, route) => {
      const plugs =
        spec === null ? slot : !slot && plugMismatch({ socket, path, dock: spec }) === null;
      const joins = spec === null || joined(path.pieces, spec);
      bare ||= plugs && !joins && !hasCable(path.pieces);
      reached ||= plugs && joins;
      if (plugs && joins) for (const supply of supplies) lanes.push({ route, dock, supply });
      // "No dock" with a path that wants one is no chain that anybody meant.
      else if (spec !== null) apart += supplies.length;
    });
    if (spec !== null && bare && !reached) uncabled.add(spec.connector);
  });
  return { lanes, apart, uncabled: [...uncabled] };
}

/** Do these pieces join a dock: one cable where it has no fixed lead, none where it has one. */
function joined(pieces: Parameters<typeof bridged>[0]['path'], dock: DockSpec): boolean {
  return (
    bridged({ path: pieces, dock }).reaches !== 'no' &&
    !(dock.fixedLead === 'yes' && hasCable(pieces))
  );
}

/** What of a combination is decided without its card: bits of limits, money, by how much limits are exceeded, and soft wishes. */
export interface Laid {
  readonly bits: number;
  readonly minor: number;
  readonly over: number;
  readonly wish: number;
}

/** Inner length of a dock, mm, as its size; null for an open board or when unknown. */
function lengthOf(spec: DockSpec | null): number | null {
  return spec === null || spec.form === 'open-board'
    ? null
    : (stated(spec.innerLengthMm)?.hi ?? null);
}

/**
 * Limits and price of a candidate path. A limited attribute that is unknown counts as over the limit.
 *
 * @param parts partial evaluations of the search
 * @param path route, dock and supply, by index
 * @returns reason mask, price in minor units, distance over the limits and score of the wishes
 */
export function laidOf(parts: Partials, { route, dock, supply }: CandidatePath): Laid {
  const { limits: l, weights: w, routes, supplies, base, docks } = parts.input;
  const spec = parts.docks[dock] ?? null;
  const way = routes[route] as ScoutInput['routes'][number];
  const socket = base.host?.sockets.find((s) => s.key === way.socket);
  const charge = parts.charge(route, dock);
  let bits = parts.route(route, dock) | charge.bits | parts.mount(dock, supply);
  let over = 0;
  const broken = (bit: number, by: number) => {
    bits |= bit;
    over += by;
  };
  const watts = charge.contract?.lo ?? null;
  const noise = stated(spec?.noiseDb)?.hi ?? null;
  const length = lengthOf(spec);
  if (l.chargeW !== null && (watts === null || watts < l.chargeW))
    broken(BIT.charging, watts === null || watts === 0 ? 1 : l.chargeW / watts - 1);
  const most = (bit: number, limit: number | null, have: number | null) => {
    if (limit !== null && (have === null || have > limit))
      broken(bit, have === null ? 1 : have / limit - 1);
  };
  most(BIT.noise, l.noiseDb, noise);
  most(BIT.size, l.lengthMm, length);
  const inside = socket !== undefined && isInside(socket.connector);
  if (l.noOpening && inside && socket?.reach !== 'outside') broken(BIT.opening, 1);
  if (l.portable && (inside || spec === null || spec.form === 'open-board'))
    broken(BIT.portable, 1);
  const plugs = [
    socket?.connector,
    spec?.connector,
    ...way.pieces.map((p) => ('connector' in p.spec ? p.spec.connector : '')),
  ];
  if (l.openOnly && plugs.includes('own-port')) broken(BIT['own-port'], 1);
  let minor = 0;
  for (const p of [...way.pieces, ...(supply >= 0 ? [supplies[supply]] : [])]) {
    if (p === undefined || p.minor === null) bits |= BIT['no-price'];
    else minor += p.minor;
  }
  const quiet = noise === null ? 0 : Math.max(0, 1 - noise / 60);
  const small = length === null ? 0 : Math.max(0, 1 - length / 600);
  return {
    bits,
    minor,
    over,
    wish: w.quiet * quiet + w.small * small + (docks[dock]?.owned ? 1e-6 : 0),
  };
}
