/** An amount in the smallest unit of its currency (cents), so that sums are exact. */
export interface Money {
  readonly minor: number;
  readonly currency: string;
}

/** A rate of exchange as somebody read it on a day: one `from` is `rate` of `to`. */
export interface ExchangeRate {
  readonly from: string;
  readonly to: string;
  readonly rate: number;
  readonly onDate: string;
  readonly source: string;
}

const KNOWN = new Set(Intl.supportedValuesOf('currency'));

/** Is it a currency code of ISO 4217, as this runtime's Unicode data has them? */
export function isCurrency(code: string): boolean {
  return KNOWN.has(code);
}

/** Every currency code, for a list to choose from. */
export function currencies(): readonly string[] {
  return [...KNOWN];
}

/** Digits after the point in a currency (ISO 4217): 2 for EUR, 0 for JPY, 3 for KWD. */
export function minorDigits(currency: string): number {
  return (
    new Intl.NumberFormat('en', { style: 'currency', currency }).resolvedOptions()
      .maximumFractionDigits ?? 2
  );
}

/** A number of whole units as minor units; null when it has more digits than the currency. */
export function toMinor(units: number, currency: string): number | null {
  const scaled = units * 10 ** minorDigits(currency);
  const minor = Math.round(scaled);
  return Math.abs(scaled - minor) < 1e-6 * Math.max(1, Math.abs(scaled)) ? minor : null;
}

/** The newest rate for a pair that was known on a day; the other way round is turned over. Null when there is none. */
export function rateOn(
  rates: readonly ExchangeRate[],
  from: string,
  to: string,
  asOf: string,
): ExchangeRate | null {
  const fits = rates.filter(
    (r) =>
      r.onDate <= asOf && ((r.from === from && r.to === to) || (r.from === to && r.to === from)),
  );
  const newest = fits.reduce<ExchangeRate | null>(
    (best, r) => (best === null || r.onDate > best.onDate ? r : best),
    null,
  );
  if (newest === null || newest.from === from) return newest;
  return { ...newest, from, to, rate: 1 / newest.rate };
}

/** Money in another currency at a rate, rounded to its smallest unit, halves away from zero. */
export function convert(money: Money, rate: ExchangeRate): Money {
  const units = (money.minor / 10 ** minorDigits(money.currency)) * rate.rate;
  const scaled = units * 10 ** minorDigits(rate.to);
  return { minor: Math.sign(scaled) * Math.round(Math.abs(scaled)), currency: rate.to };
}

/** A percentage of minor units, rounded to a whole unit, halves away from zero. */
export function percentOf(minor: number, percent: number): number {
  const part = (minor * percent) / 100;
  return Math.sign(part) * Math.round(Math.abs(part));
}
