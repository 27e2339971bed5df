import { pluralize, day, readNumber } from './format';

describe('numbers as typed', () => {
  it.each([
    ['16', 16],
    ['16,5', 16.5],
    ['16.5', 16.5],
    [' 0.480 ', 0.48],
    ['-3', -3],
    ['', null],
  ])('"%s" is %s', (typed, value) => {
    expect(readNumber(typed)).toEqual({ ok: true, value });
  });

  it.each(['1,200', '1.200', '12.345.678', '1 200', 'ten', '4 lanes', '1e3', '--1'])(
    '"%s" is refused, not guessed',
    (typed) => {
      expect(readNumber(typed).ok).toBe(false);
    },
  );
});

describe('words for dates and counts', () => {
  it('writes a date without shifting its day', () => {
    expect(day('2026-11-03')).toBe('3 Nov 2026');
  });

  it('counts one and many', () => {
    expect([pluralize(1, 'setup'), pluralize(0, 'setup')]).toEqual(['1 setup', '0 setups']);
  });
});
