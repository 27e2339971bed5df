import { eventRate } from '../../base';

/** A stretch of use: hours, and how often the card dropped out or the picture froze meanwhile. */
export interface UseSpan {
  readonly hours: number;
  readonly drops: number;
  readonly freezes: number;
}

export interface Reliability {
  readonly hours: number;
  readonly drops: number;
  readonly freezes: number;
  /** Drops and freezes an hour, with the 95 % interval. */
  readonly perHour: { readonly rate: number; readonly lo: number; readonly hi: number };
  /** Hours between two of them: at least, likely, at most; null where none was seen, so no upper end can be told. */
  readonly between: {
    readonly lo: number;
    readonly mid: number | null;
    readonly hi: number | null;
  };
}

/**
 * Hours in use and hours between drops or freezes, with the interval the count allows. With none seen in n hours the
 * rate is at most 3 / n, so at least n / 3 hours lie between two (95 %).
 *
 * Source: as `eventRate`.
 * @param spans hours with their drops and freezes
 * @returns hours; null without any
 */
export function reliability(spans: readonly UseSpan[]): Reliability | null {
  const sum = (f: (s: UseSpan) => number) => spans.reduce((t, s) => t + f(s), 0);
  const hours = sum((s) => s.hours);
  if (!(hours > 0)) return null;
  const drops = sum((s) => s.drops);
  const freezes = sum((s) => s.freezes);
  const perHour = eventRate(drops + freezes, hours);
  return {
    hours,
    drops,
    freezes,
    perHour,
    between: {
      lo: 1 / perHour.hi,
      mid: perHour.rate > 0 ? 1 / perHour.rate : null,
      hi: perHour.lo > 0 ? 1 / perHour.lo : null,
    },
  };
}
