import type { SourceId } from '../../chain';
import type { Certainty } from '../kind';
import { possible } from '../kind';

/** How a supply inside the dock is named while nothing is stated of it. */
export const OWN_SUPPLY = 'the supply of the dock';

/** Slot, subject and source of a finding about one supply: several may stand side by side. */
export function ofSupply<S extends SourceId>(key: string, source: S) {
  const slots = [key === 'dock' ? ('dock' as const) : ('supplies' as const)];
  return { slots, about: key, source };
}

/** A dock that may bring a supply of its own: what a chosen one lacks is not certain to be missing. */
export function unlessOwn<D extends Partial<Certainty>>(d: D): D & Certainty {
  return { ...d, ...possible([...new Set(['dock/supply', ...(d.hangsOn ?? [])])]) };
}
