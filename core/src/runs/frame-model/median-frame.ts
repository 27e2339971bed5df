import { quantile } from '../../base';
import {
  type FrameParams,
  type FrameRig,
  MS_PER_MB_GBPS,
  pictureMB,
  type Scene,
} from '../model/model';
import type { FrameCell } from './cell';
import { emptyTimes, frameTime } from './frame-time';
import type { FramePosterior } from './posterior';
import { rateOf } from './priors';
import { viewCell } from './view';

/** What frames of a cell are drawn by chance from: its stages at the middle of the posterior. */
export interface MedianFrame {
  readonly params: FrameParams;
  readonly rig: FrameRig;
  readonly scene: Scene;
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
  const cpuMs = Math.min(ms - panelMs, middle(stages.processor));
  const cardMs = Math.min(ms - panelMs, middle(stages.card));
  const linkMs = ms - panelMs - Math.max(cpuMs, cardMs);
  const downGbps = rateOf(cell.link.down);
  const upGbps = rateOf(cell.link.up);
  return {
    params: {
      cpuMs,
      cardMs,
      exponent: 0,
      trafficMB: (linkMs * downGbps) / MS_PER_MB_GBPS,
      streamed: 0,
      trips: 0,
      kappa: (panelMs * upGbps) / (MS_PER_MB_GBPS * pictureMB(cell.pixels)),
      workingGB: 0,
      touched: 0,
    },
    rig: { downGbps, upGbps, latencyUs: 0, memoryGB: null },
    scene: { pixels: cell.pixels, panel: cell.panel, capFps: cell.capFps },
  };
}
