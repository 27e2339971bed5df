import {
  type FrameAsk,
  type FrameCell,
  type FrameForecast,
  forecastFrame,
  forecastTitle,
  type KnownOfTitle,
  type LinkOverhead,
  type NoForecast,
  overheadOf,
  posteriorOf,
  type RigFacts,
  type TitleForecast,
} from '@ruddy/core/runs';

/** What is known of a title, and the cell that is asked. */
export interface CellAsked {
  readonly known: KnownOfTitle;
  readonly cell: FrameCell;
}

/** Frames to expect on one rig. */
export function forecasts(ask: {
  readonly rig: RigFacts;
  readonly asks: readonly FrameAsk[];
  readonly refined: boolean;
}): (TitleForecast | NoForecast)[] {
  return ask.asks.map((a) => forecastTitle(ask.rig, a, ask.refined));
}

/** What the link costs each of these cells. */
export function overheads(list: readonly CellAsked[]): (LinkOverhead | null)[] {
  return list.map(({ known, cell }) => overheadOf(posteriorOf(known, cell), cell));
}

/** Frame time of one cell. */
export function forecast({ known, cell }: CellAsked): FrameForecast {
  return forecastFrame(posteriorOf(known, cell), cell);
}
