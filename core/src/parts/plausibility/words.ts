import type { ValueQuestion } from './types';

/** Bounded, so that a long run of digits is looked at once. */
const NUMBER = String.raw`(?<!\d)(\d{1,9}(?:[.,]\d{1,9})?)`;
/** "22 of 26 Gb/s, 92 %", "5 of 6 (44 %)". */
const OF = new RegExp(
  String.raw`${NUMBER}\s{0,4}(?:of|out of|/)\s{0,4}${NUMBER}[^\d%.;]{0,24}?${NUMBER}\s{0,4}%`,
  'gi',
);
/** "from 100 to 85 fps, 20 % less", "100 -> 85: -20 %". */
const FROM_TO = new RegExp(
  String.raw`${NUMBER}\s{0,4}(?:to|->|down to|up to)\s{0,4}${NUMBER}[^\d%.;]{0,24}?${NUMBER}\s{0,4}%`,
  'gi',
);
const value = (text: string | undefined) => Number((text ?? '').replace(',', '.'));
const whole = (x: number) => Math.round(x * 10) / 10;

/**
 * Percentages in typed words that do not match the figures beside them. Both readings of "from a to b" are tried:
 * the share that is left and the share that went; one point of rounding is allowed. The words are never changed.
 * @param text the words
 * @param path of the attribute they stand in
 * @returns questions; none where nothing is odd
 */
export function shareQuestions(text: string, path: string): ValueQuestion[] {
  const found: ValueQuestion[] = [];
  const ask = (said: number, is: number[], a: number, b: number) => {
    if (b === 0 || is.some((x) => Math.abs(Math.abs(x) - said) <= 1)) return;
    found.push({
      path,
      code: 'share-off',
      params: { said, a, b, would: whole(Math.abs(is[0] ?? 0)) },
    });
  };
  for (const m of text.matchAll(OF)) {
    const a = value(m[1]);
    const b = value(m[2]);
    const p = value(m[3]);
    ask(p, [(a / b) * 100, 100 - (a / b) * 100], a, b);
  }
  for (const m of text.matchAll(FROM_TO)) {
    const a = value(m[1]);
    const b = value(m[2]);
    const p = value(m[3]);
    if (a > 0)
      ask(p, [((b - a) / a) * 100, (b / a) * 100, b > 0 ? ((a - b) / b) * 100 : NaN], a, b);
  }
  return found;
}

/**
 * A rate with its unit in typed words that no link of this kind can have: "40 GB/s". Asks whether bits were meant.
 * @param text the words
 * @param path of the attribute they stand in
 * @returns questions; none where nothing is odd
 */
export function rateQuestions(text: string, path: string): ValueQuestion[] {
  return [...text.matchAll(/(?<!\d)(\d{1,9}(?:[.,]\d{1,9})?)\s{0,4}GB\/s/g)]
    .map((m) => value(m[1]))
    .filter((v) => [5, 10, 20, 40, 80, 120].includes(v))
    .map((v) => ({ path, code: 'bits-for-bytes' as const, params: { said: v, would: v * 8 } }));
}
