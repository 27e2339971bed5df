/** Deepest JSON that is read. The deepest format of this program has a tenth of it. */
export const DEEPEST_JSON = 100;

const QUOTE = 0x22;
const BACKSLASH = 0x5c;
const opens = (code: number) => code === 0x7b || code === 0x5b;
const closes = (code: number) => code === 0x7d || code === 0x5d;

/**
 * Does a JSON text nest deeper than what is read? Looked at before it is parsed: what walks through a value afterwards
 * goes down level by level.
 *
 * @param text JSON as text, or as bytes in UTF-8; brackets inside strings do not count
 * @returns true as soon as a level too many is opened
 * @example nestsTooDeep('[[1]]') // => false
 */
export function nestsTooDeep(text: string | Uint8Array): boolean {
  const codeAt =
    typeof text === 'string' ? (i: number) => text.charCodeAt(i) : (i: number) => text[i] ?? 0;
  let depth = 0;
  let inString = false;
  for (let i = 0; i < text.length; i++) {
    const code = codeAt(i);
    if (inString) {
      if (code === BACKSLASH) i += 1;
      else if (code === QUOTE) inString = false;
    } else if (code === QUOTE) inString = true;
    else if (opens(code)) depth += 1;
    else if (closes(code)) depth -= 1;
    if (depth > DEEPEST_JSON) return true;
  }
  return false;
}

/**
 * Parses JSON of others.
 *
 * @param text JSON, with a byte order mark or without
 * @returns the value
 * @throws SyntaxError where it is not JSON or nests deeper than 100 levels
 * @example parseJson('{"a":1}') // => { a: 1 }
 */
export function parseJson(text: string): unknown {
  if (nestsTooDeep(text)) throw new SyntaxError(`JSON nests deeper than ${DEEPEST_JSON} levels`);
  return JSON.parse(text.startsWith('\uFEFF') ? text.slice(1) : text) as unknown;
}
