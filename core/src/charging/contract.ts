import type { RuleId } from '../house';
import { isAdapter, type AttrPath, type Chain } from '../schema';
import { exact, minOf, minus, openOf, stated, type Num, type Range } from '../units';

export interface ChargeFacts {
  /** By which way the host is charged: from the dock over the link or a cable of its own, from its own charger, or not at all. */
  readonly by: 'link' | 'own-lead' | 'charger' | null;
  /** What dock, cable and host agree on, W; null when not known. */
  readonly contract: Range | null;
  /** What limits it. */
  readonly least: 'dock' | 'cable' | 'host' | null;
  /** The host takes nothing because it refuses so little. */
  readonly refused: boolean;
  readonly minimum: Range | null;
  readonly drawW: Range | null;
  /** Contract less draw, W. */
  readonly net: Range | null;
  /** Hours until the battery is empty; null when it does not empty, or the battery is not known. */
  readonly hours: Range | null;
  readonly hasBattery: boolean;
  readonly open: readonly AttrPath[];
}

/** Watts a USB-C cable is good for: its mark, or 60 without one (USB Type-C: 3 A at 20 V; from memory). */
function cableW(chain: Chain, unmarked: number): Range {
  const marks = (chain.path ?? []).flatMap(({ spec }) =>
    isAdapter(spec) || spec.connector !== 'usb-c' ? [] : [stated(spec.markedW) ?? exact(unmarked)],
  );
  return marks.length > 0 ? minOf(...marks) : { lo: Infinity, hi: Infinity };
}

/** What the port in use asks for, or the best other one when a lead of its own charges the host. */
function requestOf(chain: Chain, by: ChargeFacts['by']): { w: Num; path: AttrPath } {
  const path = (key: string) => `host/sockets/${key}/chargeInW`;
  const sockets = chain.host?.sockets ?? [];
  const own = sockets.find((s) => s.key === chain.socket);
  if (by === 'link') return { w: own?.chargeInW ?? null, path: path(own?.key ?? '') };
  const others = sockets.filter((s) => s.connector === 'usb-c' && s.key !== own?.key && stated(s.chargeInW) !== null);
  const best = others.reduce<(typeof others)[number] | null>(
    (a, b) => (a && (stated(a.chargeInW)?.lo ?? 0) >= (stated(b.chargeInW)?.lo ?? 0) ? a : b),
    null,
  );
  return best
    ? { w: best.chargeInW, path: path(best.key) }
    : { w: null, path: path(sockets.find((s) => s.connector === 'usb-c')?.key ?? '') };
}

/**
 * Charging of the host from its dock. The contract is the least of what the dock advertises, the cable bears and the host asks for;
 * it is not rounded to a level: an 87 W dock gives 87 W. A direct link carries no power, a second USB-C cable beside it may.
 * Source: USB Power Delivery, programmable contracts; limits of cables from memory of USB Type-C.
 *
 * Worked example: 87 W dock, cable marked 100 W, host asks 100 W, draws 70 W: contract 87 W, net +17 W. The same through an unmarked
 * cable: contract 60 W, net -10 W; a 60 Wh battery is empty after 6 h.
 */
export function chargeFacts(chain: Chain, rule: (id: RuleId) => number): ChargeFacts {
  const { host, dock, settings } = chain;
  const socket = host?.sockets.find((s) => s.key === chain.socket);
  const fromDock = socket?.connector === 'usb-c' ? 'link' : settings.chargeLead === 'yes' ? 'own-lead' : null;
  const by = settings.ownCharger === 'yes' ? 'charger' : fromDock;
  const asks = by === 'link' || by === 'own-lead';
  const offer = dock ? dock.chargeOutW : null;
  const request = requestOf(chain, by);
  const cable = by === 'link' ? cableW(chain, rule('charge.unmarkedCableW')) : exact(rule('charge.ownLeadW'));
  const [out, into] = [stated(offer), stated(request.w)];
  const battery = host ? stated(host.batteryWh) : null;
  const draw = stated(settings.hostDrawW) ?? (host ? stated(host.drawW) : null);
  const minimum = host ? stated(host.chargeMinW) : null;
  const agreed = !asks ? exact(0) : out && out.hi === 0 ? exact(0) : out && into ? minOf(out, cable, into) : null;
  const refused = agreed !== null && agreed.hi > 0 && minimum !== null && agreed.hi < minimum.lo;
  const contract = refused ? exact(0) : agreed;
  const net = contract && draw && by !== 'charger' ? minus(contract, draw) : null;
  const least = !agreed || !out || !into ? null : agreed.hi === out.hi ? 'dock' : agreed.hi === cable.hi ? 'cable' : 'host';
  const hasBattery = battery ? battery.hi > 0 : host?.form === 'laptop' || host?.form === 'handheld';
  return {
    by,
    contract,
    least,
    refused,
    minimum,
    drawW: draw,
    net,
    hours:
      net && net.lo < 0 && battery && battery.lo > 0
        ? { lo: battery.lo / -net.lo, hi: net.hi < 0 ? battery.hi / -net.hi : Infinity }
        : null,
    hasBattery,
    open: hasBattery
      ? openOf({
          ...(dock && asks && { 'dock/chargeOutW': offer }),
          ...(socket && asks && out?.hi !== 0 && { [request.path]: request.w }),
          'host/drawW': settings.hostDrawW ?? host?.drawW,
        })
      : [],
  };
}
