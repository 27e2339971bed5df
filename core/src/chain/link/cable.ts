import { type Range, rising, type RuleBook, type RuleId, toRange } from '../../base';
import type { CableSpec, PieceSpec } from '../../parts';
import { isAdapter } from '../schema/shape';
import { type ProtocolGeneration, type Level, levelGbps } from './mode';
import { DOMAIN, MIN_TUNNEL_CABLE_GBPS } from './standards';

type ReadRule = (id: RuleId) => number;

export interface Piece<S extends PieceSpec = PieceSpec> {
  readonly key: string;
  readonly spec: S;
}

/**
 * The cables of a path.
 * @param pieces pieces of the path, host side first
 * @param connector plug the cables must have; any where left out
 * @returns the cables, adapters left out
 */
export function cablesOf(
  pieces: readonly Piece[],
  connector?: CableSpec['connector'],
): Piece<CableSpec>[] {
  return pieces.flatMap(({ key, spec }) =>
    !isAdapter(spec) && (connector === undefined || spec.connector === connector)
      ? [{ key, spec }]
      : [],
  );
}

/**
 * Length of the passive pieces of a path: joined passive cables act as one long one.
 * @param pieces pieces of the path
 * @returns mm, over every completion
 */
export function passiveLengthMm(pieces: readonly Piece[]): Range {
  let lo = 0;
  let hi = 0;
  for (const { spec } of cablesOf(pieces, 'usb-c')) {
    const length = toRange(spec.lengthMm, DOMAIN.cableMm);
    if (spec.construction !== 'active') hi += length.hi;
    if (spec.construction === 'passive') lo += length.lo;
  }
  return { lo, hi };
}

/** What a mark stands for. A passive cable good for 40 also serves 80 where it is short enough (from memory). */
function markLevel(markedGbps: number, passive: boolean): Level {
  if (markedGbps < MIN_TUNNEL_CABLE_GBPS) return 0;
  if (markedGbps < 40) return 20;
  return markedGbps >= 80 || passive ? 80 : 40;
}

function lengthLevel(mm: number, marked80: boolean, atLeast: boolean, rules: RuleBook): Level {
  if (
    mm <= rules.get('cable.passiveFullRateMm') ||
    (marked80 && mm <= rules.get('cable.passive80Mm'))
  )
    return 80;
  return !atLeast || mm <= rules.get('cable.passiveHalfRateMm') ? 20 : 0;
}

export interface CableRate {
  /** Transport its mark stands for. */
  readonly byMark: Range;
  /** Transport its length allows. */
  readonly byLength: Range;
  /** False when its length holds nothing back in this era. */
  readonly lengthMatters: boolean;
}

/**
 * What holds the transport of one USB-C cable; the lesser of mark and length counts. Passive: full rate up to
 * 0.8 m (marked 80: 1 m), half up to 2 m, nothing promised beyond. Active: what it is marked with. A
 * construction that is not known gives the union of both.
 *
 * Source: USB Type-C Cable and Connector Specification, lengths from memory; all are house rules. Worked
 * example: passive, 1200 mm, marked 40, between USB4 ends: 38.79 Gb/s by its mark, 19.39 by its length.
 * @param spec the cable
 * @param passiveMm length of all passive pieces, mm
 * @param era generation of the protocol the ends run
 * @param rules house rules
 * @returns Gb/s by mark and by length
 */
export function usbCableRate(
  spec: CableSpec,
  passiveMm: Range,
  era: ProtocolGeneration,
  rules: RuleBook,
): CableRate {
  const marked = toRange(spec.markedGbps, DOMAIN.cableGbps);
  const gbps = (level: Level) => levelGbps(level, era);
  const byMark = {
    lo: gbps(markLevel(marked.lo, spec.construction === 'passive')),
    hi: gbps(markLevel(marked.hi, spec.construction !== 'active')),
  };
  const byLength = {
    lo: gbps(
      spec.construction === 'active' ? 80 : lengthLevel(passiveMm.hi, marked.lo >= 80, true, rules),
    ),
    hi: gbps(
      spec.construction === 'passive'
        ? lengthLevel(passiveMm.lo, marked.hi >= 80, false, rules)
        : 80,
    ),
  };
  return { byMark, byLength, lengthMatters: byLength.lo < gbps(80) };
}

/** Generations a passive direct path of some length is good to, from the house's lengths: Gen2 is taken as always good. */
function genByLength(mm: number, rule: ReadRule): number {
  if (mm <= rule('direct.gen5Mm')) return 5;
  if (mm <= rule('direct.gen4Mm')) return 4;
  return mm <= rule('direct.gen3Mm') ? 3 : 2;
}

export interface DirectGen {
  readonly promised: boolean;
  readonly mm: Range;
  readonly gen: Range;
}

/**
 * Generation a direct path holds: each joint beyond the two ends counts as extra length. A maker's promise is
 * for one cable alone; for joined pieces only the length rule is left. Lengths are house rules, from memory of
 * what is sold.
 * @param pieces pieces of the path, host side first
 * @param rule reads a house rule
 * @returns the generation as an interval; `promised` where one piece has a promise, so that lengths say nothing
 */
export function directGen(pieces: readonly Piece[], rule: ReadRule): DirectGen {
  const only = pieces.length === 1 ? pieces[0]?.spec : undefined;
  const promised =
    pieces.length === 0 || (only !== undefined && (only.pcieGen !== null || isAdapter(only)));
  const joints = Math.max(0, pieces.length - 1) * rule('direct.jointMm');
  const lengths = pieces.map(({ spec }) =>
    toRange(spec.lengthMm, isAdapter(spec) ? DOMAIN.ribbonMm : DOMAIN.cableMm),
  );
  const mm = { lo: joints, hi: joints };
  for (const l of lengths) {
    mm.lo += l.lo;
    mm.hi += l.hi;
  }
  return { promised, mm, gen: rising({ lo: mm.hi, hi: mm.lo }, (x) => genByLength(x, rule)) };
}
