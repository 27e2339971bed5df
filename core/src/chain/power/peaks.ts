import { plus, type Range } from '../../base';
import type { CardSpec, SupplyAttrs } from '../../parts';
import { socketCounts } from './plugs';

/** Durations of a peak, in microseconds. Source: the ATX 3.0 design guide states excursions for these, from memory. */
export const TAUS_US = [100, 1000, 10_000, 100_000] as const;

/**
 * How far a card may go above its board power for so long, and a supply above its rating. From memory: the ceiling of the PCI Express
 * CEM specification for cards with a 16-pin socket and the ATX 3.x design guide above 450 W; the other two are start values, common
 * practice without a published source.
 */
export const CARD_PEAKS = {
  ceiling: [3.0, 2.5, 2.0, 1.5],
  eightPin: [2.0, 1.8, 1.5, 1.2],
} as const;
export const SUPPLY_PEAKS = { atx3: [2.0, 1.8, 1.6, 1.2], older: [1.3, 1.3, 1.3, 1.1] } as const;
const ATX3_FROM_W = 450;

export interface Peak {
  readonly us: number;
  readonly need: Range;
  readonly have: Range;
}

/**
 * Peaks of a card and the steady rest against a supply, over every completion: whether a card has a 16-pin socket,
 * and which standard a supply is made to, may be open.
 *
 * Source: ATX 3.0 design guide and PCI Express CEM 5.0, power excursion, from memory.
 * @param card the card
 * @param boardW board power with its limit as set, W
 * @param restW what else the supply feeds, W
 * @param supply the supply
 * @param ratedW its rating, W
 * @returns need and have in W for each duration
 */
export function peaks(
  card: CardSpec,
  boardW: Range,
  restW: Range,
  supply: SupplyAttrs,
  ratedW: Range,
): Peak[] {
  // The older 12-pin socket comes before the standard that allows such peaks.
  const sixteen = card.sockets16Are === 'older' ? { lo: 0, hi: 0 } : socketCounts(card)['16-pin'];
  const least = sixteen.lo > 0 ? CARD_PEAKS.ceiling : CARD_PEAKS.eightPin;
  const most = sixteen.hi > 0 ? CARD_PEAKS.ceiling : CARD_PEAKS.eightPin;
  const standard = supply.supplyStandard;
  const surely = standard === 'atx3' && ratedW.lo > ATX3_FROM_W;
  const perhaps = standard !== 'older' && ratedW.hi > ATX3_FROM_W;
  const weak = surely ? SUPPLY_PEAKS.atx3 : SUPPLY_PEAKS.older;
  const strong = perhaps ? SUPPLY_PEAKS.atx3 : SUPPLY_PEAKS.older;
  return TAUS_US.map((us, i) => ({
    us,
    need: plus({ lo: boardW.lo * (least[i] ?? 1), hi: boardW.hi * (most[i] ?? 1) }, restW),
    have: { lo: ratedW.lo * (weak[i] ?? 1), hi: ratedW.hi * (strong[i] ?? 1) },
  }));
}

/**
 * The peak that leaves the least room: need over have at worst.
 * @param all at least one peak
 * @returns the worst of them
 */
export function worstPeak(all: readonly Peak[]): Peak {
  return all.reduce((a, b) => (b.need.hi / b.have.lo > a.need.hi / a.have.lo ? b : a));
}
