import type { Range } from '@ruddy/core/base';
import { formatWhole } from '@ruddy/core/base/text';
import {
  type AttrPath,
  type Chain,
  endsInSlot,
  isAdapter,
  portName,
  type Slot,
} from '@ruddy/core/chain';
import type { CableSpec, PortStandard } from '@ruddy/core/parts';

/** Banks and piers, host side first. */
export const STRIP_NODES = ['system', 'port', 'cable', 'dock', 'card', 'screen'] as const;
export type StripNodeKey = (typeof STRIP_NODES)[number];

export interface StripNode {
  readonly key: StripNodeKey;
  readonly role: string;
  readonly name: string;
  readonly facts: readonly string[];
  readonly state: 'chosen' | 'not chosen' | 'not used';
  /** What stands under it or leaves it beside the ribbon: supply and charging, the picture. */
  readonly under?: readonly string[];
}

const NODE_OF_SLOT: Record<Slot, StripNodeKey> = {
  host: 'system',
  socket: 'port',
  path: 'cable',
  dock: 'dock',
  card: 'card',
  loads: 'dock',
  supplies: 'dock',
  picture: 'screen',
  system: 'system',
  installed: 'system',
  settings: 'system',
  uses: 'system',
};

export function nodeOf(slot: Slot): StripNodeKey {
  return NODE_OF_SLOT[slot];
}

export function role(key: StripNodeKey): string {
  return {
    system: 'System',
    port: 'Host port',
    cable: 'Cable',
    dock: 'Dock',
    card: 'Card',
    screen: 'Screen',
  }[key];
}

const FORM = {
  laptop: 'laptop',
  'mini-pc': 'mini PC',
  handheld: 'handheld',
  desktop: 'desktop',
} as const;
const STANDARD: Record<PortStandard, string> = {
  'usb-c': 'USB-C, no PCIe',
  'thunderbolt-1': 'Thunderbolt 1',
  'thunderbolt-2': 'Thunderbolt 2',
  'thunderbolt-3': 'Thunderbolt 3',
  'usb4-20': 'USB4 20',
  'usb4-40': 'USB4 40',
  'thunderbolt-4': 'Thunderbolt 4',
  'usb4-80': 'USB4 80',
  'thunderbolt-5': 'Thunderbolt 5',
  oculink: 'OCuLink',
  pcie: 'PCIe, direct',
  displayport: 'no PCIe',
  sata: 'SATA, no PCIe',
};

type Num = number | Range | null;
const lanes = (n: Num) => (n === null ? '?' : typeof n === 'number' ? String(n) : formatWhole(n));
const short = (words: string) => (words.length > 18 ? `${words.slice(0, 17)}…` : words);

function lengthWords(cables: readonly CableSpec[]): string {
  const sum = cables.reduce<number | null>(
    (mm, c) => (mm === null || typeof c.lengthMm !== 'number' ? null : mm + c.lengthMm),
    0,
  );
  return sum === null
    ? 'length not known'
    : sum >= 1000
      ? `${(sum / 1000).toFixed(1)} m`
      : `${sum} mm`;
}

/** The segments of the path as one pier: what they are called, how long, and which of several binds. */
function cableNode(
  path: Chain['path'],
  setBy: readonly AttrPath[],
): Pick<StripNode, 'name' | 'facts' | 'state'> {
  const segments = path ?? [];
  const state = path === null ? 'not chosen' : segments.length === 0 ? 'not used' : 'chosen';
  const cables = segments.flatMap(({ spec }) => (isAdapter(spec) ? [] : [spec]));
  const first = cables[0];
  const direct = first && first.connector !== 'usb-c' && first.connector !== 'mini-dp';
  const mark = !first
    ? ''
    : direct
      ? first.pcieGen === null
        ? 'rate not known'
        : `good to Gen${lanes(first.pcieGen)}`
      : first.connector === 'mini-dp'
        ? ''
        : first.markedGbps === null
          ? 'mark not known'
          : `marked ${lanes(first.markedGbps)}`;
  const length = first
    ? `${lengthWords(cables)} ${typeof first.construction === 'string' ? first.construction : ''}`.trim()
    : 'adapter';
  const binding =
    segments.length > 1
      ? segments.find((p) => setBy.some((a) => a.startsWith(`path/${p.key}/`)))
      : undefined;
  const facts = binding ? [`${binding.spec.model} binds`, length] : [length, mark];
  return {
    name: segments.map((c) => c.spec.model).join(' + '),
    facts: segments.length > 0 ? facts : [],
    state,
  };
}

/** What stands on the ground at the left: driver and system, or the kind of host where neither is said. */
function systemFacts({ host, system, installed }: Chain): string[] {
  const words = [installed.driver && `driver ${installed.driver}`, system?.model ?? ''].filter(
    (s) => s !== '',
  );
  return words.length > 0 ? words : host ? [FORM[host.form]] : [];
}

function screenNode({ picture, settings, host }: Chain): StripNode {
  const first = picture[0]?.screen;
  const mode =
    first && first.widthPx !== null && first.heightPx !== null
      ? [`${lanes(first.widthPx)}×${lanes(first.heightPx)}`]
      : [];
  const more = picture.length > 1 ? [`${picture.length - 1} more`] : [];
  if (first)
    return {
      key: 'screen',
      role: 'Screen',
      name: first.model,
      facts: [...mode, ...more],
      state: 'chosen',
    };
  const panel = settings.toPanel === 'yes' && host;
  return panel
    ? {
        key: 'screen',
        role: 'Screen',
        name: "the host's panel",
        facts: ['picture goes back'],
        state: 'chosen',
      }
    : { key: 'screen', role: 'Screen', name: '', facts: [], state: 'not chosen' };
}

/** Every bank and pier of a chain. `setBy` names the attributes that bind at the pinch. */
export function nodesOf(chain: Chain, setBy: readonly AttrPath[]): StripNode[] {
  const socket = chain.host?.sockets.find((s) => s.key === chain.socket) ?? null;
  const standard =
    socket && typeof socket.standard === 'string'
      ? STANDARD[socket.standard]
      : 'standard not known';
  const noDock = chain.dock === null && endsInSlot(chain.path);
  return [
    {
      key: 'system',
      role: 'System',
      name: chain.host ? chain.host.model : '',
      facts: systemFacts(chain),
      state: chain.host ? 'chosen' : 'not chosen',
    },
    {
      key: 'port',
      role: 'Host port',
      name: socket ? short(portName(socket)) : '',
      facts: socket ? [standard] : [],
      state: socket ? 'chosen' : 'not chosen',
    },
    { key: 'cable', role: 'Cable', ...cableNode(chain.path, setBy) },
    {
      key: 'dock',
      role: 'Dock',
      name: chain.dock ? chain.dock.model : '',
      facts: chain.dock ? [`slot ×${lanes(chain.dock.slotLanes)}`] : [],
      state: chain.dock ? 'chosen' : noDock ? 'not used' : 'not chosen',
    },
    {
      key: 'card',
      role: 'Card',
      name: chain.card ? chain.card.model : '',
      facts: chain.card ? [`could do ×${lanes(chain.card.lanes)}`] : [],
      state: chain.card ? 'chosen' : 'not chosen',
    },
    screenNode(chain),
  ];
}
