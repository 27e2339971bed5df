import { type Num, openOf, plus, type Range, stated, times, toRange } from '../../base';
import type { CardSpec, SupplyAttrs } from '../../parts';
import type { AttrPath } from '../schema/chain';

/** Plugs on a card and heads on power cables. The 6+2 head of a cable fits an 8-pin and a 6-pin socket; a 6-pin head only its own. */
export const HEADS = ['8-pin', '6-pin', '16-pin'] as const;
export type Head = (typeof HEADS)[number];

/** Watts a socket may draw, from memory of the PCI Express CEM specification. */
export const SOCKET_W = { '6-pin': 75, '8-pin': 150, '16-pin': 600 } as const;

/** Least and most that the sense pins of a 16-pin cable allow, W; from memory of the PCI Express CEM specification. */
export const SENSE_W = { lo: 150, hi: 600 } as const;

/** Most power sockets of one kind on a card, and most cables of one kind on a supply: the limits of their schemas. */
const MOST = { sockets: { lo: 0, hi: 4 }, cables: { lo: 0, hi: 12 } } as const;

export interface Assigned {
  readonly want: Head;
  /** A place the adapter of the card makes out of its 16-pin socket. */
  readonly throughAdapter: boolean;
  /** The power cable it gets, by name and number; null when none is left. */
  readonly by: string | null;
}

/** How many of each, as whole numbers. */
export type Heads = Readonly<Record<Head, number>>;
export interface Cables extends Heads {
  /** Cables with two 8-pin heads: both heads share the wires of one cable. */
  readonly pair8: number;
}

interface Cable {
  readonly name: string;
  readonly fits: readonly Head[];
}

/** Every head there is. A cable with two heads gives both only where its wires bear what the card takes through them. */
function cableList(c: Cables, bothHeads: boolean): Cable[] {
  const many = (n: number, name: string, fits: readonly Head[]) =>
    Array.from({ length: n }, (_, i) => ({ name: `${name} ${i + 1}`, fits }));
  return [
    ...many(c['6-pin'], '6-pin cable', ['6-pin']),
    ...many(c['8-pin'], '8-pin cable', ['8-pin', '6-pin']),
    ...many(c.pair8, 'two-headed 8-pin cable', ['8-pin', '6-pin']),
    ...(bothHeads
      ? many(c.pair8, 'other head of the two-headed 8-pin cable', ['8-pin', '6-pin'])
      : []),
    ...many(c['16-pin'], '16-pin cable', ['16-pin']),
  ];
}

/**
 * Match sockets to cables exactly, each cable used once: the largest matching of the bipartite graph of what fits what.
 * Source: H. W. Kuhn's augmenting paths (Naval Research Logistics Quarterly 2, 1955).
 */
function match(wants: readonly Head[], cables: readonly Cable[]): (number | null)[] {
  const takenBy: (number | null)[] = cables.map(() => null);
  const place = (w: number, seen: Set<number>): boolean => {
    for (const [c, cable] of cables.entries()) {
      if (seen.has(c) || !cable.fits.includes(wants[w] as Head)) continue;
      seen.add(c);
      const other = takenBy[c] ?? null;
      if (other === null || place(other, seen)) {
        takenBy[c] = w;
        return true;
      }
    }
    return false;
  };
  wants.forEach((_, w) => place(w, new Set()));
  return wants.map((_, w) => {
    const c = takenBy.indexOf(w);
    return c < 0 ? null : c;
  });
}

/**
 * Assigns a cable to every power socket of a card. A 16-pin socket takes a 16-pin cable, or its adapter. The
 * assignment with the fewest empty sockets wins, native cables first.
 * @param wants sockets of the card by kind
 * @param adapter8 8-pin cables that the adapter of a 16-pin socket takes; 0 where there is none
 * @param cables cables of the supply by kind
 * @param bothHeads whether a two-headed cable may feed two sockets
 * @returns what each socket gets
 */
export function assignPlugs(
  wants: Heads,
  adapter8: number,
  cables: Cables,
  bothHeads = false,
): Assigned[] {
  const list = cableList(cables, bothHeads);
  const tries = adapter8 > 0 ? wants['16-pin'] + 1 : 1;
  let best: Assigned[] | null = null;
  for (let adapters = 0; adapters < tries; adapters++) {
    const heads = HEADS.flatMap((h): { want: Head; throughAdapter: boolean }[] => {
      const n = h === '16-pin' ? wants[h] - adapters : wants[h];
      return Array.from({ length: n }, () => ({ want: h, throughAdapter: false }));
    }).concat(
      Array.from({ length: adapters * adapter8 }, () => ({ want: '8-pin', throughAdapter: true })),
    );
    const got = match(
      heads.map((h) => h.want),
      list,
    );
    const row = heads.map((h, i) => ({
      ...h,
      by: got[i] === null ? null : (list[got[i] as number]?.name ?? null),
    }));
    const short = (a: Assigned[]) => a.filter((x) => x.by === null).length;
    if (best === null || short(row) < short(best)) best = row;
  }
  return best ?? [];
}

/**
 * Sockets that stay without a cable.
 * @param assigned what each socket gets
 * @returns how many get none
 */
export function shortOf(assigned: readonly Assigned[]): number {
  return assigned.filter((a) => a.by === null).length;
}

/** An uncounted plug kind is 0 once another of its group was counted; `null` when none of the group was. */
function counts(values: readonly (Num | undefined)[]): Range[] | null {
  if (values.every((v) => stated(v) === null)) return null;
  return values.map((v) => stated(v) ?? { lo: 0, hi: 0 });
}

export interface PlugFacts {
  /** Assignment of the certain values: the most the card may need, the least the supply has. */
  readonly assigned: readonly Assigned[];
  /** Plugs missing at worst and at best. */
  readonly short: { readonly lo: number; readonly hi: number };
  readonly wants: number;
  readonly offers: number;
  /** Processor cables are at hand that can be mistaken for card cables. */
  readonly cpuCables: number;
}

/**
 * Power sockets of a card over every completion: a count that is not stated is anything its schema allows.
 * @param card the card
 * @returns counts by kind
 */
export function socketCounts(card: CardSpec): Readonly<Record<Head, Range>> {
  return {
    '8-pin': toRange(card.plugs8Pin, MOST.sockets),
    '6-pin': toRange(card.plugs6Pin, MOST.sockets),
    '16-pin': toRange(card.plugs16Pin, MOST.sockets),
  };
}

/**
 * What the power sockets of a card can draw together, over every completion of their counts.
 *
 * Source: 75, 150 and 600 W a socket, from memory of the PCI Express CEM specification.
 * @param card the card
 * @returns W
 */
export function socketWatts(card: CardSpec): Range {
  const n = socketCounts(card);
  return plus(...HEADS.map((h) => times(n[h], SOCKET_W[h])));
}

/**
 * The counts of a card's power sockets that are not known exactly.
 * @param card the card
 * @returns paths of the attributes
 */
export function openSockets(card: CardSpec): AttrPath[] {
  return openOf({
    'card/plugs8Pin': card.plugs8Pin,
    'card/plugs6Pin': card.plugs6Pin,
    'card/plugs16Pin': card.plugs16Pin,
  });
}

/** May both heads of a two-headed cable feed the card: in the worst completion of what is not stated, and in the best? */
export interface TwoHeads {
  readonly worst: boolean;
  readonly best: boolean;
  readonly open: readonly AttrPath[];
}

/**
 * What a two-headed cable would carry to a card, against what one cable bears. The sockets share what the slot
 * does not give, by what each may draw; two 8-pin heads carry 300 W of that.
 *
 * Source: 75, 150 and 600 W a socket, from memory of the PCI Express CEM specification; that sockets share evenly
 * is common practice, no published source. Worked example: 210 W, 70 of it from the slot, two 8-pin sockets:
 * 140 W through both heads of one cable of 150 W.
 * @param card the card
 * @param boardW its board power with its limit as set, W; null where it is not stated
 * @param limits what the slot gives at most and what one cable bears, W
 * @returns W through both heads, and whether one cable bears it
 */
export function twoHeads(
  card: CardSpec,
  boardW: Range | null,
  { slotW, cableW }: { slotW: number; cableW: number },
): TwoHeads {
  const slot = stated(card.slotW) ?? { lo: 0, hi: slotW };
  const board = boardW ?? { lo: 0, hi: Infinity };
  const sockets = socketWatts(card);
  const adapter = stated(card.adapter16Pin)?.lo ?? 0;
  const wide =
    socketCounts(card)['16-pin'].hi > 0 ? (2 * SOCKET_W['16-pin']) / Math.max(1, adapter) : 0;
  const share = (most: number, of: number) => Math.min(1, of > 0 ? most / of : 1);
  const worst =
    Math.max(0, board.hi - slot.lo) * share(Math.max(2 * SOCKET_W['8-pin'], wide), sockets.lo);
  const best = Math.max(0, board.lo - slot.hi) * share(2 * SOCKET_W['8-pin'], sockets.hi);
  return {
    worst: worst <= cableW,
    best: best <= cableW,
    open:
      worst <= cableW === best <= cableW
        ? []
        : openOf({ 'card/boardW': card.boardW, 'card/slotW': card.slotW }),
  };
}

/** Do the 16-pin cables of a supply go into the sockets of this card? An older 12-pin plug and a 16-pin one do not. */
function native(card: CardSpec, supply: SupplyAttrs): boolean {
  return (card.sockets16Are ?? 'sense') === (supply.cables16Are ?? 'sense');
}

/** Plugs missing over every completion of what is not stated of a card and a supply, and what that depends on. */
export interface Shortage {
  readonly short: Range;
  readonly open: readonly AttrPath[];
}

/**
 * How many power sockets of a card stay without a cable of a supply, over every completion: at worst the card has
 * the most sockets and the supply the fewest cables. Worked example: a card with two 8-pin sockets whose other
 * sockets are not stated, four 8-pin cables: short 0 to 8.
 * @param card the card
 * @param supply the supply
 * @param at path of the supply
 * @param heads what a two-headed cable would carry
 * @returns sockets, and the attributes it depends on
 */
export function shortage(
  card: CardSpec,
  supply: SupplyAttrs,
  at: AttrPath,
  heads: TwoHeads,
): Shortage {
  const want = socketCounts(card);
  if (HEADS.every((h) => want[h].hi === 0)) return { short: { lo: 0, hi: 0 }, open: [] };
  const have = {
    '8-pin': toRange(supply.cables8Pin, MOST.cables),
    '6-pin': toRange(supply.cables6Pin, MOST.cables),
    '16-pin': native(card, supply) ? toRange(supply.cables16Pin, MOST.cables) : { lo: 0, hi: 0 },
    pair8: toRange(supply.cables8PinPair, MOST.cables),
  };
  const adapter = toRange(card.adapter16Pin, MOST.sockets);
  const solve = (w: 'lo' | 'hi', h: 'lo' | 'hi', plugs: number) => {
    const wants = {
      '8-pin': want['8-pin'][w],
      '6-pin': want['6-pin'][w],
      '16-pin': want['16-pin'][w],
    };
    const cables = {
      '8-pin': have['8-pin'][h],
      '6-pin': have['6-pin'][h],
      '16-pin': have['16-pin'][h],
      pair8: have.pair8[h],
    };
    return shortOf(assignPlugs(wants, plugs, cables, h === 'lo' ? heads.worst : heads.best));
  };
  // The best adapter needs one plug; the worst case is none, or else the one that needs most.
  const best = solve('lo', 'hi', adapter.hi === 0 ? 0 : Math.max(1, adapter.lo));
  const worst = solve('hi', 'lo', adapter.lo === 0 ? 0 : adapter.hi);
  const cables = {
    [`${at}/cables8Pin`]: supply.cables8Pin,
    ...(want['6-pin'].hi > 0 && { [`${at}/cables6Pin`]: supply.cables6Pin }),
    ...(want['16-pin'].hi > 0 && {
      [`${at}/cables16Pin`]: supply.cables16Pin,
      'card/adapter16Pin': card.adapter16Pin,
    }),
    [`${at}/cables8PinPair`]: supply.cables8PinPair,
  };
  const watts = have.pair8.hi > 0 ? heads.open : [];
  return {
    short: { lo: best, hi: worst },
    open: [...openSockets(card), ...openOf(cables), ...watts],
  };
}

/**
 * Were the plugs of a card counted, and the cables of a supply?
 * @param card the card
 * @param supply the supply
 * @returns true for each side that was
 */
export function connectorsCounted(
  card: CardSpec,
  supply: SupplyAttrs,
): { card: boolean; supply: boolean } {
  return {
    card: counts([card.plugs8Pin, card.plugs6Pin, card.plugs16Pin]) !== null,
    supply:
      counts([supply.cables8Pin, supply.cables6Pin, supply.cables16Pin, supply.cables8PinPair]) !==
      null,
  };
}

/**
 * The plugs of a card against the cables of a supply.
 * @param card the card
 * @param supply the supply
 * @param heads what a two-headed cable would carry
 * @returns what each socket gets; null where either side was never counted
 */
export function plugFacts(card: CardSpec, supply: SupplyAttrs, heads: TwoHeads): PlugFacts | null {
  const want = counts([card.plugs8Pin, card.plugs6Pin, card.plugs16Pin]);
  const wide = native(card, supply) ? supply.cables16Pin : 0;
  const have = counts([supply.cables8Pin, supply.cables6Pin, wide, supply.cables8PinPair]);
  if (want?.every((w) => w.hi === 0))
    return { assigned: [], short: { lo: 0, hi: 0 }, wants: 0, offers: 0, cpuCables: 0 };
  if (!want || !have) return null;
  const adapter = stated(card.adapter16Pin) ?? { lo: 0, hi: 0 };
  const at = (list: Range[], i: number, end: 'lo' | 'hi') => list[i]?.[end] ?? 0;
  const solve = (w: 'lo' | 'hi', h: 'lo' | 'hi') => {
    const wants = { '8-pin': at(want, 0, w), '6-pin': at(want, 1, w), '16-pin': at(want, 2, w) };
    const cables = {
      '8-pin': at(have, 0, h),
      '6-pin': at(have, 1, h),
      '16-pin': at(have, 2, h),
      pair8: at(have, 3, h),
    };
    return assignPlugs(wants, adapter.hi, cables, h === 'lo' ? heads.worst : heads.best);
  };
  const worst = solve('hi', 'lo');
  const best = solve('lo', 'hi');
  return {
    assigned: worst,
    short: { lo: shortOf(best), hi: shortOf(worst) },
    wants: worst.length,
    offers: have.reduce((n, h) => n + h.lo, 0),
    cpuCables: stated(supply.cablesCpu8Pin)?.lo ?? 0,
  };
}
