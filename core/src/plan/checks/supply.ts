import type { SourceId } from '../../chain';
import type { Certainty } from '../kind';
import { possible } from '../kind';

/** How a supply inside the dock is named while nothing is stated of it. */
export const OWN_SUPPLY = 'the supply of the dock';

/**
 * Slot, subject and source of a finding about one supply: several may stand side by side.
 * @param key of the supply
 * @param source what else the finding has
 * @returns both together
 */
export function ofSupply<S extends SourceId>(key: string, source: S) {
  const slots = [key === 'dock' ? ('dock' as const) : ('supplies' as const)];
  return { slots, about: key, source };
}

/**
 * The certainty of what a chosen supply lacks: a dock that may bring a supply of its own makes it possible only.
 * @param d the draft
 * @returns the draft with its certainty
 */
export function unlessOwn<D extends Partial<Certainty>>(d: D): D & Certainty {
  return { ...d, ...possible([...new Set(['dock/supply', ...(d.hangsOn ?? [])])]) };
}
