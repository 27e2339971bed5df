import type { RuleBook } from '../../base';
import {
  CARRIES,
  type DockSpec,
  hasPcie,
  type PortStandard,
  type SocketSpec,
  type UplinkStandard,
} from '../../parts';
import type { AttrPath, Chain } from '../schema/chain';
import { endsInSlot } from '../schema/shape';
import { protocolGenerationOf } from './mode';
import { isDirect } from './plugs';
import { tunnelOf } from './standards';
import type { KnownDock, KnownPath, KnownSocket, SlotFacts } from './types';

/** One way to fill in the choices that are not known, with the facts it gives. */
export interface Completion {
  readonly made: Readonly<Record<AttrPath, string>>;
  readonly facts: SlotFacts;
}

type Stated<T extends string> = T | { oneOf: T[] } | null;
type Made = Record<AttrPath, string>;

function options<T extends string>(stated: Stated<T>, all: readonly T[]): readonly T[] {
  if (stated === null) return all;
  return typeof stated === 'string' ? [stated] : stated.oneOf;
}

function tunnelOptions(
  standard: PortStandard,
  stated: SocketSpec['tunnelling'],
): readonly ('yes' | 'no')[] {
  const tunnel = tunnelOf(standard);
  if (!tunnel) return ['no'];
  return options(stated, tunnel.pcie === 'required' ? ['yes'] : ['yes', 'no']);
}

/**
 * The path of an attribute of the port in use.
 * @param key key of the port
 * @param attr name of the attribute
 * @returns the path
 * @example socketPath('left', 'standard') // => 'host/sockets/left/standard'
 */
export function socketPath(key: string, attr: string): AttrPath {
  return `host/sockets/${key}/${attr}`;
}

interface SocketCompletion {
  readonly made: Made;
  readonly socket: KnownSocket | null;
}

function socketCompletions(socket: SocketSpec): SocketCompletion[] {
  const standards = options<PortStandard>(socket.standard, CARRIES[socket.connector]);
  const link = standards.flatMap((standard) =>
    tunnelOptions(standard, socket.tunnelling).map((tunnelling) => ({ standard, tunnelling })),
  );
  // A port known to tunnel is not a plain one, unless that is all it can be.
  const tunnels = link.filter((w) => hasPcie(w.standard));
  const kept = socket.tunnelling === 'yes' && tunnels.length > 0 ? tunnels : link;
  const tunnelled = kept.some((w) => tunnelOf(w.standard) !== null);
  const open = socket.pcieGen === null || socket.lanes === null;
  const controllers =
    open && tunnelled ? options(socket.controller, ['built-in', 'separate']) : [socket.controller];
  return kept.flatMap(({ standard, tunnelling }) =>
    controllers.map((controller) => ({
      made: {
        [socketPath(socket.key, 'standard')]: standard,
        [socketPath(socket.key, 'tunnelling')]: tunnelling,
        [socketPath(socket.key, 'controller')]: String(controller),
      },
      socket: {
        ...socket,
        controller,
        standard,
        tunnels: tunnelling === 'yes',
        tb3: socket.tb3Compat === 'yes',
      },
    })),
  );
}

interface DockCompletion {
  readonly made: Made;
  readonly dock: KnownDock | null;
}

function dockCompletions(dock: DockSpec | null): DockCompletion[] {
  if (!dock) return [{ made: {}, dock: null }];
  const possible = CARRIES[dock.connector].filter(hasPcie);
  return options<UplinkStandard>(dock.uplink, possible).map((uplink) => ({
    made: { 'dock/uplink': uplink },
    dock: { ...dock, uplink, tb3: dock.tb3Compat === 'yes' },
  }));
}

/** Thunderbolt 3 support of a USB4 end matters only where the other end is older. */
function pairCompletions(
  s: SocketCompletion,
  d: DockCompletion,
): { made: Made; socket: KnownSocket | null; dock: KnownDock | null }[] {
  const a = s.socket && tunnelOf(s.socket.standard);
  const b = d.dock && tunnelOf(d.dock.uplink);
  const made = { ...s.made, ...d.made };
  const plain = [{ made, socket: s.socket, dock: d.dock }];
  if (!s.socket || !d.dock || !a || !b || (a.era === 'thunderbolt') === (b.era === 'thunderbolt'))
    return plain;
  const newer = a.era === 'thunderbolt' ? 'dock' : 'socket';
  if ((newer === 'dock' ? b : a).pcie === 'required') return plain;
  const spec = newer === 'dock' ? d.dock : s.socket;
  const attr = newer === 'dock' ? 'dock/tb3Compat' : socketPath(s.socket.key, 'tb3Compat');
  return options(spec.tb3Compat, ['yes', 'no'] as const).map((answer) => ({
    made: { ...made, [attr]: answer },
    socket: newer === 'socket' && s.socket ? { ...s.socket, tb3: answer === 'yes' } : s.socket,
    dock: newer === 'dock' && d.dock ? { ...d.dock, tb3: answer === 'yes' } : d.dock,
  }));
}

/** Payload of a packet, bytes: one number a path; the second USB4 version leaves it between two. */
function payloads(f: Pick<SlotFacts, 'socket' | 'path' | 'dock'>, rules: RuleBook): number[] {
  if (isDirect(f)) return [rules.get('link.payloadDirectBytes')];
  const usual = rules.get('link.payloadTunnelBytes');
  if (protocolGenerationOf(f.socket, f.dock) !== 'usb4-v2') return [usual];
  return [...new Set([usual, Math.max(usual, rules.get('link.payloadTunnelV2Bytes'))])];
}

/** A choice no person makes: it never stands among what to find out. */
export const NOT_ASKED = 'rule/';

/**
 * Every way to fill in the choices of a chain that are not known: standard of the port with its tunnelling,
 * controller, uplink, older Thunderbolt where it matters, and the payload the standard leaves open. Construction
 * of a cable and class of a dock are not among them: their union is taken where they are read.
 * @param chain the chain
 * @param rules house rules
 * @returns at least one completion, at most about 200 where nothing at all is known
 */
export function completions(chain: Chain, rules: RuleBook): Completion[] {
  const spec = chain.host?.sockets.find((s) => s.key === chain.socket) ?? null;
  const sockets: SocketCompletion[] = spec ? socketCompletions(spec) : [{ made: {}, socket: null }];
  const path: KnownPath | null = chain.path && {
    pieces: chain.path,
    endsInSlot: endsInSlot(chain.path),
  };
  const { host, card, loads, installed } = chain;
  return sockets.flatMap((s) =>
    dockCompletions(chain.dock).flatMap((d) =>
      pairCompletions(s, d).flatMap(({ made, socket, dock }) => {
        const all = payloads({ socket, path, dock }, rules);
        return all.map((payload) => ({
          made: { ...made, [`${NOT_ASKED}payload`]: String(payload) },
          facts: { host, socket, path, dock, card, loads, installed, payload },
        }));
      }),
    ),
  );
}

/**
 * The choices a statement depends on: those where two completions that differ in nothing else disagree.
 * @param all completions of a chain
 * @param holds whether the statement is true in each of them
 * @returns paths of the attributes
 */
export function hangsOn(all: readonly Completion[], holds: readonly boolean[]): AttrPath[] {
  const found = new Set<AttrPath>();
  all.forEach((a, i) => {
    for (let j = i + 1; j < all.length; j++) {
      if (holds[i] === holds[j]) continue;
      const other = all[j]?.made ?? {};
      const differ = Object.keys({ ...a.made, ...other }).filter(
        (k) => a.made[k] !== other[k] && !k.startsWith(NOT_ASKED),
      );
      const [only, second] = differ;
      if (only && second === undefined) found.add(only);
      else {
        // A standard carries other answers with it, its tunnelling and whether Thunderbolt 3 is a question: it is the question.
        const standards = differ.filter((k) => k.endsWith('/standard') || k === 'dock/uplink');
        const socket = standards[0]?.endsWith('/standard') ?? false;
        const carried = (k: string) =>
          !(k in a.made && k in other) || (socket && k.endsWith('/tunnelling'));
        if (standards.length === 1 && differ.every((k) => k === standards[0] || carried(k)))
          found.add(standards[0] as string);
      }
    }
  });
  return [...found];
}
