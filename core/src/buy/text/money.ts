import { minorDigits, type Money } from '../../base';

const FORMATS = new Map<string, Intl.NumberFormat>();

/** "€38.00" or "¥5,400": an amount with its currency, all digits the currency has. */
export function money(m: Money): string {
  let format = FORMATS.get(m.currency);
  if (!format) {
    format = new Intl.NumberFormat('en-GB', { style: 'currency', currency: m.currency });
    FORMATS.set(m.currency, format);
  }
  return format.format(m.minor / 10 ** minorDigits(m.currency));
}

/** The same without zeros after the point, for headlines and bars: "€38". */
export function moneyShort(m: Money): string {
  return money(m).replace(/\.0+$/, '');
}

/** An amount as it stands in a field: "38" or "38.50". */
export function moneyField(minor: number | null, currency: string): string {
  if (minor === null) return '';
  const digits = minorDigits(currency);
  const text = (minor / 10 ** digits).toFixed(digits);
  return text.replace(/\.0+$/, '');
}
