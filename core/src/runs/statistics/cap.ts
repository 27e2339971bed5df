import { meanOf, quantile } from '../../base';

/** Rates a screen or a limiter holds frames to: usual refresh rates, their halves, and usual limits. Common practice, no published source. */
const USUAL = [
  24, 30, 36, 40, 45, 48, 50, 60, 72, 75, 80, 82.5, 90, 95, 100, 120, 141, 144, 158, 160, 165, 170,
  175, 180, 200, 240, 280, 300, 360,
] as const;

export interface Cap {
  readonly fps: number;
  /** Share of the seconds that reach it, 0 to 1. */
  readonly share: number;
}

const AT = 0.012;
const MOST = 0.5;

/** Frames a cap lets through scatter less than this, as the middle half over the median. */
const TIGHT = 0.04;
/** A cap evens out: the rates of its seconds scatter less than this share of what independent frames would give. */
const EVENED = 0.35;

/** Is something holding the frames, whatever the rate? Either they are all alike, or each late one is made up for. */
function isHeld(perSecond: readonly number[], sorted: ArrayLike<number>, cv: number): boolean {
  const middle = quantile(sorted, 0.5);
  if ((quantile(sorted, 0.75) - quantile(sorted, 0.25)) / middle < TIGHT) return true;
  const { mean, sd } = meanOf(perSecond);
  return (sd ?? 0) / mean < (EVENED * cv) / Math.sqrt(mean);
}

/**
 * A limit that holds the frames: at least half of the whole seconds lie within 1.2 % of one usual rate (or of the
 * one that was set), hardly one goes over it, and the frames are more even than a free run's. A free run that is
 * very steady at such a rate looks the same: what is found "looks like" a limit. Common practice, no published
 * source.
 * @param perSecond frames/s of whole seconds
 * @param sorted frame times in ms, rising
 * @param cv their standard deviation over their mean
 * @param set the limit that was set, frames/s; null where none is known
 * @returns the limit and the share of seconds at it; null where none shows
 */
export function findCap(
  perSecond: readonly number[],
  sorted: ArrayLike<number>,
  cv: number,
  set: number | null,
): Cap | null {
  if (perSecond.length < 5 || !isHeld(perSecond, sorted, cv)) return null;
  const best = [...(set ? [set] : []), ...USUAL]
    .map((fps) => ({
      fps,
      share: perSecond.filter((v) => Math.abs(v / fps - 1) <= AT).length / perSecond.length,
      over: perSecond.filter((v) => v > fps * (1 + AT)).length / perSecond.length,
    }))
    .filter((c) => c.share >= MOST && c.over <= 0.02)
    .reduce<(Cap & { over: number }) | null>((a, b) => (a && a.share >= b.share ? a : b), null);
  return best ? { fps: best.fps, share: best.share } : null;
}

/**
 * How long a run starts otherwise than it goes on: the first seconds, up to a fifth of the run, whose rate is off by
 * more than 15 % from the median of the rest, until one is near it. Common practice, no published source.
 * @param rates frames/s of whole seconds
 * @returns seconds; 0 where it starts as it goes on
 */
export function sceneStart(rates: readonly number[]): number {
  if (rates.length < 10) return 0;
  const most = Math.floor(rates.length / 5);
  const rest = rates.slice(most).sort((a, b) => a - b);
  const usual = rest[rest.length >> 1] as number;
  const near = rates.findIndex((v) => Math.abs(v / usual - 1) <= 0.15);
  return near > 0 && near <= most ? near : 0;
}
