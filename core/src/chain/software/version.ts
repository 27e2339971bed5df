/**
 * Versions are compared by their scheme, never as text.
 *
 * - `dotted`: numbers with dots, any length, a leading "v" or the word "build" allowed, then perhaps a letter ("1.8b" comes after
 *   "1.8") or a trial word ("1.8-rc2" comes before "1.8");
 * - `date`: 2026-04-30, 2026.04.30 with a four-digit year, or 20260430;
 * - `half`: a year and its half, 25H2;
 * - `revision`: r12, rev 3, R12b.
 *
 * Order of trial words and letters: common practice, no published source (the idea of a release before its final one is that of
 * Semantic Versioning 2.0.0, section 9).
 */
export type Scheme = 'dotted' | 'date' | 'half' | 'revision';

export interface Version {
  readonly scheme: Scheme;
  readonly numbers: readonly number[];
  /** Below 0 a trial release, 0 the plain one, above it a letter after it. */
  readonly rank: number;
  /** Counts within a trial: rc2. */
  readonly trial: number;
}

const TRIALS: readonly (readonly [string, number])[] = [
  ['alpha', -3],
  ['beta', -2],
  ['rc', -1],
];
const TAIL = String.raw`(?:([a-z])|[-. ]?(alpha|beta|rc)[-. ]?(\d{0,6}))?`;
const NUMBERS = String.raw`(\d{1,12}(?:\.\d{1,12}){0,9})`;
const DOTTED = new RegExp(`^(?:v|build ?)?${NUMBERS}${TAIL}$`);
const REVISION = new RegExp(`^r(?:ev(?:ision)?)?[. ]?${NUMBERS}${TAIL}$`);

function tailOf(
  letter: string | undefined,
  word: string | undefined,
  n: string | undefined,
): Pick<Version, 'rank' | 'trial'> {
  if (letter) return { rank: letter.charCodeAt(0) - 96, trial: 0 };
  if (!word) return { rank: 0, trial: 0 };
  return { rank: TRIALS.find(([w]) => w === word)?.[1] ?? 0, trial: Number(n ?? 0) };
}

function dateOf(text: string): Version | null {
  const m = /^(\d{4})([-.]?)(\d{2})\2(\d{2})$/.exec(text);
  if (!m) return null;
  const y = Number(m[1]);
  const mo = Number(m[3]);
  const d = Number(m[4]);
  const real =
    y >= 1990 &&
    y < 2100 &&
    mo >= 1 &&
    mo <= 12 &&
    d >= 1 &&
    d <= new Date(Date.UTC(y, mo, 0)).getUTCDate();
  return real ? { scheme: 'date', numbers: [y, mo, d], rank: 0, trial: 0 } : null;
}

/**
 * Reads a version; letter case does not matter.
 * @param text as it is typed or reported
 * @returns the version; null where it follows none of the schemes
 */
export function parseVersion(text: string): Version | null {
  const t = text.trim().toLowerCase();
  const date = dateOf(t);
  if (date) return date;
  const half = /^(\d{2})h([12])$/.exec(t);
  if (half)
    return { scheme: 'half', numbers: [Number(half[1]), Number(half[2])], rank: 0, trial: 0 };
  for (const [scheme, pattern] of [['dotted', DOTTED] as const, ['revision', REVISION] as const]) {
    const m = pattern.exec(t);
    if (m)
      return { scheme, numbers: (m[1] ?? '').split('.').map(Number), ...tailOf(m[2], m[3], m[4]) };
  }
  return null;
}

/**
 * A version in the one spelling of its scheme: reading it again gives an equal version.
 * @param v the version
 * @returns its text
 */
export function spellVersion(v: Version): string {
  const two = (n: number | undefined) => String(n ?? 0).padStart(2, '0');
  if (v.scheme === 'date') return `${v.numbers[0]}-${two(v.numbers[1])}-${two(v.numbers[2])}`;
  if (v.scheme === 'half') return `${two(v.numbers[0])}H${v.numbers[1]}`;
  const word = TRIALS.find(([, rank]) => rank === v.rank)?.[0];
  const tail =
    v.rank > 0 ? String.fromCharCode(96 + v.rank) : word ? `-${word}${v.trial || ''}` : '';
  return `${v.scheme === 'revision' ? 'r' : ''}${v.numbers.join('.')}${tail}`;
}

/**
 * Compares two versions. Missing places count as 0.
 * @param a a version as it is typed or reported
 * @param b another one
 * @returns below 0 where `a` is older, above where it is newer, 0 where they are equal; null where one cannot be read or
 *   they follow different schemes
 * @example compareVersions('1.9', '1.10') < 0 // => true
 * @example compareVersions('1.0', '1') // => 0
 */
export function compareVersions(a: string, b: string): number | null {
  const x = parseVersion(a);
  const y = parseVersion(b);
  if (!x || !y || x.scheme !== y.scheme) return null;
  for (let i = 0; i < Math.max(x.numbers.length, y.numbers.length); i++) {
    const d = (x.numbers[i] ?? 0) - (y.numbers[i] ?? 0);
    if (d !== 0) return d;
  }
  return x.rank - y.rank || x.trial - y.trial;
}
