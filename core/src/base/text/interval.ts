import { figureText, pluralize } from './figures';

/** An estimate with its interval, in one unit. */
export interface Estimate {
  readonly mid: number;
  readonly lo: number;
  readonly hi: number;
}

/** A half-width beyond this share of the figure leaves nothing of it: only the ends are told. */
const WIDE = 0.5;
/** A middle that lies off the centre by more than this share of the half-width is told with both ends. */
const LOPSIDED = 0.25;

const minus = (v: number, digits = 3) =>
  v === 0 ? '0' : `${v < 0 ? '−' : ''}${figureText(Math.abs(v), digits)}`;

/**
 * The two ends of an interval.
 * @param e the ends, any unit
 * @param least no such quantity is below it
 * @param digits digits that tell something
 * @returns "68 to 88"
 * @example endsText({ lo: -4, hi: 88 }, 0) // => '0 to 88.0'
 */
export function endsText(e: { lo: number; hi: number }, least = -Infinity, digits = 3): string {
  return `${minus(Math.max(least, e.lo), digits)} to ${minus(Math.max(least, e.hi), digits)}`;
}

/** A figure and how far it may be off: "±2", both ends where it lies unevenly, nothing where the figure is already both ends. */
export interface EstimateParts {
  readonly figure: string;
  readonly give: string;
}

/**
 * A figure as far as its interval lets it be told.
 * @param e the estimate, any unit
 * @param least no such quantity is below it, 0 for a rate
 * @param digits digits that tell something
 * @returns the figure and how far it may be off; only the ends where the interval is wider than half the figure to a side
 * @example estimateParts({ mid: 61, lo: 59, hi: 63 }) // => { figure: '61.0', give: '±2.0' }
 */
export function estimateParts(e: Estimate, least = -Infinity, digits = 3): EstimateParts {
  const half = (e.hi - e.lo) / 2;
  if (half > Math.abs(e.mid) * WIDE) return { figure: endsText(e, least, digits), give: '' };
  const even = Math.abs(e.mid - (e.lo + e.hi) / 2) <= half * LOPSIDED;
  return {
    figure: minus(e.mid, digits),
    give: even ? `±${figureText(half, 2)}` : endsText(e, least, digits),
  };
}

/** A trend is told only where chance alone would show one like it in fewer than 5 of 100 cases. */
const CHANCE = 0.05;

/** The slope of a line through points, with the chance that scatter alone made it. */
export interface SlopeSaid {
  readonly slope: number;
  readonly p: number;
  readonly n: number;
}

/**
 * The sentence of a trend over days.
 * @param t slope in percent a year; null where it cannot be told
 * @returns a trend only where chance alone would show one like it in fewer than 5 of 100 cases
 */
export function yearlyTrend(t: SlopeSaid | null): string {
  if (!t) return 'No trend can be told from fewer than three days.';
  if (t.p >= CHANCE) return `No trend shown in ${t.n} days.`;
  return `Trend: ${figureText(Math.abs(t.slope), 2)} % a year ${t.slope < 0 ? 'slower' : 'faster'}, in ${t.n} days.`;
}

/**
 * The sentence of whether newer synthetic tests flatter the link.
 * @param t slope of their share of a desktop in points a year; null where it cannot be told
 * @returns a trend only where chance alone would show one like it in fewer than 5 of 100 cases
 */
export function agedTrend(t: SlopeSaid | null): string {
  if (!t) return 'A trend takes three tests of known year, each run here and in a desktop slot.';
  if (t.p >= CHANCE) return `No difference shown between older and newer tests, in ${t.n} tests.`;
  const way = t.slope > 0 ? 'higher in newer tests: they flatter the link' : 'lower in newer tests';
  return `The share of a desktop is ${figureText(Math.abs(t.slope), 2)} points a year ${way}, in ${t.n} tests.`;
}

/**
 * The sentence of how many repeats a cell of a comparison takes.
 * @param r repeats, null where they are out of reach; the least difference told by `most` repeats; the scatter of earlier
 *   ones as a share, null where the usual one stands for it
 * @returns repeats and the scatter they follow from, or what is within reach
 */
export function repeatsText(r: {
  repeats: number | null;
  least: number;
  scatter: { readonly cv: number; readonly freedom: number; readonly title: string } | null;
  most: number;
}): string {
  const from =
    r.scatter === null
      ? 'the usual scatter of 2 %'
      : `the scatter of ${r.scatter.title}, ${(100 * r.scatter.cv).toFixed(1)} % (${pluralize(r.scatter.freedom, 'repeat')})`;
  if (r.repeats !== null)
    return `${r.repeats} repeats a cell show it in 80 of 100 sessions, from ${from}.`;
  return `Not reachable with ${from}: ${r.most} repeats a cell tell ${figureText(100 * r.least, 2)} % or more apart.`;
}
