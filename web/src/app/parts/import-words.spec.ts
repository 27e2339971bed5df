import type { Job } from '@ruddy/core/parts/contract';
import { importSentence, storeWords } from './import-words';

const job = (
  over: Partial<Job>,
  fates: Partial<Record<string, number>> | null = {},
  stored = false,
): Job => ({
  id: 'j',
  kind: 'import-try',
  state: 'done',
  done: 0,
  total: 0,
  message: '',
  startedAt: '',
  result: fates && {
    name: 'a.csv',
    unknown: [],
    stored,
    fates: { wrong: 0, asks: 0, new: 0, changed: 0, same: 0, ...fates },
  },
  ...over,
});

describe('PA-02 the sentence and the one button of an import', () => {
  it.each([
    [
      job({ state: 'running', done: 500, total: 20_000, message: 'Looking' }, null),
      'Looking "a.csv": 500 of 20,000 rows.',
      'Import all',
    ],
    [
      job({}, { wrong: 5, new: 19_995 }),
      'Not saved: 5 rows of 20,000 to fix.',
      'Not saved: 5 rows to fix',
    ],
    [
      job({}, { new: 20_000 }),
      '20,000 rows are good: 20,000 new, 0 changed, 0 already here.',
      'Import all 20,000',
    ],
    [
      job({}, { new: 1, asks: 2 }),
      '3 rows are good: 1 new, 0 changed, 0 already here, 2 to look at.',
      'Import all 3',
    ],
    [job({}, { same: 7 }), 'Nothing to import: all 7 are already here.', 'Nothing to import'],
    [
      job({}, { new: 3, same: 4 }, true),
      'Imported from "a.csv": 3 of 7, 4 already here.',
      'Imported',
    ],
    [
      job({ state: 'failed', message: 'Not saved. Not JSON' }, null),
      'Not saved. Not JSON',
      'Import all',
    ],
    [
      job({ state: 'cancelled', done: 500 }, null),
      'Stopped at 500 rows of "a.csv"; nothing saved.',
      'Import all',
    ],
  ])('%#', (j, sentence, button) => {
    expect([importSentence(j, null, 'a.csv', 'cable'), storeWords(j)]).toEqual([sentence, button]);
  });

  it('says when no file is chosen and when the server refused it', () => {
    expect(importSentence(null, null, null, 'cable')).toMatch(/^0 files chosen: cables/);
    expect(importSentence(null, 'Body too large', 'a.csv', 'cable')).toBe(
      '0 rows read: Body too large',
    );
  });
});
