import { convert, daysBetween, type ExchangeRate, type Money, rateOn } from '../../base';
import type { Condition } from '../../setups';
import type { Price, PriceKind } from './types';

/**
 * What a part costs by itself with the shipping of the same source, and what it sells for again.
 * @param prices of the part
 * @param r which offers count, and the currency
 * @returns smallest units; null where no price or no rate is known
 */
export function alone(
  prices: readonly Price[],
  r: OfferRules,
): { minor: number | null; resaleMinor: number | null } {
  const offer = bestOffer(prices, r);
  const here = offer && inCurrency(offer, r.currency, r.rates, r.asOf);
  const post =
    offer &&
    currentOffers(prices, 'shipping', { ...r, condition: null }).find(
      (p) => p.source === offer.source,
    );
  const posted = post ? inCurrency(post, r.currency, r.rates, r.asOf) : { minor: 0 };
  const again = currentOffers(prices, 'resale', { ...r, condition: null })[0];
  return {
    minor: here && posted ? here.minor + posted.minor : null,
    resaleMinor: (again && inCurrency(again, r.currency, r.rates, r.asOf)?.minor) ?? null,
  };
}

/**
 * An amount in another currency.
 * @param money the amount
 * @param to code of the currency wanted
 * @param rates dated rates
 * @param asOf ISO date; later rates do not count
 * @returns smallest units and the rate used; null where no rate is known
 */
export function inCurrency(
  money: Money,
  to: string,
  rates: readonly ExchangeRate[],
  asOf: string,
): { minor: number; rate: ExchangeRate | null } | null {
  if (money.currency === to) return { minor: money.minor, rate: null };
  const rate = rateOn(rates, money.currency, to, asOf);
  return rate ? { minor: convert(money, rate).minor, rate } : null;
}

export interface OfferRules {
  readonly condition: Condition | null;
  readonly currency: string;
  readonly rates: readonly ExchangeRate[];
  readonly asOf: string;
  /** Older than this many days, an offer only counts when there is no younger one. */
  readonly oldDays: number;
}

/**
 * Prices of a kind that still say something on a day: of each source only its newest, in the wanted condition or
 * with none noted.
 * @param prices of one part
 * @param kind of price
 * @param r condition and date
 * @returns newest first
 */
export function currentOffers(
  prices: readonly Price[],
  kind: PriceKind,
  r: Pick<OfferRules, 'condition' | 'asOf'>,
): Price[] {
  const fits = prices
    .filter((p) => p.kind === kind && p.onDate <= r.asOf)
    .filter((p) => r.condition === null || p.condition === null || p.condition === r.condition)
    .sort((a, b) => (a.onDate === b.onDate ? a.minor - b.minor : a.onDate < b.onDate ? 1 : -1));
  const box = (p: Price) =>
    `${p.source.toLowerCase()} ${p.condition ?? ''} ${[...p.withIds].sort().join()}`;
  return fits.filter((p, i) => p.source === '' || fits.findIndex((q) => box(q) === box(p)) === i);
}

/**
 * The offer that counts for a part: the cheapest of those young enough, otherwise the newest. One in a currency
 * without a rate counts only where no other does. Boxes with other parts are left out.
 * @param prices of one part
 * @param r which offers count
 * @returns the offer; null where there is none
 */
export function bestOffer(prices: readonly Price[], r: OfferRules): Price | null {
  const offers = currentOffers(prices, 'offer', r).filter((p) => p.withIds.length === 0);
  const young = offers.filter((p) => daysBetween(p.onDate, r.asOf) <= r.oldDays);
  const value = (p: Price) => inCurrency(p, r.currency, r.rates, r.asOf)?.minor ?? Infinity;
  const cheapest = (list: readonly Price[]) =>
    list.reduce<Price | null>(
      (best, p) => (best === null || value(p) < value(best) ? p : best),
      null,
    );
  return young.length > 0 ? cheapest(young) : (offers[0] ?? null);
}
