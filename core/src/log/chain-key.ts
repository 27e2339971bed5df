import { adapterNames, partName } from '../setup';
import { endsInSlot, type Chain } from '../schema';

function plain(name: string): string {
  return name.replace(/\s+/g, ' ').trim().toLowerCase();
}

/**
 * The key two setups share when the log treats them as the same chain: host model, link kind of
 * the socket, adapter or none, dock model or none, card model. Cable, screen, system and versions are attributes, not part
 * of the key. `null` while host, socket, dock or card is not chosen; a path that ends in a card slot needs no dock.
 */
export function chainKey(chain: Chain): string | null {
  const socket = chain.host?.sockets.find((s) => s.key === chain.socket);
  if (!chain.host || !socket || !chain.card || (!chain.dock && !endsInSlot(chain.path))) return null;
  const standard = typeof socket.standard === 'string' ? socket.standard : 'not-known';
  const adapters = adapterNames(chain).map(plain).join(' + ') || 'none';
  const dock = chain.dock ? plain(partName(chain.dock)) : 'none';
  return JSON.stringify([plain(partName(chain.host)), socket.connector, standard, adapters, dock, plain(partName(chain.card))]);
}
