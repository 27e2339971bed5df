import type { Range } from '../../base';

/** Pixels of 1920x1080, the size at which stage times are stated; by definition. */
export const FULL_HD_PIXELS = 1920 * 1080;

/** A host held to fewer watts is another host: its `id` names the power mode too. */
export interface FrameHost {
  readonly id: string;
  /** Single-thread index, 100 is the reference; null where none is stated. */
  readonly index: Range | null;
}

/** A graphics card at its usual power limit. */
export interface FrameCard {
  readonly id: string;
  /** Frame index, 100 is the reference; null where none is stated. */
  readonly index: Range | null;
  /** GB; null where it is not stated. */
  readonly memoryGB: number | null;
  /** Graphics inside the processor: its frames cross no link. */
  readonly integrated: boolean;
}

/** The way to the card: usable rates in Gb/s, null where nothing is known of them. */
export interface FrameLink {
  readonly id: string;
  readonly down: Range | null;
  readonly up: Range | null;
  /** ms of one round trip. */
  readonly latencyMs: number;
}

export const PRESET_GROUPS = ['low', 'medium', 'high', 'ultra', 'other'] as const;
export type PresetGroup = (typeof PRESET_GROUPS)[number];

/** What makes the picture beside its size. Runs of one `id` look alike. */
export interface FrameLook {
  readonly id: string;
  readonly preset: PresetGroup;
  readonly rayTracing: boolean;
  /** Share of the width that is drawn before upscaling; 1 where the picture is drawn at its own size. */
  readonly scale: number;
}

/** What a frame time belongs to. Repeats share a cell. */
export interface FrameCell {
  readonly host: FrameHost;
  readonly card: FrameCard;
  readonly link: FrameLink;
  readonly look: FrameLook;
  readonly pixels: number;
  /** The picture goes back to the host's own panel. */
  readonly panel: boolean;
  /** Limit on the frames of a second; null where there is none. */
  readonly capFps: number | null;
  /** Processor clock as a share of the usual one; 1 but in a run made to find the limiter. */
  readonly processorClock: number;
  /** Power limit of the card as a share of the usual one. */
  readonly cardPower: number;
}

/**
 * What tells one cell from another.
 * @param cell a cell of the frame model
 * @returns a text that is the same for repeats and for nothing else
 */
export function cellKey(cell: FrameCell): string {
  return JSON.stringify([
    cell.host.id,
    cell.card.id,
    cell.link.id,
    cell.look.id,
    cell.pixels,
    cell.panel,
    cell.capFps,
    cell.processorClock,
    cell.cardPower,
  ]);
}

/** Why a cell cannot stand in the model; null where it can. */
export type CellFault = 'size' | 'rate' | 'cap' | 'scale' | 'clock' | 'index' | null;

const positive = (value: number) => Number.isFinite(value) && value > 0;
const isRate = (r: Range | null) =>
  r === null || (positive(r.lo) && r.hi >= r.lo && positive(r.hi));

/**
 * Whether every figure of a cell can be computed with.
 * @param cell a cell of the frame model
 * @returns the first thing that is wrong with it, or null
 * @example cellFault({ ...cell, pixels: 0 }) === 'size'
 */
export function cellFault(cell: FrameCell): CellFault {
  if (!positive(cell.pixels)) return 'size';
  if (!isRate(cell.link.down) || !isRate(cell.link.up)) return 'rate';
  if (cell.capFps !== null && !positive(cell.capFps)) return 'cap';
  if (!(cell.look.scale > 0 && cell.look.scale <= 1)) return 'scale';
  if (!positive(cell.processorClock) || !positive(cell.cardPower)) return 'clock';
  return isRate(cell.host.index) && isRate(cell.card.index) ? null : 'index';
}
