import type { RunSettings } from '../schema';
import { squash } from './path-words';

/** Height of a usual resolution, and what it is called. Names are common practice, no published source. */
const RESOLUTIONS: Readonly<Record<string, readonly string[]>> = {
  '1280x720': ['720', '720p', 'hd'],
  '1280x800': ['800', '800p', 'wxga'],
  '1920x1080': ['1080', '1080p', 'fhd', 'fullhd'],
  '1920x1200': ['1200', '1200p', 'wuxga'],
  '2560x1440': ['1440', '1440p', 'qhd', 'wqhd'],
  '2560x1600': ['1600', '1600p', 'wqxga'],
  '3840x2160': ['2160', '2160p', 'uhd', '4k'],
};
const PRESETS = [
  'lowest',
  'low',
  'medium',
  'normal',
  'high',
  'ultra',
  'maximum',
  'max',
  'minimum',
  'min',
  'epic',
  'extreme',
];
const POWER = ['performance', 'balanced', 'quiet', 'silent', 'turbo', 'eco'];
const PICTURE: Readonly<Record<'panel' | 'outside', readonly string[]>> = {
  panel: ['panel', 'internal', 'intern', 'builtin', 'inside'],
  outside: ['external', 'extern', 'outside', 'monitor', 'ext'],
};

/**
 * Resolution that a word of a file name means.
 *
 * @param word letters and digits of the word, small
 * @returns like 2560x1440; empty where it means none
 * @example resolutionOf('1440p') // => '2560x1440'
 */
export function resolutionOf(word: string): string {
  if (/^\d{3,5}x\d{3,5}$/.test(word)) return word;
  return Object.entries(RESOLUTIONS).find(([, names]) => names.includes(word))?.[0] ?? '';
}

/** The way a word is written where it is known, else with a capital. */
function asKnown(word: string, known: readonly string[], usual: readonly string[]): string {
  const same = known.find((k) => squash(k) === word);
  if (same !== undefined) return same;
  return usual.includes(word) ? word[0]?.toUpperCase() + word.slice(1) : '';
}

/**
 * Preset that a word of a file name means.
 *
 * @param word letters and digits of the word, small
 * @param known presets of runs that are here
 * @returns the preset as runs here have it; empty where the word is none
 * @example presetOf('ultra', []) // => 'Ultra'
 */
export function presetOf(word: string, known: readonly string[]): string {
  return asKnown(word, known, PRESETS);
}

/**
 * Power mode that a word of a file name means.
 *
 * @param word letters and digits of the word, small
 * @param known power modes of runs that are here
 * @returns the mode; empty where the word is none
 * @example powerModeOf('quiet', []) // => 'Quiet'
 */
export function powerModeOf(word: string, known: readonly string[]): string {
  return asKnown(word, known, POWER);
}

/**
 * Where the picture was shown, as a word of a file name says.
 *
 * @param word letters and digits of the word, small
 * @returns panel, outside, or null
 * @example screenPathOf('external') // => 'outside'
 */
export function screenPathOf(word: string): RunSettings['screenPath'] {
  if (PICTURE.panel.includes(word)) return 'panel';
  return PICTURE.outside.includes(word) ? 'outside' : null;
}

/**
 * Number of a repeat, as a word of a file name says it.
 *
 * @param word letters and digits of the word, small
 * @param last the word is the last one of the name, where a bare number counts
 * @returns the number; null where it says none
 * @example repeatOf('run3', false) // => 3
 */
export function repeatOf(word: string, last: boolean): number | null {
  const named = /^(?:run|rep|repeat|take|pass|r|n|no|nr)0?(\d{1,2})$/.exec(word);
  const bare = last ? /^0?(\d{1,2})$/.exec(word) : null;
  const n = Number((named ?? bare)?.[1]);
  return n >= 1 ? n : null;
}

/** A word that only says that a number of a repeat follows. */
export const REPEAT_WORDS: readonly string[] = ['run', 'rep', 'repeat', 'take', 'pass', 'nr', 'no'];
