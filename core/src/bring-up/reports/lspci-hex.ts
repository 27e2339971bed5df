import type { PciDevice } from '../schema/report';

const GTS: readonly (number | null)[] = [null, 2.5, 5, 8, 16, 32, 64];
const PORT_TYPES: Readonly<Record<number, PciDevice['port']>> = {
  0: 'endpoint',
  1: 'endpoint',
  4: 'root',
  5: 'upstream',
  6: 'downstream',
  7: 'bridge',
  8: 'bridge',
  9: 'endpoint',
};

/** Config space as dumped: bytes that were not dumped are holes. */
export class ConfigSpace {
  readonly #bytes = new Map<number, number>();

  put(offset: number, byte: number): void {
    if (offset >= 0 && offset < 4096) this.#bytes.set(offset, byte);
  }

  byte(offset: number): number | undefined {
    return this.#bytes.get(offset);
  }

  /** Little-endian word of `size` bytes; undefined when one of them is a hole. */
  word(offset: number, size: 2 | 4): number | undefined {
    let value = 0;
    for (let i = size - 1; i >= 0; i--) {
      const b = this.#bytes.get(offset + i);
      if (b === undefined) return undefined;
      value = value * 256 + b;
    }
    return value;
  }

  get size(): number {
    return this.#bytes.size;
  }
}

function hex(value: number): string {
  return value.toString(16).padStart(4, '0');
}

/** Offset of the PCI Express capability, or null. A list that loops or leaves the first 256 bytes ends the search. */
function expressAt(c: ConfigSpace): number | null {
  const status = c.word(0x06, 2) ?? 0;
  if ((status & 0x10) === 0) return null;
  let at = (c.byte(0x34) ?? 0) & 0xfc;
  for (let steps = 0; at >= 0x40 && steps < 48; steps++) {
    if (c.byte(at) === 0x10) return at;
    at = (c.byte(at + 1) ?? 0) & 0xfc;
  }
  return null;
}

/** Register bits of the PCI Express capability. Source: PCI Express Base Specification, capability structure; offsets as in linux/pci_regs.h. */
function readExpress(d: PciDevice, c: ConfigSpace, at: number): void {
  const flags = c.word(at + 2, 2);
  if (flags !== undefined) d.port = PORT_TYPES[(flags >> 4) & 0xf] ?? d.port;
  const cap = c.word(at + 0x0c, 4);
  if (cap !== undefined)
    d.cap = { gts: GTS[cap & 0xf] ?? null, lanes: Math.min(32, (cap >>> 4) & 0x3f) };
  const sta = c.word(at + 0x12, 2);
  if (sta !== undefined) {
    d.now = { gts: GTS[sta & 0xf] ?? null, lanes: Math.min(32, (sta >> 4) & 0x3f) };
    if (cap !== undefined && ((cap >>> 20) & 1) === 1) d.active = ((sta >> 13) & 1) === 1;
  }
  const slot = c.word(at + 0x14, 4);
  if (
    slot !== undefined &&
    (d.port === 'root' || d.port === 'downstream') &&
    ((flags ?? 0) & 0x100) !== 0
  ) {
    d.hotplug = ((slot >>> 6) & 1) === 1;
    const status = c.word(at + 0x1a, 2);
    if (status !== undefined) d.present = ((status >> 6) & 1) === 1;
  }
  const cap2 = c.word(at + 0x2c, 4);
  const speeds = ((cap2 ?? 0) >>> 1) & 0x7f;
  if (speeds !== 0) d.topGts = GTS[32 - Math.clz32(speeds)] ?? null;
}

/** Resizable window and corrected errors among the extended capabilities. */
function readExtended(d: PciDevice, c: ConfigSpace): void {
  let at = 0x100;
  for (let steps = 0; at >= 0x100 && steps < 96; steps++) {
    const head = c.word(at, 4);
    if (head === undefined || head === 0 || head === 0xffffffff) return;
    if ((head & 0xffff) === 0x0015) readWindow(d, c, at);
    if ((head & 0xffff) === 0x0001) readErrors(d, c, at);
    at = (head >>> 20) & 0xffc;
  }
}

const ERROR_BITS: readonly (readonly [number, string])[] = [
  [0, 'RxErr'],
  [6, 'BadTLP'],
  [7, 'BadDLLP'],
  [8, 'Rollover'],
  [12, 'Timeout'],
  [13, 'AdvNonFatalErr'],
];

function readErrors(d: PciDevice, c: ConfigSpace, at: number): void {
  const status = c.word(at + 0x10, 4) ?? 0;
  d.corrected = ERROR_BITS.flatMap(([bit, name]) => ((status >>> bit) & 1 ? [name] : []));
}

function readWindow(d: PciDevice, c: ConfigSpace, at: number): void {
  const count = ((c.word(at + 8, 4) ?? 0) >>> 5) & 7;
  for (let i = 0; i < count; i++) {
    const cap = c.word(at + 4 + 8 * i, 4);
    const control = c.word(at + 8 + 8 * i, 4);
    if (cap === undefined || control === undefined || cap >>> 4 === 0) continue;
    // Bit 4 of the capability stands for 1 MB, each higher one for twice as much.
    const mostMB = 2 ** (31 - Math.clz32(cap >>> 4));
    const nowMB = 2 ** ((control >>> 8) & 0x3f);
    if (!d.window || mostMB > d.window.mostMB) d.window = { nowMB, mostMB };
  }
}

/**
 * Fills a device from its dumped configuration space; fields the text already gave are kept where the bytes are missing.
 * Source: PCI Local Bus Specification 3.0, section 6.1 (header); PCI Express Base Specification, section 7.5.3 (link
 * capabilities and status).
 *
 * @param d the device; its empty fields are set
 * @param c bytes by offset, 64 to 4096 of them
 * @returns nothing; `d` is modified
 */
export function readConfig(d: PciDevice, c: ConfigSpace): void {
  if (c.size === 0) return;
  const vendor = c.word(0, 2);
  const device = c.word(2, 2);
  if (vendor === 0xffff) {
    d.state = 'gone';
    return;
  }
  if (vendor !== undefined) d.vendor = hex(vendor);
  if (device !== undefined) d.device = hex(device);
  const cls = c.word(0x0a, 2);
  if (cls !== undefined) d.classCode = hex(cls);
  const secondary = c.byte(0x19);
  const subordinate = c.byte(0x1a);
  if (((c.byte(0x0e) ?? 0) & 0x7f) === 1 && secondary !== undefined && subordinate !== undefined)
    d.bus = { secondary, subordinate };
  const at = expressAt(c);
  if (at !== null && c.byte(at) !== undefined) readExpress(d, c, at);
  // Without root rights 64 bytes are readable; the capabilities lie beyond.
  if (c.size <= 64 && ((c.word(0x06, 2) ?? 0) & 0x10) !== 0 && d.cap === null) d.state = 'denied';
  readExtended(d, c);
}
