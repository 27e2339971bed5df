import { quantile, type Range } from '../../base';
import calibration from './calibration.json';
import { normalCdf, normalQuantile } from './normal';

/** Share of cases that a band should hold. */
export const BAND_SHARES = [50, 80, 95] as const;
export type BandShare = (typeof BAND_SHARES)[number];

/** A figure with the bands in which the truth lies with a chance of 50, 80 and 95 %. */
export interface Bands {
  readonly mid: number;
  readonly 50: Range;
  readonly 80: Range;
  readonly 95: Range;
}

/** A figure with one band. */
export interface Banded extends Range {
  readonly mid: number;
}

/**
 * The median with the band that holds 80 of 100.
 * @param bands median and bands
 * @returns median and one band, in the same unit
 * @example eightyBand({ mid: 5, 50: { lo: 4, hi: 6 }, 80: { lo: 3, hi: 7 }, 95: { lo: 2, hi: 8 } }) // => { mid: 5, lo: 3, hi: 7 }
 */
export function eightyBand(bands: Bands): Banded {
  return { mid: bands.mid, ...bands[80] };
}

/** By what the normal quantile of each band is stretched, by the half-width of the raw 80 % band as ln; counted in the zoo. */
export interface BandCalibration {
  readonly below: number | null;
  readonly stretch: Readonly<Record<BandShare, number>>;
}

const CALIBRATION: readonly BandCalibration[] = calibration.bands;

/**
 * Half-width of the raw 80 % band.
 * @param sortedLn draws of ln of a frame time, in rising order
 * @returns half-width as ln
 */
export function rawHalfWidth(sortedLn: Float64Array): number {
  return (quantile(sortedLn, 0.9) - quantile(sortedLn, 0.1)) / 2;
}

/**
 * Median and bands of draws.
 * @param sorted draws in rising order, any unit
 * @param halfWidth half-width of the raw 80 % band of the frame time they come from, as ln
 * @param calibrated false for the raw quantiles
 * @returns median and bands in the unit of the draws; no band reaches beyond the draws
 */
export function bandsOf(sorted: Float64Array, halfWidth: number, calibrated = true): Bands {
  const row = CALIBRATION.find((c) => c.below === null || halfWidth < c.below);
  const least = 1 / sorted.length;
  const band = (share: BandShare): Range => {
    const stretch = calibrated ? (row?.stretch[share] ?? 1) : 1;
    const tail = Math.max(least, normalCdf(-stretch * normalQuantile(0.5 + share / 200)));
    return { lo: quantile(sorted, tail), hi: quantile(sorted, 1 - tail) };
  };
  return { mid: quantile(sorted, 0.5), 50: band(50), 80: band(80), 95: band(95) };
}

/**
 * Bands of another unit of the same figure.
 * @param bands median and bands
 * @param f a function that only rises or only falls
 * @returns median and bands of what `f` makes of them
 */
export function mapBands(bands: Bands, f: (value: number) => number): Bands {
  const map = (r: Range): Range => {
    const a = f(r.lo);
    const b = f(r.hi);
    return { lo: Math.min(a, b), hi: Math.max(a, b) };
  };
  return { mid: f(bands.mid), 50: map(bands[50]), 80: map(bands[80]), 95: map(bands[95]) };
}
