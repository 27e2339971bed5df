import { HttpProblem } from '../http/problem';

/** An opaque keyset cursor over the sort values of the last row of a page. */
export function encodeCursor(values: readonly (string | number)[]): string {
  return Buffer.from(JSON.stringify(values)).toString('base64url');
}

/** The sort values in a cursor; 400 when it is not one of ours. */
export function decodeCursor(
  cursor: string | undefined,
  length: number,
): (string | number)[] | null {
  if (cursor === undefined) return null;
  try {
    const values: unknown = JSON.parse(Buffer.from(cursor, 'base64url').toString('utf8'));
    if (
      Array.isArray(values) &&
      values.length === length &&
      values.every((v) => typeof v === 'string' || typeof v === 'number')
    )
      return values as (string | number)[];
  } catch {
    // falls through to the one refusal below
  }
  throw new HttpProblem(400, 'The cursor is not one of ours');
}

/** Cut a list read with one row too many into a page. */
export function toPage<R, T>(
  rows: readonly R[],
  limit: number,
  map: (r: R) => T,
  key: (r: R) => (string | number)[],
): { items: T[]; next: string | null } {
  const shown = rows.slice(0, limit);
  const last = shown[shown.length - 1];
  return {
    items: shown.map(map),
    next: rows.length > limit && last ? encodeCursor(key(last)) : null,
  };
}

/** A pattern for ILIKE that finds the words, wherever they stand, in the composed form names are stored in. */
export function likePattern(words: string): string {
  return `%${words
    .trim()
    .normalize('NFC')
    .replace(/[\\%_]/g, '\\$&')}%`;
}
