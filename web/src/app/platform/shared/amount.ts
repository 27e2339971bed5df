import { isCurrency, toMinor } from '@ruddy/core/base';
import { readNumber } from './format';

export type AmountRead = { ok: true; minor: number | null } | { ok: false; why: string };

/** An amount as typed, in the smallest unit of its currency; null for an empty field. Comma or point, as everywhere. */
export function readAmount(text: string, currency: string): AmountRead {
  const read = readNumber(text);
  if (!read.ok) return read;
  if (read.value === null) return { ok: true, minor: null };
  if (!isCurrency(currency)) return { ok: false, why: `"${currency}" is not a currency like EUR` };
  if (read.value < 0) return { ok: false, why: `"${text.trim()}" is below 0` };
  const minor = toMinor(read.value, currency);
  return minor === null
    ? { ok: false, why: `"${text.trim()}" has more digits than ${currency} has` }
    : { ok: true, minor };
}

const LAST = 'ruddy.currency';

/** The currency typed last on this machine; EUR before there is one. */
export function lastCurrency(): string {
  return localStorage.getItem(LAST) ?? 'EUR';
}

export function keepCurrency(code: string): void {
  localStorage.setItem(LAST, code);
}
