import type { FrameCell, FrameLink } from './cell';
import { solveLower } from './cholesky';
import { discrepancy } from './discrepancy';
import {
  type CompiledCell,
  compileCell,
  emptyShares,
  emptyTimes,
  frameTime,
  stageShares,
} from './frame-time';
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
  readonly compiled: CompiledCell;
}

/**
 * What a posterior says of a cell.
 * @param posterior the posterior
 * @param cell any cell; of a host, card, link or look that no evidence speaks of, its index or rate alone counts
 * @returns the cell seen through each particle
 */
export function viewCell(posterior: FramePosterior, cell: FrameCell): CellView {
  const wide = withCells(posterior, [cell]);
  const { particles, space, parameters, likelihood, weights } = wide;
  const { count } = particles;
  const compiled = compileCell(cell, space);
  const covariances = rowCovariances(wide, cell);
  const rows = covariances.length;
  const times = emptyTimes();
  const ln = new Float64Array(count);
  for (let i = 0; i < count; i++) {
    let value = Math.log(frameTime(parameters, i * space.size, compiled, times));
    for (let k = 0; k < rows; k++) value += covariances[k]! * weights[i * rows + k]!;
    ln[i] = value;
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
    compiled,
  };
}

/**
 * Shares of a frame by stage: what 1 % more speed of each would bring.
 * @param view a cell seen through a posterior
 * @returns shares in the order of `FRAME_STAGES`, particle after particle; those of one sum to 1
 */
export function sharesOf(view: CellView): Float64Array {
  const { space, parameters } = view.posterior;
  const times = emptyTimes();
  const share = emptyShares();
  const shares = new Float64Array(view.count * STAGE_COUNT);
  for (let i = 0; i < view.count; i++) {
    frameTime(parameters, i * space.size, view.compiled, times);
    stageShares(parameters, i * space.size, times, share);
    const first = i * STAGE_COUNT;
    shares[first] = share.processor;
    shares[first + 1] = share.card;
    shares[first + 2] = share.link;
    shares[first + 3] = share.panel;
  }
  return shares;
}

/**
 * Work of the link, with what does not fit the card's memory, or of the way back to a panel.
 * @param view a cell seen through a posterior
 * @param stage which of the two
 * @returns ms of each particle, as the equations have them
 */
export function stageWork(view: CellView, stage: 'link' | 'panel'): Float64Array {
  const { space, parameters } = view.posterior;
  const times = emptyTimes();
  return Float64Array.from({ length: view.count }, (_, i) => {
    frameTime(parameters, i * space.size, view.compiled, times);
    return stage === 'panel' ? times.panel : times.link + times.overflow;
  });
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
