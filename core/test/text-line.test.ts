import { describe, expect, it } from 'vitest';
import { nameLine, textLine, unseenCharacter } from '../src/base/contract';

const name = nameLine('Name', 20);
const why = (value: string) => name.safeParse(value).error?.issues[0]?.message;

describe('names', () => {
  it('of the same letters are the same text', () => {
    // Unicode Standard Annex 15, table 1: U+0041 U+030A composes to U+00C5.
    expect(name.parse('A\u030A')).toBe('\u00C5');
    expect(name.parse('  Dome  ')).toBe('Dome');
    // Different letters stay different: no compatibility folding.
    expect(name.parse('\u2460')).toBe('\u2460');
  });

  it.each([
    ['zero width space', 'Fen\u200Bland', 'U+200B', 4],
    ['zero width non-joiner', 'Fen\u200Cland', 'U+200C', 4],
    ['joiner between letters', 'Fen\u200Dland', 'U+200D', 4],
    ['right-to-left override', '\u202Egnp.exe', 'U+202E', 1],
    ['byte order mark inside', 'Fe\uFEFFn', 'U+FEFF', 3],
    ['escape', 'Fen\u001B[31m', 'U+001B', 4],
    ['soft hyphen', 'Fen\u00ADland', 'U+00AD', 4],
    ['line separator', 'Fen\u2028land', 'U+2028', 4],
    ['after a pictograph', '\u{1F50C}\u200Bx', 'U+200B', 2],
  ])('with a %s are refused with its place', (_what, text, code, at) => {
    expect(unseenCharacter(text)).toEqual({ code, at });
    expect(why(text)).toBe(`Name: character ${at} cannot be seen (${code}); delete it`);
  });

  it.each(['Dôme', '机', 'Кран', 'نص', '\u{1F468}\u200D\u{1F527}', '1\uFE0F\u20E3'])(
    'like %s are taken',
    (text) => {
      expect(name.parse(text)).toBe(text.normalize('NFC'));
    },
  );

  it('are one line, not empty, not too long', () => {
    expect(why('a\nb')).toBe('Name: one line');
    expect(why('  ')).toBe('Name: must not be empty');
    expect(why('x'.repeat(21))).toBe('Name: at most 20 characters');
    expect(textLine('Note', 20).parse('a\nb\tc')).toBe('a\nb\tc');
  });
});
