import type { RunSettings } from '../schema';
import { type NamedFile, type PathWord, pathWords, squash } from './path-words';
import {
  powerModeOf,
  presetOf,
  REPEAT_WORDS,
  repeatOf,
  resolutionOf,
  screenPathOf,
} from './setting-words';

/** What is known here already, so that words of file names can be met with it. */
export interface KnownNames {
  readonly titles: readonly string[];
  readonly presets: readonly string[];
  readonly powerModes: readonly string[];
  /** Setups with every word that tells them apart: their name and those of their parts. */
  readonly setups: readonly { readonly id: string; readonly words: string }[];
  /** Title that runs of a program had before. */
  readonly programs: ReadonlyMap<string, string>;
}

/** What the path of a file says of its run; empty or null where it says nothing. */
export interface ProposedSettings {
  readonly title: string;
  readonly resolution: string;
  readonly preset: string;
  readonly setupId: string;
  readonly screenPath: RunSettings['screenPath'];
  readonly powerMode: string;
  readonly repeat: number | null;
}

/** Words that any capture may be called. */
const PLAIN = new Set(
  'capture captures frametime frametimes frame frames time times log logs csv bench benchmark result results test tests data session fps recording measurement measurements file files new copy old first second third last final'.split(
    ' ',
  ),
);

/** Words that tell no setup from another, though a part may be called so. */
const NO_NAMES = new Set([...PLAIN, ...REPEAT_WORDS]);

/** A word of a path, and what it was taken for. */
interface Word extends PathWord {
  taken: boolean;
}

/** Links are written in full and in short. */
function shortForms(words: readonly string[]): string[] {
  return words.flatMap((w, i) => {
    const next = words[i + 1] ?? '';
    if (w === 'thunderbolt' && /^\d$/.test(next)) return [`tb${next}`, `tbt${next}`, w + next];
    if (w === 'usb4') return ['usb4'];
    return w === 'oculink' ? ['ocu', 'oculink'] : [];
  });
}

/** The first words that something is made of are taken, and it is given. */
function take<T>(words: Word[], read: (w: Word, i: number) => T | null | ''): T | null {
  for (const [i, w] of words.entries()) {
    const value = w.taken ? null : read(w, i);
    if (value === null || value === '') continue;
    w.taken = true;
    return value;
  }
  return null;
}

/** Neighbouring words that are the name of one of these; the longest name counts. */
function takeName(words: Word[], names: readonly string[]): string {
  const found = names
    .flatMap((name) => {
      const wanted = squash(name);
      return words.flatMap((_, from) => {
        for (let to = from, joined = ''; to < words.length; to++) {
          joined += words[to]?.word ?? '';
          if (joined === wanted) return [{ name, from, to }];
          if (!wanted.startsWith(joined)) return [];
        }
        return [];
      });
    })
    .sort((a, b) => b.name.length - a.name.length)[0];
  if (!found) return '';
  for (const w of words.slice(found.from, found.to + 1)) w.taken = true;
  return found.name;
}

const LEAST_SHORT = 2;

/** A title by the beginning of its name, or by its initials, where only one has them. */
function takeShort(words: Word[], names: readonly string[]): string {
  const meant = (word: string) =>
    names.filter((n) => {
      const initials = n
        .split(/\s+/)
        .map((w) => w[0]?.toLowerCase() ?? '')
        .join('');
      return squash(n).startsWith(word) || (initials.length >= LEAST_SHORT && initials === word);
    });
  return (
    take(words, (w) => {
      const short = w.word.length < LEAST_SHORT || PLAIN.has(w.word) || !/\p{L}/u.test(w.word);
      const titles = short ? [] : meant(w.word);
      return titles.length === 1 ? (titles[0] ?? null) : null;
    }) ?? ''
  );
}

/** The one setup that most of the words tell apart from the others. */
function takeSetup(words: Word[], setups: KnownNames['setups']): string {
  const sets = setups.map((s) => {
    const own = pathWords(`${s.words.replaceAll(/[/\\]/g, ' ')} `).map((w) => w.word);
    return { id: s.id, words: new Set([...own, ...shortForms(own)]) };
  });
  const telling = words.filter((w) => {
    const having = sets.filter((s) => s.words.has(w.word)).length;
    // A single letter or a bare number of a model is met by chance, as by the number of a repeat.
    const says = w.word.length >= LEAST_SHORT && /\p{L}/u.test(w.word) && !NO_NAMES.has(w.word);
    return !w.taken && says && having > 0 && having < sets.length;
  });
  const scores = sets
    .map((s) => ({ id: s.id, n: telling.filter((w) => s.words.has(w.word)).length }))
    .sort((a, b) => b.n - a.n);
  const [best, next] = scores;
  if (!best || best.n === 0 || best.n === next?.n) return '';
  for (const w of telling) w.taken = true;
  return best.id;
}

function takeRepeat(words: Word[]): number | null {
  const last = words.findLastIndex((w) => w.inName);
  const named = words.findIndex(
    (w, i) =>
      !w.taken &&
      REPEAT_WORDS.includes(w.word) &&
      repeatOf(words[i + 1]?.word ?? '', true) !== null,
  );
  if (named >= 0) {
    for (const w of words.slice(named, named + 2)) w.taken = true;
    return repeatOf(words[named + 1]?.word ?? '', true);
  }
  return take(words, (w, i) => (w.inName ? repeatOf(w.word, i === last) : null));
}

interface Read {
  readonly said: Omit<ProposedSettings, 'title'> & { readonly title: string };
  /** Words that nothing was made of, of the name and of its folder. */
  readonly left: readonly Word[];
}

function readPath(file: NamedFile, known: KnownNames): Read {
  const words: Word[] = pathWords(file.path).map((w) => ({ ...w, taken: false }));
  // Names of titles and setups first: a title may hold a word like "high" or a number.
  const title = takeName(words, known.titles);
  const resolution = take(words, (w) => resolutionOf(w.word)) ?? '';
  const setupId = takeSetup(words, known.setups);
  const preset =
    takeName(words, known.presets) || (take(words, (w) => presetOf(w.word, known.presets)) ?? '');
  const powerMode = take(words, (w) => powerModeOf(w.word, known.powerModes)) ?? '';
  const screenPath = take(words, (w) => screenPathOf(w.word));
  const repeat = takeRepeat(words);
  const named = title || (known.programs.get(file.program) ?? '') || takeShort(words, known.titles);
  const left = words.filter((w) => !w.taken && !PLAIN.has(w.word) && /\p{L}/u.test(w.word));
  return {
    said: { title: named, resolution, preset, setupId, screenPath, powerMode, repeat },
    left,
  };
}

/** What is left of the name of a file, else of its folders, is its title; words that every file has tell nothing. */
function leftTitle(read: Read, everywhere: ReadonlySet<string>): string {
  const own = read.left.filter((w) => !everywhere.has(w.word));
  const list = own.length > 0 ? own : read.left;
  const inName = list.filter((w) => w.inName);
  return (inName.length > 0 ? inName : list)
    .map((w) => w.text)
    .join(' ')
    .slice(0, 80);
}

/**
 * What the names, folders and programs of captures say of their runs. Known titles, presets and setups are met by their words; what nothing
 * is made of is proposed as a title. Every value is a proposal, for somebody to put right.
 *
 * @param files the files of a session
 * @param known titles, presets, power modes and setups that are here
 * @returns proposals in the order of the files
 */
export function proposeSettings(
  files: readonly NamedFile[],
  known: KnownNames,
): readonly ProposedSettings[] {
  const read = files.map((f) => readPath(f, known));
  const words = read.map((r) => new Set(r.left.map((w) => w.word)));
  const everywhere = new Set(
    read.length < 2 ? [] : [...(words[0] ?? [])].filter((w) => words.every((s) => s.has(w))),
  );
  return read.map((r) => ({ ...r.said, title: r.said.title || leftTitle(r, everywhere) }));
}
