import type { CardSpec, SupplyAttrs } from '../schema';
import { stated, type Num, type Range } from '../units';

/** Plugs on a card and heads on power cables. The 6+2 head of a cable fits an 8-pin and a 6-pin socket; a 6-pin head only its own. */
export const HEADS = ['8-pin', '6-pin', '16-pin'] as const;
export type Head = (typeof HEADS)[number];

/** Watts a socket may draw, from memory of the PCI Express CEM specification. */
export const SOCKET_W = { '6-pin': 75, '8-pin': 150 } as const;

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
  /** Cables with two 8-pin heads: each counts as one cable, because both heads share its wires. */
  readonly pair8: number;
}

interface Cable {
  readonly name: string;
  readonly fits: readonly Head[];
}

function cableList(c: Cables): Cable[] {
  const many = (n: number, name: string, fits: readonly Head[]) =>
    Array.from({ length: n }, (_, i) => ({ name: `${name} ${i + 1}`, fits }));
  return [
    ...many(c['6-pin'], '6-pin cable', ['6-pin']),
    ...many(c['8-pin'], '8-pin cable', ['8-pin', '6-pin']),
    ...many(c.pair8, 'two-headed 8-pin cable', ['8-pin', '6-pin']),
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
 * Give every socket of a card its own power cable. A 16-pin socket takes a 16-pin cable, or its adapter with `adapter8` 8-pin cables
 * (0: no adapter). The assignment with the fewest sockets left empty wins, native cables first.
 */
export function assignPlugs(wants: Heads, adapter8: number, cables: Cables): Assigned[] {
  const list = cableList(cables);
  const tries = adapter8 > 0 ? wants['16-pin'] + 1 : 1;
  let best: Assigned[] | null = null;
  for (let adapters = 0; adapters < tries; adapters++) {
    const heads = HEADS.flatMap((h): { want: Head; throughAdapter: boolean }[] => {
      const n = h === '16-pin' ? wants[h] - adapters : wants[h];
      return Array.from({ length: n }, () => ({ want: h, throughAdapter: false }));
    }).concat(Array.from({ length: adapters * adapter8 }, () => ({ want: '8-pin', throughAdapter: true })));
    const got = match(
      heads.map((h) => h.want),
      list,
    );
    const row = heads.map((h, i) => ({ ...h, by: got[i] === null ? null : (list[got[i] as number]?.name ?? null) }));
    const short = (a: Assigned[]) => a.filter((x) => x.by === null).length;
    if (best === null || short(row) < short(best)) best = row;
  }
  return best ?? [];
}

export function shortOf(assigned: readonly Assigned[]): number {
  return assigned.filter((a) => a.by === null).length;
}

/** A count nobody stated is none once another of its group was counted; `null` when none of the group was. */
function counts(values: readonly (Num | undefined)[]): Range[] | null {
  if (values.every((v) => stated(v) === null)) return null;
  return values.map((v) => stated(v) ?? { lo: 0, hi: 0 });
}

export interface PlugFacts {
  /** The assignment with what is certain: the most the card may want, the least the supply has. */
  readonly assigned: readonly Assigned[];
  /** Plugs missing at worst and at best. */
  readonly short: { readonly lo: number; readonly hi: number };
  readonly wants: number;
  readonly offers: number;
  /** Processor cables lie ready that somebody may take for card cables. */
  readonly cpuCables: number;
}

/** Did anybody count the plugs of a card, and the cables of a supply? */
export function counted(card: CardSpec, supply: SupplyAttrs): { card: boolean; supply: boolean } {
  return {
    card: counts([card.plugs8Pin, card.plugs6Pin, card.plugs16Pin]) !== null,
    supply: counts([supply.cables8Pin, supply.cables6Pin, supply.cables16Pin, supply.cables8PinPair]) !== null,
  };
}

/** The plugs of a card against the cables of a supply; `null` when either was never counted. */
export function plugFacts(card: CardSpec, supply: SupplyAttrs): PlugFacts | null {
  const want = counts([card.plugs8Pin, card.plugs6Pin, card.plugs16Pin]);
  const have = counts([supply.cables8Pin, supply.cables6Pin, supply.cables16Pin, supply.cables8PinPair]);
  if (want?.every((w) => w.hi === 0)) return { assigned: [], short: { lo: 0, hi: 0 }, wants: 0, offers: 0, cpuCables: 0 };
  if (!want || !have) return null;
  const adapter = stated(card.adapter16Pin) ?? { lo: 0, hi: 0 };
  const at = (list: Range[], i: number, end: 'lo' | 'hi') => list[i]?.[end] ?? 0;
  const solve = (w: 'lo' | 'hi', h: 'lo' | 'hi') =>
    assignPlugs({ '8-pin': at(want, 0, w), '6-pin': at(want, 1, w), '16-pin': at(want, 2, w) }, adapter.hi, {
      '8-pin': at(have, 0, h),
      '6-pin': at(have, 1, h),
      '16-pin': at(have, 2, h),
      pair8: at(have, 3, h),
    });
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
