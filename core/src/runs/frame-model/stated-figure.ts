import { pixelsOf } from '../resolutions';
import type { RigFacts } from '../rig';
import type { StatedSettings } from '../schema';
import type { FrameCell } from './cell';
import type { FrameEvidence } from './evidence';
import { cellOfRig, lookOfSettings } from './from-runs';

/** How one is told to be faster than another. */
export const COMPARISONS = {
  faster: '% faster than',
  slower: '% slower than',
  times: 'times as fast as',
} as const;
export type Comparison = keyof typeof COMPARISONS;

/** The kinds of figures that people state. */
export const STATED_KINDS = {
  frames: 'Frames/s',
  ratio: 'Faster or slower than',
  bound: 'At least or at most',
  held: 'Held at a limit',
  points: 'Points of a test',
  cards: 'Card against card',
} as const;
export type StatedKind = keyof typeof STATED_KINDS;

interface Compared {
  /** 31 of "31 % faster than", 2 of "2 times as fast as". */
  readonly amount: number;
  readonly how: Comparison;
  readonly about: boolean;
}

/** What is stated. */
export type Said =
  | { readonly kind: 'frames'; readonly fps: number; readonly about: boolean }
  | { readonly kind: 'bound'; readonly fps: number; readonly side: 'at-least' | 'at-most' }
  /** The frames stood at the limit of the settings. */
  | { readonly kind: 'held' }
  | { readonly kind: 'points'; readonly points: number }
  | ({
      readonly kind: 'ratio';
      readonly other: { readonly rig: RigFacts } & Pick<
        StatedSettings,
        'resolution' | 'screenPath'
      >;
    } & Compared)
  /** With no word of host, link and picture. */
  | ({ readonly kind: 'cards'; readonly other: { readonly rig: RigFacts } } & Compared);

/** A figure of a title that somebody read, quoted or remembers, with the rig it is of. */
export interface StatedFigure {
  readonly id: string;
  readonly titleId: string;
  readonly rig: RigFacts;
  readonly settings: StatedSettings;
  readonly said: Said;
}

/**
 * The smallest step a figure is written with.
 * @param figure a number as it was typed
 * @returns 1 for whole numbers, 0.1 for one decimal, and so on
 * @example lastDigitOf(61.5) // => 0.1
 */
export function lastDigitOf(figure: number): number {
  const decimals = /\.(\d+)$/.exec(String(figure))?.[1]?.length ?? 0;
  return 10 ** -decimals;
}

/**
 * A comparison as a ratio of frames/s, with what its rounding leaves open.
 * @param c the comparison
 * @returns the ratio, and half a step of what was typed as a share of it
 * @example ratioOf({ amount: 31, how: 'faster', about: false }).ratio // => 1.31
 */
export function ratioOf({ amount, how }: Compared): { ratio: number; rounding: number } {
  const step = lastDigitOf(amount);
  if (how === 'times') return { ratio: amount, rounding: step / 2 / amount };
  const ratio = how === 'faster' ? 1 + amount / 100 : 1 - amount / 100;
  return { ratio, rounding: step / 200 / ratio };
}

function cellOfStated(rig: RigFacts, s: StatedSettings, capFps: number | null): FrameCell {
  return cellOfRig(rig, {
    pixels: pixelsOf(s.resolution) ?? 0,
    panel: s.screenPath === 'panel',
    capFps,
    powerMode: s.powerMode,
    look: lookOfSettings(s),
    inside: false,
  });
}

/** That one cell has so many times the frames/s of another. */
function ratioEvidence(
  f: StatedFigure,
  said: Extract<Said, { kind: 'ratio' }>,
  id: string,
): FrameEvidence {
  const { rig, ...picture } = said.other;
  return {
    id,
    kind: 'ratio',
    cell: cellOfStated(f.rig, f.settings, null),
    other: cellOfStated(rig, { ...f.settings, ...picture }, null),
    ...ratioOf(said),
    about: said.about,
  };
}

/**
 * What a stated figure tells the frame model.
 * @param f the figure
 * @returns evidence
 */
export function evidenceOfStated(f: StatedFigure): FrameEvidence {
  const { said, settings } = f;
  const id = `stated ${f.id}`;
  const cell = cellOfStated(f.rig, settings, null);
  switch (said.kind) {
    case 'frames':
      return { ...said, id, kind: 'stated', cell, lastDigit: lastDigitOf(said.fps) };
    case 'bound':
      return { ...said, id, cell };
    case 'held':
      return { id, kind: 'held', cell: cellOfStated(f.rig, settings, settings.capFps || null) };
    case 'points':
      return { id, kind: 'points', cell, benchmark: f.titleId, points: said.points };
    case 'ratio':
      return ratioEvidence(f, said, id);
    case 'cards': {
      const other = cellOfStated(said.other.rig, settings, null).card;
      return { id, kind: 'card-ratio', card: cell.card, other, ratio: ratioOf(said).ratio };
    }
  }
}
