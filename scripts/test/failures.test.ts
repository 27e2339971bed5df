import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { failuresOf, secondTries } from '../lib/failures.mjs';
import { ROOT } from '../lib/paths.mjs';

let dir: string;
beforeAll(() => {
  dir = mkdtempSync(join(tmpdir(), 'results-'));
  const test = (title: string, status: string, failureMessages: string[]) => ({
    fullName: title,
    status,
    failureMessages,
  });
  const suite = {
    name: join(ROOT, 'e2e/some.e2e.ts'),
    status: 'failed',
    assertionResults: [
      test('runs at once', 'passed', []),
      test('is met late', 'passed', ['Error: the page does not show Saved.']),
      test('is not met', 'failed', ['Error: no field is called Hours', 'Error: nor again']),
    ],
  };
  writeFileSync(join(dir, 'e2e.json'), JSON.stringify({ testResults: [suite] }));
});
afterAll(() => rmSync(dir, { recursive: true, force: true }));

describe('what the end of npm test tells', () => {
  it('a test that passed at its second try is named', () => {
    expect(secondTries('e2e', dir)).toEqual([
      'stage e2e, passed at its second try: e2e/some.e2e.ts: is met late\n    Error: the page does not show Saved.',
    ]);
    expect(secondTries('core', dir)).toEqual([]);
  });

  it('a test that failed is named with the errors of both tries', () => {
    expect(failuresOf('e2e', dir)).toBe(
      'stage e2e, e2e/some.e2e.ts: is not met\n    Error: no field is called Hours\n    Error: nor again',
    );
  });
});
