import { problemOf } from '../platform/kit/problems';
import { isBlank, readingForm, readingOf, takeFromBench } from './reading-form';

type Given = Parameters<ReturnType<typeof readingForm>['patchValue']>[0];

function filled(over: Given) {
  const form = readingForm();
  form.patchValue(over);
  return form;
}

describe('a reading in its form', () => {
  it('is blank until something was read, however it would have been taken', () => {
    expect(isBlank(readingForm().getRawValue())).toBe(true);
    const how = filled({ copy: { direction: 'up', repeats: 3 }, note: 'x' });
    expect(isBlank(how.getRawValue())).toBe(true);
    expect(isBlank(filled({ cardSpan: { lanes: 4 } }).getRawValue())).toBe(false);
  });

  it('keeps what is not given as not known', () => {
    expect(readingOf(filled({ copy: { value: 23.8, memory: null } }))?.copy).toMatchObject({
      value: 23.8,
      unit: 'Gb/s',
      direction: 'down',
      memory: null,
      repeats: null,
    });
    expect(readingOf(filled({ cardSpan: { gen: 3, lanes: 4 } }))).toMatchObject({
      copy: null,
      cardSpan: { gen: 3, lanes: 4 },
      router: null,
    });
  });

  it.each([
    [{ copy: { value: 0 } }, 'copy.value', 'more than 0'],
    [{ copy: { value: 20, repeats: 2.5 } }, 'copy.repeats', 'whole number'],
    [{ cardSpan: { gen: 9 } }, 'cardSpan.gen', 'from 1 to 6'],
    [{ router: { lanes: 99 } }, 'router.lanes', 'from 1 to 8'],
  ] as [Given, string, string][])('%j is refused at %s', (over, path, words) => {
    const form = filled(over);
    expect(readingOf(form)).toBeNull();
    expect(problemOf(form.get(path)!)).toContain(words);
  });

  it('that holds nothing is refused as a whole', () => {
    const form = readingForm();
    expect(readingOf(form)).toBeNull();
    expect((form.errors?.['zod'] as Record<string, string>)['copy']).toContain('Nothing read yet');
  });

  it('takes counters as read under load, though the load fell', () => {
    const form = readingForm();
    const counts = {
      correctedBefore: 0,
      correctedAfter: 7,
      fatalBefore: 0,
      fatalAfter: 0,
      downs: 1,
      minutes: 30,
    };
    takeFromBench(
      form,
      { reading: { state: { load: null }, copy: null, report: null }, counts } as never,
      null,
    );
    expect(form.getRawValue()).toMatchObject({ load: 'load', counts, copy: { value: null } });
  });
});
