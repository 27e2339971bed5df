import { readNumber } from '../shared/format';

/** A number or a range as typed: "4", "2 to 4"; null for an empty field. */
export function typedNumber(
  text: string,
): { ok: true; value: number | { lo: number; hi: number } | null } | { ok: false; why: string } {
  const words = text.trim().split(/\s+/);
  const at = words.findIndex((x, i) => i > 0 && x.toLowerCase() === 'to');
  if (at < 0 || at === words.length - 1) return readNumber(text);
  const lo = readNumber(words.slice(0, at).join(' '));
  const hi = readNumber(words.slice(at + 1).join(' '));
  if (!lo.ok) return lo;
  if (!hi.ok) return hi;
  return lo.value === null || hi.value === null
    ? { ok: false, why: 'a range needs both ends' }
    : { ok: true, value: { lo: lo.value, hi: hi.value } };
}
