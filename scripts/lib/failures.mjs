import { readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { ROOT } from './paths.mjs';

/** Lines of an error that are repeated at the end: the sentence, what was expected and the first frames of the stack. */
const LINES = 12;
/** Characters of a line that are repeated: an error may quote a whole built file. */
const WIDTH = 1500;

/** Test files of a results file of Vitest's JSON reporter; none where the stage wrote none. */
function suitesOf(file) {
  try {
    return JSON.parse(readFileSync(file, 'utf8')).testResults;
  } catch {
    return [];
  }
}

/** Tests of one file that have a status, with the errors of all their tries. */
const withStatus = (suite, status) =>
  suite.assertionResults
    .filter((test) => test.status === status)
    .map((test) => ({ title: test.fullName, message: test.failureMessages.join('\n') }));

const told = (suite, test) =>
  `${relative(ROOT, suite.name)}: ${test.title}\n${firstLines(test.message)}`;

function failedTests(file) {
  return suitesOf(file).flatMap((suite) => {
    const tests = withStatus(suite, 'failed');
    const broken = suite.status === 'failed' && tests.length === 0;
    return [
      ...tests,
      ...(broken ? [{ title: 'the file itself', message: suite.message }] : []),
    ].map((test) => told(suite, test));
  });
}

/** Tests of a stage that passed at their second try, each with the error of the first. */
export function secondTries(stage, results) {
  return suitesOf(join(results, `${stage}.json`)).flatMap((suite) =>
    withStatus(suite, 'passed')
      .filter((test) => test.message !== '')
      .map((test) => `stage ${stage}, passed at its second try: ${told(suite, test)}`),
  );
}

const firstLines = (text) =>
  text
    .split('\n')
    .slice(0, LINES)
    .map((line) => `    ${line.slice(0, WIDTH)}`)
    .join('\n');

/**
 * What went wrong in a stage, for the end of the output: its failed tests with their errors or, where it names none, the last lines it
 * printed. The whole output of the stages before is long, and a reader of a build service often sees its end only.
 */
export function failuresOf(stage, results) {
  const tests = failedTests(join(results, `${stage}.json`));
  if (tests.length > 0) return tests.map((test) => `stage ${stage}, ${test}`).join('\n');
  const printed = readFileSync(join(results, `${stage}.log`), 'utf8')
    .trimEnd()
    .split('\n');
  return `stage ${stage}, its last lines:\n${firstLines(printed.slice(-LINES).join('\n'))}`;
}
