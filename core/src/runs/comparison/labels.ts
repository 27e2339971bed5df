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
 * An average over titles: the geometric mean of the ratios, so that no title counts more for running faster and neither side is the base
 * by choice. Titles that one side lacks are left out by name.
 * Source: Fleming and Wallace, Communications of the ACM 29 (1986), 218-221, on why ratios are averaged so.
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
