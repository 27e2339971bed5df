import { endsInSlot, isDirect, plugMismatch, portFamilies } from '@ruddy/core/chain';
import type { Parts } from './parts';
import { directLink } from './direct';
import type { Wiring } from './link';
import { tunnelLink } from './tunnel';

/** The plugs along the chain, and whether a maker's own port meets another maker's. */
function fits(p: Parts): boolean {
  const { socket, chain } = p;
  const known = { socket, path: chain.path && { pieces: chain.path }, dock: chain.dock };
  const names = new Set(
    portFamilies(known).flatMap((f) => (f.name === '' ? [] : [f.name.toLowerCase()])),
  );
  return plugMismatch(known) === null && names.size < 2;
}

/** Wire the parts up: null while there is no port, or nothing to plug into it. */
export function wire(p: Parts): Wiring | null {
  const { socket, chain } = p;
  if (!socket || (!chain.dock && !endsInSlot(chain.path))) return null;
  const direct = isDirect({ socket, path: null, dock: null });
  const made = direct ? directLink(p) : tunnelLink(p);
  return fits(p) ? made : { ...made, barrier: 'misfit' };
}
