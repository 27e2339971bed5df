import { isExact, type Range } from '../units/range';

/** One decimal for rates: "26.0"; a range: "16.0 to 26.0"; an open end: "up to 26.0" or "not known". */
export function rate(r: Range | null | undefined): string {
  if (!r || !Number.isFinite(r.hi)) return 'not known';
  if (isExact(r) || r.lo.toFixed(1) === r.hi.toFixed(1)) return r.lo.toFixed(1);
  return r.lo === 0 ? `up to ${r.hi.toFixed(1)}` : `${r.lo.toFixed(1)} to ${r.hi.toFixed(1)}`;
}

/** Whole percent of a share between 0 and 1, or a range of it. */
export function percent(r: Range): string {
  const lo = Math.round(r.lo * 100);
  const hi = Math.round(r.hi * 100);
  if (hi === Infinity) return `at least ${lo}`;
  return lo === hi ? String(lo) : `${lo} to ${hi}`;
}

/** Millimetres as metres when long: "1.2 m", "600 mm". */
export function length(r: Range): string {
  const one = (mm: number) =>
    mm >= 1000 ? `${(mm / 1000).toFixed(mm % 100 === 0 ? 1 : 2)} m` : `${Math.round(mm)} mm`;
  if (isExact(r)) return one(r.lo);
  return r.lo === 0 ? `up to ${one(r.hi)}` : `${one(r.lo)} to ${one(r.hi)}`;
}

/** A number as an interval, whatever form the parameter has. */
export function asRange(p: number | string | Range | undefined): Range {
  if (typeof p === 'number') return { lo: p, hi: p };
  return typeof p === 'object' ? p : { lo: 0, hi: Infinity };
}

/** A whole-number range such as lanes: "4" or "2 to 4". */
export function formatWhole(r: Range): string {
  return isExact(r) ? String(r.lo) : `${r.lo} to ${r.hi}`;
}

/** A figure or two with so many decimals: "62", "58 to 71", "up to 90". */
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

/** A short time in microseconds, said in milliseconds: 100 is "0.1 ms". */
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

/** The house noun of a slot with its article: "the cable". */
export function partNoun(slot: unknown): string {
  return PARTS[String(slot)] ?? String(slot);
}

export const maybe = (
  f: { readonly certainty: 'certain' | 'possible' },
  certain: string,
  possible: string,
) => (f.certainty === 'certain' ? certain : possible);
export const capital = (s: string) => s.charAt(0).toUpperCase() + s.slice(1);

/** Names in one line, the first few of many: "a, b and 2 more". */
export function listed(names: readonly string[], most = 3): string {
  const shown = names.slice(0, most);
  const more = names.length - shown.length;
  if (more > 0) return `${shown.join(', ')} and ${more} more`;
  return shown.length > 1
    ? `${shown.slice(0, -1).join(', ')} and ${shown[shown.length - 1] ?? ''}`
    : (shown[0] ?? '');
}

/** Somebody's words as the end of a sentence: with one full stop, whether they brought it or not. */
export function ended(words: string): string {
  return `${words.trim().replace(/[.\s]+$/, '')}.`;
}

/** A figure with as many digits as tell something: 7.91, 76.9, 144. */
export function figureText(v: number, digits = 3): string {
  if (!Number.isFinite(v)) return '–';
  const whole = Math.max(1, Math.floor(Math.log10(Math.abs(v) || 1)) + 1);
  return v.toFixed(Math.max(0, Math.min(2, digits - whole)));
}

/** "1 minute", "12 minutes". */
export function pluralize(n: number, one: string, many = `${one}s`): string {
  return `${n} ${n === 1 ? one : many}`;
}
