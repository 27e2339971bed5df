/**
 * A text without the characters at its end that are among those given, in one pass.
 * @param text any text
 * @param characters the ones that go
 * @returns the text up to the last other character
 * @example trimmedEnd('1.8.2.-', '.-') // => '1.8.2'
 */
export function trimmedEnd(text: string, characters: string): string {
  let end = text.length;
  while (end > 0 && characters.includes(text[end - 1] ?? '')) end -= 1;
  return text.slice(0, end);
}
