/** Link of a made device: rates in GT/s a lane. */
export interface MadeLink {
  readonly capGts: number;
  readonly capLanes: number;
  readonly nowGts: number;
  readonly nowLanes: number;
  /** Data link layer active; only ports tell. */
  readonly active?: boolean;
}

export type MadePort = 'endpoint' | 'root' | 'upstream' | 'downstream';

/** One PCI function to be written as configuration space. */
export interface MadeDevice {
  readonly address: string;
  readonly vendor: number;
  readonly device: number;
  /** Class, subclass and programming interface, 24 bit. */
  readonly classCode: number;
  readonly revision?: number;
  readonly port?: MadePort;
  readonly link?: MadeLink;
  readonly bus?: {
    readonly primary: number;
    readonly secondary: number;
    readonly subordinate: number;
  };
  readonly hotplug?: boolean;
  /** Bits of the corrected error status that are set. */
  readonly correctedBits?: readonly number[];
  /** Resizable window, MB: now and at most. */
  readonly window?: { readonly nowMB: number; readonly mostMB: number };
  /** Device serial number: private, so that a test can see it go. */
  readonly serial?: bigint;
  /** Memory regions, in the order of their numbers; without room for them they read 0. */
  readonly regions?: readonly { readonly at: bigint; readonly bytes: bigint }[];
  /** A port sees whether something stands in its slot. */
  readonly present?: boolean;
  /** It fell off the bus: every byte reads ff. */
  readonly gone?: boolean;
}

const SPEED_CODE: Readonly<Record<string, number>> = {
  '2.5': 1,
  '5': 2,
  '8': 3,
  '16': 4,
  '32': 5,
  '64': 6,
};
const PORT_CODE: Readonly<Record<MadePort, number>> = {
  endpoint: 0,
  root: 4,
  upstream: 5,
  downstream: 6,
};

function code(gts: number): number {
  return SPEED_CODE[String(gts)] ?? 1;
}

function header(view: DataView, d: MadeDevice): void {
  view.setUint16(0x00, d.vendor, true);
  view.setUint16(0x02, d.device, true);
  const regions = d.regions ?? [];
  const decodes = regions.length === 0 || regions.some((r) => r.at > 0n);
  view.setUint16(0x04, decodes ? 0x0006 : 0x0004, true);
  view.setUint16(0x06, d.port ? 0x0010 : 0, true);
  view.setUint8(0x08, d.revision ?? 1);
  view.setUint8(0x09, d.classCode & 0xff);
  view.setUint16(0x0a, d.classCode >> 8, true);
  view.setUint8(0x0e, d.bus ? 1 : 0);
  if (d.bus) {
    view.setUint8(0x18, d.bus.primary);
    view.setUint8(0x19, d.bus.secondary);
    view.setUint8(0x1a, d.bus.subordinate);
  }
  // Two dwords a region: 64 bits wide, prefetchable.
  if (!d.bus)
    regions.slice(0, 3).forEach((r, i) => {
      view.setBigUint64(0x10 + 8 * i, r.at | 0xcn, true);
    });
  if (d.port) view.setUint8(0x34, 0x40);
}

/** The PCI Express capability. Source: PCI Express Base Specification, offsets as in linux/pci_regs.h, from memory. */
function express(view: DataView, d: MadeDevice): void {
  if (!d.port) return;
  const at = 0x40;
  const faces = d.port === 'root' || d.port === 'downstream';
  view.setUint8(at, 0x10);
  view.setUint16(at + 2, 2 | (PORT_CODE[d.port] << 4) | (faces ? 0x100 : 0), true);
  if (!d.link) return;
  const { capGts, capLanes, nowGts, nowLanes, active } = d.link;
  view.setUint32(at + 0x0c, code(capGts) | (capLanes << 4) | (faces ? 1 << 20 : 0), true);
  view.setUint16(at + 0x12, code(nowGts) | (nowLanes << 4) | (active ? 1 << 13 : 0), true);
  if (faces) view.setUint32(at + 0x14, d.hotplug ? 0x60 : 0, true);
  if (faces && d.present) view.setUint16(at + 0x1a, 0x40, true);
  view.setUint32(at + 0x2c, ((1 << code(capGts)) - 1) << 1, true);
}

function extended(view: DataView, d: MadeDevice): void {
  const chain: { id: number; version: number; size: number; write: (at: number) => void }[] = [];
  const bits = (d.correctedBits ?? []).reduce((a, b) => a | (1 << b), 0);
  if (d.port)
    chain.push({
      id: 0x0001,
      version: 2,
      size: 0x48,
      write: (at) => view.setUint32(at + 0x10, bits, true),
    });
  const { serial, window } = d;
  if (serial !== undefined)
    chain.push({
      id: 0x0003,
      version: 1,
      size: 0x10,
      write: (at) => view.setBigUint64(at + 4, serial, true),
    });
  if (window)
    chain.push({
      id: 0x0015,
      version: 1,
      size: 0x10,
      write: (at) => writeWindow(view, at, window),
    });
  let at = 0x100;
  chain.forEach((c, i) => {
    const next = i === chain.length - 1 ? 0 : at + c.size;
    view.setUint32(at, (c.id | (c.version << 16) | (next << 20)) >>> 0, true);
    c.write(at);
    at += c.size;
  });
}

/** One resizable window on BAR 1: every size from 256 MB to the most. */
function writeWindow(view: DataView, at: number, w: { nowMB: number; mostMB: number }): void {
  let sizes = 0;
  for (let mb = 256; mb <= w.mostMB; mb *= 2) sizes |= 1 << (Math.log2(mb) + 4);
  view.setUint32(at + 4, sizes >>> 0, true);
  view.setUint32(at + 8, 1 | (1 << 5) | (Math.log2(w.nowMB) << 8), true);
}

/** Configuration space of a made device, 4096 bytes, as a system with all rights would read it. */
export function configSpace(d: MadeDevice): Uint8Array {
  const bytes = new Uint8Array(4096);
  if (d.gone) return bytes.fill(0xff);
  const view = new DataView(bytes.buffer);
  header(view, d);
  express(view, d);
  extended(view, d);
  return bytes;
}
