import { minorDigits, type Money } from '../../base';

const FORMATS = new Map<string, Intl.NumberFormat>();

/**
 * Amount with its currency and all digits of the currency. Digits by ISO 4217, as Intl has them.
 *
 * @param m amount in minor units, with its currency code
 * @returns text such as "€38.00" or "¥5,400"
 */
export function money(m: Money): string {
  let format = FORMATS.get(m.currency);
  if (!format) {
    format = new Intl.NumberFormat('en-GB', { style: 'currency', currency: m.currency });
    FORMATS.set(m.currency, format);
  }
  return format.format(m.minor / 10 ** minorDigits(m.currency));
}

/**
 * Amount with its currency, without zeros after the point, for headlines and bars.
 *
 * @param m amount in minor units, with its currency code
 * @returns text such as "€38"
 */
export function moneyShort(m: Money): string {
  return money(m).replace(/\.0+$/, '');
}

/**
 * Amount as the value of an input field.
 *
 * @param minor amount in minor units; null for none
 * @param currency ISO 4217 code
 * @returns "38" or "38.50"; empty for none
 */
export function moneyField(minor: number | null, currency: string): string {
  if (minor === null) return '';
  const digits = minorDigits(currency);
  const text = (minor / 10 ** digits).toFixed(digits);
  return text.replace(/\.0+$/, '');
}
