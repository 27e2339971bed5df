import { trimmedEnd } from '../../base';
import { means, partName, ROLE_SUBJECT } from '../../chain';
import type { ReleaseSpec, SoftwareRole } from '../../parts';
import type { NewsMatch, NewsPart, Published, Touch } from './types';

const plain = (s: string) =>
  s
    .toLowerCase()
    .replace(/[^\p{L}\p{N}.]+/gu, ' ')
    .trim();
const holds = (text: string, words: string) => words !== '' && ` ${text} `.includes(` ${words} `);

/** Maker and model stand in the text; the model alone is enough only where it is no everyday word. */
function named(text: string, p: NewsPart): boolean {
  const maker = plain(p.maker);
  const model = plain(p.model);
  if (holds(text, `${maker} ${model}`)) return true;
  return /\d/.test(model) && model.length >= 3 && holds(text, model) && holds(text, maker);
}

/** Words of a symptom that say something. */
const SHORT = new Set([
  'with',
  'when',
  'from',
  'that',
  'this',
  'after',
  'under',
  'while',
  'does',
  'once',
  'into',
  'only',
  'then',
]);
const telling = (s: string) =>
  plain(s)
    .split(' ')
    .filter((w) => w.length >= 4 && !SHORT.has(w));
/** The beginning of a word: crash, crashes and crashed are one. */
const stem = (w: string) => w.slice(0, Math.max(4, w.length - 3));

/**
 * Logged symptoms a text is about: all telling words of the symptom stand in it, endings aside. Common practice, no
 * published source; it proposes, a person decides.
 * @param text of the item
 * @param logged symptoms of the log
 * @returns those symptoms
 */
export function symptomsIn(text: string, logged: readonly string[]): string[] {
  const words = plain(text).split(' ').map(stem);
  return logged.filter((s) => {
    const wanted = telling(s);
    return wanted.length > 0 && wanted.every((w) => words.includes(stem(w)));
  });
}

/**
 * A version in a text: after its word, or digits joined by points.
 * @param text of the item
 * @returns the version; null where there is none
 * @example versionIn('Dock firmware 1.8.2 is out') // => '1.8.2'
 */
export function versionIn(text: string): string | null {
  const said = /\b(?:version|firmware|driver|build|release|nvm|v)[\s:]*v?(r?\d[\w.-]*)/i.exec(text);
  const dotted = /\b(\d+(?:\.\d+){1,4}[a-z]?)\b/i.exec(text);
  const found = said?.[1] ?? dotted?.[1];
  return found === undefined ? null : trimmedEnd(found, '.-');
}

/**
 * What kind of software a text is about.
 * @param text of the item
 * @param kind of the part
 * @returns the role; null where it cannot be told
 */
export function roleIn(text: string, kind: NewsPart['kind']): SoftwareRole | null {
  const t = plain(text);
  const firmware = /\b(firmware|nvm|bios)\b/.test(t);
  if (kind === 'dock')
    return firmware
      ? 'dockFirmware'
      : /\b(software|tool|utility)\b/.test(t)
        ? 'linkSoftware'
        : null;
  if (kind === 'card') return /\bdrivers?\b/.test(t) ? 'driver' : firmware ? 'cardFirmware' : null;
  if (kind === 'system') return 'systemBuild';
  return firmware
    ? /\b(controller|router|link)\b/.test(t)
      ? 'linkFirmware'
      : 'hostFirmware'
    : null;
}

function draftOf(item: Published, parts: readonly NewsPart[]): ReleaseSpec | null {
  const empty = {
    withdrawnOn: '',
    whereFrom: item.url.slice(0, 200),
    breaks: '',
    capGbps: null,
    capBeforeGbps: null,
  };
  const note = item.title.slice(0, 400);
  const day = (item.publishedAt ?? '').slice(0, 10);
  const list = (fixes: readonly string[]) => fixes.join('; ').slice(0, 400);
  if (item.stated) {
    const { what, maker, model, version, releasedOn, fixes } = item.stated;
    return {
      ...empty,
      maker,
      model,
      variant: version,
      what,
      releasedOn: releasedOn || day,
      fixes: list(fixes),
      note,
    };
  }
  const all = `${item.title} ${item.text}`;
  const version = versionIn(item.title) ?? versionIn(item.text);
  const part = parts[0];
  const role = part && roleIn(all, part.kind);
  if (!part || !role || !version) return null;
  return {
    ...empty,
    maker: part.maker,
    model: part.model,
    variant: version,
    what: role,
    releasedOn: day,
    fixes: '',
    note,
  };
}

/**
 * Does an item concern something the workshop has: a part, or, where it names none, a logged symptom?
 * @param m what it concerns
 * @returns true where it does
 */
export function concernsHere(m: {
  readonly touches: readonly Pick<Touch, 'here'>[];
  readonly symptoms: readonly string[];
}): boolean {
  return m.touches.some((t) => t.here) || (m.touches.length === 0 && m.symptoms.length > 0);
}

/**
 * What an item of a feed concerns: parts it states or names, logged symptoms, and the release it would make.
 * @param item of the feed
 * @param parts of the catalogue
 * @param logged symptoms of the log
 * @returns all three
 */
export function matchNews(
  item: Published,
  parts: readonly NewsPart[],
  logged: readonly string[],
): NewsMatch {
  const { stated } = item;
  const text = plain(`${item.title} ${item.text}`);
  const meant = parts.filter((p) =>
    stated
      ? p.kind === ROLE_SUBJECT[stated.what] &&
        means({ maker: stated.maker, model: stated.model }, p)
      : named(text, p),
  );
  const touches = meant.map((p): Touch => ({
    id: p.id,
    name: partName(p),
    here: p.here,
    by: stated ? 'stated' : 'name',
  }));
  const told =
    stated && stated.fixes.length > 0 ? stated.fixes.join('. ') : `${item.title}. ${item.text}`;
  return { touches, symptoms: symptomsIn(told, logged), draft: draftOf(item, meant) };
}
