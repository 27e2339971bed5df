import { exact, minOf, type Range, type RuleBook } from '../../base';
import type { Slot } from '../schema/chain';
import { leastGen } from './shapes';
import { pcieRawGbps, trainedWidth } from './standards';
import type { Direction, Hop, HopShape, Limit, Q, SlotFacts, Take, Working } from './types';

const ENDLESS: Range = { lo: Infinity, hi: Infinity };
const NOTHING: Range = { lo: 0, hi: 0 };

/** What a packet path costs: the same for every hop of a chain but the tunnel's own header. */
export interface PacketRule {
  /** Bytes each way: reads of the card are answered in the host's pieces, which may be smaller. */
  readonly payload: { readonly down: number; readonly up: number };
  readonly header: { readonly down: number; readonly up: number };
  readonly headerTunnel: number;
  readonly allowancePercent: number;
}

/**
 * The packet rule of a chain: one payload for the whole path, the smallest any hop allows.
 * @param kind a tunnel has headers of its own
 * @param f payload and port of the chain
 * @param rules house rules
 * @returns payload and headers in bytes, and the allowance as a share
 */
export function packetRule(
  kind: 'tunnel' | 'direct',
  f: Pick<SlotFacts, 'payload' | 'socket'>,
  rules: RuleBook,
): PacketRule {
  const pieces = f.socket?.completionBytes;
  const least = typeof pieces === 'number' ? Math.min(pieces, f.payload) : f.payload;
  return {
    payload: { down: least, up: f.payload },
    header: { down: rules.get('link.headerDownBytes'), up: rules.get('link.headerUpBytes') },
    headerTunnel: kind === 'tunnel' ? rules.get('link.headerTunnelBytes') : 0,
    allowancePercent: rules.get('link.flowControlPercent'),
  };
}

/** Raw Gb/s one way after line encoding, and what it is the least of. */
export interface RawRate {
  readonly raw: Range;
  readonly gen?: Range;
  readonly lanes?: Range;
  readonly transport?: Range;
  readonly taken?: Range;
  /** What generation and lanes alone would carry: the PCIe behind a tunnel. */
  readonly behind?: Range;
}

const way = (l: Limit, d: Direction): Range => (d === 'up' && l.up ? l.up : l.value);

/**
 * Raw rate of a hop one way.
 * @param shape the hop with its limits
 * @param d direction
 * @param without limits that are lifted
 * @returns Gb/s and what sets it; endless where nothing limits it
 */
export function rawRate(
  shape: HopShape,
  d: Direction,
  without: (l: Limit) => boolean = () => false,
): RawRate {
  const limits = shape.limits.filter((l) => !without(l));
  const of = (kind: Limit['kind']) => limits.filter((l) => l.kind === kind).map((l) => way(l, d));
  let trained: Pick<RawRate, 'gen' | 'lanes' | 'behind'> = {};
  if (of('lanes').length > 0) {
    const gen = leastGen(limits);
    const wired = minOf(...of('lanes'));
    const lanes = { lo: trainedWidth(wired.lo), hi: trainedWidth(wired.hi) };
    const behind = {
      lo: pcieRawGbps(Math.floor(gen.lo), lanes.lo),
      hi: pcieRawGbps(Math.floor(gen.hi), lanes.hi),
    };
    trained = { gen, lanes, behind };
  }
  const transport = of('transport').length > 0 ? minOf(...of('transport')) : undefined;
  const taken = of('takes').reduce((a, b) => ({ lo: a.lo + b.lo, hi: a.hi + b.hi }), NOTHING);
  const left = transport && {
    lo: Math.max(0, transport.lo - taken.hi),
    hi: Math.max(0, transport.hi - taken.lo),
  };
  const raw = minOf(trained.behind ?? ENDLESS, left ?? ENDLESS);
  return { raw, ...trained, ...(transport && { transport }), ...(taken.hi > 0 && { taken }) };
}

/**
 * Usable rate of a raw one: raw × payload / (payload + header + tunnel) × (1 − allowance).
 *
 * Source: PCI Express Base Specification, transaction layer packets, from memory; the allowance is a house rule.
 * @param raw Gb/s after line encoding
 * @param d direction
 * @param tunnel bytes of the tunnel a packet
 * @param p the packet rule
 * @returns Gb/s
 */
export function usableGbps(raw: number, d: Direction, tunnel: number, p: PacketRule): number {
  const payload = p.payload[d];
  return ((raw * payload) / (payload + p.header[d] + tunnel)) * (1 - p.allowancePercent / 100);
}

/** The least cap on the usable rate one way. Stated for the way down; the way back is less by its longer header. */
function capOf(
  shape: HopShape,
  d: Direction,
  tunnel: number,
  p: PacketRule,
  without: (l: Limit) => boolean,
): Range {
  const caps = shape.limits.filter((l) => l.kind === 'cap' && !without(l)).map((l) => l.value);
  if (caps.length === 0) return ENDLESS;
  const whole = (x: Direction) => p.payload.up + p.header[x] + tunnel;
  const back = d === 'up' ? whole('down') / whole('up') : 1;
  const cap = minOf(...caps);
  return { lo: cap.lo * back, hi: cap.hi * back };
}

function rawWorking(shape: HopShape, r: RawRate): Working {
  const args: Record<string, number | Range> = { raw: r.raw };
  if (r.gen) args['gen'] = r.gen;
  if (r.lanes) args['lanes'] = r.lanes;
  if (r.transport) args['transport'] = r.transport;
  if (r.taken) args['taken'] = r.taken;
  if (shape.kind === 'pcie') return { rule: 'pcie-raw', args, source: 'pcie-base' };
  if (r.behind) args['behind'] = r.behind;
  return { rule: 'tunnel-raw', args, source: 'usb4' };
}

function usableQ(shape: HopShape, r: RawRate, d: Direction, p: PacketRule): Q {
  const tunnel = shape.kind === 'tunnel' ? p.headerTunnel : 0;
  const computed = {
    lo: usableGbps(r.raw.lo, d, tunnel, p),
    hi: usableGbps(r.raw.hi, d, tunnel, p),
  };
  const working: Working = {
    rule: 'usable',
    args: {
      raw: r.raw,
      payload: p.payload[d],
      header: p.header[d],
      tunnel,
      allowance: p.allowancePercent,
    },
    steps: [rawWorking(shape, r)],
    source: 'pcie-base',
  };
  const cap = capOf(shape, d, tunnel, p, () => false);
  if (cap.lo >= computed.hi) return { ...computed, unit: 'Gb/s', working };
  const capped: Working = {
    rule: 'capped',
    args: { computed, cap },
    steps: [working],
    source: 'common-practice',
  };
  return { ...minOf(computed, cap), unit: 'Gb/s', working: capped };
}

const BROKEN: Q = {
  ...NOTHING,
  unit: 'Gb/s',
  working: { rule: 'broken', args: {}, source: 'house' },
};

function takesOf(shape: HopShape): Take[] {
  return shape.limits
    .filter((l) => l.kind === 'takes')
    .map((l) => ({ attr: l.attr, down: l.value, up: l.up ?? l.value }));
}

/**
 * One hop: what it trains to, raw and usable both ways, and whether anything passes.
 * @param shape the hop with its limits
 * @param p the packet rule
 * @returns the hop, rates in Gb/s
 */
export function computeHop(shape: HopShape, p: PacketRule): Hop {
  const { from, to, kind, unchosen, brokenBy, idle } = shape;
  const ends = { from, to, kind, unchosen, takes: takesOf(shape) };
  if (brokenBy)
    return {
      ...ends,
      raw: { down: NOTHING, up: NOTHING },
      usable: { down: BROKEN, up: BROKEN },
      state: 'broken',
    };
  const down = rawRate(shape, 'down');
  const up = rawRate(shape, 'up');
  if (idle || !Number.isFinite(down.raw.hi))
    return { ...ends, raw: null, usable: null, state: 'unknown' };
  const open = (r: RawRate): RawRate =>
    unchosen.length > 0 ? { ...r, raw: { lo: 0, hi: r.raw.hi } } : r;
  const { gen, lanes, transport } = down;
  return {
    ...ends,
    ...(gen && { gen }),
    ...(lanes && { lanes }),
    ...(transport && { transport }),
    raw: { down: open(down).raw, up: open(up).raw },
    usable: { down: usableQ(shape, open(down), 'down', p), up: usableQ(shape, open(up), 'up', p) },
    state: unchosen.length > 0 ? 'unknown' : 'ok',
  };
}

/**
 * Usable rate of a hop towards the card, with some limits lifted.
 * @param shape the hop with its limits
 * @param p the packet rule
 * @param lifted limits that do not count
 * @returns Gb/s
 */
export function usableDown(shape: HopShape, p: PacketRule, lifted: (l: Limit) => boolean): Range {
  if (shape.brokenBy) return NOTHING;
  if (shape.idle) return ENDLESS;
  const { raw } = rawRate(shape, 'down', lifted);
  const tunnel = shape.kind === 'tunnel' ? p.headerTunnel : 0;
  const cap = capOf(shape, 'down', tunnel, p, lifted);
  const open = shape.unchosen.length > 0;
  const most = minOf(exact(usableGbps(raw.hi, 'down', tunnel, p)), exact(cap.hi)).hi;
  return { lo: open ? 0 : Math.min(usableGbps(raw.lo, 'down', tunnel, p), cap.lo), hi: most };
}

/**
 * Tells the limits that a slot of the chain sets.
 * @param slot the slot
 * @returns true for its limits
 */
export function ofSlot(slot: Slot): (l: Limit) => boolean {
  return (l) => l.slot === slot;
}
