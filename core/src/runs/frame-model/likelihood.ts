import { cellKey, type FrameCell } from './cell';
import { choleskyFactor, type PackedFactor, solveLower } from './cholesky';
import { discrepancy } from './discrepancy';
import { cellsOfEvidence, type FrameEvidence } from './evidence';
import { type CompiledCell, compileCell, emptyTimes, frameTime } from './frame-time';
import { lnNormalCdf } from './normal';
import type { ParameterSpace } from './parameters';

/** Scatter of ln of the frame time from repeat to repeat that is taken before any repeat was made, and what it counts for (judgement). */
const REPEAT_SD = 0.013;
const REPEAT_WEIGHT = 4;
const ABOUT_SD = 0.04;
/** The median of a run lies below its mean: ln, and how far that can be off (judgement). */
const MEDIAN_BELOW = 0.02;
const MEDIAN_SD = 0.02;
const RATIO_SD = 0.03;
const ABOUT_RATIO_SD = 0.06;
const CARD_RATIO_SD = 0.08;
const BOUND_SD = 0.03;
const CAP_SD = 0.02;
/** Points say nothing of the frame time itself: variance of ln of the factor between them. */
const POINTS_VARIANCE = 9;
/** Load meters: how far they miss, how often they mean something else, and the density of that above and below the model (judgement). */
const LOAD_SD = 0.08;
const LOAD_WIDE = 0.12;
const LOAD_ABOVE = 1.6;
const LOAD_BELOW = 0.4;

/** A piece of evidence that is linear in ln of frame times: sum of factor times ln t is `y`, but for noise. */
export interface EvidenceRow {
  readonly id: string;
  readonly terms: readonly { readonly cell: number; readonly factor: number }[];
  readonly y: number;
  readonly noise: number;
  readonly benchmark: string | null;
}

/** Everything about the evidence that does not depend on the parameters. */
export interface Likelihood {
  readonly cells: readonly FrameCell[];
  readonly compiled: readonly CompiledCell[];
  readonly rows: readonly EvidenceRow[];
  /** Factor of the covariance of the rows: discrepancy and noise. */
  readonly factor: PackedFactor;
  /** Scatter of ln of the frame time from repeat to repeat. */
  readonly repeatSd: number;
  /**
   * Logarithm of the likelihood, but for a constant.
   * @param p parameters, those of a particle from `at` on
   * @param at place of the first
   * @returns ln of the likelihood; `lnTimes` are filled on the way
   */
  readonly evaluate: (p: Float64Array, at: number) => number;
  /** ln of the frame time of each cell, of the parameters that were evaluated last. */
  readonly lnTimes: Float64Array;
}

/**
 * Scatter of ln of the frame time from repeat to repeat, pooled over all cells that were repeated.
 * @param evidence evidence of one title; not modified
 * @returns the standard deviation
 * @example repeatScatter([]) // => 0.013
 */
export function repeatScatter(evidence: readonly FrameEvidence[]): number {
  let squares = REPEAT_WEIGHT * REPEAT_SD ** 2;
  let weight = REPEAT_WEIGHT;
  for (const e of evidence) {
    if (e.kind !== 'runs') continue;
    const ln = e.ms.map(Math.log);
    const mean = ln.reduce((a, b) => a + b, 0) / ln.length;
    squares += ln.reduce((a, b) => a + (b - mean) ** 2, 0);
    weight += ln.length - 1;
  }
  return Math.sqrt(squares / weight);
}

const halfDigit = (e: { fps: number; lastDigit: number }) => e.lastDigit / 2 / e.fps;

function rowOf(
  e: FrameEvidence,
  place: (c: FrameCell) => number,
  r: number,
): Omit<EvidenceRow, 'id'> | null {
  const one = (factor: number, cell: FrameCell) => [{ cell: place(cell), factor }];
  switch (e.kind) {
    case 'runs': {
      const y = e.ms.reduce((a, ms) => a + Math.log(ms), 0) / e.ms.length;
      const noise = r / Math.sqrt(e.ms.length);
      const median = e.average === 'median';
      return {
        terms: one(1, e.cell),
        y: median ? y + MEDIAN_BELOW : y,
        noise: median ? Math.hypot(noise, MEDIAN_SD) : noise,
        benchmark: null,
      };
    }
    case 'stated':
      return {
        terms: one(1, e.cell),
        y: Math.log(1000 / e.fps),
        noise: e.about ? ABOUT_SD : Math.hypot(r, halfDigit(e)),
        benchmark: null,
      };
    case 'ratio':
      return {
        terms: [
          { cell: place(e.cell), factor: 1 },
          { cell: place(e.other), factor: -1 },
        ],
        y: -Math.log(e.ratio),
        noise: Math.hypot(e.about ? ABOUT_RATIO_SD : RATIO_SD, e.rounding),
        benchmark: null,
      };
    case 'points':
      return {
        terms: one(-1, e.cell),
        y: Math.log(e.points),
        noise: r,
        benchmark: e.benchmark,
      };
    default:
      return null;
  }
}

/** ln of the likelihood of a piece of evidence that is not linear in ln t. */
type Term = (p: Float64Array, at: number, lnTimes: Float64Array, cardMs: Float64Array) => number;

function termOf(
  e: FrameEvidence,
  place: (c: FrameCell) => number,
  space: ParameterSpace,
): Term | null {
  switch (e.kind) {
    case 'bound': {
      const own = place(e.cell);
      const bound = Math.log(1000 / e.fps);
      const sign = e.side === 'at-least' ? 1 : -1;
      return (_p, _at, lnTimes) => lnNormalCdf((sign * (bound - lnTimes[own]!)) / BOUND_SD);
    }
    case 'held': {
      const own = place(e.cell);
      const period = Math.log(1000 / e.cell.capFps!);
      return (_p, _at, lnTimes) => lnNormalCdf((period - lnTimes[own]!) / CAP_SD);
    }
    case 'load': {
      const own = place(e.cell);
      const cap = e.cell.capFps === null ? 0 : 1000 / e.cell.capFps;
      return (_p, _at, lnTimes, cardMs) => {
        const model = Math.min(1, cardMs[own]! / Math.max(cap, Math.exp(lnTimes[own]!)));
        const miss = (e.load - model) / LOAD_SD;
        const narrow = Math.exp(-0.5 * miss * miss) / (LOAD_SD * Math.sqrt(2 * Math.PI));
        const wide = e.load > model ? LOAD_ABOVE : LOAD_BELOW;
        return Math.log((1 - LOAD_WIDE) * narrow + LOAD_WIDE * wide);
      };
    }
    case 'card-ratio': {
      const a = space.cards.find((c) => c.id === e.card.id)!.at;
      const b = space.cards.find((c) => c.id === e.other.id)!.at;
      const ratio = Math.log(e.ratio);
      return (p, at) => {
        const miss = (Math.log(p[at + a]! / p[at + b]!) + ratio) / CARD_RATIO_SD;
        return -0.5 * miss * miss;
      };
    }
    default:
      return null;
  }
}

/**
 * The likelihood of a list of evidence.
 * @param evidence what can be used, ordered; not modified
 * @param space the parameter space, with a place for all it speaks of
 * @param noiseFactors by what the noise of a row is multiplied, by id; of rows that contradict the others
 * @returns the likelihood
 */
export function likelihoodOf(
  evidence: readonly FrameEvidence[],
  space: ParameterSpace,
  noiseFactors: ReadonlyMap<string, number> = new Map(),
): Likelihood {
  const cells = [
    ...new Map(evidence.flatMap(cellsOfEvidence).map((c) => [cellKey(c), c])).values(),
  ];
  const places = new Map(cells.map((c, i) => [cellKey(c), i]));
  const place = (c: FrameCell) => places.get(cellKey(c))!;
  const r = repeatScatter(evidence);
  const rows = evidence.flatMap((e) => {
    const row = rowOf(e, place, r);
    return row ? [{ ...row, id: e.id, noise: row.noise * (noiseFactors.get(e.id) ?? 1) }] : [];
  });
  const terms = evidence.flatMap((e) => termOf(e, place, space) ?? []);
  const compiled = cells.map((c) => compileCell(c, space));
  const factor = choleskyFactor(rows.length, (i, j) => rowCovariance(rows[i]!, rows[j]!, cells));
  const lnTimes = new Float64Array(cells.length);
  const cardMs = new Float64Array(cells.length);
  const residuals = new Float64Array(rows.length);
  const times = emptyTimes();
  const evaluate = (p: Float64Array, at: number) => {
    for (let i = 0; i < compiled.length; i++) {
      lnTimes[i] = Math.log(frameTime(p, at, compiled[i]!, times));
      cardMs[i] = times.card;
    }
    fillResiduals(rows, lnTimes, residuals);
    solveLower(factor, residuals);
    let ln = 0;
    for (const miss of residuals) ln -= 0.5 * miss * miss;
    for (const term of terms) ln += term(p, at, lnTimes, cardMs);
    return ln;
  };
  return { cells, compiled, rows, factor, repeatSd: r, evaluate, lnTimes };
}

/**
 * What the equations miss of each row.
 * @param rows linear evidence
 * @param lnTimes ln of the frame time of each cell
 * @param into filled with the residuals
 */
export function fillResiduals(
  rows: readonly EvidenceRow[],
  lnTimes: Float64Array,
  into: Float64Array,
): void {
  for (let i = 0; i < rows.length; i++) {
    const row = rows[i]!;
    let miss = row.y;
    for (const t of row.terms) miss -= t.factor * lnTimes[t.cell]!;
    into[i] = miss;
  }
}

function rowCovariance(a: EvidenceRow, b: EvidenceRow, cells: readonly FrameCell[]): number {
  let sum = a === b ? a.noise ** 2 : 0;
  if (a.benchmark !== null && a.benchmark === b.benchmark) sum += POINTS_VARIANCE;
  for (const s of a.terms)
    for (const t of b.terms)
      sum += s.factor * t.factor * discrepancy(cells[s.cell]!, cells[t.cell]!);
  return sum;
}
