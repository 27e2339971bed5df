import { hasPcie } from '../../parts';
import { ASYMMETRIC_GBPS, transportGbps, type Tunnel, tunnelOf } from './standards';
import type { KnownDock, KnownSocket } from './types';

/** How two ends that meet through a tunnel talk to each other. */
export type ProtocolGeneration = Tunnel['era'];

function speaksThunderbolt3(end: { standard: KnownSocket['standard']; tb3: boolean }): boolean {
  const t = tunnelOf(end.standard);
  // Thunderbolt 4 and 5 must; older Thunderbolt is it; USB4 may leave it out. From memory of the USB4 specification.
  return t !== null && (t.pcie === 'required' || end.tb3);
}

/**
 * Is one end older Thunderbolt and the other USB4 without it? Then USB passes and no card appears.
 * @param socket the port; null while none is chosen
 * @param dock the dock; null while none is chosen
 * @returns the end that lacks older Thunderbolt; null where they meet
 */
export function tooOldToMeet(
  socket: KnownSocket | null,
  dock: KnownDock | null,
): 'socket' | 'dock' | null {
  if (!socket || !dock || !hasPcie(socket.standard)) return null;
  const a = tunnelOf(socket.standard);
  const b = tunnelOf(dock.uplink);
  if (!a || !b || (a.era !== 'thunderbolt' && b.era !== 'thunderbolt')) return null;
  if (!speaksThunderbolt3({ standard: socket.standard, tb3: socket.tb3 })) return 'socket';
  return speaksThunderbolt3({ standard: dock.uplink, tb3: dock.tb3 }) ? null : 'dock';
}

/**
 * Generation of the protocol a link runs: that of the older end.
 * @param socket the port; null while none is chosen
 * @param dock the dock; null while none is chosen
 * @returns the generation; USB4's first version while an end is not known
 */
export function protocolGenerationOf(
  socket: KnownSocket | null,
  dock: KnownDock | null,
): ProtocolGeneration {
  const eras = [
    socket && tunnelOf(socket.standard)?.era,
    dock && tunnelOf(dock.uplink)?.era,
  ].filter((e) => e !== null);
  if (eras.includes('thunderbolt')) return 'thunderbolt';
  if (eras.length > 0 && eras.every((e) => e === 'usb4-v2')) return 'usb4-v2';
  return 'usb4';
}

/** What a cable can be good for: nothing, half rate, full rate, or the second version's rate. */
export type Level = 0 | 20 | 40 | 80;

/**
 * Transport that a cable of a class lets pass.
 * @param level class of the cable
 * @param era generation of the protocol
 * @returns Gb/s each way after line encoding
 */
export function levelGbps(level: Level, era: ProtocolGeneration): number {
  if (level === 0) return 0;
  if (era === 'thunderbolt') return transportGbps(level === 20 ? 'thunderbolt-2' : 'thunderbolt-3');
  if (level === 20) return transportGbps('usb4-20');
  // Four lanes may be split three to one: the wires of an 80 Gb/s cable let more pass one way than the link usually asks.
  return level === 80 && era === 'usb4-v2' ? ASYMMETRIC_GBPS.down : transportGbps('usb4-40');
}
