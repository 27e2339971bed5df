import { bare, isExact, type Range } from '@ruddy/core/base';
import { figure, formatWhole, percent, rate } from '@ruddy/core/base/text';
import type { LinkCheck } from '@ruddy/core/bring-up';
import { type Chain, type Hop, takesOf, TRANSPORT_40 } from '@ruddy/core/chain';
import { LOAD_KINDS } from '@ruddy/core/parts';
import type { Evaluation } from '@ruddy/core/plan';
import { VERDICT_LABELS } from '@ruddy/core/plan/text';
import { measuredHops, type HopMeasure } from './strip-measured';
import {
  nodeOf,
  STRIP_NODES,
  nodesOf,
  role,
  type StripNode,
  type StripNodeKey,
} from './strip-piers';

export { nodeOf, STRIP_NODES, role, type StripNode, type StripNodeKey } from './strip-piers';

/** `waiting`, `lost` and `not used` are how a live link stands; the others are what is expected of it. */
export type HopState =
  'expected' | 'range' | 'unknown' | 'blocked' | 'waiting' | 'lost' | 'not used';

export interface StripHop {
  readonly index: number;
  readonly from: StripNodeKey;
  readonly to: StripNodeKey;
  /** Piers the ribbon runs through. */
  readonly through: readonly StripNodeKey[];
  readonly line1: string;
  readonly line2: string;
  readonly state: HopState;
  readonly usable: Range | null;
  readonly up: Range | null;
  /** What the hop would carry beside the neck: the rest's rate when this hop is the pinch. */
  readonly full: Range | null;
  readonly pinch: boolean;
  /** The pier the neck and its teeth stand beside; null when no single part sets it. */
  readonly neckAt: StripNodeKey | null;
  /** Only where readings are shown; null otherwise. */
  readonly measured: HopMeasure | null;
  /** Only where runs are shown: what this hop has to do with the link overhead. */
  readonly overhead: string | null;
}

/** What else hangs under the deck. */
export interface StripLoad {
  readonly words: string;
  readonly own: boolean;
}

/** Suspicion in whole percents that add up to 100. */
export interface StripPosterior {
  readonly piers: Readonly<Record<StripNodeKey, number>>;
  readonly elsewhere: number;
  readonly most: StripNodeKey | 'elsewhere';
  readonly cause: string;
}

export interface StripModel {
  readonly name: string;
  readonly mode: 'expected' | 'measured' | 'live' | 'overhead' | 'suspicion';
  readonly verdict: string;
  readonly piers: readonly StripNode[];
  readonly hops: readonly StripHop[];
  readonly loads: readonly StripLoad[];
  /** What the picture needs of its plug, on the footbridge; empty when not known. */
  readonly picture: string;
  /** What goes back to the host's panel, in words; empty where nothing does. */
  readonly rope: string;
  /** Largest rate from the port rightwards decides: 32, 64 or 128 Gb/s are 48 px. */
  readonly scaleGbps: 32 | 64 | 128;
  readonly pinchLine: string;
  readonly notKnown: readonly string[];
  /** Only where a cause is looked for: suspicion of each bank and pier, in whole percents. */
  readonly suspicion?: StripPosterior;
  /** Piers drawn faint: those that are equal where strips are compared. */
  readonly faint?: readonly StripNodeKey[];
}

const NOUN: Record<StripNodeKey, string> = {
  system: 'the host',
  port: 'the host port',
  cable: 'the cable',
  dock: 'the dock',
  card: 'the card',
  screen: 'the screen',
};

/** A transport as its link is called. */
const LINKS: readonly (readonly [number, string])[] = [
  [0, 'no link'],
  [10, 'Thunderbolt 10'],
  [19.39, 'USB4 20'],
  [20, 'Thunderbolt 20'],
  [38.79, 'USB4 40'],
  [40, 'Thunderbolt 40'],
  [80, 'USB4 80'],
  [120, 'USB4 120/40'],
];

function linkName(gbps: number): string {
  const near = LINKS.reduce((a, b) => (Math.abs(b[0] - gbps) < Math.abs(a[0] - gbps) ? b : a));
  return near[1];
}

function transportName(t: Range): string {
  if (isExact(t)) return linkName(t.lo);
  const lo = linkName(t.lo);
  const hi = linkName(t.hi);
  if (lo === hi) return lo;
  return t.lo === 0
    ? `up to ${hi}`
    : `${lo} to ${hi.replace(/^USB4 /, lo.startsWith('USB4') ? '' : 'USB4 ')}`;
}

/** What a hop trains to: "USB4 20 by the cable · PCIe Gen3 ×4" or "PCIe Gen4 ×4". */
function trained(h: Hop, by: StripNodeKey | null): string {
  if (h.state === 'broken') return h.kind === 'tunnel' ? 'no tunnel' : 'no link';
  const pcie = h.gen && h.lanes ? `PCIe Gen${formatWhole(h.gen)} ×${formatWhole(h.lanes)}` : '';
  if (h.kind === 'pcie') return pcie || 'width not known';
  const link = h.transport ? transportName(h.transport) : 'tunnel';
  const held =
    by && (by === 'cable' || by === 'port') && h.transport && h.transport.hi < TRANSPORT_40
      ? ` by ${NOUN[by]}`
      : '';
  return [link + held, pcie].filter((s) => s !== '').join(' · ');
}

function stateOf(h: Hop): HopState {
  if (h.state === 'broken') return 'blocked';
  if (h.state === 'unknown' || !h.usable) return 'unknown';
  return isExact(h.usable.down) ? 'expected' : 'range';
}

function stripHop(h: Hop, index: number, e: Evaluation, measured: HopMeasure | null): StripHop {
  const { pinch } = e.predicted.link;
  const isPinch = pinch.hops.includes(index);
  const state = stateOf(h);
  const from = nodeOf(h.from);
  const to = nodeOf(h.to);
  const a = STRIP_NODES.indexOf(from);
  const b = STRIP_NODES.indexOf(to);
  const neckAt = isPinch && pinch.part ? nodeOf(pinch.part) : null;
  const named = isPinch && (pinch.part !== null || !pinch.certain) && state !== 'unknown';
  const value =
    state === 'blocked' ? '0.0 Gb/s' : h.usable ? `${rate(h.usable.down)} Gb/s` : 'not known';
  const usual =
    state === 'blocked'
      ? `blocked: ${value}`
      : named
        ? `${pinch.certain ? 'bottleneck' : 'possible bottleneck'}: ${value} usable`
        : value;
  return {
    index,
    from,
    to,
    through: STRIP_NODES.slice(a + 1, b),
    line1: measured?.line1 ?? trained(h, neckAt),
    line2: measured?.line2 ?? usual,
    state,
    usable: bare(h.usable?.down),
    up: bare(h.usable?.up),
    full: isPinch && pinch.part && pinch.rest ? pinch.rest : bare(h.usable?.down),
    pinch: named,
    neckAt: named ? neckAt : null,
    measured,
    overhead: null,
  };
}

function bottleneckLine(e: Evaluation): string {
  const { pinch, usable } = e.predicted.link;
  if (!usable) return 'Bottleneck: not known.';
  const noun =
    pinch.part === 'loads'
      ? 'what hangs on the dock'
      : pinch.part
        ? NOUN[nodeOf(pinch.part)].replace('the ', '')
        : '';
  const broken = e.predicted.link.hops.some((h) => h.state === 'broken');
  if (broken) return `Bottleneck: ${noun || 'not known'}, 0.0 Gb/s usable.`;
  const rest = pinch.rest ? `; the rest could carry ${rate(pinch.rest)}` : '';
  if (pinch.part === null)
    return pinch.certain
      ? `Bottleneck: no single part, ${rate(usable.down)} Gb/s usable.`
      : `Bottleneck: not certain, ${rate(usable.down)} Gb/s usable${rest}.`;
  return `Bottleneck: ${noun}, ${rate(usable.down)} Gb/s usable${rest}.`;
}

function loadsOf(chain: Chain, kind: 'tunnel' | 'direct'): StripLoad[] {
  const lead = typeof chain.dock?.ownLead === 'string' ? chain.dock.ownLead : null;
  return chain.loads.map((load) => {
    const { down, up } = takesOf(load, lead);
    const own = (down.hi === 0 && up.hi === 0) || kind === 'direct';
    const back = up.hi > 0 ? ` and ${rate(up)} back` : '';
    return {
      words: `${LOAD_KINDS[load.kind]}, ${own ? 'on its own cable' : `${rate(down)} Gb/s${back} on the link`}`,
      own,
    };
  });
}

/** "supply 68 %", "charges 87 W": the first supply that feeds the card, and the contract. */
function underDock(e: Evaluation): string[] {
  const { power, charging } = e.predicted.body;
  const f = power.feeders.find((x) => x.feedsCard) ?? power.feeders[0];
  const share =
    f?.load && f.rated
      ? [`supply ${percent({ lo: f.load.lo / f.rated.hi, hi: f.load.hi / f.rated.lo })} %`]
      : [];
  const { contract } = charging;
  const gives =
    charging.by === 'charger'
      ? ['own charger']
      : contract && charging.hasBattery
        ? [`charges ${figure(contract)} W`]
        : [];
  return [...share, ...gives];
}

/** What stands under a pier in words: supply and charging at the dock, the picture at the card. */
function underOf(key: StripNodeKey, chain: Chain, e: Evaluation): string[] {
  if (key === 'dock') return underDock(e);
  const picture = footbridge(e);
  const back = chain.settings.toPanel === 'yes' ? ["picture goes back to the host's panel"] : [];
  return key === 'card' ? [...(picture ? [`picture takes ${picture}`] : []), ...back] : [];
}

function footbridge(e: Evaluation): string {
  const p = e.predicted.body.pictures[0];
  return p && p.needGbps !== null && p.haveGbps !== null
    ? `${p.needGbps.toFixed(1)} of ${p.haveGbps.toFixed(1)} Gb/s`
    : '';
}

/**
 * Everything the strip shows, in every form: the picture, the small form, the text and the buttons are made from it. With readings,
 * or null for none yet, it shows measured beside expected.
 */
export function stripModel(
  name: string,
  chain: Chain,
  e: Evaluation,
  readings?: LinkCheck | null,
): StripModel {
  const { link } = e.predicted;
  const measured = readings === undefined ? null : measuredHops(link.hops, readings);
  const hops = link.hops.map((h, i) => stripHop(h, i, e, measured?.[i] ?? null));
  const scaled = hops
    .filter((h) => h.from !== 'system' || hops.length === 1)
    .flatMap((h) => [h.usable?.hi ?? 0, h.full?.hi ?? 0]);
  const largest = Math.max(0, ...scaled);
  const open = hops
    .filter((h) => h.state === 'unknown')
    .map((h) => `${role(h.from)} to ${role(h.to)}`);
  const piers = nodesOf(chain, link.pinch.setBy).map((p) => ({
    ...p,
    under: underOf(p.key, chain, e),
  }));
  const unchosen = piers.filter((p) => p.state === 'not chosen' && p.key !== 'screen');
  return {
    name,
    mode: measured ? 'measured' : 'expected',
    verdict: VERDICT_LABELS[e.predicted.verdict.state],
    piers,
    hops,
    loads: loadsOf(chain, link.kind),
    picture: footbridge(e),
    rope: chain.settings.toPanel === 'yes' ? 'picture goes back to the panel' : '',
    scaleGbps: largest <= 32 ? 32 : largest <= 64 ? 64 : 128,
    pinchLine: bottleneckLine(e),
    notKnown: [...open, ...unchosen.map((p) => p.role.toLowerCase())],
  };
}
