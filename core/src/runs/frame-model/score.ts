import { median } from '../../base';
import { BAND_SHARES, type Bands, type BandShare } from './bands';

/** Version of equations, priors and bands: it changes when a stored forecast could come out otherwise. */
export const FRAME_MODEL_VERSION = '1';

/** A forecast that was made before its run, and what the run then was. Frames/s. */
export interface SettledForecast {
  readonly fps: Bands;
  readonly measured: number;
}

/** Half-width of the 80 % band as a share of the middle, up to which a forecast counts as narrow, and as middling. */
export const WIDTHS = { narrow: 0.05, middling: 0.15, wide: Infinity } as const;
export type Width = keyof typeof WIDTHS;

/** How many forecasts there were, and how many runs lay inside each band. */
export interface BandHits {
  readonly n: number;
  readonly held: Readonly<Record<BandShare, number>>;
}

/** How well forecasts held. */
export interface ForecastScore extends BandHits {
  /** Within 5 % of what was measured. */
  readonly within: number;
  /** Median of forecast over measured, less one: above 0 forecasts were too fast. Null without any. */
  readonly bias: number | null;
  readonly byWidth: Readonly<Record<Width, BandHits>>;
}

/** A forecast holds when it lies within this share of what was measured (house rule of the trade, common practice). */
const HOLDS = 0.05;

const widthOf = ({ mid, 80: { lo, hi } }: Bands): Width => {
  const half = (hi - lo) / 2 / mid;
  return half <= WIDTHS.narrow ? 'narrow' : half <= WIDTHS.middling ? 'middling' : 'wide';
};

function hitsOf(list: readonly SettledForecast[]): BandHits {
  const inside = (share: BandShare) =>
    list.filter(({ fps, measured }) => measured >= fps[share].lo && measured <= fps[share].hi)
      .length;
  const [few, most, all] = BAND_SHARES.map(inside) as [number, number, number];
  return { n: list.length, held: { 50: few, 80: most, 95: all } };
}

/**
 * How well forecasts held that were made before their runs. Bands that are right hold 50, 80 and 95 of 100.
 * @param list forecasts with what was then measured
 * @returns counts over all of them, and by the width of the 80 % band
 */
export function scoreForecasts(list: readonly SettledForecast[]): ForecastScore {
  const errors = list.map((f) => f.fps.mid / f.measured - 1);
  const ofWidth = (width: Width) => hitsOf(list.filter((f) => widthOf(f.fps) === width));
  return {
    ...hitsOf(list),
    within: errors.filter((e) => Math.abs(e) <= HOLDS).length,
    bias: list.length === 0 ? null : median(errors),
    byWidth: { narrow: ofWidth('narrow'), middling: ofWidth('middling'), wide: ofWidth('wide') },
  };
}
