import { ORDER_IDS, type OrderId, type StepId } from '../../base';
import type { FindingCode } from '../../plan';
import type { Docked } from '../../setups';

/** A school of the power order, as data. Safest first in {@link ORDER_IDS}: common practice, no published source. */
interface Order {
  /** The steps of connecting, one after another. */
  readonly sequence: readonly StepId[];
  /** Does the cable go into running machines? */
  readonly live: boolean;
  /** The same on a direct link, where the cable goes in before anything has power. */
  readonly direct?: readonly StepId[];
}

export const ORDERS: Readonly<Record<OrderId, Order>> = {
  'all-off': {
    sequence: ['host-down', 'mains-out', 'plug-cable', 'dock-on', 'host-start'],
    live: false,
  },
  slaved: { sequence: ['host-down', 'plug-cable', 'host-start', 'dock-on'], live: false },
  'dock-first': {
    sequence: ['host-down', 'dock-on', 'plug-cable', 'host-start'],
    live: false,
    direct: ['host-down', 'plug-cable', 'dock-on', 'host-start'],
  },
  'host-first': { sequence: ['dock-on', 'plug-cable'], live: true },
  'any-time': { sequence: ['plug-cable', 'dock-on'], live: true },
};

/**
 * Connecting steps of a power order.
 *
 * @param id the order
 * @param kind kind of link
 * @returns step ids, one after another
 */
export function sequenceOf(id: OrderId, kind: 'tunnel' | 'direct'): readonly StepId[] {
  const { sequence, direct } = ORDERS[id];
  return kind === 'direct' ? (direct ?? sequence) : sequence;
}

/** Whether an order may be used on a chain, and why not. */
export interface OrderChoice {
  readonly id: OrderId;
  /** `warned`: it may be used, but something speaks against it. */
  readonly state: 'open' | 'warned' | 'shut';
  readonly why: 'direct' | 'firmware' | 'not-driven' | 'driven-unknown' | null;
}

/** What of a chain decides which orders it has. */
export interface OrderFacts {
  readonly kind: 'tunnel' | 'direct';
  readonly has: (code: FindingCode) => boolean;
  readonly docked: Docked;
}

/** Whether the host's button drives the dock; null while not checked. */
function driven({ buttons }: Docked): boolean | null {
  const seen = buttons.find((b) => b.act === 'host-on' && b.other === 'off');
  return seen ? seen.seen === 'starts' : null;
}

/**
 * Power orders with whether a chain may use them. A direct link rules out those that plug the cable into running
 * machines: OCuLink and M.2 adapters are not made for hot plugging (common practice; the maker's manual decides).
 *
 * @param f facts of the chain that decide
 * @returns every order, safest first, `shut` or `warned` with the reason
 */
export function orderChoices(f: OrderFacts): OrderChoice[] {
  return ORDER_IDS.map((id): OrderChoice => {
    if (id === 'all-off') return { id, state: 'open', why: null };
    if (f.kind === 'direct' && ORDERS[id].live) return { id, state: 'shut', why: 'direct' };
    if (id === 'slaved') {
      const is = driven(f.docked);
      if (is === null) return { id, state: 'warned', why: 'driven-unknown' };
      return is ? { id, state: 'open', why: null } : { id, state: 'shut', why: 'not-driven' };
    }
    const firmware = ORDERS[id].live && f.has('software/firmware-first');
    return firmware ? { id, state: 'warned', why: 'firmware' } : { id, state: 'open', why: null };
  });
}
