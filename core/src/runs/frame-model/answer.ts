import { adviseRuns, type Advised, type Experiment } from './advice';
import type { FrameCell } from './cell';
import { type FrameForecast, forecastFrame, type LinkOverhead, overheadOf } from './forecast';
import type { Unused } from './evidence';
import { type KnownOfTitle, posteriorOf } from './kept-posteriors';
import { type LimiterAnswer, limiterOf } from './limiter';
import { type MedianFrame, medianFrame } from './median-frame';
import { type AssumedOrMeasured, restsOn } from './rests-on';

/** What a page wants to know of a title, in one question. */
export interface ModelQuestion extends KnownOfTitle {
  /** The cell whose limiter, overhead and next run are asked. */
  readonly here: FrameCell;
  /** Cells whose frames are asked. */
  readonly cells: readonly FrameCell[];
  readonly experiments: readonly Experiment[];
}

export interface ModelAnswer {
  readonly here: FrameForecast;
  readonly limiter: LimiterAnswer;
  readonly overhead: LinkOverhead | null;
  readonly restsOn: AssumedOrMeasured;
  readonly forecasts: readonly FrameForecast[];
  /** What the link costs each of the cells; null for graphics inside the processor. */
  readonly overheads: readonly (LinkOverhead | null)[];
  /** What frames of each of the cells are drawn by chance from. */
  readonly medians: readonly MedianFrame[];
  readonly advised: readonly Advised[];
  /** Evidence that was computed with, by id; what was left out, and what does not fit the others. */
  readonly used: readonly string[];
  readonly unused: readonly Unused[];
  readonly contradictions: readonly string[];
  readonly refined: boolean;
}

/**
 * Everything a page tells of a title on a rig, from one posterior: so that forecast, limiter and advice cannot contradict each other.
 * @param q the question
 * @returns the answer
 */
export function answerModel(q: ModelQuestion): ModelAnswer {
  const posterior = posteriorOf(q, q.here);
  return {
    here: forecastFrame(posterior, q.here),
    limiter: limiterOf(posterior, q.here),
    overhead: overheadOf(posterior, q.here),
    restsOn: restsOn(posterior, q.here),
    forecasts: q.cells.map((cell) => forecastFrame(posterior, cell)),
    overheads: q.cells.map((cell) => overheadOf(posterior, cell)),
    medians: q.cells.map((cell) => medianFrame(posterior, cell)),
    advised: adviseRuns(
      posterior,
      { kind: 'limiter', cell: { ...q.here, capFps: null } },
      q.experiments,
    ),
    used: posterior.evidence.map((e) => e.id),
    unused: posterior.unused,
    contradictions: posterior.contradictions,
    refined: q.refined,
  };
}
