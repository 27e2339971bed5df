import { PART_KINDS } from '@ruddy/core/schema';

/** Is this a kind of part, as an address names it? */
export function isKind(word: string | undefined): boolean {
  return (PART_KINDS as readonly string[]).includes(word ?? '');
}

/** The kind whose name begins most like a word that is none; the first where none does. */
export function nearestKind(word: string): string {
  const alike = (kind: string) => {
    let n = 0;
    while (n < kind.length && kind[n] === word.toLowerCase()[n]) n++;
    return n;
  };
  return [...PART_KINDS].sort((a, b) => alike(b) - alike(a))[0] ?? 'host';
}
