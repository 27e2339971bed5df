import type { Range } from '../units';
import type { PortStandard } from '../schema';

/**
 * Raw rate of one lane in Gb/s after line encoding.
 * Source: PCI Express Base Specification, per generation: 2.5 and 5 GT/s with 8b/10b,
 * 8, 16 and 32 GT/s with 128b/130b.
 */
const LANE: Readonly<Record<number, { readonly gigatransfers: number; readonly encoding: number; readonly name: string }>> = {
  1: { gigatransfers: 2.5, encoding: 8 / 10, name: '8b/10b' },
  2: { gigatransfers: 5, encoding: 8 / 10, name: '8b/10b' },
  3: { gigatransfers: 8, encoding: 128 / 130, name: '128b/130b' },
  4: { gigatransfers: 16, encoding: 128 / 130, name: '128b/130b' },
  5: { gigatransfers: 32, encoding: 128 / 130, name: '128b/130b' },
};

/** Lane facts of a generation. Throws RangeError for a generation that is not in the table. */
export function lane(gen: number) {
  const found = LANE[gen];
  if (!found) throw new RangeError(`PCI Express generation ${gen} is not in the table`);
  return found;
}

/** Widths a link can train to. Source: PCI Express Base Specification (×12 and ×32 left out: no port here has them). */
const WIDTHS = [16, 8, 4, 2, 1] as const;

/** The widest width a link trains to when at most `lanes` are wired. */
export function trainedWidth(lanes: number): number {
  return WIDTHS.find((w) => w <= lanes) ?? 1;
}

/** Raw Gb/s each way of a PCIe link after line encoding, for a whole generation and lanes wired. */
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
}

/**
 * Links that carry PCIe beside other traffic.
 * Source: USB4 Specification (Gen 2: 10 Gb/s with 64b/66b, Gen 3: 20 Gb/s with 128b/132b, two lanes);
 * that Thunderbolt 4 requires PCIe tunnelling is from memory.
 */
export const TUNNELS: Readonly<Record<Exclude<PortStandard, 'usb-c' | 'oculink'>, Tunnel>> = {
  'usb4-20': { signallingGbps: 10, lanes: 2, encoding: 64 / 66, encodingName: '64b/66b', pcie: 'optional' },
  'usb4-40': { signallingGbps: 20, lanes: 2, encoding: 128 / 132, encodingName: '128b/132b', pcie: 'optional' },
  'thunderbolt-4': { signallingGbps: 20, lanes: 2, encoding: 128 / 132, encodingName: '128b/132b', pcie: 'required' },
};

/** Transport each way in Gb/s after line encoding; 0 for a port without a tunnel. */
export function transportGbps(standard: PortStandard): number {
  if (standard === 'usb-c' || standard === 'oculink') return 0;
  const t = TUNNELS[standard];
  return t.signallingGbps * t.lanes * t.encoding;
}

export const TRANSPORT_40 = transportGbps('usb4-40');
export const TRANSPORT_20 = transportGbps('usb4-20');

/**
 * What a number can be while it is not known. From memory of what is built, not of a standard;
 * a person who has something else enters it and the domain no longer matters.
 */
export const DOMAIN = {
  tunnelSocketGen: { lo: 3, hi: 4 },
  tunnelSocketLanes: { lo: 2, hi: 4 },
  directSocketGen: { lo: 3, hi: 4 },
  directSocketLanes: { lo: 2, hi: 4 },
  directCableGen: { lo: 3, hi: 4 },
  slotGen: { lo: 3, hi: 4 },
  slotLanes: { lo: 1, hi: 16 },
  cardGen: { lo: 2, hi: 5 },
  cardLanes: { lo: 1, hi: 16 },
  cableMm: { lo: 100, hi: 2000 },
  cableGbps: { lo: 0.48, hi: 80 },
} as const satisfies Record<string, Range>;

/** Lanes an OCuLink 4i connector carries. Source: from memory of SFF-8611 / SFF-TA-1003. */
export const OCULINK_4I_LANES = 4;
/** A cable below this mark carries USB 2 and charge only, so no tunnel. From memory of the USB Type-C cable specification. */
export const LEAST_TUNNEL_CABLE_GBPS = 5;
