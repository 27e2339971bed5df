import type { CauseId } from '../base';
import type { Chain } from '../chain';
import { carriesTunnel } from '../parts';

/** What decides whether a fault can sit in a chain. */
interface Sits {
  readonly chain: Chain;
  readonly tunnel: boolean;
  readonly slot: boolean;
  readonly separate: boolean;
}

interface FaultDef {
  /** The cause behind it, as the troubleshooter names it. */
  readonly cause: CauseId;
  /** Can this chain have it? */
  readonly sits: (s: Sits) => boolean;
}

const tunnel = (s: Sits) => s.tunnel;
const direct = (s: Sits) => !s.tunnel;
const slot = (s: Sits) => s.slot;
const any = () => true;

/**
 * Faults a bench can be given. Each changes only what a real one would: a link that does not train, a file that reads otherwise, a
 * rate that falls. Which is behind what is seen is common practice, no published source.
 */
export const FAULTS = {
  'cable-charges-only': { cause: 'cable-charges', sits: tunnel },
  'cable-half-rate': { cause: 'cable-class', sits: tunnel },
  'cable-one-lane': { cause: 'cable-class', sits: tunnel },
  'plug-not-home': { cause: 'plug-not-home', sits: tunnel },
  'look-alike-port': {
    cause: 'look-alike-port',
    sits: (s) => s.tunnel && s.chain.dock?.connector !== 'mini-dp',
  },
  'approval-kept-out': { cause: 'not-approved', sits: tunnel },
  'tunnelling-forbidden': { cause: 'no-tunnelling', sits: tunnel },
  'two-lanes': { cause: 'two-lanes', sits: (s) => s.separate },
  'host-order': { cause: 'order', sits: tunnel },
  'dock-firmware-crash': { cause: 'dock-firmware', sits: tunnel },
  'dock-firmware-cap': { cause: 'dock-firmware', sits: tunnel },
  'dock-defective': { cause: 'dock-defective', sits: (s) => s.tunnel && s.chain.dock !== null },
  'dock-switch': { cause: 'dock-off', sits: (s) => s.chain.dock !== null },
  'hub-traffic': { cause: 'shared-link', sits: tunnel },
  'card-not-seated': { cause: 'card-seat', sits: slot },
  'power-plug-out': { cause: 'power-cables', sits: slot },
  'card-defective': { cause: 'card-defective', sits: any },
  'supply-sag': { cause: 'supply', sits: any },
  'resource-window': { cause: 'resources', sits: any },
  'driver-refused': { cause: 'driver-range', sits: any },
  'driver-clamp': { cause: 'driver-clamp', sits: tunnel },
  'direct-cable-margin': { cause: 'direct-cable', sits: direct },
  'direct-lanes-lost': { cause: 'direct-cable', sits: direct },
  'power-saving': { cause: 'power-saving', sits: any },
  'asks-for-key': { cause: 'encryption', sits: any },
  'wrong-input': { cause: 'screen-input', sits: any },
} as const satisfies Record<string, FaultDef>;
export type FaultId = keyof typeof FAULTS;
export const FAULT_IDS = Object.keys(FAULTS) as [FaultId, ...FaultId[]];

/**
 * The faults a chain can have.
 * @param chain the chain
 * @returns ids in the order of the table
 */
export function faultsOf(chain: Chain): FaultId[] {
  const port = chain.host?.sockets.find((s) => s.key === chain.socket) ?? null;
  const connector = port?.connector ?? chain.dock?.connector ?? 'usb-c';
  const facts: Sits = {
    chain,
    tunnel: carriesTunnel(connector),
    slot: chain.dock?.form !== 'all-in-one',
    separate: carriesTunnel(connector) && port?.controller === 'separate',
  };
  return FAULT_IDS.filter((id) => FAULTS[id].sits(facts));
}
