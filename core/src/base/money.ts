/** An amount in the smallest unit of its currency (cents), so that sums are exact. */
export interface Money {
  readonly minor: number;
  readonly currency: string;
}

/** An exchange rate as read on a day: one `from` is `rate` of `to`. */
export interface ExchangeRate {
  readonly from: string;
  readonly to: string;
  readonly rate: number;
  readonly onDate: string;
  readonly source: string;
}

const KNOWN = new Set(Intl.supportedValuesOf('currency'));

/**
 * Is it a currency code of ISO 4217, as this runtime's Unicode data has them?
 * @param code three capital letters
 * @returns true where it is
 * @example isCurrency('EUR') // => true
 */
export function isCurrency(code: string): boolean {
  return KNOWN.has(code);
}

/**
 * Every currency code, for a list to choose from.
 * @returns codes of ISO 4217, as this runtime's Unicode data has them
 */
export function currencies(): readonly string[] {
  return [...KNOWN];
}

/**
 * Digits after the point in a currency (ISO 4217).
 * @param currency a currency code
 * @returns 2 for EUR, 0 for JPY, 3 for KWD
 * @throws {RangeError} if it is no currency code
 * @example minorDigits('JPY') // => 0
 */
export function minorDigits(currency: string): number {
  return (
    new Intl.NumberFormat('en', { style: 'currency', currency }).resolvedOptions()
      .maximumFractionDigits ?? 2
  );
}

/**
 * An amount in the smallest unit of its currency.
 * @param units whole units and their fraction
 * @param currency a currency code
 * @returns the amount; null where it has more digits than the currency
 * @example toMinor(12.5, 'EUR') // => 1250
 */
export function toMinor(units: number, currency: string): number | null {
  const scaled = units * 10 ** minorDigits(currency);
  const minor = Math.round(scaled);
  return Math.abs(scaled - minor) < 1e-6 * Math.max(1, Math.abs(scaled)) ? minor : null;
}

/**
 * The newest exchange rate of a pair that was known on a day; a rate of the other direction is turned over.
 * @param rates rates of any pairs and days; not modified
 * @param from code of the currency that is converted
 * @param to code of the currency wanted
 * @param asOf ISO date; later rates do not count
 * @returns one `from` in `to`; null where no rate is known
 * @example rateOn([{ from: 'EUR', to: 'USD', rate: 1.25, onDate: '2026-11-01', source: '' }], 'USD', 'EUR', '2026-11-02')?.rate // => 0.8
 */
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

/**
 * Money in another currency.
 * @param money the amount
 * @param rate one of its currency in the other
 * @returns the amount, rounded to the smallest unit, halves away from zero
 * @example convert({ minor: 1000, currency: 'EUR' }, { from: 'EUR', to: 'JPY', rate: 160, onDate: '2026-11-01', source: '' }) // => { minor: 1600, currency: 'JPY' }
 */
export function convert(money: Money, rate: ExchangeRate): Money {
  const units = (money.minor / 10 ** minorDigits(money.currency)) * rate.rate;
  const scaled = units * 10 ** minorDigits(rate.to);
  return { minor: Math.sign(scaled) * Math.round(Math.abs(scaled)), currency: rate.to };
}

/**
 * A percentage of an amount.
 * @param minor the amount in smallest units
 * @param percent how many hundredths of it
 * @returns smallest units, rounded, halves away from zero
 * @example percentOf(1050, 5) // => 53
 */
export function percentOf(minor: number, percent: number): number {
  const part = (minor * percent) / 100;
  return Math.sign(part) * Math.round(Math.abs(part));
}
