import { PORT_STANDARDS, type SocketSpec } from '../parts';
import type { Chain } from './schema/chain';
import { endsInSlot, isAdapter } from './schema/shape';

/**
 * How a part is called.
 * @param part maker, model and variant; null where nothing is chosen
 * @returns the three with a space between; empty without a part
 * @example partName({ maker: 'Fenwick', model: 'D-4', variant: '' }) // => 'Fenwick D-4'
 */
export function partName(
  part: { maker: string; model: string; variant: string } | null | undefined,
): string {
  return part ? [part.maker, part.model, part.variant].filter((s) => s !== '').join(' ') : '';
}

/**
 * Display name of a port.
 * @param socket its key, and where a hand finds it
 * @returns the position, or the key where nobody stated one
 * @example portName({ key: 'left', position: '' }) // => 'left'
 */
export function portName(socket: Pick<SocketSpec, 'key' | 'position'>): string {
  return socket.position || socket.key;
}

/**
 * The standard of the port that a chain begins at.
 * @param chain the chain
 * @returns its name; empty where no port is chosen or its standard is not known
 */
export function linkName(chain: Pick<Chain, 'host' | 'socket'>): string {
  const socket = chain.host?.sockets.find((s) => s.key === chain.socket);
  return typeof socket?.standard === 'string' ? PORT_STANDARDS[socket.standard] : '';
}

/** What fills a chain, by name, for lists, snapshots and the log. */
export interface ChainNames {
  host: string;
  port: string;
  cable: string;
  dock: string;
  card: string;
}

/**
 * The names of what fills a chain.
 * @param chain the chain
 * @returns names by slot; empty where nothing is chosen
 */
export function chainNames(chain: Chain): ChainNames {
  const socket = chain.host?.sockets.find((s) => s.key === chain.socket);
  const cables = chain.path?.map((p) => partName(p.spec)).join(' + ');
  return {
    host: partName(chain.host),
    port: socket ? portName(socket) : '',
    cable: cables === undefined ? '' : cables || 'no separate cable',
    dock: chain.dock === null && endsInSlot(chain.path) ? 'no dock' : partName(chain.dock),
    card: partName(chain.card),
  };
}

/**
 * The adapters of a chain.
 * @param chain the chain
 * @returns their names, host side first; cables left out
 */
export function adapterNames(chain: Chain): string[] {
  return (chain.path ?? []).flatMap((p) => (isAdapter(p.spec) ? [partName(p.spec)] : []));
}
