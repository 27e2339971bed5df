import { quantile } from '../../base';
import { cellKey, type FrameCell } from './cell';
import { cellsOfEvidence, type FrameEvidence } from './evidence';
import { SAY_LIMITER, shownChance } from './limiter';
import type { FramePosterior } from './posterior';
import { type CellView, openCovariance, sharesOf, STAGE_COUNT, viewCell } from './view';

/** A run that could be made. */
export interface Experiment {
  readonly id: string;
  readonly cell: FrameCell;
  /** Of a run at another clock or power limit: the same cell as it usually runs, which is run with it. */
  readonly against: FrameCell | null;
  readonly minutes: number;
}

/** What shall be known: which stage limits a cell, or a figure of each particle in its eight equal parts. */
export type FrameMatter =
  | { readonly kind: 'limiter'; readonly cell: FrameCell }
  | { readonly kind: 'forecast'; readonly cell: FrameCell }
  /** Which of two cells is faster. */
  | { readonly kind: 'choice'; readonly a: FrameCell; readonly b: FrameCell };

export interface Advised {
  readonly experiment: Experiment;
  /** Bits the run tells of the matter on average. */
  readonly bits: number;
  /** Chance that the matter is settled after it; null where it is a figure. */
  readonly settles: number | null;
}

/** Minutes that any run takes beside its preparation (judgement). */
const RUN_MINUTES = 2;
const BINS = 64;
const REACH_SDS = 3;
const OCTILES = 8;
/** Below this a run is not worth making. */
export const LEAST_BITS = 0.05;

interface Labels {
  readonly of: Int32Array;
  readonly count: number;
}

function largestShare(view: CellView): Labels {
  const shares = sharesOf(view);
  const of = Int32Array.from({ length: view.count }, (_, i) => {
    let best = 0;
    for (let s = 1; s < STAGE_COUNT; s++)
      if (shares[i * STAGE_COUNT + s]! > shares[i * STAGE_COUNT + best]!) best = s;
    return best;
  });
  return { of, count: STAGE_COUNT };
}

function octiles(values: Float64Array): Labels {
  const sorted = values.slice().sort();
  const cuts = Array.from({ length: OCTILES - 1 }, (_, i) => quantile(sorted, (i + 1) / OCTILES));
  const of = Int32Array.from(values, (v) => cuts.filter((c) => v > c).length);
  return { of, count: OCTILES };
}

function labelsOf(posterior: FramePosterior, matter: FrameMatter): Labels {
  if (matter.kind === 'limiter') return largestShare(viewCell(posterior, matter.cell));
  if (matter.kind === 'forecast') return octiles(viewCell(posterior, matter.cell).ln);
  const a = viewCell(posterior, matter.a).ln;
  const b = viewCell(posterior, matter.b).ln;
  return { of: Int32Array.from(a, (ln, i) => Number(ln < b[i]!)), count: 2 };
}

/** What a run would show: of each particle the mean of ln, and the scatter around it. */
interface Outcome {
  readonly mean: Float64Array;
  readonly sd: number;
}

function outcomeOf(posterior: FramePosterior, experiment: Experiment): Outcome {
  const view = viewCell(posterior, experiment.cell);
  const r = posterior.likelihood.repeatSd;
  if (!experiment.against) {
    const capMs = experiment.cell.capFps === null ? 0 : 1000 / experiment.cell.capFps;
    const floor = Math.log(capMs);
    return { mean: view.ln.map((ln) => Math.max(ln, floor)), sd: Math.hypot(view.openSd, r) };
  }
  const usual = viewCell(posterior, experiment.against);
  const open = view.openSd ** 2 + usual.openSd ** 2 - 2 * openCovariance(view, usual);
  return {
    mean: view.ln.map((ln, i) => ln - usual.ln[i]!),
    sd: Math.sqrt(Math.max(0, open) + 2 * r * r),
  };
}

/** Densities of an outcome for each label, times the label's share, on equal bins; smoothed by the scatter. */
function densities(outcome: Outcome, labels: Labels): Float64Array[] {
  const lo = outcome.mean.reduce((a, b) => Math.min(a, b), Infinity) - REACH_SDS * outcome.sd;
  const hi = outcome.mean.reduce((a, b) => Math.max(a, b), -Infinity) + REACH_SDS * outcome.sd;
  const width = (hi - lo) / BINS;
  const weight = 1 / outcome.mean.length;
  const counts = Array.from({ length: labels.count }, () => new Float64Array(BINS));
  outcome.mean.forEach((u, i) => {
    const bin = Math.min(BINS - 1, Math.floor((u - lo) / width));
    counts[labels.of[i]!]![bin]! += weight;
  });
  const kernel = Array.from({ length: 2 * BINS - 1 }, (_, k) =>
    Math.exp(-0.5 * (((k - BINS + 1) * width) / outcome.sd) ** 2),
  );
  return counts.map((row) => {
    const smooth = new Float64Array(BINS);
    row.forEach((mass, from) => {
      if (mass === 0) return;
      // What a bin holds stays in sight: its kernel is cut at the ends and scaled to 1.
      let sum = 0;
      for (let to = 0; to < BINS; to++) sum += kernel[to - from + BINS - 1]!;
      for (let to = 0; to < BINS; to++) smooth[to]! += (mass * kernel[to - from + BINS - 1]!) / sum;
    });
    return smooth;
  });
}

/**
 * What a run would tell of a matter: the mutual information of its outcome and the answer.
 *
 * Source: D. V. Lindley, Annals of Mathematical Statistics 27 (1956), 986-1005 (information of an experiment); G. A. Miller, Information
 * Theory in Psychology (1955), 95-100 (bias of counted information).
 * @param posterior what is known of the title
 * @param matter what shall be known
 * @param experiment a run that could be made
 * @returns bits, and the chance that the matter is settled by it
 */
export function informationOf(
  posterior: FramePosterior,
  matter: FrameMatter,
  experiment: Experiment,
): { readonly bits: number; readonly settles: number | null } {
  return informationAbout(posterior, labelsOf(posterior, matter), matter, experiment);
}

function informationAbout(
  posterior: FramePosterior,
  labels: Labels,
  matter: FrameMatter,
  experiment: Experiment,
): { readonly bits: number; readonly settles: number | null } {
  const outcome = outcomeOf(posterior, experiment);
  const rows = densities(outcome, labels);
  const shares = rows.map((row) => row.reduce((a, b) => a + b, 0));
  let bits = 0;
  let settles = 0;
  for (let bin = 0; bin < BINS; bin++) {
    const all = rows.reduce((a, row) => a + row[bin]!, 0);
    if (all <= 0) continue;
    let top = 0;
    for (const [label, row] of rows.entries()) {
      const joint = row[bin]!;
      if (joint > 0) bits += joint * Math.log2(joint / (all * shares[label]!));
      top = Math.max(top, joint / all);
    }
    if (shownChance(top) >= SAY_LIMITER) settles += all;
  }
  const present = shares.filter((s) => s > 0).length;
  const bias = (8 * (present - 1)) / (2 * labels.of.length * Math.LN2);
  return {
    bits: Math.max(0, bits - bias),
    settles: matter.kind === 'forecast' ? null : settles,
  };
}

/** What people say of a cell, with no run of it. */
const SAID: readonly FrameEvidence['kind'][] = ['stated', 'ratio', 'bound'];

/** Has this run been made? Then it is not advised again: a repeat tells of the scatter, not of the matter. */
function isRecorded(posterior: FramePosterior, experiment: Experiment): boolean {
  const key = cellKey(experiment.cell);
  return posterior.evidence
    .filter((e) => !SAID.includes(e.kind))
    .some((e) => cellsOfEvidence(e).some((c) => cellKey(c) === key));
}

/**
 * Which run to make next: of those that can be made, the ones that tell most of a matter for their minutes.
 * @param posterior what is known of the title
 * @param matter what shall be known
 * @param experiments runs that could be made; those that cannot are left out by the caller
 * @returns up to three, the best first; none where no run would tell anything
 */
export function adviseRuns(
  posterior: FramePosterior,
  matter: FrameMatter,
  experiments: readonly Experiment[],
): Advised[] {
  const labels = labelsOf(posterior, matter);
  return experiments
    .flatMap((experiment): Advised[] => {
      if (isRecorded(posterior, experiment)) return [];
      const { bits, settles } = informationAbout(posterior, labels, matter, experiment);
      return bits < LEAST_BITS ? [] : [{ experiment, bits, settles }];
    })
    .sort((a, b) => score(b) - score(a) || (a.experiment.id < b.experiment.id ? -1 : 1))
    .slice(0, 3);
}

const score = (a: Advised) => a.bits / (a.experiment.minutes + RUN_MINUTES);
