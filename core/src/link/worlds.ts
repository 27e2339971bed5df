import type { AttrPath, Chain, PortStandard, SocketSpec, UplinkStandard } from '../schema';
import type { SlotFacts } from './types';

/** One way to fill in the choices that are not known, with the facts it gives. */
export interface World {
  readonly made: Readonly<Record<AttrPath, string>>;
  readonly facts: SlotFacts;
}

type Stated<T extends string> = T | { oneOf: T[] } | null;

function options<T extends string>(stated: Stated<T>, all: readonly T[]): readonly T[] {
  if (stated === null) return all;
  return typeof stated === 'string' ? [stated] : stated.oneOf;
}

const USB_PORTS: readonly PortStandard[] = ['usb-c', 'usb4-20', 'usb4-40', 'thunderbolt-4'];
const USB_UPLINKS: readonly UplinkStandard[] = ['usb4-20', 'usb4-40', 'thunderbolt-4'];

function tunnelOptions(standard: PortStandard, stated: SocketSpec['tunnelling']): readonly ('yes' | 'no')[] {
  if (standard === 'usb-c' || standard === 'oculink') return ['no'];
  const all: readonly ('yes' | 'no')[] = standard === 'thunderbolt-4' ? ['yes'] : ['yes', 'no'];
  return options(stated, all);
}

/** The path of an attribute of the socket in use. */
export function socketPath(key: string, attr: string): AttrPath {
  return `host/sockets/${key}/${attr}`;
}

function socketWorlds(socket: SocketSpec): { made: Record<AttrPath, string>; socket: SlotFacts['socket'] }[] {
  const oculink = socket.connector === 'oculink-4i';
  const standards = options<PortStandard>(socket.standard, oculink ? ['oculink'] : USB_PORTS);
  const link = standards.flatMap((standard) =>
    tunnelOptions(standard, socket.tunnelling).map((tunnelling) => ({ standard, tunnelling })),
  );
  // A port known to tunnel is not a plain USB-C port, unless that is all it can be.
  const tunnels = link.filter((w) => w.standard !== 'usb-c');
  const kept = socket.tunnelling === 'yes' && tunnels.length > 0 ? tunnels : link;
  const open = socket.pcieGen === null || socket.lanes === null;
  const controllers = open && !oculink ? options(socket.controller, ['built-in', 'separate']) : [socket.controller];
  return kept.flatMap(({ standard, tunnelling }) =>
    controllers.map((controller) => ({
      made: {
        [socketPath(socket.key, 'standard')]: standard,
        [socketPath(socket.key, 'tunnelling')]: tunnelling,
        [socketPath(socket.key, 'controller')]: String(controller),
      },
      socket: { ...socket, controller, standard, tunnels: tunnelling === 'yes' },
    })),
  );
}

/**
 * Every way to fill in the choices of a chain that are not known: at most 48 (four port standards,
 * tunnelling or not, two controllers, three uplinks). Construction of a cable is not among them:
 * its hull is taken where it is read, so several cables do not multiply the worlds.
 */
export function worlds(chain: Chain): World[] {
  const spec = chain.host?.sockets.find((s) => s.key === chain.socket) ?? null;
  const sockets = spec ? socketWorlds(spec) : [{ made: {}, socket: null }];
  const dock = chain.dock;
  const uplinks = dock
    ? options<UplinkStandard>(dock.uplink, dock.connector === 'oculink-4i' ? ['oculink'] : USB_UPLINKS)
    : [null];
  const path = chain.path && { pieces: chain.path };
  return sockets.flatMap(({ made, socket }) =>
    uplinks.map((uplink) => ({
      made: uplink === null ? made : { ...made, 'dock/uplink': uplink },
      facts: { socket, path, dock: dock && uplink ? { ...dock, uplink } : null, card: chain.card },
    })),
  );
}

/**
 * The choices a statement hangs on: those where two worlds that differ in nothing else disagree.
 * `holds` says for each world whether the statement is true there.
 */
export function hangsOn(all: readonly World[], holds: readonly boolean[]): AttrPath[] {
  const found = new Set<AttrPath>();
  all.forEach((a, i) => {
    for (let j = i + 1; j < all.length; j++) {
      if (holds[i] === holds[j]) continue;
      const other = all[j]?.made ?? {};
      const differ = Object.keys(a.made).filter((k) => a.made[k] !== other[k]);
      const [only, second] = differ;
      if (only && second === undefined) found.add(only);
      // A standard carries its tunnelling with it, so the pair differs in both: the standard is the question.
      else if (differ.length === 2 && only?.endsWith('/standard')) found.add(only);
    }
  });
  return [...found];
}
