import { median } from '../../base';
import type { Banded } from './forecast-types';

/** A prediction that was made before its run, and what the run then was. Frames/s. */
export interface PredictionOutcome {
  readonly predicted: Banded;
  readonly measured: number;
}
/** How well predictions held: how many within 5 % of the measured rate, how many inside their own band, and the middle error. */
export interface Score {
  readonly n: number;
  readonly within: number;
  readonly inBand: number;
  /** Median of predicted over measured, less one: above 0 the predictions were too fast. */
  readonly bias: number | null;
}

/** A prediction holds when it lies within this share of what was measured (house rule of the trade, common practice). */
export const HOLDS = 0.05;

/** The running score of predictions. Bands that hold 95 of 100 would have inBand near 0.95 n. */
export function scoreOf(list: readonly PredictionOutcome[]): Score {
  const errors = list.map((h) => h.predicted.mid / h.measured - 1);
  return {
    n: list.length,
    within: errors.filter((e) => Math.abs(e) <= HOLDS).length,
    inBand: list.filter((h) => h.measured >= h.predicted.lo && h.measured <= h.predicted.hi).length,
    bias: list.length === 0 ? null : median(errors),
  };
}
