/**
 * How a run plays, from its average and its 1 % low (99th-percentile frame), in frames/s. Common practice, no published source: playable
 * from 30 in the lows, good from 60 average, high-refresh from 100; lows near 10 (here: below 15) are unplayable whatever the average.
 */
export const PLAY_LABELS = {
  unplayable: 'unplayable',
  poor: 'below playable',
  playable: 'playable',
  good: 'good',
  high: 'high-refresh',
} as const;
export type PlayLabel = keyof typeof PLAY_LABELS;

/**
 * Label of how well a title plays. Limits are common practice, no published source.
 *
 * @param averageFps average, frames/s
 * @param lowFps 1 % low, frames/s
 * @returns the label
 */
export function playLabel(averageFps: number, lowFps: number): PlayLabel {
  if (lowFps < 15) return 'unplayable';
  if (lowFps < 30) return 'poor';
  return averageFps >= 100 ? 'high' : averageFps >= 60 ? 'good' : 'playable';
}

/** Ratio of one title, with its 95 % interval; null where a side lacks it, with the reason. */
export interface TitleRatio {
  readonly title: string;
  readonly of: number | null;
  readonly lo?: number | null;
  readonly hi?: number | null;
  readonly why: string;
}

export interface OverTitles {
  /** Geometric mean of the shares over the titles both sides ran; null without any. */
  readonly of: number | null;
  /** Its 95 % interval for these titles, from theirs; null where one of them has none. */
  readonly lo: number | null;
  readonly hi: number | null;
  readonly titles: readonly string[];
  readonly left: readonly { readonly title: string; readonly why: string }[];
}

/** Half width of the interval of a mean of logarithms: the half widths of its parts, which are independent, add up in squares. */
function halfWidth(list: readonly TitleRatio[]): number | null {
  const halves = list.map((t) => (t.lo && t.hi ? (Math.log(t.hi) - Math.log(t.lo)) / 2 : null));
  if (halves.includes(null) || list.length === 0) return null;
  return Math.hypot(...(halves as number[])) / list.length;
}

/**
 * Geometric mean of the ratios over titles, so that no title counts more for running faster and neither side is the base
 * by choice. Source: Fleming and Wallace, Communications of the ACM 29 (1986), 218-221. Its interval says how well the
 * mean of these titles is known, not how other titles would come out.
 *
 * @param list one ratio a title
 * @returns the mean with its interval, null without any; titles used and titles left out
 * @example overTitles([{ title: 'A', of: 2, why: '' }, { title: 'B', of: 0.5, why: '' }]).of // => 1
 */
export function overTitles(list: readonly TitleRatio[]): OverTitles {
  const used = list.filter((t): t is TitleRatio & { of: number } => t.of !== null);
  const left = list.flatMap((t) => (t.of === null ? [{ title: t.title, why: t.why }] : []));
  if (used.length === 0) return { of: null, lo: null, hi: null, titles: [], left };
  const log = used.reduce((s, t) => s + Math.log(t.of), 0) / used.length;
  const half = halfWidth(used);
  return {
    of: Math.exp(log),
    lo: half === null ? null : Math.exp(log - half),
    hi: half === null ? null : Math.exp(log + half),
    titles: used.map((t) => t.title),
    left,
  };
}
