import { type Range, stated } from '../../base';
import { adapterNames, type Chain, portName } from '../../chain';
import { isInside } from '../../parts';
import { freeSlots } from '../../setups';
import type { CautionId } from './types';

/** What opening a host means: what comes out, what holds it, what is dangerous, how far the maker goes, and the way back. */
export interface OpeningPlan {
  readonly slot: string;
  readonly out: 'system-drive' | 'drive' | 'radio' | 'nothing' | null;
  readonly adapters: readonly string[];
  readonly depth: 'none' | 'hatch' | 'cover' | 'board' | null;
  readonly fixings: 'screws' | 'clips' | 'both' | 'glue' | null;
  readonly screws: Range | null;
  readonly hazards: readonly { readonly caution: CautionId; readonly known: boolean }[];
  /** Slots the drive could move to. */
  readonly boots: readonly string[];
  /** Deeper than the maker goes, or only by cutting. */
  readonly beyond: boolean;
  readonly cuts: boolean;
}

const word = <T extends string>(v: T | { oneOf: readonly T[] } | null | undefined): T | null =>
  typeof v === 'string' ? v : null;

/**
 * Disassembly plan of a chain whose link starts inside the host.
 *
 * @param chain the chain
 * @returns the plan; null for a link that starts at an outside port
 */
export function openingPlan(chain: Chain): OpeningPlan | null {
  const { host } = chain;
  const port = host?.sockets.find((s) => s.key === chain.socket);
  if (!host || !port || !isInside(port.connector)) return null;
  const battery =
    host.batteryWh === 0 || host.form === 'desktop' || host.form === 'mini-pc'
      ? false
      : typeof host.batteryWh === 'number'
        ? true
        : null;
  const asked = (caution: CautionId, is: boolean | null) =>
    is === false ? [] : [{ caution, known: is === true }];
  const yes = (v: 'yes' | 'no' | null) => (v === null ? null : v === 'yes');
  const depth = word(host.openDepth);
  const reach = word(port.reach);
  return {
    slot: portName(port),
    out: word(port.holds),
    adapters: adapterNames(chain),
    depth,
    fixings: word(host.fixings),
    screws: host.openScrews === null ? null : stated(host.openScrews),
    hazards: [
      ...asked('battery', battery),
      ...asked('lid-fan', yes(word(host.fanOnLid))),
      ...asked('conducts', word(host.compound) === null ? null : word(host.compound) === 'metal'),
    ],
    boots:
      port.holds === 'system-drive' || port.holds === 'drive' || port.holds === null
        ? freeSlots(host, port.key)
        : [],
    beyond: depth === 'none' || (depth === 'hatch' && reach === 'cover') || reach === 'cut',
    cuts: reach === 'cut',
  };
}
