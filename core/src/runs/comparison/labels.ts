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

export interface OverTitles {
  /** Geometric mean of the shares over the titles both sides ran; null without any. */
  readonly of: number | null;
  readonly titles: readonly string[];
  readonly left: readonly { readonly title: string; readonly why: string }[];
}

/**
 * Geometric mean of the ratios over titles, so that no title counts more for running faster and neither side is the base
 * by choice. Source: Fleming and Wallace, Communications of the ACM 29 (1986), 218-221.
 *
 * @param list one ratio a title; null where a side lacks it, with the reason
 * @returns the mean, null without any; titles used and titles left out
 * @example overTitles([{ title: 'A', of: 2, why: '' }, { title: 'B', of: 0.5, why: '' }]) // => { of: 1, titles: ['A', 'B'], left: [] }
 */
export function overTitles(
  list: readonly { readonly title: string; readonly of: number | null; readonly why: string }[],
): OverTitles {
  const used = list.flatMap((t) => (t.of === null ? [] : [{ title: t.title, of: t.of }]));
  const left = list.flatMap((t) => (t.of === null ? [{ title: t.title, why: t.why }] : []));
  const of =
    used.length === 0 ? null : Math.exp(used.reduce((s, t) => s + Math.log(t.of), 0) / used.length);
  return { of, titles: used.map((t) => t.title), left };
}
