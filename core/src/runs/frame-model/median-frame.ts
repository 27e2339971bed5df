import { quantile } from '../../base';
import type { FrameCell } from './cell';
import { emptyTimes, frameTime } from './frame-time';
import type { FramePosterior } from './posterior';
import { rateOf } from './priors';
import { viewCell } from './view';

/** What frames of a cell are drawn by chance from: its stages at the middle of the posterior, ms. */
export interface MedianFrame {
  readonly processorMs: number;
  readonly cardMs: number;
  /** What the longer of the two leaves of the frame. */
  readonly linkMs: number;
  readonly panelMs: number;
  /** 0 without a cap. */
  readonly capMs: number;
  /** Gb/s to the card. */
  readonly downGbps: number;
}

/**
 * The stages of a cell at the middle of the posterior, so that frames can be drawn by chance whose mean is the forecast: processor and
 * card as they are, and what is left of the frame on the link.
 * @param posterior what is known of the title
 * @param cell the cell that is asked
 * @returns figures for `simulateFrames`
 */
export function medianFrame(posterior: FramePosterior, cell: FrameCell): MedianFrame {
  const view = viewCell(posterior, cell);
  const { space, parameters } = view.posterior;
  const stages = { processor: [] as number[], card: [] as number[], panel: [] as number[] };
  const times = emptyTimes();
  for (let i = 0; i < view.count; i++) {
    frameTime(parameters, i * space.size, view.compiled, times);
    stages.processor.push(times.processor);
    stages.card.push(times.card);
    stages.panel.push(times.panel);
  }
  const middle = (values: number[]) =>
    quantile(
      values.sort((a, b) => a - b),
      0.5,
    );
  const ms = Math.exp(quantile(view.ln.slice().sort(), 0.5));
  const panelMs = Math.min(ms / 2, middle(stages.panel));
  // Stages overlap: neither may be longer than what is left of the frame.
  const processorMs = Math.min(ms - panelMs, middle(stages.processor));
  const cardMs = Math.min(ms - panelMs, middle(stages.card));
  return {
    processorMs,
    cardMs,
    linkMs: ms - panelMs - Math.max(processorMs, cardMs),
    panelMs,
    capMs: cell.capFps === null ? 0 : 1000 / cell.capFps,
    downGbps: rateOf(cell.link.down),
  };
}
