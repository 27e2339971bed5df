import { mkdirSync, openSync, readFileSync, rmSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { requireNode, say, stop } from './lib/say.mjs';

requireNode();
const { ROOT, TEST_DATA_DIR } = await import('./lib/paths.mjs');
const { run } = await import('./lib/run.mjs');
const { dependencies, build } = await import('./lib/prepare.mjs');
const { testPrograms } = await import('./lib/programs.mjs');
const { openCluster } = await import('./lib/cluster.mjs');
const { failuresOf, secondTries } = await import('./lib/failures.mjs');

const bin = (p) => join(ROOT, 'node_modules', p);
const node = (script, ...args) => [process.execPath, [bin(script), ...args]];
const results = join(TEST_DATA_DIR, 'results');
const cache = join(ROOT, 'node_modules/.cache/ruddy');
const vitest = (project) =>
  node(
    'vitest/vitest.mjs',
    'run',
    '--project',
    project,
    '--reporter=default',
    '--reporter=json',
    `--outputFile=${join(results, `${project}.json`)}`,
  );
const types = (p) =>
  node(
    'typescript/bin/tsc',
    '-p',
    p,
    '--incremental',
    '--tsBuildInfoFile',
    join(cache, `${p}.tsbuildinfo`),
  );

const LINT = {
  name: 'lint',
  commands: [
    [process.execPath, [join(ROOT, 'scripts/house.mjs')]],
    node(
      'eslint/bin/eslint.js',
      '.',
      '--max-warnings',
      '0',
      '--cache',
      '--cache-strategy',
      'content',
      '--cache-location',
      join(cache, 'eslint'),
    ),
    node(
      'prettier/bin/prettier.cjs',
      '--check',
      '--log-level',
      'warn',
      '--cache',
      '--cache-strategy',
      'content',
      '--cache-location',
      join(cache, 'prettier'),
      '.',
    ),
    node('stylelint/bin/stylelint.mjs', 'web/src/**/*.scss'),
  ],
};
const WEB = {
  name: 'web',
  commands: [
    node(
      '@angular/cli/bin/ng.js',
      'test',
      '--reporters=default',
      '--reporters=json',
      `--output-file=${join(results, 'web.json')}`,
    ),
  ],
  cwd: 'web',
  counts: true,
};
const tests = (name, needs) => ({ name, commands: [vitest(name)], counts: true, needs });

/**
 * Stages in the order they begin: two at a time, the next as soon as one ends and what it needs is there. A stage that `counts` must have
 * run tests. Build and tests of the pages never run beside each other, since both take the memory of a small machine; the browser suite
 * is one stage, since two browsers at once make each other wait.
 */
const STAGES = [
  { name: 'build', work: build },
  LINT,
  { ...WEB, needs: 'build' },
  { name: 'types', commands: ['core', 'server', 'e2e'].map(types) },
  tests('house', 'build'),
  tests('e2e', 'build'),
  tests('server'),
  tests('core'),
  tests('simbench'),
];

/** Half of the machine for each of the two stages that run. */
const AT_ONCE = 2;
const WORKERS = String(Math.max(1, Math.floor(availableParallelism() / AT_ONCE)));
const env = {
  ...process.env,
  NG_CLI_ANALYTICS: 'false',
  FORCE_COLOR: '0',
  VITEST_MAX_WORKERS: WORKERS,
};

function counted(name) {
  try {
    const r = JSON.parse(readFileSync(join(results, `${name}.json`), 'utf8'));
    return { passed: r.numPassedTests, failed: r.numFailedTests };
  } catch {
    return { passed: 0, failed: 0 };
  }
}

/** Run one stage; its output is printed whole when it ends, so that the lanes do not mix. Resolves with its counts. */
async function runStage(stage) {
  const began = Date.now();
  const log = join(results, `${stage.name}.log`);
  const out = openSync(log, 'w');
  let bad = false;
  if (stage.work) await stage.work();
  for (const [command, args] of stage.commands ?? []) {
    const code = await run(command, args, {
      cwd: join(ROOT, stage.cwd ?? '.'),
      env,
      stdio: ['ignore', out, out],
    });
    bad ||= code !== 0;
  }
  const n = stage.counts ? counted(stage.name) : { passed: bad ? 0 : 1, failed: bad ? 1 : 0 };
  const ranNone = stage.counts && n.passed + n.failed === 0;
  if (ranNone || (bad && n.failed === 0)) n.failed = 1;
  process.stdout.write(readFileSync(log, 'utf8'));
  if (ranNone) say(`stage ${stage.name} ran no test`);
  say(
    `stage ${stage.name}: ${((Date.now() - began) / 1000).toFixed(1)} s, ${n.passed} passed, ${n.failed} failed`,
  );
  return { ...n, name: stage.name };
}

function deferred() {
  let resolve;
  const promise = new Promise((done) => (resolve = done));
  return { promise, resolve };
}

/** Runs all stages, two at a time, in their order; a stage waits until what it needs has ended. */
async function runAll() {
  const counts = [];
  const left = [...STAGES];
  const ended = new Map(STAGES.map((s) => [s.name, deferred()]));
  const worker = async () => {
    for (let stage = left.shift(); stage; stage = left.shift()) {
      if (stage.needs) await ended.get(stage.needs).promise;
      counts.push(await runStage(stage));
      ended.get(stage.name).resolve();
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, worker));
  return counts;
}

testPrograms();
await dependencies();
rmSync(results, { recursive: true, force: true });
for (const folder of [results, cache]) mkdirSync(folder, { recursive: true });
// One cluster for all stages; each test file has its own database in it.
const cluster = await openCluster(TEST_DATA_DIR, { fsync: false });
process.on('SIGINT', () => {
  cluster.close();
  process.exit(130);
});

const began = Date.now();
const counts = await runAll();
cluster.close();
const again = STAGES.flatMap((stage) => secondTries(stage.name, results));
for (const line of again) say(line);
if (again.length > 0) say(`${again.length} passed at the second try`);
for (const stage of counts.filter((n) => n.failed > 0)) say(failuresOf(stage.name, results));
const sum = (key) => counts.reduce((total, n) => total + n[key], 0);
if (!Number.isInteger(sum('passed') + sum('failed'))) stop('the test results could not be read');
say(
  `${sum('passed')} passed, ${sum('failed')} failed, in ${((Date.now() - began) / 1000).toFixed(0)} s`,
);
process.exit(sum('failed') === 0 ? 0 : 1);
