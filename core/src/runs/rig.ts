import { bare, type HouseRules, union, middleOf, type Range, RuleBook, stated } from '../base';
import {
  type Chain,
  joinLink,
  type PacketRule,
  partName,
  pcieRawGbps,
  usableGbps,
  completions,
} from '../chain';
import type { CardSpec } from '../parts';
import type { RunContext } from './schema';

/**
 * Latency of the link, microseconds: a direct link, and what each tunnel adds (from memory of what has been measured, no published
 * source).
 */
export const LATENCY_US = { direct: 1, tunnel: 1.2 } as const;

/** What the frame model needs of the chain a run was made on: intervals where the chain leaves room, null where it is not known. */
export interface RigFacts {
  readonly host: string;
  readonly card: string;
  /** Single-thread index of the host and frame index of the card; 100 is the reference. */
  readonly hostIndex: Range | null;
  readonly cardIndex: Range | null;
  /** Usable Gb/s to the card and back. */
  readonly down: Range | null;
  readonly up: Range | null;
  readonly latencyUs: number;
  readonly memoryGB: Range | null;
  readonly boardW: Range | null;
  readonly memoryMHz: Range | null;
  /** The card stood in a desktop slot. */
  readonly slot: boolean;
}

/** How a link is known to the frame model. */
export interface LinkRates {
  readonly down: Range | null;
  readonly up: Range | null;
  readonly tunnels: number;
}

/**
 * The usable rates of a chain and the tunnels on the way, over every way to fill in what is not known.
 * @param chain the chain
 * @param house the workshop's rules
 * @returns Gb/s down to the card and up; null where a rate is not known
 */
export function linkRates(chain: Chain, house: HouseRules = {}): LinkRates {
  const rules = new RuleBook(house);
  const links = completions(chain, rules).map((w) => joinLink(w.facts, rules));
  const usable = links.flatMap((l) => l.usable ?? []);
  const known = usable.length === links.length && usable.length > 0;
  return {
    down: known ? union(...usable.map((u) => u.down)) : null,
    up: known ? union(...usable.map((u) => u.up)) : null,
    tunnels: Math.max(0, ...links.map((l) => l.hops.filter((h) => h.kind === 'tunnel').length)),
  };
}

/**
 * Usable rates of a direct slot.
 * @param gen generation of PCI Express; null where it is not known
 * @param lanes lanes; null where they are not known
 * @param house the workshop's rules
 * @returns Gb/s down to the card and up; null where either is not known
 */
export function directRates(gen: Range | null, lanes: Range | null, house: HouseRules): LinkRates {
  const rules = new RuleBook(house);
  const payload = rules.get('link.payloadDirectBytes');
  const p: PacketRule = {
    payload: { down: payload, up: payload },
    header: { down: rules.get('link.headerDownBytes'), up: rules.get('link.headerUpBytes') },
    headerTunnel: 0,
    allowancePercent: rules.get('link.flowControlPercent'),
  };
  if (!gen || !lanes) return { down: null, up: null, tunnels: 0 };
  const way = (d: 'down' | 'up') => ({
    lo: usableGbps(pcieRawGbps(gen.lo, lanes.lo), d, 0, p),
    hi: usableGbps(pcieRawGbps(gen.hi, lanes.hi), d, 0, p),
  });
  return { down: way('down'), up: way('up'), tunnels: 0 };
}

/** Usable rates of a desktop slot: of the generation and lanes that were said, or those of the card. */
function slotRates(card: CardSpec | null, context: RunContext, house: HouseRules): LinkRates {
  return directRates(
    stated(context.slotGen ?? card?.pcieGen ?? null),
    stated(context.slotLanes ?? card?.lanes ?? null),
    house,
  );
}

/** The host of a run in a desktop slot with another processor: nobody named it. */
export const DESKTOP = 'another desktop';

/** What stands between a host and its power mode. */
const MODE_AFTER = ', ';

/**
 * A host as the frame model knows it: held to fewer watts it is another one.
 * @param host name of the host
 * @param powerMode what a person calls the mode; empty where none was said
 * @returns the name with its mode
 * @example hostInMode('Heron 14', 'quiet') // => 'Heron 14, quiet'
 */
export function hostInMode(host: string, powerMode: string): string {
  return [host, powerMode].filter((s) => s !== '').join(MODE_AFTER);
}

/**
 * The power mode a host is named with by `hostInMode`.
 * @param name name with its mode
 * @param host name of the host
 * @returns the mode, empty where the name has none; null where it names another host
 * @example modeOfHost('Heron 14, quiet', 'Heron 14') // => 'quiet'
 */
export function modeOfHost(name: string, host: string): string | null {
  if (name === host) return '';
  return name.startsWith(host + MODE_AFTER) ? name.slice(host.length + MODE_AFTER.length) : null;
}

/**
 * A chain as the frame model sees it.
 * @param chain the chain
 * @param context of a run; without it the chain itself
 * @param house the workshop's rules
 * @returns the rig
 */
export function rigOf(
  chain: Chain,
  context: RunContext | null = null,
  house: HouseRules = {},
): RigFacts {
  return rigWith(
    chain,
    context?.norm ? slotRates(chain.card, context, house) : linkRates(chain, house),
    context,
  );
}

/**
 * A chain as the frame model sees it, where the rates of the link are known already.
 * @param chain the chain
 * @param rates usable rates, Gb/s
 * @param context of a run; without it the chain itself
 * @returns the rig
 */
export function rigWith(
  chain: Chain,
  rates: LinkRates,
  context: RunContext | null = null,
): RigFacts {
  const slot = context?.norm ?? false;
  const foreign = slot && context?.sameProcessor !== 'yes';
  const { host, card } = chain;
  return {
    host: foreign ? DESKTOP : partName(host),
    card: partName(card),
    hostIndex: foreign ? null : stated(host?.singleThread),
    cardIndex: stated(card?.frameIndex),
    down: bare(rates.down),
    up: bare(rates.up),
    slot,
    latencyUs: LATENCY_US.direct + LATENCY_US.tunnel * rates.tunnels,
    memoryGB: stated(card?.memoryGB),
    boardW: stated(card?.boardW),
    memoryMHz: stated(card?.memoryMHz),
  };
}

/**
 * Usable rate to the card, as one figure.
 * @param r a rig
 * @returns Gb/s, the middle of what is known; null where a rate is not known or carries nothing
 */
export function downRate(r: Pick<RigFacts, 'down' | 'up'>): number | null {
  return r.down && r.up && r.down.hi > 0 && r.up.hi > 0 ? middleOf(r.down) : null;
}
