import { deviceTree, measure, type Report, spanAbove } from '../bring-up';

/** Observations of a chain at one moment, by eye and by report; null where not observed. */
export interface ChainObservation {
  /** The lamp of the dock. */
  readonly lamp: boolean | null;
  /** It went out while the card was lost. */
  readonly lampWentOut: boolean | null;
  /** Everything was off when the cable went in. */
  readonly allOff: boolean | null;
  /** A device is connected at the USB-C plug. */
  readonly partner: boolean | null;
  /** The plug with the partner belongs to a USB4 port. */
  readonly usb4: boolean | null;
  readonly router: boolean | null;
  readonly authorized: number | null;
  readonly security: Report['security'];
  /** The bridges of the tunnel are there. */
  readonly bridges: boolean | null;
  /** Something stands in the slot. */
  readonly present: boolean | null;
  readonly card: 'there' | 'gone' | 'absent' | null;
  readonly driver: boolean | null;
  readonly assigned: boolean | null;
  /** The card's power was off at rest. */
  readonly asleep: boolean | null;
  /** Errors were counted along the card's link. */
  readonly errors: boolean | null;
  /** A screen answers at an output outside the host. */
  readonly screen: boolean | null;
}

export const NOTHING_SEEN: ChainObservation = {
  lamp: null,
  lampWentOut: null,
  allOff: null,
  partner: null,
  usb4: null,
  router: null,
  authorized: null,
  security: null,
  bridges: null,
  present: null,
  card: null,
  driver: null,
  assigned: null,
  asleep: null,
  errors: null,
  screen: null,
};

/** Port before an empty slot: below the dock's bridges, or the last port of the host that could hold a card. */
function slotPresent(report: Report, kind: 'tunnel' | 'direct', bridges: boolean): boolean | null {
  const inDock = (d: Report['devices'][number]) =>
    d.port === 'downstream' && d.hotplug === true && (d.cap?.gts ?? 0) > 2.5;
  const ports = report.devices.filter((d) =>
    kind === 'tunnel' ? bridges && inDock(d) : d.port === 'root' && d.active !== true,
  );
  const told = ports.flatMap((d) => (d.present === null ? [] : [d.present]));
  return told.length === 0 ? null : told.some(Boolean);
}

/** Does a USB4 port claim this plug? A system without any controller of the link has none that could. */
function ofUsb4(report: Report, plug: number): boolean | null {
  if (report.ports.some((p) => p.plug !== null)) return report.ports.some((p) => p.plug === plug);
  return report.source === 'probe' && report.domains.length === 0 ? false : null;
}

/**
 * What a report says, as the causes read it. A bus listing says nothing of plugs, routers and screens.
 * @param report the reading
 * @param kind of the link
 * @param address of the card on the bus; the first card where left out
 * @returns what was seen
 */
export function seenOf(
  report: Report,
  kind: 'tunnel' | 'direct',
  address?: string,
): ChainObservation {
  const m = measure(report, { kind, address });
  const device = report.devices.find((d) => d.address === m.card?.address);
  const partner = report.plugs.find((p) => p.partner);
  const lists = report.domains.length > 0;
  const drivers = report.devices.some((d) => d.driver !== null);
  const outside = report.screens.filter((s) => !/-(eDP|LVDS|DSI)-/.test(s.name));
  const bridges = deviceTree(report.devices).some((n) => spanAbove(n)?.kind === 'virtual');
  const whole = report.source === 'probe';
  const card = !m.card ? 'absent' : m.card.gone ? 'gone' : 'there';
  return {
    ...NOTHING_SEEN,
    partner: report.plugs.length === 0 ? null : partner !== undefined,
    usb4: partner ? ofUsb4(report, partner.index) : null,
    router: whole || lists ? m.router !== null : null,
    authorized: m.router?.authorized ?? null,
    security: report.security,
    bridges,
    present: card === 'absent' ? slotPresent(report, kind, bridges) : null,
    card,
    driver: card === 'there' && drivers ? m.card?.driver !== null : null,
    assigned: device?.assigned ?? null,
    asleep: device ? device.asleep : null,
    errors: m.corrected.length > 0,
    screen: outside.length === 0 ? null : outside.some((s) => s.connected),
  };
}
