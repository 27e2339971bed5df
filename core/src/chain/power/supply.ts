import { openOf, plus, type Range, type RuleId, stated, times, toRange } from '../../base';
import type { CardSpec, SupplyAttrs } from '../../parts';
import { partName } from '../names';
import type { AttrPath, Chain } from '../schema/chain';
import { wallDraw } from './efficiency';
import { type Peak, peaks, worstPeak } from './peaks';
import {
  connectorsCounted,
  HEADS,
  openSockets,
  plugFacts,
  type PlugFacts,
  shortage,
  type Shortage,
  socketCounts,
  socketWatts,
  twoHeads,
} from './plugs';

/** One supply with everything that hangs on it, W. */
export interface Feeder {
  /** Where its attributes are: "dock" or "supplies/a". */
  readonly at: string;
  readonly name: string;
  readonly feedsCard: boolean;
  readonly feedsDock: boolean;
  readonly spec: SupplyAttrs;
  readonly load: Range | null;
  readonly rated: Range | null;
  /** What the load is made of, for the working. */
  readonly parts: readonly { readonly what: string; readonly w: Range }[];
  readonly peak: Peak | null;
  readonly allPeaks: readonly Peak[];
  readonly plugs: PlugFacts | null;
  /** Which side was counted where the plugs cannot be matched. */
  readonly counted: { readonly card: boolean; readonly supply: boolean } | null;
  /** Plugs missing over every completion of what is not stated; null where it feeds no card. */
  readonly shortage: Shortage | null;
  readonly wall: Range | null;
  readonly open: readonly AttrPath[];
}

/** Something needed against something there, over every completion, and what that depends on. */
export interface Cover {
  readonly need: Range;
  readonly have: Range;
  readonly open: readonly AttrPath[];
}

export interface PowerFacts {
  readonly feeders: readonly Feeder[];
  /** The dock brings no supply and none is chosen. */
  readonly missing: boolean;
  /** Whether the dock has a supply of its own is not stated. */
  readonly unstated: boolean;
  /** Power sockets of the card that nothing feeds, over every completion; null where a supply feeds the card or none is chosen. */
  readonly unfed: { readonly sockets: Range; readonly open: readonly AttrPath[] } | null;
  /** Two supplies feed the card, or supplies of two makes stand side by side. */
  readonly two: 'card' | 'beside' | null;
  readonly boardW: Range | null;
  /** What the card takes from the slot, and what the slot gives; null without a dock or a card. */
  readonly slot: Cover | null;
  /** Board power against what the card's own sockets and the slot can carry together; null without a card of stated board power, or where the card is wired in. */
  readonly cover: Cover | null;
  /** The dock is sold with its card wired in. */
  readonly sealed: boolean;
}

interface Given {
  at: string;
  name: string;
  spec: SupplyAttrs;
  feeds: 'dock' | 'card' | 'both';
}

function givenOf({ dock, supplies }: Chain): Given[] {
  const own = dock && (dock.supply === 'inside' || dock.supply === 'brick');
  const list: Given[] = supplies.map((s) => ({
    at: `supplies/${s.key}`,
    name: partName(s.spec),
    spec: s.spec,
    feeds: own && s.feeds === 'both' ? 'card' : s.feeds,
  }));
  if (own) {
    const rest = list.some((s) => s.feeds !== 'dock') ? 'dock' : 'both';
    list.unshift({ at: 'dock', name: `the supply of ${partName(dock)}`, spec: dock, feeds: rest });
  }
  return list;
}

const ZERO: Range = { lo: 0, hi: 0 };

function boardOf(card: CardSpec | null, overclock: number): Range | null {
  const board = card && stated(card.boardW);
  return board ? times(board, 1 + overclock / 100) : null;
}

/**
 * What the card of a chain draws, with its power limit as it is set.
 * @param chain card and settings
 * @returns W; null where its board power is not stated
 */
export function boardPower({ card, settings }: Pick<Chain, 'card' | 'settings'>): Range | null {
  const over = stated(settings.overclockPercent) ?? ZERO;
  const low = boardOf(card, over.lo);
  const high = boardOf(card, over.hi);
  return low && high ? { lo: low.lo, hi: high.hi } : null;
}

/** An all-in-one is sold with its card wired in: it has no slot, no sockets and no clearance for another card. */
function isSealed(dock: Chain['dock']): boolean {
  return dock?.form === 'all-in-one';
}

/** What the card takes from the slot against what the slot of the dock gives, W; 75 W at most, by the standard. */
function slotCover({ card, dock }: Chain, most: Range): Cover | null {
  if (!card || !dock || isSealed(dock)) return null;
  const need = toRange(card.slotW, most);
  return {
    need,
    have: toRange(dock.slotW, most),
    open: openOf({ 'card/slotW': card.slotW, 'dock/slotW': dock.slotW }),
  };
}

/**
 * Board power against sockets and slot. A limit set higher than the maker's is not counted: it is no property of the card.
 * Source: 75 W a slot, 75, 150 and 600 W a socket, from memory of the PCI Express CEM specification.
 *
 * @example 400 W on two 8-pin sockets and a slot of 75 W: need 400, have 375.
 */
function boardCover(chain: Chain, most: Range): Cover | null {
  const { card, dock, settings } = chain;
  const board = card && stated(card.boardW);
  if (!card || !board || isSealed(dock)) return null;
  const limit = 1 + Math.min(0, (stated(settings.overclockPercent) ?? ZERO).lo) / 100;
  const slot = dock ? toRange(dock.slotW, most) : { lo: most.hi, hi: most.hi };
  return {
    need: { lo: board.lo * limit, hi: board.hi * limit },
    have: plus(socketWatts(card), slot),
    open: [
      ...openOf({ 'card/boardW': card.boardW }),
      ...openSockets(card),
      ...(dock ? openOf({ 'dock/slotW': dock.slotW }) : []),
    ],
  };
}

/** Sockets of the card where no supply feeds it. */
function unfedOf({ card, dock, host }: Chain, feeders: readonly Feeder[]): PowerFacts['unfed'] {
  if (!card || isSealed(dock) || feeders.some((f) => f.feedsCard)) return null;
  // A desktop feeds the cards in its slots itself.
  if (!dock && host?.form === 'desktop') return null;
  const n = socketCounts(card);
  return { sockets: plus(...HEADS.map((h) => n[h])), open: openSockets(card) };
}

/** What every supply of a chain is counted against. */
interface PowerBase {
  readonly chain: Chain;
  readonly rule: (id: RuleId) => number;
  readonly boardW: Range | null;
  /** What the slot gives where it is not stated. */
  readonly slotMost: Range;
  /** What the dock gives the host, over every completion. */
  readonly charged: Range;
  /** How many supplies there are. */
  readonly count: number;
}

/** What a supply gives the card: all of its board power, or what comes not through the slot, or the slot alone. */
function cardShare({ feeds }: Given, { chain, boardW, slotMost, count }: PowerBase): Range {
  const board = boardW ?? ZERO;
  if (count === 1 || feeds === 'both') return board;
  const slot = chain.card ? (stated(chain.card.slotW) ?? slotMost) : ZERO;
  if (feeds === 'dock') return slot;
  return { lo: Math.max(0, board.lo - slot.hi), hi: board.hi - slot.lo };
}

/** What hangs on the dock beside the card. */
function dockLoads({ chain, rule, charged }: PowerBase): { what: string; w: Range }[] {
  const hubs =
    chain.loads.filter((l) => l.kind === 'hub' || l.kind === 'drive').length * rule('power.hubW');
  const own = rule('power.dockW');
  return [
    { what: 'charging the host', w: times(charged, 100 / rule('power.chargerPercent')) },
    { what: 'hub and drives', w: { lo: hubs, hi: hubs } },
    { what: 'the dock itself', w: { lo: own, hi: own } },
  ].filter((p) => p.w.hi > 0);
}

/** The plugs of a supply on its card; nothing of it where the card is wired in or another supply feeds it. */
function plugsOf({ at, spec, feeds }: Given, b: PowerBase) {
  const { card, dock } = b.chain;
  if (!card || feeds === 'dock' || isSealed(dock))
    return { plugs: null, counted: null, shortage: null };
  const watts = { slotW: b.slotMost.hi, cableW: b.rule('power.cableW') };
  const heads = twoHeads(card, b.boardW, watts);
  return {
    plugs: plugFacts(card, spec, heads),
    counted: connectorsCounted(card, spec),
    shortage: shortage(card, spec, at, heads),
  };
}

/** What a supply draws from the wall; null where its efficiency has no mark. */
function wallOf(load: Range | null, rated: Range | null, spec: SupplyAttrs, mainsV: number) {
  if (!load || !rated || typeof spec.efficiency !== 'string') return null;
  // The table of marks holds 115 and 230 V.
  return wallDraw(load, rated.lo, spec.efficiency, mainsV < 170 ? 115 : 230);
}

/** One supply with its load, its peaks and its plugs. */
function feederOf(given: Given, b: PowerBase): Feeder {
  const { at, name, spec, feeds } = given;
  const { card, dock } = b.chain;
  const feedsCard = feeds !== 'dock';
  const feedsDock = feeds !== 'card';
  const share = cardShare(given, b);
  const rest = feedsDock ? dockLoads(b) : [];
  const restW = rest.map((p) => p.w);
  const rated = stated(spec.supplyW);
  const load = b.boardW || !feedsCard ? plus(share, ...restW) : null;
  const allPeaks =
    card && b.boardW && rated && feedsCard
      ? peaks(card, b.boardW, plus(ZERO, ...restW), spec, rated)
      : [];
  const chargeUnsure = b.charged.lo !== b.charged.hi;
  return {
    at,
    name,
    feedsCard,
    feedsDock,
    spec,
    load,
    rated,
    parts: [{ what: feedsCard ? 'the card' : "the card's slot", w: share }, ...rest],
    peak: allPeaks.length > 0 ? worstPeak(allPeaks) : null,
    allPeaks,
    ...plugsOf(given, b),
    wall: wallOf(load, rated, spec, b.rule('power.mainsV')),
    open: openOf({
      ...(card && { 'card/boardW': card.boardW }),
      [`${at}/supplyW`]: spec.supplyW,
      ...(feedsDock && dock && chargeUnsure && { 'dock/chargeOutW': dock.chargeOutW }),
    }),
  };
}

/**
 * Load of every supply of a chain: board power with its limit, the charge contract over the charger's efficiency,
 * what hangs on the hub, and the dock itself. House rules give the estimates.
 * @param chain the chain
 * @param charged what the dock gives the host, W, over every completion
 * @param rule reads a house rule
 * @returns supplies with load, peaks and plugs, all in W
 */
export function powerFacts(chain: Chain, charged: Range, rule: (id: RuleId) => number): PowerFacts {
  const { dock } = chain;
  const boardW = boardPower(chain);
  const given = givenOf(chain);
  const slotMost = { lo: 0, hi: rule('power.slotW') };
  const base = { chain, rule, boardW, slotMost, charged, count: given.length };
  const feeders = given.map((g) => feederOf(g, base));
  const onCard = feeders.filter((f) => f.feedsCard).length;
  return {
    feeders,
    missing: dock?.supply === 'separate' && given.length === 0,
    unstated: dock !== null && typeof dock.supply !== 'string',
    unfed: unfedOf(chain, feeders),
    two: onCard > 1 ? 'card' : given.length > 1 ? 'beside' : null,
    boardW,
    slot: slotCover(chain, slotMost),
    cover: boardCover(chain, slotMost),
    sealed: isSealed(dock),
  };
}
