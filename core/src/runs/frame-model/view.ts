import type { FrameCell, FrameLink } from './cell';
import { solveLower } from './cholesky';
import { discrepancy } from './discrepancy';
import { compileCell, emptyShares, emptyTimes, frameTime, stageShares } from './frame-time';
import { emptyParameters } from './parameters';
import { type FramePosterior, rowCovariances, withCells } from './posterior';

export const FRAME_STAGES = ['processor', 'card', 'link', 'panel'] as const;
export type FrameStage = (typeof FRAME_STAGES)[number];
export const STAGE_COUNT = FRAME_STAGES.length;

/** A cell seen through each particle of a posterior. */
export interface CellView {
  readonly cell: FrameCell;
  readonly posterior: FramePosterior;
  readonly count: number;
  /** ln of the frame time without a cap in ms, with what the runs say the equations miss. */
  readonly ln: Float64Array;
  /** Covariances with the evidence, solved by its factor: what the runs explain of the discrepancy. */
  readonly explained: Float64Array;
  /** Standard deviation of ln that the runs leave open beside the parameters. */
  readonly openSd: number;
  /** Shares of the stages in the order of `FRAME_STAGES`, particle after particle; those of one sum to 1. */
  readonly shares: Float64Array;
  /** Work of the link with what does not fit the card's memory, and the way back to a panel, ms. */
  readonly linkMs: Float64Array;
  readonly panelMs: Float64Array;
}

/**
 * What a posterior says of a cell.
 * @param posterior the posterior
 * @param cell any cell; of a host, card, link or look that no evidence speaks of, its index or rate alone counts
 * @returns the cell seen through each particle
 */
export function viewCell(posterior: FramePosterior, cell: FrameCell): CellView {
  const wide = withCells(posterior, [cell]);
  const { particles, space, derive, likelihood, weights } = wide;
  const { count } = particles;
  const compiled = compileCell(cell, space);
  const covariances = rowCovariances(wide, cell);
  const rows = covariances.length;
  const p = emptyParameters(space);
  const times = emptyTimes();
  const share = emptyShares();
  const ln = new Float64Array(count);
  const linkMs = new Float64Array(count);
  const panelMs = new Float64Array(count);
  const shares = new Float64Array(count * STAGE_COUNT);
  for (let i = 0; i < count; i++) {
    derive(particles.z, i * space.size, p);
    let value = Math.log(frameTime(p, compiled, times));
    for (let k = 0; k < rows; k++) value += covariances[k]! * weights[i * rows + k]!;
    ln[i] = value;
    linkMs[i] = times.link + times.overflow;
    panelMs[i] = times.panel;
    stageShares(p, times, share);
    for (let s = 0; s < STAGE_COUNT; s++) shares[i * STAGE_COUNT + s] = share[FRAME_STAGES[s]!];
  }
  const explained = covariances;
  solveLower(likelihood.factor, explained);
  const open = discrepancy(cell, cell) - explained.reduce((a, b) => a + b * b, 0);
  return {
    cell,
    posterior: wide,
    count,
    ln,
    explained,
    openSd: Math.sqrt(Math.max(0, open)),
    shares,
    linkMs,
    panelMs,
  };
}

/**
 * Covariance of what is left open in two cells beside the parameters.
 * @param a a cell's view
 * @param b a view of another cell through the same posterior
 * @returns covariance of ln
 */
export function openCovariance(a: CellView, b: CellView): number {
  return (
    discrepancy(a.cell, b.cell) - a.explained.reduce((sum, x, i) => sum + x * b.explained[i]!, 0)
  );
}

/**
 * A cell over another link.
 * @param cell a cell
 * @param link the other link
 * @returns the cell over it
 */
export function withLink(cell: FrameCell, link: FrameLink): FrameCell {
  return { ...cell, link };
}
