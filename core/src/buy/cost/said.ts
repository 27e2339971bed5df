import { minorDigits } from '../../base';
import type { CostSettings } from '../../setups';

/**
 * What was typed of the money, counted in another currency: the figures stay as they were typed (1900 stays 1900),
 * whatever digits the currency has. Nothing is converted: only the person knows what was meant. Halves of a smallest
 * unit go up.
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
