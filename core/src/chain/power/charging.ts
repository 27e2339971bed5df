import {
  exact,
  minOf,
  minus,
  type Num,
  openOf,
  type Range,
  type RuleId,
  stated,
  toRange,
} from '../../base';
import type { AttrPath, Chain } from '../schema/chain';
import { isAdapter } from '../schema/shape';

export interface ChargeFacts {
  /** By which way the host is charged: from the dock over the link or a cable of its own, from its own charger, or not at all. */
  readonly by: 'link' | 'own-lead' | 'charger' | null;
  /** What dock, cable and host agree on, W; null when not known. */
  readonly contract: Range | null;
  /** The contract over every completion of what is not known, W: 0 where the host may refuse it. */
  readonly span: Range;
  /** What the supply has to give for it, W: as if the host took all it is offered, unless it is known to refuse. */
  readonly drawn: Range;
  /** What limits it. */
  readonly least: 'dock' | 'cable' | 'host' | null;
  /** The host takes nothing because it refuses so little. */
  readonly refused: boolean;
  /** It may refuse it: what it refuses below is not known. */
  readonly mayRefuse: boolean;
  readonly minimum: Range | null;
  readonly drawW: Range | null;
  /** Contract less draw, W. */
  readonly net: Range | null;
  /** Hours until the battery is empty; null when it does not empty, or the battery is not known. */
  readonly hours: Range | null;
  readonly hasBattery: boolean;
  readonly open: readonly AttrPath[];
}

/** Most that USB Power Delivery agrees on, W (48 V at 5 A; from memory). */
const MAX_W = 240;

/** Watts a USB-C cable is good for: its mark; 60 at least whatever its mark is (USB Type-C: 3 A at 20 V; from memory). */
function cableW(chain: Chain, unmarked: number): Range {
  const marks = (chain.path ?? []).flatMap(({ spec }) =>
    isAdapter(spec) || spec.connector !== 'usb-c'
      ? []
      : [toRange(spec.markedW, { lo: unmarked, hi: MAX_W })],
  );
  return marks.length > 0 ? minOf(...marks) : { lo: Infinity, hi: Infinity };
}

/** The marks in watts of the cables of a chain, by their paths. */
function marksOf(chain: Chain): Record<AttrPath, Num> {
  return Object.fromEntries(
    (chain.path ?? []).flatMap(({ key, spec }) =>
      isAdapter(spec) || spec.connector !== 'usb-c' ? [] : [[`path/${key}/markedW`, spec.markedW]],
    ),
  );
}

/** What the port in use asks for, or the best other one when a lead of its own charges the host. */
function requestOf(chain: Chain, by: ChargeFacts['by']): { w: Num; path: AttrPath | null } {
  const path = (key: string) => `host/sockets/${key}/chargeInW`;
  const sockets = chain.host?.sockets ?? [];
  const own = sockets.find((s) => s.key === chain.socket);
  if (by === 'link') return { w: own?.chargeInW ?? null, path: path(own?.key ?? '') };
  const others = sockets.filter(
    (s) => s.connector === 'usb-c' && s.key !== own?.key && stated(s.chargeInW) !== null,
  );
  const best = others.reduce<(typeof others)[number] | null>(
    (a, b) => (a && (stated(a.chargeInW)?.lo ?? 0) >= (stated(b.chargeInW)?.lo ?? 0) ? a : b),
    null,
  );
  const other = sockets.find((s) => s.connector === 'usb-c' && s.key !== own?.key);
  return best
    ? { w: best.chargeInW, path: path(best.key) }
    : { w: null, path: other ? path(other.key) : null };
}

/** By which way the host is charged. */
function chargedBy({ host, settings, socket }: Chain): ChargeFacts['by'] {
  if (settings.ownCharger === 'yes') return 'charger';
  const port = host?.sockets.find((s) => s.key === socket);
  if (port?.connector === 'usb-c') return 'link';
  return settings.chargeLead === 'yes' ? 'own-lead' : null;
}

interface Contract {
  /** What dock, cable and host agree on, W; null when not known. */
  agreed: Range | null;
  /** The same over every completion. */
  offered: Range;
  least: ChargeFacts['least'];
}

/** The least of what the dock advertises, the cable bears and the host asks for, W; nothing where the dock charges nothing. */
function contractOf(out: Range | null, cable: Range, into: Range | null): Contract {
  if (out?.hi === 0) {
    const none = exact(0);
    return { agreed: none, offered: none, least: into ? 'dock' : null };
  }
  const any = { lo: 0, hi: MAX_W };
  const offered = minOf(out ?? any, cable, into ?? any);
  if (!out || !into) return { agreed: null, offered, least: null };
  const agreed = minOf(out, cable, into);
  const least = agreed.hi === out.hi ? 'dock' : agreed.hi === cable.hi ? 'cable' : 'host';
  return { agreed, offered, least };
}

/** Hours until a battery of so many Wh is empty at a net loss of power. */
function hoursOf(net: Range | null, battery: Range | null): Range | null {
  if (!net || net.lo >= 0 || !battery || battery.lo <= 0) return null;
  return { lo: battery.lo / -net.lo, hi: net.hi < 0 ? battery.hi / -net.hi : Infinity };
}

/**
 * Charging of the host from its dock. The contract is the least of what the dock advertises, the cable bears and
 * the host asks for; it is not rounded to a level: an 87 W dock gives 87 W. A direct link carries no power, a
 * second USB-C cable beside it may.
 *
 * Source: USB Power Delivery, programmable contracts; limits of cables from memory of USB Type-C. Worked example:
 * 87 W dock, cable marked 100 W, host asks 100 W, draws 70 W: contract 87 W, net +17 W. The same through a cable
 * marked 60 W: contract 60 W, net -10 W; a 60 Wh battery is empty after 6 h.
 * @param chain the chain
 * @param rule reads a house rule
 * @returns contract, draw and net in W, and hours until the battery is empty
 */
export function chargeFacts(chain: Chain, rule: (id: RuleId) => number): ChargeFacts {
  const { host, dock, settings } = chain;
  const by = chargedBy(chain);
  const asks = by === 'link' || by === 'own-lead';
  const offer = dock ? dock.chargeOutW : null;
  const request = requestOf(chain, by);
  const cable =
    by === 'link' ? cableW(chain, rule('charge.unmarkedCableW')) : exact(rule('charge.ownLeadW'));
  const out = stated(offer);
  const into = stated(request.w);
  const battery = host ? stated(host.batteryWh) : null;
  const draw = stated(settings.hostDrawW) ?? (host ? stated(host.drawW) : null);
  const minimum = host ? stated(host.chargeMinW) : null;
  const nothing: Contract = { agreed: exact(0), offered: exact(0), least: null };
  const { agreed, offered, least } = asks ? contractOf(out, cable, into) : nothing;
  const refused = offered.hi > 0 && minimum !== null && offered.hi < minimum.lo;
  // What it refuses below is never more than what it asks for.
  const mayRefuse =
    !refused && offered.hi > 0 && offered.lo < (minimum ?? { lo: 0, hi: into?.hi ?? MAX_W }).hi;
  const contract = refused ? exact(0) : agreed;
  const taken = mayRefuse ? { lo: 0, hi: offered.hi } : offered;
  const net = contract && draw && by !== 'charger' ? minus(contract, draw) : null;
  const hasBattery = (host?.form === 'laptop' || host?.form === 'handheld') && battery?.hi !== 0;
  const socket = host?.sockets.find((s) => s.key === chain.socket);
  const portAsks = socket && asks && out?.hi !== 0 && request.path !== null;
  return {
    by,
    contract,
    span: refused ? exact(0) : taken,
    drawn: refused ? exact(0) : offered,
    least,
    refused,
    mayRefuse,
    minimum,
    drawW: draw,
    net,
    hours: hoursOf(net, battery),
    hasBattery,
    open: hasBattery
      ? openOf({
          ...(dock && asks && { 'dock/chargeOutW': offer }),
          ...(portAsks && request.path !== null && { [request.path]: request.w }),
          'host/drawW': settings.hostDrawW ?? host?.drawW,
          ...(mayRefuse && { 'host/chargeMinW': host?.chargeMinW }),
          ...(by === 'link' && marksOf(chain)),
        })
      : [],
  };
}
