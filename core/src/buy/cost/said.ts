import { minorDigits } from '../../base';
import type { CostSettings } from '../../setups';

/**
 * Re-counts typed amounts in another currency without converting them (1900 stays 1900, whatever digits the currency
 * has): the currency of a typed amount is the user's to say. Halves of a minor unit are rounded up.
 * @param said the figures in smallest units of the old currency
 * @param currency code of the new one
 * @returns the same figures in its smallest units
 */
export function countedIn<S extends CostSettings>(said: S, currency: string): S {
  const factor = 10 ** (minorDigits(currency) - minorDigits(said.currency));
  const same = (minor: number) => Math.round(minor * factor);
  const orNull = (minor: number | null) => (minor === null ? null : same(minor));
  return {
    ...said,
    currency,
    budgetMinor: orNull(said.budgetMinor),
    shippingMinor: orNull(said.shippingMinor),
    discountMinor: orNull(said.discountMinor),
    forgotten: Object.fromEntries(
      Object.entries(said.forgotten).map(([code, f]) => [code, { ...f, minor: orNull(f.minor) }]),
    ),
    extras: said.extras.map((x) => ({ ...x, minor: same(x.minor) })),
    sells: said.sells.map((x) => ({ ...x, minor: same(x.minor) })),
  };
}
