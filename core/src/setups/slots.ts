import { portName } from '../chain';
import type { HostSpec } from '../parts';

/** What is chosen for each slot, as far as this rule needs it. */
interface Chosen {
  host: string | null;
  socket: string | null;
  items: Readonly<Record<string, string>>;
}

/**
 * The part in each place of a setup that may name a piece.
 * @param slots of a setup
 * @returns ids by place: `host`, `path/0`, `supplies/1`
 */
export function placesOf(slots: object): Map<string, string> {
  const places = new Map<string, string>();
  const idOf = (v: unknown) =>
    typeof v === 'string' ? v : ((v as { part?: string } | null)?.part ?? null);
  for (const [slot, value] of Object.entries(slots)) {
    if (slot === 'socket' || slot === 'items') continue;
    for (const [i, v] of [value].flat().entries()) {
      const id = idOf(v);
      if (id !== null) places.set(Array.isArray(value) ? `${slot}/${i}` : slot, id);
    }
  }
  return places;
}

/**
 * Slots with some of them changed. A new host brings new ports: unless a port is named with it, none is chosen, so that
 * a port of the same short name is not taken over by chance.
 * @param slots of a setup; not modified
 * @param change the slots that change
 * @returns the slots
 */
export function changeSlots<S extends Chosen>(slots: S, change: Partial<S> | undefined): S {
  const next = { ...slots, ...change };
  const newHost = change?.host !== undefined && change.host !== slots.host;
  // A piece goes with its part: where another part stands now, the piece named for the old one is let go.
  const before = placesOf(slots);
  const after = placesOf(next);
  const stays = ([place]: [string, string]) =>
    after.has(place) &&
    (after.get(place) === before.get(place) || change?.items?.[place] !== undefined);
  const items = Object.fromEntries(Object.entries(next.items).filter(stays));
  return { ...next, items, ...(newHost && change.socket === undefined && { socket: null }) };
}

/**
 * Slots a drive could move to when it leaves another: empty, and not for SATA drives only.
 * @param host the host
 * @param leaves key of the slot it leaves
 * @returns names of slots, in order
 */
export function freeSlots(host: HostSpec, leaves: string): string[] {
  return host.sockets
    .filter(
      (s) =>
        s.connector === 'm2' && s.key !== leaves && s.holds === 'nothing' && s.standard !== 'sata',
    )
    .map(portName);
}
