import type { AdapterSpec, PieceSpec } from '../../parts';
import type { Chain } from './chain';

/** Is this piece of a path an adapter, not a cable? */
export function isAdapter(spec: PieceSpec): spec is AdapterSpec {
  return 'hostEnd' in spec;
}

/** Does the path itself end in a card slot, so that no dock is needed? */
export function endsInSlot(path: Chain['path']): boolean {
  const last = path?.[path.length - 1]?.spec;
  return last !== undefined && isAdapter(last) && last.farEnd === 'pcie-slot';
}
