import type { FaultMap } from '@ruddy/core/bench';
import type { Chain } from '@ruddy/core/chain';
import { type SocketSpec, wordsOf } from '@ruddy/core/parts';
import type { Noise } from './noise';

/** What a number may be stated as. */
type Stated = number | { lo: number; hi: number } | null;

/** A whole number for what may be open: the middle of nothing is what is usual, and a range is drawn from. */
export function settle(
  value: Stated | undefined,
  usual: number,
  noise: Noise,
  what: string,
): number {
  if (typeof value === 'number') return value;
  if (value && typeof value === 'object')
    return Math.round(value.lo + (value.hi - value.lo) * noise(`settle ${what}`));
  return usual;
}

/** The first of the words a choice allows; what is usual when none is stated. */
export function word<T extends string>(stated: T | { oneOf: T[] } | null | undefined, usual: T): T {
  return stated === undefined ? usual : (wordsOf<T>(stated)[0] ?? usual);
}

/** What a bench is made of: a chain, a seed, and nothing else. */
export interface BenchDef {
  readonly chain: Chain;
  readonly seed: number;
}

/** Parts on the bench at one moment, with the port the cable is in. */
export interface Parts {
  readonly chain: Chain;
  readonly socket: SocketSpec | null;
  readonly faults: FaultMap;
  readonly noise: Noise;
}

/** The strength of a fault, 0 when it is not there. */
export function strength(p: Pick<Parts, 'faults'>, id: keyof FaultMap): number {
  return p.faults[id] ?? 0;
}

/** The supply that feeds the card: a part of its own, or the dock's. */
export function supplyOf(chain: Chain): { ratedW: number | null; own: boolean } {
  const part = chain.supplies.find((s) => s.feeds !== 'dock')?.spec ?? chain.supplies[0]?.spec;
  const inside =
    chain.dock?.supply === 'inside' || chain.dock?.supply === 'brick' ? chain.dock.supplyW : null;
  const rated = part?.supplyW ?? inside;
  return {
    ratedW: typeof rated === 'number' ? rated : (rated?.lo ?? null),
    own: part !== undefined,
  };
}

/** Generation and lanes the card could do. */
export function cardEnd({ chain, noise }: Parts): { gen: number; lanes: number } {
  return {
    gen: settle(chain.card?.pcieGen, 4, noise, 'card gen'),
    lanes: settle(chain.card?.lanes, 16, noise, 'card lanes'),
  };
}

/** Generation and lanes of the slot of the dock; `usual` where nobody said. */
export function slotEnd(
  { chain, noise }: Parts,
  usual: { gen: number; lanes: number },
): { gen: number; lanes: number } {
  return {
    gen: settle(chain.dock?.slotGen, usual.gen, noise, 'slot gen'),
    lanes: settle(chain.dock?.slotLanes, usual.lanes, noise, 'slot lanes'),
  };
}
