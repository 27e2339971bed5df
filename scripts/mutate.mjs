import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { requireNode, say, stop } from './lib/say.mjs';

requireNode();
const { ROOT, TEST_DATA_DIR } = await import('./lib/paths.mjs');

/**
 * `npm run mutate -- FOLDER` of `core/src`: changes the code in small ways, one at a time, and runs the tests that reach it. A change
 * that every test passes is a hole in the tests. It takes minutes and is not part of `npm test`. Exit code 1 below 85 of 100 covered
 * changes found; those known to be harmless stand with a reason in stryker.accepted.json. A change of a table that is made when its file
 * is read needs every test of the core, a minute each: `--all` makes those too.
 */
const LEAST_PERCENT = 85;
const [folder] = process.argv.slice(2).filter((a) => a !== '--all');
if (!folder || !existsSync(join(ROOT, 'core/src', folder)))
  stop('name a folder of core/src, such as base/statistics');

const out = join(TEST_DATA_DIR, 'mutation');
mkdirSync(out, { recursive: true });
const report = join(out, 'report.json');
const config = join(out, 'stryker.json');
writeFileSync(
  config,
  JSON.stringify({
    testRunner: 'vitest',
    plugins: ['@stryker-mutator/vitest-runner'],
    vitest: { configFile: 'core/vitest.mutate.ts' },
    mutate: [`core/src/${folder}/**/*.ts`, '!core/src/**/text/**', '!core/src/**/*.d.ts'],
    mutator: { excludedMutations: ['StringLiteral'] },
    coverageAnalysis: 'perTest',
    ignoreStatic: !process.argv.includes('--all'),
    ignorePatterns: ['.data*', 'web', 'server', 'e2e', 'docs', 'probe', '*.dump'],
    reporters: ['clear-text', 'json'],
    clearTextReporter: { allowColor: false, reportTests: false, logTests: false },
    jsonReporter: { fileName: report },
    tempDirName: join(out, 'sandbox'),
    concurrency: 1,
    timeoutMS: 60_000,
  }),
);
const ran = spawnSync(
  process.execPath,
  [join(ROOT, 'node_modules/@stryker-mutator/core/bin/stryker.js'), 'run', config],
  { cwd: ROOT, stdio: 'inherit' },
);
if (ran.status !== 0) stop('the mutation run did not end');

/** Changes known to be harmless, by file and the line they are on, each with a reason. */
const accepted = JSON.parse(readFileSync(join(ROOT, 'stryker.accepted.json'), 'utf8'));
const isAccepted = (file, m) =>
  accepted.some(
    (a) => a.file === file && a.mutator === m.mutatorName && a.replacement === m.replacement,
  );
const mutants = Object.entries(JSON.parse(readFileSync(report, 'utf8')).files).flatMap(
  ([file, { mutants }]) => mutants.map((m) => ({ file, ...m })),
);
const of = (...states) => mutants.filter((m) => states.includes(m.status));
const found = of('Killed', 'Timeout').length;
const lived = of('Survived').filter((m) => !isAccepted(m.file, m));
const percent = (100 * found) / Math.max(1, found + lived.length);
for (const m of lived)
  say(`lives: ${m.file}:${m.location.start.line} ${m.mutatorName} ${m.replacement ?? ''}`);
say(
  `${folder}: ${found} of ${found + lived.length} covered changes found, ${percent.toFixed(1)} %; ${of('NoCoverage').length} reached by no test`,
);
process.exit(percent >= LEAST_PERCENT ? 0 : 1);
