import { adapterNames, type Chain, endsInSlot, partName } from '../../chain';

function plain(name: string): string {
  return name.replace(/\s+/g, ' ').trim().toLowerCase();
}

/** What entries of the log are compared by; null where a chain has not chosen it. */
export interface MatchKey {
  /** The key of exactly this chain; null while host, port, dock or card is not chosen. */
  readonly key: string | null;
  readonly host: string | null;
  /** Connector and standard of the port. */
  readonly link: string | null;
  /** The dock, or the adapters where the path ends in a card slot. */
  readonly dock: string | null;
  readonly card: string | null;
  /** The family the card's drivers know it by; the card itself where it has none. */
  readonly family: string | null;
}

/**
 * What a chain is found by: host model, link kind of the port, adapter or none, dock model or none, card model; cable,
 * screen, system and versions are no part of it. A path that ends in a card slot needs no dock.
 * @param chain the chain
 * @returns the parts of the key; its key is null while the chain is not whole
 */
export function matchOf(chain: Chain): MatchKey {
  const socket = chain.host?.sockets.find((s) => s.key === chain.socket);
  const standard = socket && (typeof socket.standard === 'string' ? socket.standard : 'not-known');
  const adapters = adapterNames(chain).map(plain).join(' + ') || 'none';
  const host = chain.host ? plain(partName(chain.host)) : null;
  const card = chain.card ? plain(partName(chain.card)) : null;
  const dock = chain.dock ? plain(partName(chain.dock)) : endsInSlot(chain.path) ? 'none' : null;
  const whole = host !== null && socket && card !== null && dock !== null;
  return {
    key: whole ? JSON.stringify([host, socket.connector, standard, adapters, dock, card]) : null,
    host,
    link: socket ? `${socket.connector} ${standard ?? ''}` : null,
    dock: dock === 'none' ? `no dock, ${adapters}` : dock,
    card,
    family: chain.card ? plain(chain.card.family) || card : null,
  };
}

/**
 * The key two setups share where the log treats them as the same chain.
 * @param chain the chain
 * @returns the key; null while the chain is not whole
 */
export function chainKey(chain: Chain): string | null {
  return matchOf(chain).key;
}
