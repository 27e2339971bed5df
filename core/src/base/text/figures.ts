import { trimmedEnd } from '../trimmed-end';
import { isExact, type Range } from '../units/range';

/**
 * A rate with one decimal.
 * @param r Gb/s; null where it is not known
 * @returns "26.0", "16.0 to 26.0", "up to 26.0" or "not known"
 * @example rate({ lo: 16, hi: 26 }) // => '16.0 to 26.0'
 */
export function rate(r: Range | null | undefined): string {
  if (!r || !Number.isFinite(r.hi)) return 'not known';
  if (isExact(r) || r.lo.toFixed(1) === r.hi.toFixed(1)) return r.lo.toFixed(1);
  return r.lo === 0 ? `up to ${r.hi.toFixed(1)}` : `${r.lo.toFixed(1)} to ${r.hi.toFixed(1)}`;
}

/**
 * Whole percent of a share.
 * @param r a share from 0 to 1; an endless upper end is open
 * @returns "12" or "12 to 40", without the sign
 * @example percent({ lo: 0.12, hi: 0.4 }) // => '12 to 40'
 */
export function percent(r: Range): string {
  const lo = Math.round(r.lo * 100);
  const hi = Math.round(r.hi * 100);
  if (hi === Infinity) return `at least ${lo}`;
  return lo === hi ? String(lo) : `${lo} to ${hi}`;
}

/**
 * A length, as metres from 1 m on.
 * @param r mm
 * @returns "600 mm", "1.2 m" or both ends
 * @example length({ lo: 600, hi: 1200 }) // => '600 mm to 1.2 m'
 */
export function length(r: Range): string {
  const one = (mm: number) =>
    mm >= 1000 ? `${(mm / 1000).toFixed(mm % 100 === 0 ? 1 : 2)} m` : `${Math.round(mm)} mm`;
  if (isExact(r)) return one(r.lo);
  return r.lo === 0 ? `up to ${one(r.hi)}` : `${one(r.lo)} to ${one(r.hi)}`;
}

/**
 * A parameter of a finding as an interval, whatever form it has.
 * @param p a number, an interval, or a word that is none
 * @returns the interval; from 0 without an end where it is no number
 * @example asRange(4) // => { lo: 4, hi: 4 }
 */
export function asRange(p: number | string | Range | undefined): Range {
  if (typeof p === 'number') return { lo: p, hi: p };
  return typeof p === 'object' ? p : { lo: 0, hi: Infinity };
}

/**
 * A range of whole numbers, such as lanes.
 * @param r whole ends
 * @returns "4" or "2 to 4"
 * @example formatWhole({ lo: 2, hi: 4 }) // => '2 to 4'
 */
export function formatWhole(r: Range): string {
  return isExact(r) ? String(r.lo) : `${r.lo} to ${r.hi}`;
}

/**
 * A figure, or both ends of one.
 * @param r any unit; an endless upper end is open
 * @param decimals digits after the point; zeros at the end are dropped
 * @returns "62", "58 to 71", "up to 90", "40 or more" or "not known"
 * @example figure({ lo: 58, hi: 71 }) // => '58 to 71'
 */
export function figure(r: Range, decimals = 0): string {
  const one = (n: number) => n.toFixed(decimals).replace(/\.0+$/, '');
  if (!Number.isFinite(r.hi)) return r.lo > 0 ? `${one(r.lo)} or more` : 'not known';
  return one(r.lo) === one(r.hi)
    ? one(r.lo)
    : r.lo === 0
      ? `up to ${one(r.hi)}`
      : `${one(r.lo)} to ${one(r.hi)}`;
}

/**
 * Hours as a person says them: "6 h", "1 h 20 min", "3 h at the earliest".
 * @param h hours; an infinite end is open
 * @returns the words, rounded to a minute
 */
export function hoursText(h: Range): string {
  const one = (x: number) => {
    const minutes = Math.round(x * 60);
    return minutes >= 60
      ? `${Math.floor(minutes / 60)} h${minutes % 60 ? ` ${minutes % 60} min` : ''}`
      : `${minutes} min`;
  };
  if (!Number.isFinite(h.hi)) return `${one(h.lo)} at the earliest`;
  return one(h.lo) === one(h.hi) ? one(h.lo) : `${one(h.lo)} to ${one(h.hi)}`;
}

/**
 * A short time, said in milliseconds.
 * @param us microseconds
 * @returns milliseconds with their unit
 * @example span(100) // => '0.1 ms'
 */
export function span(us: number): string {
  return `${us / 1000} ms`;
}

export interface Sentence {
  readonly what: string;
  readonly why: string;
  readonly todo: string;
}

const PARTS: Record<string, string> = {
  host: 'the host',
  socket: 'the host port',
  path: 'the cable',
  dock: 'the dock',
  card: 'the card',
  loads: 'what else hangs on the dock',
  supplies: 'the supply',
  picture: 'the screen',
  system: 'the system',
  installed: 'the software',
  settings: 'the settings',
  uses: 'the use',
};

/**
 * The noun of a slot with its article.
 * @param slot name of a slot
 * @returns "the cable"; the name itself where it is no slot
 * @example partNoun('path') // => 'the cable'
 */
export function partNoun(slot: unknown): string {
  return PARTS[String(slot)] ?? String(slot);
}

/**
 * Words by the certainty of a finding.
 * @param f the finding
 * @param certain words where it holds in every completion
 * @param possible words where it may hold
 * @returns one of the two
 * @example maybe({ certainty: 'possible' }, 'is', 'may be') // => 'may be'
 */
export const maybe = (
  f: { readonly certainty: 'certain' | 'possible' },
  certain: string,
  possible: string,
) => (f.certainty === 'certain' ? certain : possible);
/**
 * Words with a capital first letter.
 * @param s any words
 * @returns the same words, begun as a sentence begins
 * @example capital('the dock') // => 'The dock'
 */
export const capital = (s: string) => s.charAt(0).toUpperCase() + s.slice(1);

/**
 * Names in one line, the first few of many.
 * @param names any number
 * @param most how many are named
 * @returns "a and b", or "a, b, c and 2 more"
 * @example listed(['a', 'b', 'c', 'd', 'e']) // => 'a, b, c and 2 more'
 */
export function listed(names: readonly string[], most = 3): string {
  const shown = names.slice(0, most);
  const more = names.length - shown.length;
  if (more > 0) return `${shown.join(', ')} and ${more} more`;
  return shown.length > 1
    ? `${shown.slice(0, -1).join(', ')} and ${shown[shown.length - 1] ?? ''}`
    : (shown[0] ?? '');
}

/**
 * Typed words as the end of a sentence.
 * @param words with a full stop or without
 * @returns the words with one full stop
 * @example ended('It hums. ') // => 'It hums.'
 */
export function ended(words: string): string {
  return `${trimmedEnd(words, '. \t\n\r\u00A0').trim()}.`;
}

/**
 * A figure with as many digits as tell something.
 * @param v any unit
 * @param digits how many digits tell something
 * @returns "7.91", "76.9", "144"; a dash where it is no finite number
 * @example figureText(76.93) // => '76.9'
 */
export function figureText(v: number, digits = 3): string {
  if (!Number.isFinite(v)) return '–';
  const whole = Math.max(1, Math.floor(Math.log10(Math.abs(v) || 1)) + 1);
  return v.toFixed(Math.max(0, Math.min(2, digits - whole)));
}

/**
 * A count with its noun.
 * @param n a whole number
 * @param one the noun of one
 * @param many the noun of several
 * @returns "1 minute", "12 minutes"
 * @example pluralize(12, 'minute') // => '12 minutes'
 */
export function pluralize(n: number, one: string, many = `${one}s`): string {
  return `${n} ${n === 1 ? one : many}`;
}
