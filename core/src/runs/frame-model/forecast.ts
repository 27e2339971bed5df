import { directRates, LATENCY_US } from '../rig';
import { type Bands, bandsOf, mapBands, rawHalfWidth } from './bands';
import type { ForecastBasis } from './basis';
import { cellKey, type FrameCell, type FrameLink } from './cell';
import { type Drawn, drawDifference, drawLn } from './draws';
import { cellsOfEvidence } from './evidence';
import type { FramePosterior } from './posterior';
import { type CellView, stageWork, viewCell, withLink } from './view';

export interface FrameForecast {
  readonly cell: FrameCell;
  /** ms of a frame and frames of a second, with the cap of the cell. */
  readonly ms: Bands;
  readonly fps: Bands;
  /** Share of draws in which the cap of the cell holds the frames; 0 without one. */
  readonly capped: number;
  readonly basis: ForecastBasis;
  /** The link was never measured: the forecast rests on what titles usually send. */
  readonly unmeasuredLink: boolean;
}

/** What the way to the card and back costs a frame. */
export interface LinkOverhead {
  /** Against a wide direct slot: ms, and as a share of the frame. */
  readonly ms: Bands;
  readonly share: Bands;
  /** The way back to a panel, ms; null without a panel. */
  readonly panelMs: Bands | null;
}

const WIDE = directRates({ lo: 4, hi: 4 }, { lo: 16, hi: 16 }, {});
/** A direct slot of generation 4 with 16 lanes, against which the overhead of a link is told: usable Gb/s and ms of a round trip. */
export const WIDE_SLOT: FrameLink = {
  id: 'slot of generation 4 with 16 lanes',
  down: WIDE.down,
  up: WIDE.up,
  latencyMs: LATENCY_US.direct / 1000,
};

function basisOf(posterior: FramePosterior, cell: FrameCell): ForecastBasis {
  const cells = posterior.evidence.flatMap(cellsOfEvidence);
  if (cells.length === 0) return 'start';
  const own = new Set(
    posterior.evidence.flatMap((e) =>
      'cell' in e && cellKey(e.cell) === cellKey(cell) ? e.kind : [],
    ),
  );
  if (own.has('runs')) return 'measured';
  if (own.has('stated')) return 'stated';
  const near = cells.some(
    (c) => c.host.id === cell.host.id && c.card.id === cell.card.id && c.link.id === cell.link.id,
  );
  return near ? 'near' : 'far';
}

/** Median and bands of draws of a frame time, capped where the cell is. */
function timeBands(
  ln: Float64Array,
  capMs: number,
  calibrated: boolean,
): { ms: Bands; half: number; capped: number } {
  const order = ln.sort();
  const half = rawHalfWidth(order);
  const free = mapBands(bandsOf(order, half, calibrated), Math.exp);
  const over = order.findIndex((l) => Math.exp(l) >= capMs);
  return {
    half,
    ms: capMs === 0 ? free : mapBands(free, (ms) => Math.max(ms, capMs)),
    capped: capMs === 0 ? 0 : (over === -1 ? order.length : over) / order.length,
  };
}

/**
 * Draws of what the link costs a frame against another link: the same cell over that one.
 * @param view a cell seen through a posterior
 * @param reference the link to hold it against
 * @returns two draws for each particle, ms
 */
export function overheadDraws(view: CellView, reference: FrameLink): Float64Array {
  const other = viewCell(view.posterior, withLink(view.cell, reference));
  return drawDifference(view, other);
}

interface ForecastOptions {
  /** The true mean frame time, or a run that would be measured, which is the default. */
  readonly drawn?: Drawn;
  /** False for bands as drawn. */
  readonly calibrated?: boolean;
}

/**
 * The frame time of a cell with its bands.
 * @param posterior what is known of the title
 * @param cell the cell that is asked
 * @param options what is drawn, and whether bands are calibrated
 * @returns the forecast
 */
export function forecastFrame(
  posterior: FramePosterior,
  cell: FrameCell,
  options: ForecastOptions = {},
): FrameForecast {
  const { drawn = 'run', calibrated = true } = options;
  const view = viewCell(posterior, cell);
  const capMs = cell.capFps === null ? 0 : 1000 / cell.capFps;
  const { ms, capped } = timeBands(drawLn(view, drawn), capMs, calibrated);
  const links = posterior.evidence.flatMap(cellsOfEvidence).map((c) => c.link.id);
  return {
    cell,
    ms,
    fps: mapBands(ms, (x) => 1000 / x),
    capped,
    basis: basisOf(posterior, cell),
    unmeasuredLink: !cell.card.integrated && !links.includes(cell.link.id),
  };
}

/**
 * What the way to the card and back costs a frame of a cell.
 * @param posterior what is known of the title
 * @param cell the cell that is asked
 * @param calibrated false for bands as drawn
 * @returns the overhead; null for graphics inside the processor, whose frames cross no link
 */
export function overheadOf(
  posterior: FramePosterior,
  cell: FrameCell,
  calibrated = true,
): LinkOverhead | null {
  if (cell.card.integrated) return null;
  const view = viewCell(posterior, cell);
  const { ms, half } = timeBands(drawLn(view, 'mean'), 0, calibrated);
  const draws = overheadDraws(view, WIDE_SLOT).sort();
  const overhead = bandsOf(draws, half, calibrated);
  return {
    ms: overhead,
    share: mapBands(overhead, (x) => x / ms.mid),
    panelMs: cell.panel ? bandsOf(stageWork(view, 'panel').sort(), half, calibrated) : null,
  };
}
