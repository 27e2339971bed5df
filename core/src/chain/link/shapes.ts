import { minOf, type Range, type RuleBook } from '../../base';
import { hasPcie } from '../../parts';
import type { Slot } from '../schema/chain';
import {
  capLimits,
  cardLimits,
  directPathLimits,
  dockLimits,
  loadLimits,
  socketLimits,
  standardLimits,
  usbCableLimits,
} from './limits';
import { tooOldToMeet } from './mode';
import { isDirect, missing, plugMismatch, portFamilies } from './plugs';
import type { HopShape, Limit, SlotFacts } from './types';

const MAX_GEN: Range = { lo: 5, hi: 5 };

/** The slot whose own port is of another family than the host's, or null. */
function wrongFamily(f: SlotFacts): Slot | null {
  const named = portFamilies(f).filter((p) => p.name !== '');
  const first = named[0];
  return named.find((p) => p.name.toLowerCase() !== first?.name.toLowerCase())?.slot ?? null;
}

function directShape(f: SlotFacts, rules: RuleBook): HopShape[] {
  const dead = f.socket && !hasPcie(f.socket.standard) ? 'socket' : null;
  return [
    {
      from: 'host',
      to: 'card',
      kind: 'pcie',
      limits: [
        ...socketLimits(f),
        ...directPathLimits(f, rules),
        ...dockLimits(f),
        ...cardLimits(f),
      ],
      unchosen: missing(f, ['socket', 'path', 'dock', 'card']),
      brokenBy: dead ?? plugMismatch(f)?.b.slot ?? wrongFamily(f),
      idle: false,
    },
  ];
}

function tunnelShapes(f: SlotFacts, rules: RuleBook): HopShape[] {
  const { socket } = f;
  const builtIn = socket?.controller !== 'separate';
  const idle = socket !== null && builtIn && (socket.pcieGen === null || socket.lanes === null);
  const link = [...standardLimits(f), ...usbCableLimits(f, rules)];
  const silent = link.find((l) => l.kind === 'transport' && l.value.hi === 0)?.slot ?? null;
  const stopped = socket && !socket.tunnels ? 'socket' : (silent ?? tooOldToMeet(socket, f.dock));
  return [
    {
      from: 'host',
      to: 'socket',
      kind: 'pcie',
      brokenBy: null,
      idle,
      unchosen: missing(f, ['socket']),
      limits: idle ? [] : socketLimits(f),
    },
    {
      from: 'socket',
      to: 'dock',
      kind: 'tunnel',
      idle: false,
      brokenBy: stopped ?? plugMismatch(f)?.b.slot ?? null,
      unchosen: missing(f, ['socket', 'path', 'dock']),
      limits: [...link, ...dockLimits(f), ...capLimits(f, rules), ...loadLimits(f)],
    },
    {
      from: 'dock',
      to: 'card',
      kind: 'pcie',
      brokenBy: null,
      idle: false,
      unchosen: missing(f, ['dock', 'card']),
      limits: [...dockLimits(f), ...cardLimits(f)],
    },
  ];
}

/**
 * The hops of a chain from the host to the card.
 * @param f the slots of a chain in one completion
 * @param rules house rules
 * @returns one hop where it is direct PCIe, three through a tunnel
 */
export function hopShapes(f: SlotFacts, rules: RuleBook): HopShape[] {
  return isDirect(f) ? directShape(f, rules) : tunnelShapes(f, rules);
}

/**
 * The PCIe generation that limits allow.
 * @param limits limits of a hop
 * @returns the least of them; Gen5 where none limits it
 */
export function leastGen(limits: readonly Limit[]): Range {
  return minOf(MAX_GEN, ...limits.filter((l) => l.kind === 'gen').map((l) => l.value));
}
