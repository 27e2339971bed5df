import type { MadeDevice, MadeLink } from './config-space';

const VIRTUAL: MadeLink = { capGts: 2.5, capLanes: 4, nowGts: 2.5, nowLanes: 4 };
const BRIDGE = 0x060400;

function bridge(
  address: string,
  ids: [number, number],
  port: 'root' | 'upstream' | 'downstream',
  link: MadeLink,
  buses: [number, number, number],
  hotplug = false,
): MadeDevice {
  const [primary, secondary, subordinate] = buses;
  return {
    address,
    vendor: ids[0],
    device: ids[1],
    classCode: BRIDGE,
    port,
    link,
    bus: { primary, secondary, subordinate },
    hotplug,
  };
}

/** A card's own link: what it could do, and what it does now. */
export function cardLink(nowGts: number, nowLanes: number, capGts = 16, capLanes = 16): MadeLink {
  return { capGts, capLanes, nowGts, nowLanes };
}

interface CardOptions {
  readonly now?: [gts: number, lanes: number];
  readonly inner?: 'full' | 'one-lane';
  readonly gone?: boolean;
}

/** The functions of a card from a bus on, with or without a switch of its own. */
function card(bus: number, o: CardOptions): MadeDevice[] {
  const [gts, lanes] = o.now ?? [8, 4];
  const at = (b: number, fn = 0) => `0000:${b.toString(16).padStart(2, '0')}:00.${fn}`;
  const graphics = { vendor: 0xe004, device: 0x0020, classCode: 0x030000, port: 'endpoint' as const };
  const serial = 0x48b02dffff1a2b3cn;
  const window = { nowMB: 256, mostMB: 16384 };
  if (!o.inner) {
    const link = cardLink(gts, lanes);
    return [
      { ...graphics, address: at(bus), link, serial, window, gone: o.gone ?? false },
      { ...graphics, address: at(bus, 1), device: 0x0021, classCode: 0x040300, link, gone: o.gone ?? false },
    ];
  }
  const inside = o.inner === 'full' ? cardLink(16, 16) : cardLink(2.5, 1, 2.5, 1);
  const ids: [number, number] = [0xe005, 0x0072];
  return [
    bridge(at(bus), ids, 'upstream', cardLink(gts, lanes), [bus, bus + 1, bus + 2]),
    bridge(at(bus + 1), ids, 'downstream', inside, [bus + 1, bus + 2, bus + 2]),
    { ...graphics, vendor: 0xe005, device: 0x0070, address: at(bus + 2), link: inside, serial, window },
  ];
}

export interface TopologyOptions extends CardOptions {
  /** Lanes of a separate controller's own link. */
  readonly hostLanes?: number;
  readonly unplugged?: boolean;
  readonly correctedBits?: readonly number[];
}

/** A host whose controller is built into the processor, a dock with hub and LAN, and a card. */
export function integrated(o: TopologyOptions = {}): MadeDevice[] {
  const host: MadeDevice[] = [
    { address: '0000:00:00.0', vendor: 0xe001, device: 0x0004, classCode: 0x060000 },
    { address: '0000:00:02.0', vendor: 0xe001, device: 0x0003, classCode: 0x030000 },
    bridge('0000:00:07.0', [0xe001, 1], 'root', VIRTUAL, [0, 0x20, 0x49], true),
    { address: '0000:00:0d.2', vendor: 0xe001, device: 0x0002, classCode: 0x0c0340 },
  ];
  if (o.unplugged) return host;
  const slot: MadeLink = { capGts: 8, capLanes: 4, nowGts: o.now?.[0] ?? 8, nowLanes: o.now?.[1] ?? 4, active: !o.gone };
  return [
    ...host,
    bridge('0000:20:00.0', [0xe003, 1], 'upstream', VIRTUAL, [0x20, 0x21, 0x49]),
    bridge('0000:21:00.0', [0xe003, 1], 'downstream', { ...VIRTUAL, capGts: 2.5, capLanes: 1, nowLanes: 1 }, [0x21, 0x22, 0x22]),
    bridge('0000:21:01.0', [0xe003, 1], 'downstream', slot, [0x21, 0x23, 0x26], true),
    bridge('0000:21:04.0', [0xe003, 1], 'downstream', VIRTUAL, [0x21, 0x27, 0x49], true),
    { address: '0000:22:00.0', vendor: 0xe003, device: 2, classCode: 0x0c0330, port: 'endpoint', link: cardLink(2.5, 1, 2.5, 1) },
    ...card(0x23, o),
  ];
}

/** A host with a separate controller behind its own link, which some wire with two lanes. */
export function discrete(o: TopologyOptions = {}): MadeDevice[] {
  const own: MadeLink = { capGts: 8, capLanes: 4, nowGts: 8, nowLanes: o.hostLanes ?? 4, active: true };
  const ids: [number, number] = [0xe002, 1];
  return [
    { address: '0000:00:00.0', vendor: 0xe001, device: 0x0004, classCode: 0x060000 },
    bridge('0000:00:1c.4', [0xe001, 4], 'root', own, [0, 1, 0x3a]),
    bridge('0000:01:00.0', ids, 'upstream', { ...own, active: false }, [1, 2, 0x3a]),
    bridge('0000:02:00.0', ids, 'downstream', cardLink(2.5, 4, 2.5, 4), [2, 3, 3]),
    bridge('0000:02:01.0', ids, 'downstream', VIRTUAL, [2, 4, 0x38], true),
    bridge('0000:02:02.0', ids, 'downstream', cardLink(2.5, 4, 2.5, 4), [2, 0x39, 0x39]),
    bridge('0000:02:04.0', ids, 'downstream', VIRTUAL, [2, 0x3a, 0x3a], true),
    { address: '0000:03:00.0', vendor: 0xe002, device: 2, classCode: 0x088000, port: 'endpoint', link: cardLink(2.5, 4, 2.5, 4) },
    { address: '0000:39:00.0', vendor: 0xe002, device: 3, classCode: 0x0c0330, port: 'endpoint', link: cardLink(2.5, 4, 2.5, 4) },
    bridge('0000:04:00.0', [0xe003, 1], 'upstream', VIRTUAL, [4, 5, 0x38]),
    bridge(
      '0000:05:01.0',
      [0xe003, 1],
      'downstream',
      { capGts: 8, capLanes: 4, nowGts: o.now?.[0] ?? 8, nowLanes: o.now?.[1] ?? 4, active: true },
      [5, 6, 9],
      true,
    ),
    ...card(6, o),
  ];
}

/** Direct PCIe from a root port to the card. */
export function direct(o: TopologyOptions = {}): MadeDevice[] {
  const [gts, lanes] = o.now ?? [16, 4];
  const port: MadeLink = { capGts: 16, capLanes: 4, nowGts: gts, nowLanes: lanes, active: true };
  const root = bridge('0000:00:01.1', [0xe001, 4], 'root', port, [0, 1, 4]);
  return [
    { address: '0000:00:00.0', vendor: 0xe001, device: 0x0004, classCode: 0x060000 },
    { address: '0000:00:02.0', vendor: 0xe001, device: 0x0003, classCode: 0x030000 },
    { ...root, correctedBits: o.correctedBits ?? [] },
    ...card(1, { ...o, now: [gts, lanes] }),
  ];
}
