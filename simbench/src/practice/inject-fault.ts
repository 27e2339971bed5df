import { type FaultId, type FaultMap, faultsOf } from '@ruddy/core/bench';
import type { Chain } from '@ruddy/core/chain';
import { mixedChance } from '../chance';
import { inspect, type InjectedFault, type Inspection } from './inspect';

/** Strengths at which a fault shows: some do nothing when they are weak. */
const STRENGTHS = [0.35, 0.6, 0.85, 1] as const;
const TRIES = 40;

/**
 * Hide a fault by seed, or two, in a chain: only what the chain can have, and only what shows when it is brought up. Null when nothing
 * that can sit in this chain shows: a chain with a part missing does not come up at all.
 */
export function injectFault(
  bench: Omit<InjectedFault, 'faults' | 'order' | 'seed'>,
  seed: number,
  two: boolean,
): { hidden: InjectedFault; first: Inspection } | null {
  if (!bench.chain.host || !bench.chain.card) return null;
  const { pick } = mixedChance((seed + 1) * 7919);
  const able = faultsOf(bench.chain as Chain);
  const [one, ...more] = able;
  if (!one) return null;
  const clean = inspect({ ...bench, seed, faults: {}, order: 'all-off' });
  for (let i = 0; i < TRIES; i++) {
    const ids = Array.from({ length: two ? 2 : 1 }, () => pick<FaultId>([one, ...more]));
    const faults = Object.fromEntries(ids.map((id) => [id, pick(STRENGTHS)])) as FaultMap;
    if (Object.keys(faults).length < ids.length) continue;
    const order = 'dock-firmware-crash' in faults ? 'host-first' : 'all-off';
    const hidden: InjectedFault = { ...bench, seed, faults, order };
    const first = inspect(hidden);
    if (first.symptoms.some((s) => !clean.symptoms.includes(s))) return { hidden, first };
  }
  return null;
}
