/**
 * The place of the first text a database cannot hold: one with a null character or half of a
 * surrogate pair. Null when every text is fine. Place as keys joined by slashes.
 */
export function unstorable(value: unknown, path = ''): string | null {
  if (typeof value === 'string') return value.includes('\u0000') || !wellFormed(value) ? path : null;
  if (value === null || typeof value !== 'object') return null;
  for (const [key, inner] of Object.entries(value)) {
    const at = path === '' ? key : `${path}/${key}`;
    const found = unstorable(key, at) ?? unstorable(inner, at);
    if (found !== null) return found;
  }
  return null;
}

function wellFormed(s: string): boolean {
  return !/[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/.test(s);
}
