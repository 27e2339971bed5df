import type { AdapterSpec, PieceSpec } from '../../parts';
import type { Chain } from './chain';

/**
 * Is a piece of a path an adapter, not a cable?
 * @param spec the piece
 * @returns true where it is
 */
export function isAdapter(spec: PieceSpec): spec is AdapterSpec {
  return 'hostEnd' in spec;
}

/**
 * Does a path itself end in a card slot, so that no dock is needed?
 * @param path pieces, host side first; null while none is chosen
 * @returns true where its last piece does
 */
export function endsInSlot(path: Chain['path']): boolean {
  const last = path?.[path.length - 1]?.spec;
  return last !== undefined && isAdapter(last) && last.farEnd === 'pcie-slot';
}
