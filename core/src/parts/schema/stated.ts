/** The words a stated choice allows: one, some, or none stated. */
export function wordsOf<T extends string>(stated: T | { oneOf: T[] } | null): T[] {
  if (stated === null) return [];
  return typeof stated === 'string' ? [stated] : stated.oneOf;
}
