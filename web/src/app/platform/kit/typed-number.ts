import { readNumber } from '../shared/format';

/** A number or a range as typed: "4", "2 to 4"; null for an empty field. */
export function typedNumber(
  text: string,
): { ok: true; value: number | { lo: number; hi: number } | null } | { ok: false; why: string } {
  const range = /^(.+?)\s+to\s+(.+)$/i.exec(text.trim());
  if (!range) return readNumber(text);
  const lo = readNumber(range[1] ?? '');
  const hi = readNumber(range[2] ?? '');
  if (!lo.ok) return lo;
  if (!hi.ok) return hi;
  return lo.value === null || hi.value === null
    ? { ok: false, why: 'a range needs both ends' }
    : { ok: true, value: { lo: lo.value, hi: hi.value } };
}
