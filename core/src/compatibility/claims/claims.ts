import { type Range, wilson } from '../../base';
import { CLAIM_MEASURES, type MeasureId, type Measurement, TAG_IDS, type TagId } from './measure';

/** A stated rule in a form that the log can test. An end that is null is open. */
export interface Claim {
  readonly measure: MeasureId;
  readonly lo: number | null;
  readonly hi: number | null;
  /** Only measurements that meet all of these; words are found anywhere in the tag, whatever their case. */
  readonly where: readonly { readonly tag: TagId; readonly has: string }[];
}

export interface Exception {
  readonly tag: TagId;
  readonly value: string;
  readonly n: number;
}

export interface ClaimJudged {
  readonly n: number;
  readonly within: number;
  /** Share within, 95 %; for shares of setups the share itself. */
  readonly share: Range;
  /**
   * `none`: nothing measured. `one`: one measurement proves little. `holds` and `fails`: the interval lies whole on one side; `open`: not
   * yet to be told.
   */
  readonly state: 'none' | 'one' | 'holds' | 'fails' | 'open';
  /** Values of a tag at which it never held, though it holds elsewhere. */
  readonly never: readonly Exception[];
  /** Smallest, middle and largest value; null without any. For shares of setups: worked and counted. */
  readonly seen: { readonly lo: number; readonly mid: number; readonly hi: number } | null;
  readonly against: readonly Measurement[];
}

/**
 * The measurements a claim is about.
 * @param claim the claim
 * @param all measurements of its measure
 * @returns those that meet its conditions
 */
export function concerned(claim: Claim, all: readonly Measurement[]): Measurement[] {
  return all.filter((m) =>
    claim.where.every((w) =>
      (m.tags[w.tag] ?? '').toLowerCase().includes(w.has.trim().toLowerCase()),
    ),
  );
}

function isWithin(claim: Claim, value: number): boolean {
  return (claim.lo === null || value >= claim.lo) && (claim.hi === null || value <= claim.hi);
}

function exceptions(
  claim: Claim,
  mine: readonly Measurement[],
  holds: (m: Measurement) => boolean,
): Exception[] {
  const fixed = new Set(claim.where.map((w) => w.tag));
  return TAG_IDS.filter((t) => !fixed.has(t)).flatMap((tag) => {
    const values = [...new Set(mine.flatMap((m) => m.tags[tag] || []))];
    if (values.length < 2) return [];
    return values.flatMap((value): Exception[] => {
      const at = mine.filter((m) => m.tags[tag] === value);
      return at.some(holds) ? [] : [{ tag, value, n: at.length }];
    });
  });
}

function shareClaim(claim: Claim, mine: readonly Measurement[]): ClaimJudged {
  const worked = mine.filter((m) => m.value === 100).length;
  const share = wilson(worked, mine.length);
  const lo = (claim.lo ?? 0) / 100;
  const hi = (claim.hi ?? 100) / 100;
  const apart = share.hi < lo || share.lo > hi;
  const inside = share.lo >= lo && share.hi <= hi;
  const state =
    mine.length === 0
      ? 'none'
      : mine.length === 1
        ? 'one'
        : inside
          ? 'holds'
          : apart
            ? 'fails'
            : 'open';
  const seen =
    mine.length === 0 ? null : { lo: worked, mid: (worked / mine.length) * 100, hi: mine.length };
  return {
    n: mine.length,
    within: worked,
    share,
    state,
    never: [],
    seen,
    against: mine.filter((m) => m.value !== 100),
  };
}

/**
 * What the measurements say of a claim: in how many it holds, with Wilson's interval of that share, where it never
 * does, and which contradict it. Claims about the share of setups that work are compared with the interval of that
 * share itself. Measurements of one chain are not independent; the interval is then too narrow, so the counts stand
 * first.
 * @param claim the claim
 * @param all measurements of its measure
 * @returns the judgement
 */
export function judgeClaim(claim: Claim, all: readonly Measurement[]): ClaimJudged {
  const mine = concerned(claim, all);
  if (CLAIM_MEASURES[claim.measure].share) return shareClaim(claim, mine);
  const holds = (m: Measurement) => isWithin(claim, m.value);
  const within = mine.filter(holds).length;
  const share = wilson(within, mine.length);
  const sorted = mine.map((m) => m.value).sort((a, b) => a - b);
  const n = mine.length;
  const state =
    n === 0
      ? 'none'
      : n === 1
        ? 'one'
        : share.lo > 0.5
          ? 'holds'
          : share.hi < 0.5
            ? 'fails'
            : 'open';
  return {
    n,
    within,
    share,
    state,
    never: within === 0 ? [] : exceptions(claim, mine, holds),
    seen:
      n === 0
        ? null
        : {
            lo: sorted[0] as number,
            mid: sorted[Math.floor((n - 1) / 2)] as number,
            hi: sorted[n - 1] as number,
          },
    against: mine.filter((m) => !holds(m)),
  };
}
