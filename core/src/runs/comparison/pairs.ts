import { mean, welch } from '../../base';
import { DESKTOP, downRate } from '../rig';
import { type Fact, unlike, type Unlike } from './facts';
import type { RunGroup } from './groups';

/** A figure with its 95 % interval; the interval is null where too few repeats were made. */
export interface MeasuredValue {
  readonly mid: number;
  readonly lo: number | null;
  readonly hi: number | null;
}

/**
 * What two groups that differ in one thing can measure: with and without the link, two links, panel and outside screen.
 * `a` is the side with less in its way.
 */
export interface MeasuredPair {
  readonly kind: 'slot' | 'links' | 'panel';
  readonly a: RunGroup;
  readonly b: RunGroup;
  /** Time of a frame of b less that of a, ms. */
  readonly difference: MeasuredValue;
  /** Another processor drove the other side: the difference is not the link's alone. */
  readonly foreign: boolean;
  /** What else is unlike between them. */
  readonly unlike: readonly Unlike[];
}
/** Why two groups of one title measure nothing of the link. */
export interface NoPair {
  readonly a: RunGroup;
  readonly b: RunGroup;
  readonly why: 'capped' | 'generated' | 'inside' | 'rate-unknown';
}

/** Facts that go with what a pair tests and are therefore no confounds. */
const UNDER_TEST: Readonly<Record<MeasuredPair['kind'], readonly Fact[]>> = {
  slot: [
    'link',
    'cable',
    'dock',
    'dockFirmware',
    'lid',
    'powerMode',
    'host',
    'hostFirmware',
    'method',
  ],
  links: ['link', 'cable', 'dock', 'dockFirmware', 'method'],
  panel: ['screenPath', 'method'],
};
/** Two rates closer than this are one link. */
const SAME_RATE = 0.05;

/**
 * The difference of two samples with Welch's interval.
 * @param a a sample, any unit
 * @param b another, in the same unit
 * @returns mean of b less that of a; without an interval when a side has fewer than two
 */
export function differenceOf(a: readonly number[], b: readonly number[]): MeasuredValue {
  const w = welch(a, b);
  return { mid: mean(b) - mean(a), lo: w?.lo ?? null, hi: w?.hi ?? null };
}

const isInside = (c: RunGroup) => c.first.settings.deviceSet === 'inside';
const rateOf = (c: RunGroup) => downRate(c.first.rig);

function pairOf(x: RunGroup, y: RunGroup): MeasuredPair | NoPair | null {
  if (x.first.titleId !== y.first.titleId) return null;
  if (isInside(x) !== isInside(y)) return { a: x, b: y, why: 'inside' };
  const rx = x.first.rig;
  const ry = y.first.rig;
  if (rx.card !== ry.card || rx.card === '') return null;
  const scene = x.pixels === y.pixels && x.first.facts.preset === y.first.facts.preset;
  if (
    !scene ||
    x.first.facts.upscaling !== y.first.facts.upscaling ||
    x.first.facts.rayTracing !== y.first.facts.rayTracing
  )
    return null;
  const build = (
    kind: MeasuredPair['kind'],
    a: RunGroup,
    b: RunGroup,
    foreign: boolean,
  ): MeasuredPair | NoPair => {
    if (a.capFps !== null || b.capFps !== null) return { a, b, why: 'capped' };
    if (a.generated || b.generated) return { a, b, why: 'generated' };
    const list = unlike(a.first.facts, b.first.facts, UNDER_TEST[kind]);
    return { kind, a, b, difference: differenceOf(a.ms, b.ms), foreign, unlike: list };
  };
  if (rx.slot !== ry.slot) {
    const [a, b] = rx.slot ? [x, y] : [y, x];
    return b.panel
      ? null
      : build('slot', a, b, a.first.rig.host === DESKTOP || a.first.rig.host !== b.first.rig.host);
  }
  if (rx.host !== ry.host || rx.slot) return null;
  if (x.panel !== y.panel) {
    if (x.first.setupId !== y.first.setupId) return null;
    const [a, b] = x.panel ? [y, x] : [x, y];
    return build('panel', a, b, false);
  }
  const fx = rateOf(x);
  const fy = rateOf(y);
  if (x.panel) return null;
  if (fx === null || fy === null)
    return x.first.setupId === y.first.setupId ? null : { a: x, b: y, why: 'rate-unknown' };
  if (Math.abs(fx / fy - 1) <= SAME_RATE) return null;
  return fx > fy ? build('links', x, y, false) : build('links', y, x, false);
}

/**
 * Every pair among these groups that measures the link or the way back to the panel, and those that look as if they did and do not.
 * Internal graphics against the outside card is no pair: everything differs between them.
 * @param groups groups of repeats; not modified
 * @returns pairs that measure, and those that do not with the reason
 */
export function pairsOf(groups: readonly RunGroup[]): { pairs: MeasuredPair[]; not: NoPair[] } {
  const pairs: MeasuredPair[] = [];
  const not: NoPair[] = [];
  groups.forEach((x, i) => {
    for (const y of groups.slice(i + 1)) {
      const p = pairOf(x, y);
      if (p && 'why' in p) not.push(p);
      else if (p) pairs.push(p);
    }
  });
  return { pairs, not };
}
