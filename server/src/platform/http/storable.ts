const LONE = /[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/;
const ODD = new RegExp(`\u0000|${LONE.source}`, 'g');

/**
 * The place of the first text a database cannot hold: one with a null character or half of a
 * surrogate pair. Null when every text is fine. Place as keys joined by slashes.
 */
export function unstorable(value: unknown, path = ''): string | null {
  if (typeof value === 'string')
    return value.includes('\u0000') || !wellFormed(value) ? path : null;
  if (value === null || typeof value !== 'object') return null;
  for (const [key, inner] of Object.entries(value)) {
    const at = path === '' ? key : `${path}/${key}`;
    const found = unstorable(key, at) ?? unstorable(inner, at);
    if (found !== null) return found;
  }
  return null;
}

/** The same value with a mark in the place of every character a database cannot hold: to keep what is wrong with it, and show it. */
export function marked<T>(value: T): T {
  return JSON.parse(JSON.stringify(value), (_key, inner: unknown) =>
    typeof inner === 'string' ? inner.replace(ODD, '\uFFFD') : inner,
  ) as T;
}

function wellFormed(s: string): boolean {
  return !LONE.test(s);
}
