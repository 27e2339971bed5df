import { bestOffer, currentOffers, inCurrency, type OfferRules } from './offers';
import type { AllInOne, CostInput, ImpliedDock } from './types';

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
