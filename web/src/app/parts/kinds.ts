import type { PartKind } from '@ruddy/core/parts';

/** Every kind of part, without the schemas: an address is looked at before a page is loaded. The compiler asks for a new one. */
const KINDS: Record<PartKind, true> = {
  host: true,
  cable: true,
  adapter: true,
  dock: true,
  card: true,
  supply: true,
  screen: true,
  system: true,
  release: true,
  requirement: true,
  laptop: true,
  desktop: true,
};

/** Is this a kind of part, as an address names it? */
export function isKind(word: string | undefined): boolean {
  return word !== undefined && Object.hasOwn(KINDS, word);
}

/** The kind whose name begins most like a word that is none; the first where none does. */
export function nearestKind(word: string): PartKind {
  const alike = (kind: string) => {
    let n = 0;
    while (n < kind.length && kind[n] === word.toLowerCase()[n]) n++;
    return n;
  };
  const all = Object.keys(KINDS) as PartKind[];
  return all.sort((a, b) => alike(b) - alike(a))[0] ?? 'host';
}
