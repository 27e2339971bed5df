import type { FaultId } from './faults';
import type { FaultMap } from './state';

interface RemedyDef {
  /** What a hand does, in words of the log. */
  readonly words: string;
  readonly mends: readonly FaultId[];
  /** It mends only what is weaker than this. */
  readonly below?: number;
}

const HOST_FAULTS = [
  'look-alike-port',
  'approval-kept-out',
  'tunnelling-forbidden',
  'two-lanes',
  'host-order',
  'resource-window',
  'driver-refused',
  'driver-clamp',
  'power-saving',
  'asks-for-key',
  'wrong-input',
] as const satisfies readonly FaultId[];
const CABLE_FAULTS = [
  'cable-charges-only',
  'cable-half-rate',
  'cable-one-lane',
  'plug-not-home',
  'direct-cable-margin',
  'direct-lanes-lost',
] as const satisfies readonly FaultId[];

/**
 * Faults of a bench that an act removes, by what the real act would change: a sound cable removes every fault of the
 * cable, whatever the suspected cause. Common practice, no published source.
 */
export const REMEDIES = {
  'sound-cable': { words: 'another cable, short and sound', mends: CABLE_FAULTS },
  'plugs-looked-at': {
    words: 'every plug of the cable out, looked at, and home',
    mends: ['plug-not-home'],
  },
  'right-port': { words: 'the cable in the port with the mark', mends: ['look-alike-port'] },
  'approved-anew': {
    words: 'the dock off the list and approved anew',
    mends: ['approval-kept-out'],
  },
  'hub-bare': { words: 'hub, LAN and drives off the dock', mends: ['hub-traffic'] },
  'card-reseated': { words: 'the card out and in again', mends: ['card-not-seated'] },
  'power-plugs-home': { words: 'every power plug home', mends: ['power-plug-out'] },
  'other-card': {
    words: 'another card, sound',
    mends: ['card-defective', 'card-not-seated', 'power-plug-out'],
  },
  'other-host': { words: 'another host, sound', mends: HOST_FAULTS },
  'card-alone': { words: 'the card alone, in a desktop', mends: [] },
  'power-limit': { words: 'the card at 70 % power', mends: ['supply-sag'], below: 0.9 },
  'drivers-clean': {
    words: 'drivers cleaned out, an allowed one installed',
    mends: ['driver-refused'],
  },
  'rate-kept': { words: 'the driver told to keep the rate of the slot', mends: ['driver-clamp'] },
  'saving-off': { words: 'power saving off', mends: ['power-saving'] },
  'right-input': { words: 'the input of the screen chosen', mends: ['wrong-input'] },
} as const satisfies Record<string, RemedyDef>;
export type RemedyId = keyof typeof REMEDIES;

/**
 * Faults that are left after a remedy. In a desktop only what is wrong with the card itself comes along.
 * @param faults before it
 * @param id the remedy
 * @returns faults after it
 */
export function remedied(faults: FaultMap, id: RemedyId): FaultMap {
  const { mends, below = Infinity }: RemedyDef = REMEDIES[id];
  const left = Object.entries(faults).filter(([f, strength]) => {
    if (id === 'card-alone') return f === 'card-defective';
    return !(mends.includes(f as FaultId) && strength < below);
  });
  return Object.fromEntries(left) as FaultMap;
}
