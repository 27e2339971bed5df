import { moneyField } from '@ruddy/core/buy/text';
import { readAmount } from '../shared/amount';
import { readNumber } from '../shared/format';
import type { FieldMeta } from './meta';
import { typedNumber } from './typed-number';

type Read =
  { readonly ok: true; readonly value: unknown } | { readonly ok: false; readonly why: string };

/** Turns typed text into the value of a control, and a value into text. */
export interface Codec {
  read(text: string): Read;
  show(value: unknown): string;
}

function money(currency: string): Codec {
  return {
    read: (text) => {
      const r = readAmount(text, currency);
      return r.ok ? { ok: true, value: r.minor } : r;
    },
    show: (value) => moneyField(value as number | null, currency),
  };
}

const LINES: Codec = {
  read: (text) => ({
    ok: true,
    value: text
      .split('\n')
      .map((line) => line.trim())
      .filter((line) => line !== ''),
  }),
  show: (value) => ((value as readonly string[] | null) ?? []).join('\n'),
};

function showNumber(value: unknown): string {
  if (value === null || value === undefined) return '';
  if (typeof value !== 'object') return String(value as number);
  const { lo, hi } = value as { lo: number; hi: number };
  return `${lo} to ${hi}`;
}

/** How the text of a number, money or lines field is read and shown. */
export function codecOf(m: FieldMeta): Codec {
  if (m.input === 'money') return money(m.unit ?? 'EUR');
  if (m.input === 'lines') return LINES;
  return { read: m.range ? typedNumber : readNumber, show: showNumber };
}
