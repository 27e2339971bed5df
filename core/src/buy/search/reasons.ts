import {
  areaOf,
  type Finding,
  JUDGED_AREAS,
  type JudgedArea,
  STOPPING_AREAS,
  type VerdictState,
} from '../../plan';
import { REJECT_REASONS, type RejectReason } from './types';

/**
 * What is known of a combination in one number: a bit for each reason to leave it out, one for each area that is open, one for care. Bits
 * of several partial judgements are joined by "or", as their findings are joined by a union.
 */
export const BIT = Object.fromEntries(REJECT_REASONS.map((r, i) => [r, 1 << i])) as Readonly<
  Record<RejectReason, number>
>;
const AREA_BIT = Object.fromEntries(
  JUDGED_AREAS.map((a, i) => [a, 1 << (REJECT_REASONS.length + i)]),
) as Readonly<Record<JudgedArea, number>>;
export const CARE = 1 << (REJECT_REASONS.length + JUDGED_AREAS.length);
export const STOPS = BIT.link | BIT.power | BIT.fit | BIT.software;
const OPEN = STOPPING_AREAS.reduce((all, a) => all | AREA_BIT[a], 0);
/** Everything that leaves a combination out. */
export const FAILS = REJECT_REASONS.reduce((all, r) => all | BIT[r], 0);

function subjectOf(f: Finding): 'link' | 'power' | 'fit' | 'software' {
  if (f.area === 'power' || f.area === 'fit') return f.area;
  return f.area === 'software' ? 'software' : 'link';
}

/**
 * Reason mask of findings.
 *
 * @param found findings of a partial evaluation
 * @param unsure whether combinations that may fail are kept; otherwise a possible failure rejects
 * @returns bits of `BIT`, of open areas and of `CARE`
 */
export function reasonMask(found: readonly Finding[], unsure: boolean): number {
  let bits = 0;
  for (const f of found) {
    const area = areaOf(f.code) ?? (f.code === 'plan/unchosen' ? 'link' : null);
    if (f.severity === 'care')
      bits |= CARE | (area !== null && !STOPPING_AREAS.includes(area) ? openBit(f, area) : 0);
    if (f.severity !== 'blocks') continue;
    bits |=
      f.certainty === 'certain'
        ? BIT[subjectOf(f)]
        : AREA_BIT[area ?? 'link'] | (unsure ? 0 : BIT.unsure);
  }
  return bits;
}

/** The bit of an area that cannot stop a chain and is open: nothing in it is certain. */
function openBit(f: Finding, area: JudgedArea): number {
  return f.certainty === 'possible' ? AREA_BIT[area] : 0;
}

/**
 * Counts open areas.
 *
 * @param bits reason mask
 * @returns number of areas whose outcome is unknown
 */
export function openAreas(bits: number): number {
  return JUDGED_AREAS.filter((a) => bits & AREA_BIT[a]).length;
}

const AREA_SHIFT = REJECT_REASONS.length;
const AREA_STATES = 1 << (JUDGED_AREAS.length + 1);
const PLACE: Record<VerdictState, number> = { works: 0, care: 1, unknown: 2, blocked: 3 };
/** A verdict weighs more than any number of open areas, and an open area more than any score. */
const BY_STATE = 1000;
const BY_AREA = 50;
/** What each set of open areas and care takes off a score. */
const BEHIND = Float64Array.from({ length: AREA_STATES }, (_, i) => {
  const bits = i << AREA_SHIFT;
  return PLACE[stateOf(bits)] * BY_STATE + openAreas(bits) * BY_AREA;
});

/**
 * Penalty of a combination in the order of recommendations: by verdict first, then by open areas.
 *
 * @param bits reason mask
 * @returns points to subtract from a score; 0 when it certainly works
 */
export function behind(bits: number): number {
  return BEHIND[(bits >> AREA_SHIFT) & (AREA_STATES - 1)] as number;
}

/**
 * Verdict of a reason mask, in the order of an evaluated chain: blocked, unknown, care, works.
 *
 * @param bits reason mask
 * @returns the verdict
 */
export function stateOf(bits: number): VerdictState {
  if (bits & STOPS) return 'blocked';
  if (bits & OPEN) return 'unknown';
  return bits & CARE ? 'care' : 'works';
}

/**
 * Lists the reasons of a mask.
 *
 * @param bits reason mask
 * @returns reasons to reject, in the order of `REJECT_REASONS`
 */
export function reasonsOf(bits: number): RejectReason[] {
  return REJECT_REASONS.filter((r) => bits & BIT[r]);
}

/**
 * Counts the reasons to reject.
 *
 * @param bits reason mask
 * @returns number of set bits among `FAILS`
 */
export function countOf(bits: number): number {
  let n = 0;
  for (let b = bits & FAILS; b !== 0; b &= b - 1) n++;
  return n;
}
