import { minOf, type Range } from '../units';
import type { Slot } from '../schema';
import type { RuleBook } from '../house';
import { pcieRawGbps, trainedWidth } from './standards';
import { leastGen } from './shapes';
import type { Hop, HopShape, Limit, Q, Working } from './types';

const ENDLESS: Range = { lo: Infinity, hi: Infinity };
const NOTHING: Range = { lo: 0, hi: 0 };

/** What a packet path costs: the same for every hop of a chain but the tunnel's own header. */
export interface PacketRule {
  readonly payload: number;
  readonly headerDown: number;
  readonly headerUp: number;
  readonly headerTunnel: number;
  readonly allowancePercent: number;
}

/** The packet rule of a chain: one payload for the whole path, the smallest any hop allows. */
export function packetRule(kind: 'tunnel' | 'direct', rules: RuleBook): PacketRule {
  return {
    payload: rules.get(kind === 'tunnel' ? 'link.payloadTunnelBytes' : 'link.payloadDirectBytes'),
    headerDown: rules.get('link.headerDownBytes'),
    headerUp: rules.get('link.headerUpBytes'),
    headerTunnel: kind === 'tunnel' ? rules.get('link.headerTunnelBytes') : 0,
    allowancePercent: rules.get('link.flowControlPercent'),
  };
}

/** Raw Gb/s after line encoding, and what it is the least of. */
export interface RawRate {
  readonly raw: Range;
  readonly gen?: Range;
  readonly lanes?: Range;
  readonly transport?: Range;
  /** What generation and lanes alone would carry: the PCIe behind a tunnel. */
  readonly behind?: Range;
}

/** Raw rate of a hop, without some of its limits when asked. Endless when nothing limits it. */
export function rawRate(shape: HopShape, without: (l: Limit) => boolean = () => false): RawRate {
  const limits = shape.limits.filter((l) => !without(l));
  const lanesLimits = limits.filter((l) => l.kind === 'lanes').map((l) => l.value);
  const transports = limits.filter((l) => l.kind === 'transport').map((l) => l.value);
  let trained: Pick<RawRate, 'gen' | 'lanes' | 'behind'> = {};
  if (lanesLimits.length > 0) {
    const gen = leastGen(limits);
    const wired = minOf(...lanesLimits);
    const lanes = { lo: trainedWidth(wired.lo), hi: trainedWidth(wired.hi) };
    const behind = { lo: pcieRawGbps(Math.floor(gen.lo), lanes.lo), hi: pcieRawGbps(Math.floor(gen.hi), lanes.hi) };
    trained = { gen, lanes, behind };
  }
  const transport = transports.length > 0 ? minOf(...transports) : undefined;
  const raw = minOf(trained.behind ?? ENDLESS, transport ?? ENDLESS);
  return { raw, ...trained, ...(transport && { transport }) };
}

/** Usable Gb/s = raw × payload / (payload + header + tunnel) × (1 − allowance). */
export function usableGbps(raw: number, header: number, tunnel: number, p: PacketRule): number {
  return ((raw * p.payload) / (p.payload + header + tunnel)) * (1 - p.allowancePercent / 100);
}

function rawWorking(shape: HopShape, r: RawRate): Working {
  const args: Record<string, number | Range> = { raw: r.raw };
  if (r.gen) args['gen'] = r.gen;
  if (r.lanes) args['lanes'] = r.lanes;
  if (r.transport) args['transport'] = r.transport;
  if (shape.kind === 'pcie') return { rule: 'pcie-raw', args, source: 'pcie-base' };
  if (r.behind) args['behind'] = r.behind;
  return { rule: 'tunnel-raw', args, source: 'usb4' };
}

function usableQ(raw: Range, header: number, tunnel: number, p: PacketRule, step: Working): Q {
  return {
    lo: usableGbps(raw.lo, header, tunnel, p),
    hi: usableGbps(raw.hi, header, tunnel, p),
    unit: 'Gb/s',
    working: {
      rule: 'usable',
      args: { raw, payload: p.payload, header, tunnel, allowance: p.allowancePercent },
      steps: [step],
      source: 'pcie-base',
    },
  };
}

const BROKEN: Q = { ...NOTHING, unit: 'Gb/s', working: { rule: 'broken', args: {}, source: 'house' } };

/** Compute one hop: what it trains to, raw and usable both ways, and whether anything passes. */
export function computeHop(shape: HopShape, p: PacketRule): Hop {
  const { from, to, kind, unchosen, brokenBy, idle } = shape;
  const ends = { from, to, kind, unchosen };
  if (brokenBy) return { ...ends, raw: NOTHING, usable: { down: BROKEN, up: BROKEN }, state: 'broken' };
  const { behind, ...r } = rawRate(shape);
  if (idle || !Number.isFinite(r.raw.hi)) return { ...ends, raw: null, usable: null, state: 'unknown' };
  const raw = unchosen.length > 0 ? { lo: 0, hi: r.raw.hi } : r.raw;
  const step = rawWorking(shape, { ...r, behind, raw });
  const tunnel = kind === 'tunnel' ? p.headerTunnel : 0;
  return {
    ...ends,
    ...r,
    raw,
    usable: { down: usableQ(raw, p.headerDown, tunnel, p, step), up: usableQ(raw, p.headerUp, tunnel, p, step) },
    state: unchosen.length > 0 ? 'unknown' : 'ok',
  };
}

/** Usable down of one shape as an interval, with some limits lifted: the pinch and its rest use this. */
export function usableDown(shape: HopShape, p: PacketRule, lifted: Slot | null): Range {
  if (shape.brokenBy) return NOTHING;
  if (shape.idle) return ENDLESS;
  const { raw } = rawRate(shape, (l) => l.slot === lifted);
  const tunnel = shape.kind === 'tunnel' ? p.headerTunnel : 0;
  const hi = usableGbps(raw.hi, p.headerDown, tunnel, p);
  return { lo: shape.unchosen.length > 0 ? 0 : usableGbps(raw.lo, p.headerDown, tunnel, p), hi };
}
