import type { Chain } from '../../chain';
import {
  type AdapterSpec,
  type CableSpec,
  type CardSpec,
  carriesTunnel,
  type Connector,
  type DockSpec,
  type HostSpec,
  isInside,
  type PieceSpec,
  type SocketSpec,
} from '../../parts';
import {
  type Context,
  contradicted,
  evaluate,
  type FindingCode,
  verdictOf,
  type VerdictState,
} from '../../plan';

/** Parts of a cell: two of the axes, and the third that all cells share, where one is chosen. */
export interface CellParts {
  readonly host: HostSpec | null;
  readonly dock: DockSpec | null;
  readonly card: CardSpec | null;
}

/** What is predicted for a cell. `no-port`: no port of the host takes the dock's plug, and no slot inside it can be made into one. */
export interface CellPredicted {
  readonly state: VerdictState | 'no-port';
  /** Port it was judged with. */
  readonly socket: string | null;
  /** Usable rate to the card, Gb/s, where known. */
  readonly down: { readonly lo: number; readonly hi: number } | null;
}

/** A pair has no supply yet, so a missing one says nothing about it; without a card, neither does what only a card decides. */
const NOT_CHOSEN: readonly FindingCode[] = ['power/no-supply'];
const WITHOUT_CARD: readonly FindingCode[] = [...NOT_CHOSEN, 'plan/unchosen'];

const RANK: Readonly<Record<VerdictState, number>> = { works: 3, care: 2, unknown: 1, blocked: 0 };

/** What all cells of a grid are judged with. */
export interface CellGrounds {
  /** A chain in which nothing is chosen. */
  readonly empty: Chain;
  /** A cable that holds nothing back, for each plug that is cabled. */
  readonly cables: Readonly<Partial<Record<string, CableSpec>>>;
  readonly context: Context;
}

/**
 * The chain of a pair through one port; through a slot inside the host, with an adapter that holds nothing back.
 * @param p parts of the pair
 * @param socket key of the port
 * @param grounds an empty chain and ideal cables
 * @returns the chain
 */
export function cellChain(p: CellParts, socket: string, { empty, cables }: CellGrounds): Chain {
  const cable = p.dock && cables[p.dock.connector];
  const port = p.host?.sockets.find((s) => s.key === socket);
  const pieces: PieceSpec[] = [
    ...(p.dock && port && port.connector !== p.dock.connector
      ? [idealAdapter(port.connector, p.dock.connector)]
      : []),
    ...(cable ? [cable] : []),
  ];
  return { ...empty, ...p, socket, path: pieces.map((spec, i) => ({ key: 'ab'.charAt(i), spec })) };
}

/** An adapter between two direct plugs that holds nothing back. */
function idealAdapter(hostEnd: Connector, farEnd: Connector): AdapterSpec {
  return {
    maker: 'any',
    model: 'adapter',
    variant: '',
    hostEnd,
    farEnd,
    pcieGen: 5,
    lanes: 16,
    lengthMm: 0,
  } as AdapterSpec;
}

/** The ports a dock can hang on: those with its plug, else the slots inside the host that an adapter makes into one. */
function portsFor(host: HostSpec, plug: Connector): readonly SocketSpec[] {
  const same = host.sockets.filter((s) => s.connector === plug);
  if (same.length > 0 || carriesTunnel(plug)) return same;
  return host.sockets.filter((s) => isInside(s.connector));
}

/**
 * What is predicted for a pair: the best of the ports of the host that take the dock's plug, or of the slots inside it
 * through an adapter, with a cable that holds nothing back.
 * @param p parts of the pair
 * @param grounds what it is judged by
 * @returns the prediction; not known without a host or a dock
 */
export function predictCell(p: CellParts, grounds: CellGrounds): CellPredicted {
  if (!p.host || !p.dock) return { state: 'unknown', socket: null, down: null };
  const plug = p.dock.connector;
  const ports = portsFor(p.host, plug);
  if (ports.length === 0) return { state: 'no-port', socket: null, down: null };
  const judged = ports.map((s) => {
    const e = evaluate({ chain: cellChain(p, s.key, grounds), context: grounds.context });
    const aside = p.card === null ? WITHOUT_CARD : NOT_CHOSEN;
    const { state } = verdictOf(e.findings.filter((f) => !aside.includes(f.code)));
    const down = e.predicted.link.usable?.down ?? null;
    return { state, socket: s.key, down: down ? { lo: down.lo, hi: down.hi } : null };
  });
  return judged.reduce((a, b) =>
    RANK[b.state] > RANK[a.state] ||
    (RANK[b.state] === RANK[a.state] && (b.down?.lo ?? 0) > (a.down?.lo ?? 0))
      ? b
      : a,
  );
}

/** What was seen in a cell: units counted, told apart. */
export interface CellSeen {
  readonly n: number;
  readonly worked: number;
  readonly told: number;
  readonly newest: string;
}

/**
 * Does what was seen exclude what is predicted? Only a whole chain, seen often enough, can.
 * @param predicted of the pair
 * @param seen in the log; null where nothing was
 * @returns true where it does
 */
export function cellContradicts(predicted: CellPredicted, seen: CellSeen | null): boolean {
  if (!seen || predicted.state === 'no-port') return false;
  return (
    contradicted(predicted.state, { worked: seen.worked, failed: seen.n - seen.worked })?.sure ??
    false
  );
}
