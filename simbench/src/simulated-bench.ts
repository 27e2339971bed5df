import type {
  BenchState,
  FaultMap,
  HostPower,
  LinkState,
  LogCode,
  LogLine,
} from '@ruddy/core/bench';
import type { Chain } from '@ruddy/core/chain';
import { between, noiseOf, type Noise } from './noise';
import { strength, supplyOf, word, type BenchDef, type Parts } from './parts';
import type { Topology } from './link';
import { topologyOf } from './topology';

/** What may happen by itself later on. */
export type Later =
  | 'key'
  | 'host-up'
  | 'router'
  | 'approval'
  | 'tunnel'
  | 'train'
  | 'trained'
  | 'windows'
  | 'bind'
  | 'fall-back'
  | 'errors'
  | 'sag'
  | 'power-back'
  | 'drop'
  | 'loose'
  | 'loose-back'
  | 'rest';

interface Queued {
  readonly at: number;
  readonly what: Later;
  /** Of the link or of the host when it was put there: an older one is void. */
  readonly epoch: number;
  readonly of: 'link' | 'host' | 'supply';
}

/** The bench while the fold goes over its acts. It never leaves the fold. */
export interface SimulatedBench {
  readonly noise: Noise;
  readonly log: LogLine[];
  queue: Queued[];
  counts: Record<string, number>;
  epochs: { link: number; host: number; supply: number };
  ms: number;
  chain: Chain;
  faults: FaultMap;
  host: HostPower;
  mains: boolean;
  dockOn: boolean;
  brownOut: boolean;
  cardIn: boolean;
  plugsIn: boolean;
  screenIn: boolean;
  driverIn: boolean;
  plugged: string | null;
  approval: BenchState['approval'];
  security: BenchState['security'];
  load: boolean;
  traffic: boolean;
  stage: LinkState;
  since: number;
  contact: number | null;
  /** The host looked for the link when it started, and would not look again before it is plugged anew or started again. */
  missed: boolean;
  /** The dock came to a running host. */
  hot: boolean;
  /** The card answers with all ones: its bridge is there and it is not. */
  ghost: boolean;
  downs: number;
  /** Corrected errors so far, the part of the next one included. A counter only grows: a fault that is mended takes none back. */
  errors: number;
}

/** A bench as it stands on the table: everything off, the card mounted, the cable beside it. */
export function newSimulatedBench({ chain, seed }: BenchDef): SimulatedBench {
  return {
    noise: noiseOf(seed),
    log: [],
    queue: [],
    counts: {},
    epochs: { link: 0, host: 0, supply: 0 },
    ms: 0,
    chain,
    faults: {},
    host: 'off',
    mains: false,
    dockOn: false,
    brownOut: false,
    cardIn: chain.card !== null,
    plugsIn: true,
    screenIn: chain.picture.length > 0,
    driverIn: true,
    plugged: null,
    approval: word(chain.settings.approval, 'none'),
    security: word(chain.settings.securityLevel, 'user'),
    load: false,
    traffic: false,
    stage: 'unplugged',
    since: 0,
    contact: null,
    missed: false,
    hot: false,
    ghost: false,
    downs: 0,
    errors: 0,
  };
}

export function partsOf(w: SimulatedBench): Parts {
  const socket = w.chain.host?.sockets.find((s) => s.key === w.plugged) ?? null;
  return { chain: w.chain, socket, faults: w.faults, noise: w.noise };
}
export const currentTopology = (w: SimulatedBench): Topology | null => topologyOf(partsOf(w));
export const fault = (w: SimulatedBench, id: keyof FaultMap): number => strength(w, id);

export function say(w: SimulatedBench, code: LogCode, params: LogLine['params'] = {}): void {
  w.log.push({ ms: w.ms, code, params });
}

/** A draw from the seed, another each time it is asked for the same thing. */
export function draw(w: SimulatedBench, what: string, lo: number, hi: number): number {
  const n = w.counts[what] ?? 0;
  w.counts[what] = n + 1;
  return between(w.noise, what, n, lo, hi);
}

/** Let something happen by itself, after a spread of time; void when the link, the host or the supply changes before. */
export function later(
  w: SimulatedBench,
  what: Later,
  lo: number,
  hi: number,
  of: Queued['of'] = 'link',
): void {
  const at = w.ms + Math.round(draw(w, `time ${what}`, lo, hi));
  const i = w.queue.findIndex((q) => q.at > at);
  const item: Queued = { at, what, epoch: w.epochs[of], of };
  w.queue.splice(i < 0 ? w.queue.length : i, 0, item);
}

export function enterState(w: SimulatedBench, stage: LinkState): void {
  if (w.stage === stage) return;
  w.stage = stage;
  if (stage === 'unplugged') w.contact = null;
  w.since = w.ms;
}

/** The link starts over: whatever was to come of it does not. */
export function reset(w: SimulatedBench, stage: LinkState): void {
  w.epochs.link++;
  w.ghost = false;
  enterState(w, stage);
}

/** Is the dock alive: mains, its switch, and its lamp? A board without a dock lives from its supply, or from the host. */
export function dockLives(w: SimulatedBench): boolean {
  const { dock } = w.chain;
  if (w.brownOut) return false;
  if (!dock) return supplyOf(w.chain).own ? w.mains : w.host !== 'off';
  if (word(dock.supply, 'inside') === 'none' && !supplyOf(w.chain).own)
    return w.host !== 'off' && w.dockOn;
  return w.mains && w.dockOn && fault(w, 'dock-switch') === 0;
}

/** Does this card want plugs of its own? One that nobody counted does. */
export function wantsPlugs(w: SimulatedBench): boolean {
  const { card } = w.chain;
  if (!card) return false;
  const counts = [card.plugs8Pin, card.plugs6Pin, card.plugs16Pin];
  return counts.some((c) => c === null || (typeof c === 'object' ? c.hi > 0 : c > 0));
}

/** Why the slot stays silent, or null when a card answers there. */
export function slotFault(w: SimulatedBench): 'slot-empty' | 'slot-silent' | null {
  if (!w.cardIn || w.chain.card === null || fault(w, 'card-not-seated') >= 0.7) return 'slot-empty';
  const powered = !wantsPlugs(w) || (w.plugsIn && fault(w, 'power-plug-out') === 0);
  return powered && fault(w, 'card-defective') < 0.5 ? null : 'slot-silent';
}

/** Levels that let pictures or USB through, and no PCIe. */
export function forbidden(w: SimulatedBench): boolean {
  return securityOf(w) === 'nopcie' || securityOf(w) === 'dponly' || securityOf(w) === 'usbonly';
}
export function securityOf(w: SimulatedBench): BenchState['security'] {
  return fault(w, 'tunnelling-forbidden') > 0 ? 'nopcie' : w.security;
}

const UP = new Set<LinkState>(['windows', 'bound', 'in-use', 'suspended']);
const ROUTER = new Set<LinkState>(['router', 'awaiting', 'tunnel', 'training', ...UP]);
export const cardReached = (w: SimulatedBench): boolean => UP.has(w.stage);
export const routerUp = (w: SimulatedBench): boolean => ROUTER.has(w.stage) || w.ghost;
export const bridgesUp = (w: SimulatedBench): boolean =>
  routerUp(w) && w.stage !== 'router' && w.stage !== 'awaiting';

/** Corrected errors so far. */
export const corrected = (w: SimulatedBench): number => Math.floor(w.errors);

/** Time goes by, and what wears is counted: some errors for every hour under load on a path without margin, none on a sound one. */
export function pass(w: SimulatedBench, ms: number): void {
  const margin = fault(w, 'direct-cable-margin');
  if (w.stage === 'in-use' && margin > 0) {
    const perHour = (200 + 2000 * margin) * (0.8 + 0.4 * w.noise('errors an hour'));
    w.errors += ((ms - w.ms) / 3_600_000) * perHour;
  }
  w.ms = ms;
}

/** What of the world can be seen. */
export function shown(w: SimulatedBench): BenchState {
  const k = currentTopology(w);
  const reached = k !== null && cardReached(w);
  const idle = w.stage === 'bound' && w.ms - w.since > 2000;
  const span = reached
    ? { gen: idle || w.stage === 'suspended' ? 1 : k.slot.gen, lanes: k.slot.lanes }
    : null;
  return {
    ms: w.ms,
    host: w.host,
    mains: w.mains,
    dockOn: w.dockOn,
    dockLamp: dockLives(w),
    cardIn: w.cardIn,
    plugsIn: w.plugsIn,
    screenIn: w.screenIn,
    picture:
      w.screenIn && (w.stage === 'bound' || w.stage === 'in-use') && fault(w, 'wrong-input') === 0,
    plugged: w.plugged,
    driverIn: w.driverIn,
    approval: w.approval,
    security: securityOf(w),
    load: w.load,
    traffic: w.traffic,
    stage: w.stage,
    since: w.since,
    contact: w.contact,
    kind: k?.kind ?? null,
    router:
      k?.router && routerUp(w) ? { laneGbps: k.router.laneGbps, lanes: k.router.lanes } : null,
    hostSpan: k?.host ? { ...k.host.now } : null,
    cardSpan: span,
    usable: reached ? k.usable(w.traffic) : null,
    downs: w.downs,
    corrected: corrected(w),
  };
}
