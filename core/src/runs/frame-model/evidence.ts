import { cellFault, type CellFault, type FrameCard, type FrameCell } from './cell';

/** Something that is known of the frame times of one title. Ids tell evidence apart and order it. */
export type FrameEvidence = { readonly id: string } & (
  | {
      /** Repeats of one cell: the mean frame time of each run, ms; of runs that give medians only, those. */
      readonly kind: 'runs';
      readonly cell: FrameCell;
      readonly ms: readonly number[];
      readonly average: 'mean' | 'median';
    }
  | {
      /** A figure that somebody read or quoted: frames/s, known to half of `lastDigit`, or "about". */
      readonly kind: 'stated';
      readonly cell: FrameCell;
      readonly fps: number;
      readonly lastDigit: number;
      readonly about: boolean;
    }
  | {
      /** `cell` has `ratio` times the frames/s of `other`, known to a share of `rounding`, or "about". */
      readonly kind: 'ratio';
      readonly cell: FrameCell;
      readonly other: FrameCell;
      readonly ratio: number;
      readonly rounding: number;
      readonly about: boolean;
    }
  | {
      /** One card has `ratio` times the frames/s of another, with no word of where. */
      readonly kind: 'card-ratio';
      readonly card: FrameCard;
      readonly other: FrameCard;
      readonly ratio: number;
    }
  | {
      /** Points of a benchmark: they grow with frames/s, by a factor that only its maker knows. */
      readonly kind: 'points';
      readonly cell: FrameCell;
      readonly benchmark: string;
      readonly points: number;
    }
  | {
      /** At least or at most so many frames/s; also the best or worst of several runs. */
      readonly kind: 'bound';
      readonly cell: FrameCell;
      readonly fps: number;
      readonly side: 'at-least' | 'at-most';
    }
  | {
      /** The frames stood at the limit of the cell, which the rig could have passed. */
      readonly kind: 'held';
      readonly cell: FrameCell;
    }
  | {
      /** Load of the card over a run, 0 to 1. */
      readonly kind: 'load';
      readonly cell: FrameCell;
      readonly load: number;
    }
);

/** Why a piece of evidence is left out. */
export type UnusedReason = Exclude<CellFault, null> | 'figure' | 'same' | 'no-cap' | 'far';
export interface Unused {
  readonly id: string;
  readonly why: UnusedReason;
}

const LONGEST_MS = 10_000;
const isTime = (ms: number) => Number.isFinite(ms) && ms > 0 && ms <= LONGEST_MS;
const isPositive = (value: number) => Number.isFinite(value) && value > 0;

function figureFault(e: FrameEvidence): UnusedReason | null {
  switch (e.kind) {
    case 'runs':
      return e.ms.length > 0 && e.ms.every(isTime) ? null : 'figure';
    case 'stated':
      return isTime(1000 / e.fps) && e.lastDigit >= 0 ? null : 'figure';
    case 'bound':
      return isTime(1000 / e.fps) ? null : 'figure';
    case 'points':
      return isPositive(e.points) ? null : 'figure';
    case 'load':
      return e.load >= 0 && e.load <= 1 ? null : 'figure';
    case 'held':
      return e.cell.capFps === null ? 'no-cap' : null;
    case 'ratio':
      return isPositive(e.ratio) && e.rounding >= 0 ? null : 'figure';
    case 'card-ratio':
      if (e.card.id === e.other.id) return 'same';
      return isPositive(e.ratio) ? null : 'figure';
  }
}

/**
 * The cells that a piece of evidence speaks of.
 * @param e evidence
 * @returns none to two cells
 */
export function cellsOfEvidence(e: FrameEvidence): readonly FrameCell[] {
  if (e.kind === 'card-ratio') return [];
  return e.kind === 'ratio' ? [e.cell, e.other] : [e.cell];
}

/**
 * What is left out of a list of evidence, because a figure in it cannot be.
 * @param list evidence of one title; not modified
 * @returns what can be used, ordered by id, and what cannot with the reason
 */
export function usableEvidence(list: readonly FrameEvidence[]): {
  readonly used: FrameEvidence[];
  readonly unused: Unused[];
} {
  const used: FrameEvidence[] = [];
  const unused: Unused[] = [];
  const ordered = [...list].sort((a, b) => (a.id < b.id ? -1 : a.id > b.id ? 1 : 0));
  for (const e of ordered) {
    const faults = cellsOfEvidence(e).flatMap((c) => cellFault(c) ?? []);
    const why = figureFault(e) ?? faults[0] ?? null;
    if (why) unused.push({ id: e.id, why });
    else used.push(e);
  }
  return { used, unused };
}
