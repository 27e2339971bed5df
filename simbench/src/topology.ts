import { RuleBook } from '@ruddy/core/base';
import {
  endsInSlot,
  isDirect,
  plugMismatch,
  portFamilies,
  directGen,
  isAdapter,
  trainedWidth,
} from '@ruddy/core/chain';
import { CONNECTOR_LANES, WITHOUT_PCIE } from '@ruddy/core/parts';
import { type Topology, spanRate } from './link';
import { type Parts, cardEnd, settle, slotEnd, strength, word } from './parts';
import { tunnelTopology } from './tunnel';

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
export function topologyOf(p: Parts): Topology | null {
  const { socket, chain } = p;
  if (!socket || (!chain.dock && !endsInSlot(chain.path))) return null;
  const direct = isDirect({ socket, path: null, dock: null });
  const made = direct ? directTopology(p) : tunnelTopology(p);
  return fits(p) ? made : { ...made, barrier: 'misfit' };
}

const LENGTHS = new RuleBook({});

/** A generation the path holds: what is promised for one piece, what its lengths allow for several. */
function pathGen(p: Parts): number {
  const pieces = p.chain.path ?? [];
  const promised = pieces.map(({ spec, key }) =>
    settle(spec.pcieGen, isAdapter(spec) ? 5 : 4, p.noise, `gen ${key}`),
  );
  const byLength = pieces.length > 1 ? directGen(pieces, (id) => LENGTHS.get(id)).gen.lo : 5;
  return Math.min(...promised, byLength, 5);
}

function pathLanes(p: Parts): number {
  const pieces = p.chain.path ?? [];
  const plugs = pieces.flatMap(({ spec }) =>
    isAdapter(spec) ? [spec.hostEnd, spec.farEnd] : [spec.connector],
  );
  const room = [...plugs, ...(p.chain.dock ? [p.chain.dock.connector] : [])].map(
    (c) => CONNECTOR_LANES[c] ?? 16,
  );
  const wired = pieces.map(({ spec, key }) =>
    isAdapter(spec) ? settle(spec.lanes, 4, p.noise, `lanes ${key}`) : 16,
  );
  return Math.min(16, ...room, ...wired);
}

/** Direct PCIe: one link from a port of the host to the card, as fast and as wide as its weakest piece. */
export function directTopology(p: Parts): Topology {
  const { socket, chain, noise } = p;
  const inside = socket?.connector === 'mini-card' || socket?.connector === 'expresscard' ? 1 : 4;
  const port = {
    gen: settle(socket?.pcieGen, inside === 1 ? 2 : 4, noise, 'port gen'),
    lanes: settle(socket?.lanes, inside, noise, 'port lanes'),
  };
  const card = cardEnd(p);
  const dock = chain.dock ? slotEnd(p, { gen: 4, lanes: 16 }) : { gen: 5, lanes: 16 };
  const margin = strength(p, 'direct-cable-margin');
  const lost = strength(p, 'direct-lanes-lost');
  const seat = strength(p, 'card-not-seated');
  const gen = Math.min(port.gen, card.gen, dock.gen, pathGen(p));
  const lanes = trainedWidth(Math.min(port.lanes, card.lanes, dock.lanes, pathLanes(p)));
  const slot = {
    // A path without margin shows errors first, and gives a generation up when it gets worse.
    gen: margin > 0.5 ? Math.max(1, gen - 1) : gen,
    lanes: Math.max(
      1,
      trainedWidth(lanes / (lost > 0.6 ? 4 : lost > 0 ? 2 : 1) / (seat > 0 && seat < 0.7 ? 4 : 1)),
    ),
  };
  const dead = (WITHOUT_PCIE as readonly string[]).includes(word(socket?.standard, 'pcie'));
  const rate = { down: spanRate(slot, 'down', 'direct'), up: spanRate(slot, 'up', 'direct') };
  return {
    kind: 'direct',
    barrier: dead ? 'no-pcie' : null,
    router: null,
    host: null,
    slot,
    port: { gen: port.gen, lanes: port.lanes },
    card,
    usable: () => rate,
  };
}
