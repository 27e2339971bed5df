import { mean } from '../../base';
import { compareRuns, type RunComparison } from './compare';

/** A card on one chain at one resolution, and the same card in a desktop. Speeds, higher is better. */
export interface CardHere {
  readonly card: string;
  readonly here: readonly number[];
  readonly desktop: readonly number[];
  /** Frame index of the card, where its part states one: stands in for runs in a desktop. */
  readonly index: number | null;
}
export interface ConvergeRow {
  readonly card: string;
  /** Against the slowest card: here, and in a desktop. */
  readonly here: RunComparison;
  readonly desktop: RunComparison | null;
  /** Desktop ratio by card index, where it was not measured. */
  readonly byIndex: number | null;
}
export interface Converge {
  readonly rows: readonly ConvergeRow[];
  /** Fastest over slowest here, less one. */
  readonly spread: number;
  /** The same in a desktop; null where not every card is known there. */
  readonly desktopSpread: number | null;
  /** Cards that differ in a desktop come out alike here: something else sets the pace. */
  readonly alarm: boolean;
}
/** Cards whose frames lie within this of one another have come together, though a desktop tells them apart by more. */
export const TOGETHER = 0.05;

/**
 * Compares the ratios of cards on one chain with their ratios in a desktop. Ratios that shrink here show a common limit.
 *
 * @param cards speeds of each card at one resolution, best the highest, with its speed in a desktop if known
 * @returns each card's ratio to the slowest, the spread here and in a desktop; null with fewer than two cards
 */
export function converge(cards: readonly CardHere[]): Converge | null {
  const known = cards.filter((c) => c.here.length > 0).sort((a, b) => mean(a.here) - mean(b.here));
  const base = known[0];
  const last = known[known.length - 1];
  if (!base || !last || known.length < 2) return null;
  const rows = known.map((c): ConvergeRow => {
    const measured = c.desktop.length > 0 && base.desktop.length > 0;
    return {
      card: c.card,
      here: compareRuns(base.here, c.here),
      desktop: measured ? compareRuns(base.desktop, c.desktop) : null,
      byIndex: c.index && base.index ? c.index / base.index : null,
    };
  });
  const there = rows.map((r) => r.desktop?.of ?? r.byIndex);
  const all = there.every((v) => v !== null);
  const desktopSpread = all ? Math.max(...there) / Math.min(...there) - 1 : null;
  const spread = mean(last.here) / mean(base.here) - 1;
  return {
    rows,
    spread,
    desktopSpread,
    alarm: spread < TOGETHER && desktopSpread !== null && desktopSpread >= 2 * TOGETHER,
  };
}

export interface HostSwap {
  readonly frames: RunComparison;
  /** Single-thread index of the second host over the first's. */
  readonly processor: number;
  /** Share of the processor's gain that arrives in the frames, on logarithms; 1: the processor decides, 0: it does not matter. */
  readonly arrives: number;
}

/**
 * Share of the processor's gain that arrives in the frames when the host is swapped under the same card.
 *
 * @param a speeds on the first host, frames/s, and its single-thread index
 * @param b the same on the second host
 * @returns ratio of the frames, ratio of the processors, and the share on logarithms; null where the indices are equal
 */
export function hostSwap(
  a: { readonly speeds: readonly number[]; readonly index: number },
  b: { readonly speeds: readonly number[]; readonly index: number },
): HostSwap | null {
  const processor = b.index / a.index;
  if (Math.abs(Math.log(processor)) < 0.02) return null;
  const frames = compareRuns(a.speeds, b.speeds);
  return { frames, processor, arrives: Math.log(frames.of) / Math.log(processor) };
}
