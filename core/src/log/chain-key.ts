import { partName } from '../setup';
import type { Chain } from '../schema';

function model(part: { maker: string; model: string; variant: string }): string {
  return partName(part).replace(/\s+/g, ' ').trim().toLowerCase();
}

/**
 * The key two setups share when the log treats them as the same chain: host model, link kind of
 * the socket, dock model, card model. Cable, screen, system and versions are attributes, not part
 * of the key. `null` while host, socket, dock or card is not chosen.
 */
export function chainKey(chain: Chain): string | null {
  const socket = chain.host?.sockets.find((s) => s.key === chain.socket);
  if (!chain.host || !socket || !chain.dock || !chain.card) return null;
  const standard = typeof socket.standard === 'string' ? socket.standard : 'not-known';
  return JSON.stringify([model(chain.host), socket.connector, standard, model(chain.dock), model(chain.card)]);
}
