import { type HouseRules, type Range, ratio, RuleBook } from '../../base';
import type { AttrPath } from '../../chain';
import type { CopyReading, CopyUnit } from '../schema/reading';

export type Grade = 'healthy' | 'low' | 'poor' | 'impossible';

/** Why a copy rate is kept but not graded. */
export type NotGraded =
  | 'no-unit'
  | 'no-direction'
  | 'not-under-load'
  | 'load-not-said'
  | 'pageable'
  | 'memory-not-said'
  | 'nothing-expected';

export interface CopyGrade {
  /** `open`: the expected is a range and its two ends would grade it differently. */
  readonly grade: Grade | 'open' | 'not-graded';
  readonly gbps: number | null;
  readonly direction: CopyReading['direction'];
  readonly expected: Range | null;
  /** Measured over expected, at both ends of the expected. */
  readonly share: Range | null;
  /** Grades at the high and at the low end of the expected; equal unless open. */
  readonly ends: { readonly atHigh: Grade; readonly atLow: Grade } | null;
  /** Attributes that would decide between them. */
  readonly decides: readonly AttrPath[];
  readonly why: NotGraded | null;
  /** Another unit under which the same figure would be healthy. */
  readonly perhaps: CopyUnit | null;
}

const GBPS: Readonly<Record<CopyUnit, number>> = { 'Gb/s': 1, 'GB/s': 8, 'MB/s': 0.008 };

/**
 * Converts a copy rate to Gb/s; prefixes are decimal.
 *
 * @param value rate in `unit`
 * @param unit GB/s, Gb/s or MB/s, as the test tool prints it
 * @returns rate, Gb/s
 * @example inGbps(1, 'GB/s') // => 8
 */
export function inGbps(value: number, unit: CopyUnit): number {
  return value * GBPS[unit];
}

/**
 * Grades a measured share of the expected rate: healthy from 0.82, low from 0.70, poor below, impossible above 1.05.
 * The limits are rules of the workshop; common practice, no published source. Worked example: 18 of 26.0 is 0.69: poor;
 * 22 is 0.85: healthy.
 *
 * @param share measured over expected, 1 is as expected
 * @param rules limits, with the defaults filled in
 * @returns the grade
 */
export function gradeShare(share: number, rules: RuleBook): Grade {
  if (share * 100 > rules.get('grade.impossiblePercent')) return 'impossible';
  if (share * 100 >= rules.get('grade.healthyPercent')) return 'healthy';
  return share * 100 >= rules.get('grade.lowPercent') ? 'low' : 'poor';
}

function reason(
  c: CopyReading,
  load: 'load' | 'idle' | null,
  expected: Range | null,
): NotGraded | null {
  if (c.unit === null) return 'no-unit';
  if (c.direction === null) return 'no-direction';
  if (load === 'idle') return 'not-under-load';
  if (load === null) return 'load-not-said';
  if (c.memory === 'pageable') return 'pageable';
  if (c.memory === null) return 'memory-not-said';
  return expected === null || expected.hi === 0 ? 'nothing-expected' : null;
}

/** The other unit people mean when a figure makes no sense. */
function perhaps(c: CopyReading, expected: Range, rules: RuleBook): CopyUnit | null {
  const others = (['Gb/s', 'GB/s', 'MB/s'] as const).filter((u) => u !== c.unit);
  const healthy = (u: CopyUnit) =>
    gradeShare(inGbps(c.value, u) / expected.hi, rules) === 'healthy';
  return others.find(healthy) ?? null;
}

/**
 * Grades a copy rate against the rate the chain should carry in its direction. Without unit, direction, load and pinned
 * memory it stays ungraded. Against a range it is graded at both ends.
 *
 * @param c the copy rate with what was noted of the test
 * @param at load of the card, expected usable rates in Gb/s, paths that would narrow them, and the workshop's rules
 * @returns the grade, or `open` with both grades where the ends differ and the paths that would narrow the range
 */
export function gradeCopy(
  c: CopyReading,
  at: {
    load: 'load' | 'idle' | null;
    expected: { down: Range; up: Range } | null;
    decides: readonly AttrPath[];
    house: HouseRules;
  },
): CopyGrade {
  const rules = new RuleBook(at.house);
  const expected = c.direction ? (at.expected?.[c.direction] ?? null) : null;
  const gbps = c.unit ? inGbps(c.value, c.unit) : null;
  const why = reason(c, at.load, expected);
  const bare = {
    gbps,
    direction: c.direction,
    expected,
    share: null,
    ends: null,
    decides: [],
    why,
    perhaps: null,
  };
  if (why !== null || gbps === null || !expected) return { grade: 'not-graded', ...bare };
  const share = ratio({ lo: gbps, hi: gbps }, expected);
  const ends = { atHigh: gradeShare(share.lo, rules), atLow: gradeShare(share.hi, rules) };
  const same = ends.atHigh === ends.atLow;
  const off = ends.atHigh === 'impossible' || ends.atHigh === 'poor';
  return {
    ...bare,
    grade: same ? ends.atHigh : 'open',
    share,
    ends,
    decides: same ? [] : at.decides,
    perhaps: same && off ? perhaps(c, expected, rules) : null,
  };
}
