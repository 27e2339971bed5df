import { type Chain, isAdapter } from '../chain';
import { carriesTunnel, wordsOf } from '../parts';

/** Conditions on a chain under which a cause can sit in it, or a test can be made on it. */
export const CHAIN_CONDITIONS = {
  all: 'every chain',
  tunnel: 'a link that may be tunnelled',
  'surely-tunnel': 'a link that is surely tunnelled',
  direct: 'a link that may be direct PCIe',
  usbc: 'a USB-C plug',
  separate: 'a port that may have a controller of its own',
  compatibility: 'a USB4 port and a dock for Thunderbolt 3, or not known',
  dock: 'a dock, or none chosen yet',
  hub: 'a link that a hub, LAN or drive of the dock may share',
  slot: 'a card in a slot',
  plugs: 'a card that may want power plugs',
  mobile: 'a mobile chip, or not known',
  inside: 'graphics inside the host, or not known',
  panel: 'a panel of the host',
  battery: 'a battery in the host, or not known',
  lid: 'a lid',
  ports: 'another port of the host, or not known',
  opened: 'a slot inside the host',
} as const;
export type ChainCondition = keyof typeof CHAIN_CONDITIONS;

export type ChainFacts = Readonly<Record<ChainCondition, boolean>>;

/** Answers about a chain whose parts are unknown; null is "not sure". */
export interface SaidOfChain {
  readonly form: 'laptop' | 'mini-pc' | 'handheld' | 'desktop' | null;
  readonly port: 'usb-c' | 'oculink' | 'inside' | 'mini-dp' | null;
}
const PLUGS = {
  'usb-c': 'usb-c',
  oculink: 'oculink-4i',
  inside: 'm2',
  'mini-dp': 'mini-dp',
} as const;

const MOVED = ['laptop', 'handheld'];
type Num = number | null | { lo: number; hi: number };
const maySome = (n: Num | undefined): boolean =>
  n === null || n === undefined || (typeof n === 'number' ? n > 0 : n.hi > 0);

/** May a stated choice be one of these? Nothing stated may be anything. */
function may<T extends string>(
  stated: T | { oneOf: T[] } | null | undefined,
  ...is: readonly T[]
): boolean {
  const words = wordsOf(stated ?? null);
  return words.length === 0 || words.some((w) => is.includes(w));
}

/**
 * What is known of a chain, as the net reads it. What is not known rules nothing out.
 * @param chain the chain
 * @param said what was typed of a chain without parts; it stands where no part is chosen
 * @returns facts
 */
export function chainFacts(chain: Chain, said: SaidOfChain | null = null): ChainFacts {
  const port = chain.host?.sockets.find((s) => s.key === chain.socket) ?? null;
  const first = chain.path?.[0]?.spec;
  const entry = first ? (isAdapter(first) ? first.hostEnd : first.connector) : null;
  const told = said?.port ? PLUGS[said.port] : null;
  const connector = port?.connector ?? entry ?? chain.dock?.connector ?? told;
  const tunnel = connector === null || carriesTunnel(connector);
  const inDock = chain.dock;
  const form = chain.host?.form ?? said?.form ?? null;
  const plugs = chain.card
    ? [chain.card.plugs8Pin, chain.card.plugs6Pin, chain.card.plugs16Pin]
    : [null];
  return {
    all: true,
    tunnel,
    'surely-tunnel': connector !== null && tunnel,
    direct: connector === null || !tunnel,
    usbc: connector === null || connector === 'usb-c',
    separate: tunnel && may(port?.controller, 'separate'),
    compatibility:
      tunnel &&
      may(port?.standard, 'usb4-20', 'usb4-40', 'usb4-80') &&
      may(inDock?.uplink, 'thunderbolt-3') &&
      may(port?.tb3Compat, 'no'),
    dock: inDock !== null || chain.path === null || chain.path.length === 0 || tunnel,
    hub: tunnel,
    slot: inDock?.form !== 'all-in-one',
    plugs: inDock?.form !== 'all-in-one' && plugs.some(maySome),
    mobile: may(chain.card?.chip, 'mobile'),
    inside: may(chain.host?.graphics, 'internal', 'both'),
    panel: form === null || MOVED.includes(form),
    battery: form === null || (MOVED.includes(form) && maySome(chain.host?.batteryWh)),
    lid: form === null || form === 'laptop',
    ports: chain.host === null || chain.host.sockets.length > 1,
    opened: connector === 'm2' || connector === 'mini-card',
  };
}
