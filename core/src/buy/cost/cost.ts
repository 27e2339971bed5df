import { daysBetween, type Money, percentOf } from '../../base';
import { FORGOTTEN } from '../../setups';
import { forgottenItems } from './forgotten';
import { bestOffer, currentOffers, inCurrency, type OfferRules } from './offers';
import type {
  Cost,
  CostInput,
  CostLine,
  CostPart,
  OwnedPiece,
  Price,
  AllInOne,
  ImpliedDock,
} from './types';

/** Owned items for the parts of a plan, each used once: two cables of a kind need two items. Those not in use elsewhere come first. */
function handOut({ parts, pieces, named }: CostInput): Map<string, OwnedPiece> {
  const left = [...pieces].sort((a, b) => Number(a.usedIn !== null) - Number(b.usedIn !== null));
  const given = new Map<string, OwnedPiece>();
  // A piece that is named goes to its own place first.
  const order = [...parts].sort(
    (a, b) => Number(named[b.slot] !== undefined) - Number(named[a.slot] !== undefined),
  );
  for (const p of order) {
    const own = left.findIndex((x) => x.id === named[p.slot]);
    const at = own >= 0 ? own : left.findIndex((x) => x.partId === p.id);
    const [piece] = at < 0 ? [] : left.splice(at, 1);
    if (piece) given.set(p.slot, piece);
  }
  return given;
}

function lineOf(
  part: CostPart,
  piece: OwnedPiece | null,
  own: readonly Price[],
  r: OfferRules,
): CostLine {
  const empty = {
    part,
    piece,
    price: null,
    minor: null,
    rate: null,
    shipping: null,
    ageDays: null,
    old: false,
  };
  if (piece) return { ...empty, state: 'owned', minor: 0 };
  const price = bestOffer(own, r);
  if (!price) return { ...empty, state: 'not-priced' };
  const here = inCurrency(price, r.currency, r.rates, r.asOf);
  const ageDays = daysBetween(price.onDate, r.asOf);
  const post = currentOffers(own, 'shipping', { ...r, condition: null }).find(
    (p) => p.source === price.source,
  );
  return {
    ...empty,
    state: here ? 'priced' : 'apart',
    price,
    minor: here?.minor ?? null,
    rate: here?.rate ?? null,
    shipping: post ? { minor: post.minor, currency: post.currency } : null,
    ageDays,
    old: ageDays > r.oldDays,
  };
}

/** Put a box over the lines it holds when every part of it is wanted and it costs no more than they do by themselves. */
function withBoxes(
  lines: readonly CostLine[],
  prices: readonly Price[],
  r: OfferRules,
): CostLine[] {
  const next = [...lines];
  for (const box of currentOffers(prices, 'offer', r).filter((p) => p.withIds.length > 0)) {
    const ids = [box.partId, ...box.withIds];
    const at = ids.map((id) =>
      next.findIndex((l) => l.part.id === id && l.state !== 'owned' && l.state !== 'in-box'),
    );
    if (at.some((i) => i < 0) || new Set(at).size < at.length) continue;
    const here = inCurrency(box, r.currency, r.rates, r.asOf);
    const single = at.reduce<number | null>((sum, i) => {
      const minor = next[i]?.minor ?? null;
      return sum === null || minor === null ? null : sum + minor;
    }, 0);
    if (!here || (single !== null && single < here.minor)) continue;
    const ageDays = daysBetween(box.onDate, r.asOf);
    at.forEach((i, k) => {
      const line = next[i];
      if (!line) return;
      const paid = k === 0 ? here.minor : 0;
      const old = ageDays > r.oldDays;
      next[i] = {
        ...line,
        state: k === 0 ? 'priced' : 'in-box',
        price: box,
        minor: paid,
        rate: here.rate,
        shipping: null,
        ageDays,
        old,
      };
    });
  }
  return next;
}

const sum = (list: readonly (number | null)[]) => list.reduce<number>((a, b) => a + (b ?? 0), 0);

function addApart(to: Map<string, number>, money: Money): void {
  to.set(money.currency, (to.get(money.currency) ?? 0) + money.minor);
}

/** Shipping of the lines in the currency of the plan, and amounts that no dated rate brings into it. */
function shippingAndApart(lines: readonly CostLine[], r: OfferRules) {
  const apart = new Map<string, number>();
  let shipping = 0;
  for (const l of lines) {
    if (l.state === 'apart' && l.price) addApart(apart, l.price);
    if (!l.shipping) continue;
    const here = inCurrency(l.shipping, r.currency, r.rates, r.asOf);
    if (here) shipping += here.minor;
    else addApart(apart, l.shipping);
  }
  return { shipping, apart: [...apart].map(([currency, minor]) => ({ currency, minor })) };
}

/** What the parts that are bought would bring when sold again. */
function resaleOf(lines: readonly CostLine[], prices: readonly Price[], r: OfferRules): number {
  const anyCondition = { ...r, condition: null };
  return sum(
    lines.map((l) => {
      if (l.state === 'owned') return null;
      const own = prices.filter((p) => p.partId === l.part.id);
      const again = currentOffers(own, 'resale', anyCondition)[0];
      return again ? (inCurrency(again, r.currency, r.rates, r.asOf)?.minor ?? null) : null;
    }),
  );
}

/** Dock, card and supplies together, to hold against an all-in-one; null while one of them has no price. */
function dockCardSupply(single: readonly CostLine[]): number | null {
  const scope = single.filter(
    (l) => ['dock', 'card'].includes(l.part.slot) || l.part.slot.startsWith('supplies/'),
  );
  const open = scope.some((l) => l.state !== 'owned' && l.minor === null);
  return scope.length === 0 || open ? null : sum(scope.map((l) => l.minor));
}

/** What still has no price: parts, and things that are easily forgotten. */
function withoutPrice(lines: readonly CostLine[], forgotten: Cost['forgotten']): string[] {
  return [
    ...lines
      .filter((l) => l.state === 'not-priced' && l.part.kind !== 'system')
      .map((l) => l.part.name),
    ...forgotten.filter((f) => !f.have && f.minor === null).map((f) => FORGOTTEN[f.code]),
  ];
}

function linesOf(i: CostInput, r: OfferRules): { single: CostLine[]; lines: CostLine[] } {
  const given = handOut(i);
  const own = (id: string) => i.prices.filter((p) => p.partId === id);
  const single = i.parts.map((p) => lineOf(p, given.get(p.slot) ?? null, own(p.id), r));
  return { single, lines: withBoxes(single, i.prices, r) };
}

/**
 * What a plan costs. A piece that is there counts as zero; of the offers for a part the cheapest young one counts.
 * Amounts in other currencies are added only at a dated rate and stand apart otherwise. The discount is taken from
 * the parts, first the percentage, then the amount; shipping is the typed one and that of the sources.
 * @param i the plan with prices, pieces and rates
 * @returns lines and sums in smallest units of the plan's currency
 */
export function costOf(i: CostInput): Cost {
  const { settings: s } = i;
  const r: OfferRules = {
    condition: s.condition,
    currency: s.currency,
    rates: i.rates,
    asOf: i.asOf,
    oldDays: i.oldDays,
  };
  const { single, lines } = linesOf(i, r);
  const { shipping, apart } = shippingAndApart(lines, r);
  const forgotten = forgottenItems(i.chain).map((code) => ({
    code,
    have: false,
    minor: null,
    ...s.forgotten[code],
  }));
  const partsMinor = sum(lines.map((l) => l.minor));
  const extrasMinor =
    sum(s.extras.map((e) => e.minor)) + sum(forgotten.map((f) => (f.have ? 0 : f.minor)));
  const shippingMinor = shipping + (s.shippingMinor ?? 0);
  const discountMinor = Math.min(
    partsMinor,
    percentOf(partsMinor, s.discountPercent ?? 0) + (s.discountMinor ?? 0),
  );
  const totalMinor = partsMinor + extrasMinor + shippingMinor - discountMinor;
  const sellsMinor = sum(s.sells.map((x) => x.minor));
  const netMinor = totalMinor - sellsMinor;
  const partsSumMinor = dockCardSupply(single);
  return {
    currency: s.currency,
    lines,
    forgotten,
    partsMinor,
    extrasMinor,
    shippingMinor,
    discountMinor,
    totalMinor,
    sellsMinor,
    netMinor,
    apart,
    open: withoutPrice(lines, forgotten),
    leftMinor: s.budgetMinor === null ? null : s.budgetMinor - netMinor,
    resaleMinor: resaleOf(lines, i.prices, r),
    implied: impliedDocks(i, r),
    partsSumMinor,
    allInOne: allInOnes(i, r, partsSumMinor),
  };
}

/**
 * What the dock of a plan costs by itself where it is sold in a box: the box less what the other parts of it cost
 * alone.
 * @param i the plan with its prices
 * @param r which offers count
 * @returns smallest units of the plan's currency, one entry for each box
 */
export function impliedDocks(i: CostInput, r: OfferRules): ImpliedDock[] {
  const dock = i.parts.find((p) => p.slot === 'dock');
  if (!dock) return [];
  const nameOf = (id: string) =>
    i.parts.find((p) => p.id === id)?.name ?? i.names.get(id) ?? 'another part';
  return currentOffers(i.prices, 'offer', r)
    .filter((p) => p.withIds.length > 0 && [p.partId, ...p.withIds].includes(dock.id))
    .flatMap((box) => {
      const here = inCurrency(box, r.currency, r.rates, r.asOf);
      const others = [box.partId, ...box.withIds].filter((id) => id !== dock.id);
      const without = others.flatMap((id) => {
        const price = bestOffer(
          i.prices.filter((p) => p.partId === id),
          r,
        );
        const alone = price && inCurrency(price, r.currency, r.rates, r.asOf);
        return alone ? [{ name: nameOf(id), minor: alone.minor }] : [];
      });
      if (!here || without.length < others.length) return [];
      const minor = here.minor - without.reduce((a, w) => a + w.minor, 0);
      return [{ name: dock.name, box, without, minor, currency: r.currency }];
    });
}

/**
 * All-in-one docks that have a price, against the plan's own dock, card and supply.
 * @param i the plan with its prices
 * @param r which offers count
 * @param partsSumMinor dock, card and supply of the plan, smallest units; null while one has no price
 * @returns smallest units, cheapest first
 */
export function allInOnes(i: CostInput, r: OfferRules, partsSumMinor: number | null): AllInOne[] {
  return i.allInOne
    .flatMap((part) => {
      const own = i.prices.filter((p) => p.partId === part.id);
      // With a card in the box it is what people buy; without one, the dock has its card soldered in.
      const boxed = currentOffers(own, 'offer', r).filter((p) => p.withIds.length > 0);
      const offers = [bestOffer(own, r), ...boxed].filter((p) => p !== null);
      const priced = offers.flatMap((price) => {
        const here = inCurrency(price, r.currency, r.rates, r.asOf);
        return here ? [{ price, minor: here.minor }] : [];
      });
      const best = priced.sort((a, b) => a.minor - b.minor)[0];
      if (!best) return [];
      const moreMinor = partsSumMinor === null ? null : best.minor - partsSumMinor;
      return [{ id: part.id, name: part.name, price: best.price, minor: best.minor, moreMinor }];
    })
    .sort((a, b) => a.minor - b.minor);
}
