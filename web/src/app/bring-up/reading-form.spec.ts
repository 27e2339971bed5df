import { FRESH, isBlank, readTyped, type TypedReading } from './reading-form';

const typed = (over: Partial<TypedReading>) => readTyped({ ...FRESH, ...over });

describe('a reading as typed', () => {
  it('is blank until something was read, however it would have been taken', () => {
    expect(isBlank(FRESH)).toBe(true);
    expect(isBlank({ ...FRESH, direction: 'up', repeats: '3', note: 'x' })).toBe(true);
    expect(isBlank({ ...FRESH, cardLanes: '4' })).toBe(false);
  });

  it('takes comma and point, and keeps blanks as not known', () => {
    expect(typed({ value: '23,8', memory: '' }).reading?.copy).toMatchObject({
      value: 23.8,
      unit: 'Gb/s',
      direction: 'down',
      memory: null,
      repeats: null,
    });
    expect(typed({ cardGen: '3', cardLanes: '4' }).reading).toMatchObject({
      copy: null,
      cardSpan: { gen: 3, lanes: 4 },
      router: null,
    });
  });

  it.each([
    [{ value: 'fast' }, 'copy/value', 'not a number'],
    [{ value: '1,234' }, 'copy/value', 'two numbers'],
    [{ value: '0' }, 'copy/value', 'more than 0'],
    [{ value: '20', repeats: '2.5' }, 'copy/repeats', 'whole number'],
    [{ cardGen: '9' }, 'cardSpan/gen', 'from 1 to 6'],
    [{ routerLanes: '99' }, 'router/lanes', 'from 1 to 8'],
    [{}, 'copy', 'Nothing read yet'],
  ] as [Partial<TypedReading>, string, string][])('%j is refused at %s', (over, place, words) => {
    const { reading, errors } = typed(over);
    expect(reading).toBeNull();
    expect(errors.get(place)).toContain(words);
  });
});
