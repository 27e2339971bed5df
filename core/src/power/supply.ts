import type { RuleId } from '../house';
import type { AttrPath, CardSpec, Chain, SupplyAttrs } from '../schema';
import { openOf, plus, stated, times, type Range } from '../units';
import { partName } from '../setup';
import { wallDraw } from './efficiency';
import { peaks, worstPeak, type Peak } from './peaks';
import { counted, plugFacts, type PlugFacts } from './plugs';

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
  readonly wall: Range | null;
  readonly open: readonly AttrPath[];
}

export interface PowerFacts {
  readonly feeders: readonly Feeder[];
  /** The dock brings no supply and none is chosen. */
  readonly missing: boolean;
  /** Two supplies feed the card, or supplies of two makes stand side by side. */
  readonly two: 'card' | 'beside' | null;
  readonly boardW: Range | null;
  /** What the card takes from the slot, and what the slot gives. */
  readonly slot: { readonly need: Range; readonly have: Range } | null;
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

/** What the card of a chain draws, W, with its power limit as it is set; null where its board power is not stated. */
export function boardPower({ card, settings }: Pick<Chain, 'card' | 'settings'>): Range | null {
  const over = stated(settings.overclockPercent) ?? ZERO;
  const [low, high] = [boardOf(card, over.lo), boardOf(card, over.hi)];
  return low && high ? { lo: low.lo, hi: high.hi } : null;
}

/**
 * Load of every supply of a chain: board power with its overclock, the charge contract over the charger's efficiency, what hangs on
 * the hub, and the dock itself. `contract` is what the dock gives the host, W. House rules give the estimates.
 */
export function powerFacts(chain: Chain, contract: Range | null, rule: (id: RuleId) => number): PowerFacts {
  const { card, dock } = chain;
  const boardW = boardPower(chain);
  const given = givenOf(chain);
  const hubs = chain.loads.filter((l) => l.kind === 'hub' || l.kind === 'drive').length * rule('power.hubW');
  const charge = times(contract ?? ZERO, 100 / rule('power.chargerPercent'));
  const slotMost = { lo: 0, hi: rule('power.slotW') };
  const feeders = given.map(({ at, name, spec, feeds }): Feeder => {
    const [feedsCard, feedsDock] = [feeds !== 'dock', feeds !== 'card'];
    const alone = given.length === 1 || feeds === 'both';
    const slot = card ? (stated(card.slotW) ?? slotMost) : ZERO;
    const board = boardW ?? ZERO;
    const share = alone ? board : feedsCard ? { lo: Math.max(0, board.lo - slot.hi), hi: board.hi - slot.lo } : slot;
    const rest = feedsDock
      ? [
          { what: 'charging the host', w: charge },
          { what: 'hub and drives', w: { lo: hubs, hi: hubs } },
          { what: 'the dock itself', w: { lo: rule('power.dockW'), hi: rule('power.dockW') } },
        ].filter((p) => p.w.hi > 0)
      : [];
    const rated = stated(spec.supplyW);
    const load = boardW || !feedsCard ? plus(share, ...rest.map((p) => p.w)) : null;
    const all = card && boardW && rated && feedsCard ? peaks(card, boardW, plus(ZERO, ...rest.map((p) => p.w)), spec, rated) : [];
    const mains = rule('power.mainsV') < 170 ? 115 : 230;
    const mark = typeof spec.efficiency === 'string' ? spec.efficiency : null;
    return {
      at,
      name,
      feedsCard,
      feedsDock,
      spec,
      load,
      rated,
      parts: [{ what: feedsCard ? 'the card' : "the card's slot", w: share }, ...rest],
      peak: all.length > 0 ? worstPeak(all) : null,
      allPeaks: all,
      plugs: card && feedsCard ? plugFacts(card, spec) : null,
      counted: card && feedsCard ? counted(card, spec) : null,
      wall: load && rated && mark ? wallDraw(load, rated.lo, mark, mains) : null,
      open: openOf({ ...(card && { 'card/boardW': card.boardW }), [`${at}/supplyW`]: spec.supplyW }),
    };
  });
  const onCard = feeders.filter((f) => f.feedsCard).length;
  const [need, gives] = [card && stated(card.slotW), dock && stated(dock.slotW)];
  return {
    feeders,
    missing: dock?.supply === 'separate' && given.length === 0,
    two: onCard > 1 ? 'card' : given.length > 1 ? 'beside' : null,
    boardW,
    slot: need && gives ? { need, have: gives } : null,
  };
}
