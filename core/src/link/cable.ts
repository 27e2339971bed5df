import { rising, toRange, type Range } from '../units';
import type { CableSpec } from '../schema';
import type { RuleBook } from '../house';
import { DOMAIN, LEAST_TUNNEL_CABLE_GBPS, TRANSPORT_20, TRANSPORT_40 } from './standards';

/** Transport in Gb/s that a marked rate stands for in a USB4 link of up to 40 Gb/s. */
function markTransport(markedGbps: number): number {
  if (markedGbps < LEAST_TUNNEL_CABLE_GBPS) return 0;
  return markedGbps < 40 ? TRANSPORT_20 : TRANSPORT_40;
}

/** Total length of the passive pieces of a path in mm: joined passive cables act as one long one. */
export function passiveLengthMm(pieces: readonly { readonly spec: CableSpec }[]): Range {
  let lo = 0;
  let hi = 0;
  for (const { spec } of pieces) {
    const length = toRange(spec.lengthMm, DOMAIN.cableMm);
    if (spec.construction !== 'active') hi += length.hi;
    if (spec.construction === 'passive') lo += length.lo;
  }
  return { lo, hi };
}

export interface CableRate {
  /** Transport its mark stands for. */
  readonly byMark: Range;
  /** Transport its length allows; 40 when the length does not matter. */
  readonly byLength: Range;
}

/**
 * What holds the transport of one USB-C cable, in Gb/s; the lesser of the two counts. Passive: 40 up to 0.8 m, 20 up to 2 m, nothing promised
 * beyond (0 to 20). Active: what it is marked with. A construction that is not known gives the hull.
 * Source: USB Type-C Cable and Connector Specification, lengths from memory; both are house rules.
 *
 * Worked example: passive, 1200 mm, marked 40: 38.79 Gb/s by its mark, 19.39 by its length.
 */
export function usbCableRate(spec: CableSpec, passiveMm: Range, rules: RuleBook): CableRate {
  const full = rules.get('cable.passiveFullRateMm');
  const half = rules.get('cable.passiveHalfRateMm');
  const marked = toRange(spec.markedGbps, DOMAIN.cableGbps);
  const atLeast = (mm: number) => (mm <= full ? TRANSPORT_40 : mm <= half ? TRANSPORT_20 : 0);
  const atMost = (mm: number) => (mm <= full ? TRANSPORT_40 : TRANSPORT_20);
  const byLength = {
    lo: spec.construction === 'active' ? TRANSPORT_40 : atLeast(passiveMm.hi),
    hi: spec.construction === 'passive' ? atMost(passiveMm.lo) : TRANSPORT_40,
  };
  return { byMark: rising(marked, markTransport), byLength };
}
