import { TRANSPORT_20, TRANSPORT_40, type Hop } from '@ruddy/core/link';
import type { Evaluation } from '@ruddy/core/plan';
import type { Chain, Slot } from '@ruddy/core/schema';
import { portName } from '@ruddy/core/setup';
import { rate, VERDICT_WORDS, whole } from '@ruddy/core/texts';
import { isExact, type Range } from '@ruddy/core/units';

/** Banks and piers, host side first. Screen and system details come with later pages; their piers stand already. */
export const PIERS = ['system', 'port', 'cable', 'dock', 'card', 'screen'] as const;
export type PierKey = (typeof PIERS)[number];

export interface Pier {
  readonly key: PierKey;
  readonly role: string;
  readonly name: string;
  readonly facts: readonly string[];
  readonly state: 'chosen' | 'not chosen' | 'not used';
}

export type HopState = 'expected' | 'range' | 'unknown' | 'blocked';

export interface StripHop {
  readonly index: number;
  readonly from: PierKey;
  readonly to: PierKey;
  /** Piers the ribbon runs through. */
  readonly through: readonly PierKey[];
  readonly line1: string;
  readonly line2: string;
  readonly state: HopState;
  readonly usable: Range | null;
  readonly up: Range | null;
  /** What the hop would carry beside the neck: the rest's rate when this hop is the pinch. */
  readonly full: Range | null;
  readonly pinch: boolean;
  /** The pier the neck and its teeth stand beside; null when no single part sets it. */
  readonly neckAt: PierKey | null;
}

export interface StripModel {
  readonly name: string;
  readonly verdict: string;
  readonly piers: readonly Pier[];
  readonly hops: readonly StripHop[];
  /** Largest rate from the port rightwards decides: 32, 64 or 128 Gb/s are 48 px. */
  readonly scaleGbps: 32 | 64 | 128;
  readonly pinchLine: string;
  readonly notKnown: readonly string[];
}

const SLOT_PIER: Record<Slot, PierKey> = { host: 'system', socket: 'port', path: 'cable', dock: 'dock', card: 'card' };
const NOUN: Record<PierKey, string> = {
  system: 'the host',
  port: 'the host port',
  cable: 'the cable',
  dock: 'the dock',
  card: 'the card',
  screen: 'the screen',
};

export function pierOf(slot: Slot): PierKey {
  return SLOT_PIER[slot];
}

function piers(chain: Chain): Pier[] {
  const socket = chain.host?.sockets.find((s) => s.key === chain.socket) ?? null;
  const cables = chain.path ?? [];
  const length = cables.reduce<number | null>(
    (sum, c) => (sum === null || typeof c.spec.lengthMm !== 'number' ? null : sum + c.spec.lengthMm),
    0,
  );
  const metres = length === null ? 'length not known' : length >= 1000 ? `${(length / 1000).toFixed(1)} m` : `${length} mm`;
  const first = cables[0]?.spec;
  const mark = first?.connector === 'oculink-4i' ? gen(first.pcieGen) : first ? marked(first.markedGbps) : '';
  const standard = socket && typeof socket.standard === 'string' ? STANDARD[socket.standard] : 'standard not known';
  return [
    {
      key: 'system',
      role: 'System',
      name: chain.host ? chain.host.model : '',
      facts: chain.host ? [FORM[chain.host.form]] : [],
      state: chain.host ? 'chosen' : 'not chosen',
    },
    {
      key: 'port',
      role: 'Host port',
      name: socket ? shortPosition(portName(socket)) : '',
      facts: socket ? [standard ?? ''] : [],
      state: socket ? 'chosen' : 'not chosen',
    },
    {
      key: 'cable',
      role: 'Cable',
      name: cables.map((c) => c.spec.model).join(' + '),
      facts: cables.length > 0 ? [`${metres} ${first?.construction ?? ''}`.trim(), mark] : [],
      state: chain.path === null ? 'not chosen' : cables.length === 0 ? 'not used' : 'chosen',
    },
    {
      key: 'dock',
      role: 'Dock',
      name: chain.dock ? chain.dock.model : '',
      facts: chain.dock ? [`slot ×${laneText(chain.dock.slotLanes)}`] : [],
      state: chain.dock ? 'chosen' : 'not chosen',
    },
    {
      key: 'card',
      role: 'Card',
      name: chain.card ? chain.card.model : '',
      facts: chain.card ? [`could do ×${laneText(chain.card.lanes)}`] : [],
      state: chain.card ? 'chosen' : 'not chosen',
    },
    { key: 'screen', role: 'Screen', name: '', facts: [], state: 'not chosen' },
  ];
}

const FORM = { laptop: 'laptop', 'mini-pc': 'mini PC', handheld: 'handheld', desktop: 'desktop' } as const;
const STANDARD: Record<string, string> = {
  'usb-c': 'USB-C, no PCIe',
  'usb4-20': 'USB4 20',
  'usb4-40': 'USB4 40',
  'thunderbolt-4': 'Thunderbolt 4',
  oculink: 'OCuLink',
};

function shortPosition(position: string): string {
  return position.length > 18 ? `${position.slice(0, 17)}…` : position;
}

function laneText(n: number | Range | null): string {
  return n === null ? '?' : typeof n === 'number' ? String(n) : whole(n);
}

function gen(n: number | Range | null): string {
  return n === null ? 'rate not known' : `good to Gen${laneText(n)}`;
}

function marked(n: number | Range | null): string {
  return n === null ? 'mark not known' : `marked ${laneText(n)}`;
}

function transportName(t: Range): string {
  const one = (x: number) => (Math.abs(x - TRANSPORT_40) < 0.01 ? '40' : Math.abs(x - TRANSPORT_20) < 0.01 ? '20' : '0');
  if (isExact(t)) return `USB4 ${one(t.lo)}`;
  return t.lo === 0 ? `USB4 up to ${one(t.hi)}` : `USB4 ${one(t.lo)} to ${one(t.hi)}`;
}

/** What a hop trains to: "USB4 20 by the cable · PCIe Gen3 ×4" or "PCIe Gen4 ×4". */
function trained(h: Hop, by: PierKey | null): string {
  if (h.state === 'broken') return h.kind === 'tunnel' ? 'no tunnel' : 'no link';
  const pcie = h.gen && h.lanes ? `PCIe Gen${whole(h.gen)} ×${whole(h.lanes)}` : '';
  if (h.kind === 'pcie') return pcie || 'width not known';
  const link = h.transport ? transportName(h.transport) : 'tunnel';
  const held = by && (by === 'cable' || by === 'port') && h.transport && h.transport.hi < TRANSPORT_40 ? ` by ${NOUN[by]}` : '';
  return [link + held, pcie].filter((s) => s !== '').join(' · ');
}

function stateOf(h: Hop): HopState {
  if (h.state === 'broken') return 'blocked';
  if (h.state === 'unknown' || !h.usable) return 'unknown';
  return isExact(h.usable.down) ? 'expected' : 'range';
}

function stripHop(h: Hop, index: number, e: Evaluation): StripHop {
  const { pinch } = e.predicted.link;
  const isPinch = pinch.hops.includes(index);
  const state = stateOf(h);
  const [from, to] = [pierOf(h.from), pierOf(h.to)];
  const [a, b] = [PIERS.indexOf(from), PIERS.indexOf(to)];
  const through = PIERS.slice(a + 1, b);
  const neckAt = isPinch && pinch.part ? pierOf(pinch.part) : null;
  const named = isPinch && (pinch.part !== null || !pinch.certain) && state !== 'unknown';
  const value = state === 'blocked' ? '0.0 Gb/s' : h.usable ? `${rate(h.usable.down)} Gb/s` : 'not known';
  return {
    index,
    from,
    to,
    through,
    line1: trained(h, neckAt),
    line2:
      state === 'blocked' ? `blocked: ${value}` : named ? `${pinch.certain ? 'pinch' : 'may pinch'}: ${value} usable` : value,
    state,
    usable: h.usable ? { lo: h.usable.down.lo, hi: h.usable.down.hi } : null,
    up: h.usable ? { lo: h.usable.up.lo, hi: h.usable.up.hi } : null,
    full: isPinch && pinch.part && pinch.rest ? pinch.rest : h.usable ? { lo: h.usable.down.lo, hi: h.usable.down.hi } : null,
    pinch: named,
    neckAt: named ? neckAt : null,
  };
}

function pinchLine(e: Evaluation): string {
  const { pinch, usable } = e.predicted.link;
  if (!usable) return 'Pinch: not known.';
  const broken = e.predicted.link.hops.some((h) => h.state === 'broken');
  if (broken) return `Pinch: ${pinch.part ? NOUN[pierOf(pinch.part)].replace('the ', '') : 'not known'}, 0.0 Gb/s usable.`;
  const rest = pinch.rest ? `; the rest could carry ${rate(pinch.rest)}` : '';
  if (pinch.part === null)
    return pinch.certain
      ? `Pinch: no single part, ${rate(usable.down)} Gb/s usable.`
      : `Pinch: not certain, ${rate(usable.down)} Gb/s usable${rest}.`;
  return `Pinch: ${NOUN[pierOf(pinch.part)].replace('the ', '')}, ${rate(usable.down)} Gb/s usable${rest}.`;
}

/** Everything the strip shows, in every form: the picture, the small form, the text and the buttons are made from it. */
export function stripModel(name: string, chain: Chain, e: Evaluation): StripModel {
  const hops = e.predicted.link.hops.map((h, i) => stripHop(h, i, e));
  const scaled = hops
    .filter((h) => h.from !== 'system' || hops.length === 1)
    .flatMap((h) => [h.usable?.hi ?? 0, h.full?.hi ?? 0]);
  const largest = Math.max(0, ...scaled);
  const open = hops.filter((h) => h.state === 'unknown').map((h) => `${role(h.from)} to ${role(h.to)}`);
  const unchosen = piers(chain).filter((p) => p.state === 'not chosen' && p.key !== 'screen');
  return {
    name,
    verdict: VERDICT_WORDS[e.predicted.verdict.state],
    piers: piers(chain),
    hops,
    scaleGbps: largest <= 32 ? 32 : largest <= 64 ? 64 : 128,
    pinchLine: pinchLine(e),
    notKnown: [...open, ...unchosen.map((p) => p.role.toLowerCase())],
  };
}

export function role(key: PierKey): string {
  return { system: 'System', port: 'Host port', cable: 'Cable', dock: 'Dock', card: 'Card', screen: 'Screen' }[key];
}
