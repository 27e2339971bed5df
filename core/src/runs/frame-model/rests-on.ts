import type { FrameCell } from './cell';
import type { FramePosterior } from './posterior';
import { withCells } from './posterior';

/** What a forecast can rest on. */
export type FrameFactor =
  | 'processor'
  | 'card'
  | 'fixed-share'
  | 'pixel-power'
  | 'traffic'
  | 'round-trips'
  | 'overlap'
  | 'panel'
  | 'host-index'
  | 'card-index'
  | 'link-rate'
  | 'preset'
  | 'memory';

/** What the runs have narrowed, and what is still as open as before them. */
export interface AssumedOrMeasured {
  readonly measured: readonly FrameFactor[];
  readonly assumed: readonly FrameFactor[];
}

/** Share of the prior's spread above which a parameter is as open as before, and below which it is measured (judgement). */
const ASSUMED_ABOVE = 0.8;
const MEASURED_BELOW = 0.5;

/** The numbers of a particle that matter to a cell, by what they stand for. */
function factorsOf(posterior: FramePosterior, cell: FrameCell): Map<FrameFactor, number[]> {
  const { space } = posterior;
  const at = (list: readonly { id: string; at: number | null }[], id: string) =>
    list.flatMap((p) => (p.id === id && p.at !== null ? [p.at] : []));
  const crossed = !cell.card.integrated;
  const factors = new Map<FrameFactor, number[]>([
    ['processor', [0]],
    ['card', [2]],
    ['fixed-share', [3]],
    ['host-index', cell.host.index ? at(space.hosts, cell.host.id) : []],
    ['card-index', cell.card.index ? at(space.cards, cell.card.id) : []],
    ['preset', at(space.looks, cell.look.id)],
  ]);
  if (!crossed) return factors;
  factors.set('traffic', [5]);
  factors.set('round-trips', [7]);
  factors.set('overlap', [8, 9, 10]);
  factors.set('link-rate', at(space.links, cell.link.id));
  if (cell.panel) factors.set('panel', [12]);
  if (space.memoryAt !== null && cell.card.memoryGB !== null)
    factors.set('memory', [space.memoryAt, space.memoryAt + 1]);
  return factors;
}

function spreadOf(posterior: FramePosterior, at: number): number {
  const { z, count } = posterior.particles;
  const { size } = posterior.space;
  let mean = 0;
  let squares = 0;
  for (let i = 0; i < count; i++) {
    mean += z[i * size + at]! / count;
    squares += z[i * size + at]! ** 2 / count;
  }
  return Math.sqrt(Math.max(0, squares - mean * mean));
}

/**
 * What a forecast of a cell rests on: parameters that the runs narrowed to less than half of the prior's spread, and those that are still
 * as open as before.
 * @param posterior what is known of the title
 * @param cell the cell that is asked
 * @returns the two lists, in a fixed order
 */
export function restsOn(posterior: FramePosterior, cell: FrameCell): AssumedOrMeasured {
  const wide = withCells(posterior, [cell]);
  const measured: FrameFactor[] = [];
  const assumed: FrameFactor[] = [];
  for (const [factor, places] of factorsOf(wide, cell)) {
    if (places.length === 0) continue;
    const spread = Math.max(...places.map((at) => spreadOf(wide, at)));
    if (spread < MEASURED_BELOW) measured.push(factor);
    else if (spread > ASSUMED_ABOVE) assumed.push(factor);
  }
  return { measured, assumed };
}
