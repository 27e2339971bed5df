import type { Range } from '../../base';
import type { Connector, PortStandard, TunnelStandard } from '../../parts';

/**
 * Raw rate of one lane in Gb/s after line encoding.
 * Source: PCI Express Base Specification, per generation: 2.5 and 5 GT/s with 8b/10b,
 * 8, 16 and 32 GT/s with 128b/130b; 64 GT/s in flit mode, where 236 of 256 bytes carry packets (from memory).
 */
const LANE: Readonly<
  Record<
    number,
    { readonly gigatransfers: number; readonly encoding: number; readonly name: string }
  >
> = {
  1: { gigatransfers: 2.5, encoding: 8 / 10, name: '8b/10b' },
  2: { gigatransfers: 5, encoding: 8 / 10, name: '8b/10b' },
  3: { gigatransfers: 8, encoding: 128 / 130, name: '128b/130b' },
  4: { gigatransfers: 16, encoding: 128 / 130, name: '128b/130b' },
  5: { gigatransfers: 32, encoding: 128 / 130, name: '128b/130b' },
  6: { gigatransfers: 64, encoding: 236 / 256, name: '236/256 flits' },
};

/**
 * Facts of one lane of a PCIe generation.
 *
 * Source: PCI Express Base Specification, generations 1 to 5, from memory.
 * @param gen generation, 1 to 5
 * @returns GT/s and line encoding
 * @throws {RangeError} if the generation is not in the table
 */
export function lane(gen: number) {
  const found = LANE[gen];
  if (!found) throw new RangeError(`PCI Express generation ${gen} is not in the table`);
  return found;
}

/** Widths a link can train to. Source: PCI Express Base Specification (×12 and ×32 left out: no port here has them). */
const WIDTHS = [16, 8, 4, 2, 1] as const;

/**
 * The widest width a link trains to.
 *
 * Source: PCI Express Base Specification: widths 1, 2, 4, 8 and 16, from memory.
 * @param lanes lanes that are wired, at least 1
 * @returns the width
 * @example trainedWidth(3) // => 2
 */
export function trainedWidth(lanes: number): number {
  return WIDTHS.find((w) => w <= lanes) ?? 1;
}

/**
 * Raw rate of a PCIe link each way after line encoding.
 *
 * Source: PCI Express Base Specification: GT/s × lanes × encoding, from memory.
 * @param gen generation, 1 to 5
 * @param lanes lanes wired
 * @returns Gb/s
 * @throws {RangeError} if the generation is not in the table
 * @example pcieRawGbps(3, 4) // => 31.508
 */
export function pcieRawGbps(gen: number, lanes: number): number {
  const { gigatransfers, encoding } = lane(gen);
  return gigatransfers * encoding * trainedWidth(lanes);
}

export interface Tunnel {
  readonly signallingGbps: number;
  readonly lanes: number;
  readonly encoding: number;
  readonly encodingName: string;
  /** May a port leave PCIe tunnelling out? */
  readonly pcie: 'optional' | 'required';
  /** The PCIe link the standard puts behind the tunnel; absent where the parts decide. */
  readonly behind?: { readonly gen: number; readonly lanes: number };
  /** Protocol of a link by its two ends: older Thunderbolt, USB4, or USB4 version 2. */
  readonly era: 'thunderbolt' | 'usb4' | 'usb4-v2';
}

/**
 * Links that carry PCIe beside other traffic.
 * Sources: USB4 Specification (Gen 2: 10 Gb/s with 64b/66b, Gen 3: 20 Gb/s with 128b/132b, Gen 4: 25.6 GBd PAM-3 with 11b/7t, two
 * lanes). From memory: the Thunderbolt rates (10.3125 with 64b/66b; 20.625 with 32/33), the
 * PCIe link behind each, and that Thunderbolt requires PCIe tunnelling.
 */
export const TUNNELS: Readonly<Record<TunnelStandard, Tunnel>> = {
  'thunderbolt-1': tunnel(10.3125, 1, 64 / 66, '64b/66b', 'required', 'thunderbolt', {
    gen: 2,
    lanes: 4,
  }),
  'thunderbolt-2': tunnel(10.3125, 2, 64 / 66, '64b/66b', 'required', 'thunderbolt', {
    gen: 2,
    lanes: 4,
  }),
  'thunderbolt-3': tunnel(20.625, 2, 32 / 33, '32/33', 'required', 'thunderbolt', {
    gen: 3,
    lanes: 4,
  }),
  'usb4-20': tunnel(10, 2, 64 / 66, '64b/66b', 'optional', 'usb4'),
  'usb4-40': tunnel(20, 2, 128 / 132, '128b/132b', 'optional', 'usb4'),
  'thunderbolt-4': tunnel(20, 2, 128 / 132, '128b/132b', 'required', 'usb4', { gen: 3, lanes: 4 }),
  'usb4-80': tunnel(40, 2, 1, '11b/7t, already in it', 'optional', 'usb4-v2'),
  'thunderbolt-5': tunnel(40, 2, 1, '11b/7t, already in it', 'required', 'usb4-v2', {
    gen: 4,
    lanes: 4,
  }),
};

function tunnel(
  signallingGbps: number,
  lanes: number,
  encoding: number,
  encodingName: string,
  pcie: Tunnel['pcie'],
  era: Tunnel['era'],
  behind?: Tunnel['behind'],
): Tunnel {
  return { signallingGbps, lanes, encoding, encodingName, pcie, era, ...(behind && { behind }) };
}

/**
 * The tunnel of a port standard.
 * @param standard the standard
 * @returns its facts; null where it has none
 */
export function tunnelOf(standard: PortStandard): Tunnel | null {
  return standard in TUNNELS ? TUNNELS[standard as TunnelStandard] : null;
}

/**
 * Transport of a tunnel each way after line encoding.
 * @param standard the standard of the port
 * @returns Gb/s; 0 for a port without a tunnel
 */
export function transportGbps(standard: PortStandard): number {
  const t = tunnelOf(standard);
  return t ? t.signallingGbps * t.lanes * t.encoding : 0;
}

/** Transport of the three USB4 rates, Gb/s: arithmetic from the table of tunnels above. */
export const TRANSPORT_40 = transportGbps('usb4-40');
export const TRANSPORT_20 = transportGbps('usb4-20');
export const TRANSPORT_80 = transportGbps('usb4-80');

/** An 80 Gb/s link may turn a lane round: three lanes to the dock, one back. Source: USB4 Specification, from memory. */
export const ASYMMETRIC_GBPS = { down: 120, up: 40 } as const;

/** Whole trained DisplayPort rates with four lanes, Gb/s after encoding. Source: DisplayPort Standard, from memory. */
export const DISPLAYPORT_GBPS = { hbr: 8.64, hbr2: 17.28, hbr3: 25.92 } as const;

/**
 * Domain of a number while it is unknown. From memory of built hardware, not of a standard; an entered value replaces
 * it.
 */
export const DOMAIN = {
  slotGen: { lo: 3, hi: 4 },
  slotLanes: { lo: 1, hi: 16 },
  cardGen: { lo: 2, hi: 5 },
  cardLanes: { lo: 1, hi: 16 },
  adapterLanes: { lo: 1, hi: 16 },
  directCableGen: { lo: 3, hi: 4 },
  adapterGen: { lo: 2, hi: 5 },
  cableMm: { lo: 100, hi: 2000 },
  ribbonMm: { lo: 0, hi: 300 },
  cableGbps: { lo: 0.48, hi: 80 },
  hubGbps: { lo: 0, hi: 10 },
  lanGbps: { lo: 0, hi: 10 },
  driveGbps: { lo: 0, hi: 20 },
  videoGbps: { lo: DISPLAYPORT_GBPS.hbr, hi: DISPLAYPORT_GBPS.hbr3 },
} as const satisfies Record<string, Range>;

interface PortDomain {
  readonly gen: Range;
  readonly lanes: Range;
}
const range = (lo: number, hi: number): Range => ({ lo, hi });

/**
 * What the PCIe link behind a port, or of it, can be while it is not known; from memory of what is built.
 * @param connector the plug
 * @param standard the standard of the port
 * @returns generations and lanes
 */
export function portDomain(connector: Connector, standard: PortStandard): PortDomain {
  if (standard === 'thunderbolt-1' || standard === 'thunderbolt-2')
    return { gen: range(2, 2), lanes: range(4, 4) };
  if (standard === 'thunderbolt-3') return { gen: range(3, 3), lanes: range(2, 4) };
  switch (connector) {
    case 'expresscard':
      return { gen: range(1, 2), lanes: range(1, 1) };
    case 'mini-card':
      return { gen: range(1, 3), lanes: range(1, 1) };
    case 'm2':
      return { gen: range(3, 5), lanes: range(1, 4) };
    case 'oculink-8i':
    case 'own-port':
      return { gen: range(3, 4), lanes: range(2, 8) };
    default:
      return { gen: range(3, 4), lanes: range(2, 4) };
  }
}

/** A cable below this mark carries USB 2 and charge only, so no tunnel. From memory of the USB Type-C cable specification. */
export const MIN_TUNNEL_CABLE_GBPS = 5;
