import { mean } from '../../base';
import { type RunGroup, sameScene } from './cells';
import { MS_PER_MB_GBPS } from './model';
import type { MeasuredPair, MeasuredValue } from './pairs';
import { middleRig } from './rig';
import { MAX_TRAFFIC_MB } from './start';

/** What the link of one setup costs a frame of one title, ms, and how far that can be said. */
export interface TollRead extends MeasuredValue {
  readonly titleId: string;
  readonly title: string;
  /** How it was come by: against a slot, between two links, at the highest resolution of a sweep, or only as an interval. */
  readonly basis: 'slot' | 'links' | 'highest' | 'interval';
  readonly pairs: readonly MeasuredPair[];
  /** MB a frame that would explain it at this rate; trips are in it. */
  readonly trafficMB: number;
  /** More than any traffic explains: look for something else. */
  readonly beyondTraffic: boolean;
  /** What the other processor costs at lower resolutions, ms, where that lies outside chance. */
  readonly hostMs: MeasuredValue | null;
  /** Each resolution predicted from the others, where there are at least two. */
  readonly rest: readonly Residual[];
  /** The toll differs between resolutions by more than chance. */
  readonly uneven: boolean;
  /** What these runs cannot tell apart. */
  readonly inseparable: readonly ('traffic-trips' | 'link-processor')[];
}
export interface Residual {
  readonly cell: RunGroup;
  readonly predictedMs: number;
  readonly measuredMs: number;
}

const rate = (c: RunGroup) => middleRig(c.first.rig)?.downGbps ?? null;

/** A slot is a link, too: what a difference against it must be multiplied by to be the whole toll of the slower link. */
export function absoluteFactor(slowGbps: number, fastGbps: number): number {
  return 1 / (1 - slowGbps / fastGbps);
}
const scaled = (m: MeasuredValue, k: number): MeasuredValue => ({
  mid: m.mid * k,
  lo: m.lo === null ? null : m.lo * k,
  hi: m.hi === null ? null : m.hi * k,
});

/** The toll of side b that a pair tells, ms: its difference grown by what the faster side pays itself. Null where a rate is not known. */
function tollOf(p: MeasuredPair): MeasuredValue | null {
  const fast = rate(p.a);
  const slow = rate(p.b);
  return fast !== null && slow !== null && fast > slow
    ? scaled(p.difference, absoluteFactor(slow, fast))
    : null;
}

/** Several measurements of one figure: weighted by how narrow they are; plainly averaged when one has no interval. */
export function pooled(list: readonly MeasuredValue[]): MeasuredValue {
  const halves = list.map((m) => (m.lo === null || m.hi === null ? null : (m.hi - m.lo) / 2));
  const plain = mean(list.map((m) => m.mid));
  if (halves.some((h) => h === null)) return { mid: plain, lo: null, hi: null };
  const weights = halves.map((h) => 1 / Math.max(1e-9, h as number) ** 2);
  const sum = weights.reduce((a, b) => a + b, 0);
  const mid = list.reduce((a, m, i) => a + m.mid * (weights[i] as number), 0) / sum;
  const half = 1 / Math.sqrt(sum);
  return { mid, lo: mid - half, hi: mid + half };
}

function apart(list: readonly MeasuredValue[], middle: MeasuredValue): boolean {
  return list.some(
    (m) =>
      m.lo !== null && m.hi !== null && (m.lo > (middle.hi ?? m.lo) || m.hi < (middle.lo ?? m.hi)),
  );
}

/** A step from one resolution to the next in which a card that is the longest stage takes clearly longer. */
const CARD_BOUND_POWER = 0.5;

/** Is the card the longest stage at the higher of two resolutions? Its time then grows nearly with the pixels. */
function cardBound(low: RunGroup, high: RunGroup): boolean {
  return (
    Math.log(mean(high.ms) / mean(low.ms)) / Math.log(high.pixels / low.pixels) >= CARD_BOUND_POWER
  );
}

interface Found {
  readonly p: MeasuredPair;
  readonly toll: MeasuredValue;
}

/** Each resolution predicted by the others: the faster side plus what the toll of the others adds. */
function restOf(found: readonly Found[]): Residual[] {
  if (found.length < 2) return [];
  return found.map(({ p, toll }) => {
    const others = pooled(found.filter((f) => f.p !== p).map((f) => f.toll)).mid;
    const share = toll.mid === 0 ? 1 : p.difference.mid / toll.mid;
    return { cell: p.b, predictedMs: mean(p.a.ms) + others * share, measuredMs: mean(p.b.ms) };
  });
}

function foreignRead(
  found: readonly Found[],
): Pick<TollRead, 'mid' | 'lo' | 'hi' | 'basis' | 'hostMs' | 'inseparable'> {
  const byPixels = [...found].sort((a, b) => a.p.b.pixels - b.p.b.pixels);
  const top = byPixels[byPixels.length - 1] as Found;
  const below = byPixels[byPixels.length - 2];
  const decided =
    below !== undefined &&
    cardBound(below.p.a, top.p.a) &&
    mean(top.p.b.ms) / mean(below.p.b.ms) >= 1.05 &&
    below !== top;
  if (!decided) {
    // The desktop's processor is taken as no slower: then the link costs at most the whole difference.
    const most = Math.max(...found.map((f) => f.toll.hi ?? f.toll.mid), 0);
    return {
      mid: most / 2,
      lo: 0,
      hi: most,
      basis: 'interval',
      hostMs: null,
      inseparable: ['link-processor', 'traffic-trips'],
    };
  }
  const low = byPixels[0] as Found;
  const host = { mid: low.toll.mid - top.toll.mid, lo: null, hi: null } as MeasuredValue;
  const known =
    low.toll.lo !== null && top.toll.hi !== null && low.toll.hi !== null && top.toll.lo !== null;
  const ends = known ? { lo: low.toll.lo! - top.toll.hi!, hi: low.toll.hi! - top.toll.lo! } : null;
  const hostMs = ends && (ends.lo > 0 || ends.hi < 0) ? { ...host, ...ends } : null;
  return { ...top.toll, basis: 'highest', hostMs, inseparable: ['traffic-trips'] };
}

/**
 * What the link costs a title on one setup, from pairs of one kind; slots are taken before other links, the same processor before
 * another. In: pairs whose side b is this setup's; null where none of them tells.
 *
 * With another processor on the other side the link's part is what is left at the highest resolution where the card is the longest
 * stage there; without a sweep it is known only between nothing and the whole difference.
 * Never averaged over titles. Common practice, no published source.
 */
export function readToll(pairs: readonly MeasuredPair[]): TollRead | null {
  const all = pairs.flatMap((p): Found[] => {
    const toll = p.kind === 'panel' ? null : tollOf(p);
    return toll ? [{ p, toll }] : [];
  });
  const kinds = [
    all.filter((f) => f.p.kind === 'slot' && !f.p.foreign),
    all.filter((f) => f.p.kind === 'links'),
    all.filter((f) => f.p.kind === 'slot' && f.p.foreign),
  ];
  const found = kinds.find((k) => k.length > 0);
  const first = found?.[0];
  if (!found || !first) return null;
  const own =
    found === kinds[2]
      ? foreignRead(found)
      : {
          ...pooled(found.map((f) => f.toll)),
          basis: first.p.kind as 'slot' | 'links',
          hostMs: null,
          inseparable: ['traffic-trips'] as const,
        };
  const trafficMB = (own.mid * (rate(first.p.b) ?? 0)) / MS_PER_MB_GBPS;
  return {
    ...own,
    titleId: first.p.b.first.titleId,
    title: first.p.b.first.title,
    pairs: found.map((f) => f.p),
    trafficMB,
    beyondTraffic: own.basis !== 'interval' && trafficMB > MAX_TRAFFIC_MB,
    rest: found === kinds[2] ? [] : restOf(found),
    uneven:
      found !== kinds[2] &&
      apart(
        found.map((f) => f.toll),
        own,
      ),
  };
}

/** The same toll at another rate: traffic takes as much longer as the link is slower. */
export function tollAt(t: TollRead, gbps: number): TollRead {
  const own = t.pairs[0] && rate(t.pairs[0].b);
  return own && t.basis !== 'interval' ? { ...t, ...scaled(t, own / gbps) } : t;
}

/** What the way back to the panel costs, ms, from pairs of panel and outside screen at one resolution or several. */
export function readBack(pairs: readonly MeasuredPair[]): MeasuredValue | null {
  const list = pairs.filter((p) => p.kind === 'panel').map((p) => p.difference);
  return list.length > 0 ? pooled(list) : null;
}

/** Tolls of every title of a setup, from all cells that are known; the setup's own are side b, or side a of two links. */
export function tollsOf(pairs: readonly MeasuredPair[], setupId: string): TollRead[] {
  const own = pairs.filter((p) => p.b.first.setupId === setupId);
  const swapped = pairs.filter(
    (p) => p.kind === 'links' && p.a.first.setupId === setupId && p.b.first.setupId !== setupId,
  );
  const looks = [...own, ...swapped].map((p) => sideOf(p, setupId));
  const scenes = looks.filter((c, i) => looks.findIndex((o) => alike(o, c)) === i);
  return scenes.flatMap((c) => {
    const direct = readToll(own.filter((p) => alike(p.b, c)));
    if (direct) return [direct];
    const other = readToll(swapped.filter((p) => alike(p.a, c)));
    const mine = rate(c);
    return other && mine ? [tollAt(other, mine)] : [];
  });
}

const sideOf = (p: MeasuredPair, setupId: string) => (p.b.first.setupId === setupId ? p.b : p.a);
/** Of one title in one look, at whatever resolution. */
function alike(a: RunGroup, b: RunGroup): boolean {
  return sameScene({ ...a, pixels: b.pixels }, b);
}
