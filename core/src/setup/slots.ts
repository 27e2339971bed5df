import type { HostSpec } from '../schema';
import { portName } from './names';

/** What is chosen for each slot, as far as this rule needs it. */
interface Chosen {
  host: string | null;
  socket: string | null;
}

/**
 * Slots with some of them changed. A new host brings new ports: unless a port is named with it,
 * none is chosen, so that a port of the same short name is not taken over by chance.
 */
export function changeSlots<S extends Chosen>(slots: S, change: Partial<S> | undefined): S {
  const next = { ...slots, ...change };
  const newHost = change?.host !== undefined && change.host !== slots.host;
  return newHost && change.socket === undefined ? { ...next, socket: null } : next;
}

/** Slots a drive could move to when it leaves another: empty, and not for SATA drives only. By name. */
export function freeSlots(host: HostSpec, leaves: string): string[] {
  return host.sockets
    .filter((s) => s.connector === 'm2' && s.key !== leaves && s.holds === 'nothing' && s.standard !== 'sata')
    .map(portName);
}
