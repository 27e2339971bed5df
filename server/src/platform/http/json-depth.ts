/** Deepest JSON a request may hold. The deepest contract has a tenth of it. */
export const DEEPEST = 100;

const QUOTE = 0x22;
const BACKSLASH = 0x5c;
const opens = (byte: number) => byte === 0x7b || byte === 0x5b;
const closes = (byte: number) => byte === 0x7d || byte === 0x5d;

/**
 * Does a JSON text nest deeper than what a request may hold? Looked at before it is parsed: what walks through a value
 * afterwards goes down level by level.
 * @param text JSON in UTF-8; brackets inside strings do not count
 * @returns true as soon as a level more is opened
 */
export function tooDeep(text: Uint8Array): boolean {
  let depth = 0;
  let inString = false;
  for (let i = 0; i < text.length; i++) {
    const byte = text[i] ?? 0;
    if (inString) {
      if (byte === BACKSLASH) i += 1;
      else if (byte === QUOTE) inString = false;
    } else if (byte === QUOTE) inString = true;
    else if (opens(byte)) depth += 1;
    else if (closes(byte)) depth -= 1;
    if (depth > DEEPEST) return true;
  }
  return false;
}

/** Error of a body that nests too deep, by the name the body parser keeps. */
export const TOO_DEEP = 'entity.too.deep';
