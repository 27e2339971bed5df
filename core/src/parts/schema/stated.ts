/**
 * The words a stated choice allows.
 * @param stated one word, some of several, or null
 * @returns one, some, or none where nothing is stated
 * @example wordsOf({ oneOf: ['a', 'b'] }) // => ['a', 'b']
 */
export function wordsOf<T extends string>(stated: T | { oneOf: T[] } | null): T[] {
  if (stated === null) return [];
  return typeof stated === 'string' ? [stated] : stated.oneOf;
}
