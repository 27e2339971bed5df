import * as z from 'zod';

/**
 * Characters nobody sees: control characters (Unicode category Cc) but tab and line ends, formatting such as zero
 * width, direction marks and soft hyphens (Cf), separators of lines and paragraphs (Zl, Zp). Names that differ by one
 * of them look the same. A joiner between two pictographs is what makes one picture of them.
 */
const UNSEEN =
  /(?![\t\n\r])\p{Cc}|(?!\u200D)\p{Cf}|[\p{Zl}\p{Zp}]|(?<![\p{Extended_Pictographic}\uFE0F])\u200D|\u200D(?!\p{Extended_Pictographic})/u;
const LINE_END = /[\t\n\r]/;

/**
 * The first character of a text that nobody sees.
 * @param text any text
 * @returns its code point like "U+200B" and its place, counted from 1 in characters; null when all are seen
 * @example unseenCharacter('Fen\u200Bland') // => { code: 'U+200B', at: 4 }
 */
export function unseenCharacter(
  text: string,
): { readonly code: string; readonly at: number } | null {
  const found = UNSEEN.exec(text);
  if (!found) return null;
  const code = found[0].codePointAt(0) ?? 0;
  return {
    code: `U+${code.toString(16).toUpperCase().padStart(4, '0')}`,
    at: [...text.slice(0, found.index)].length + 1,
  };
}

/**
 * Schema of a line of text: trimmed, brought into Unicode's composed form (NFC), so that the same letters are the same
 * text however a keyboard makes them, and without characters that nobody sees.
 * @param label name of the field, at the head of each complaint
 * @param most characters at most
 * @returns the schema
 * @example textLine('Note', 5).parse(' e\u0301 ') // => 'é'
 */
export function textLine(label: string, most: number) {
  return z
    .string({ error: `${label}: a line of text` })
    .trim()
    .normalize('NFC')
    .max(most, { error: `${label}: at most ${most} characters` })
    .check((ctx) => {
      const unseen = unseenCharacter(ctx.value);
      if (unseen)
        ctx.issues.push({
          code: 'custom',
          input: ctx.value,
          message: `${label}: character ${unseen.at} cannot be seen (${unseen.code}); delete it`,
        });
    });
}

/**
 * Schema of a name: a line of text that is not empty and stays on one line.
 * @param label name of the field, at the head of each complaint
 * @param most characters at most
 * @returns the schema
 * @example nameLine('Name', 80).parse(' Dome desk ') // => 'Dome desk'
 */
export function nameLine(label: string, most: number) {
  return textLine(label, most)
    .min(1, { error: `${label}: must not be empty` })
    .refine((name) => !LINE_END.test(name), { error: `${label}: one line` });
}
