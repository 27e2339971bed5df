import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { requireNode, say, stop } from './lib/say.mjs';

requireNode();
const { ROOT, TEST_DATA_DIR } = await import('./lib/paths.mjs');
const { run } = await import('./lib/run.mjs');
const { dependencies, build } = await import('./lib/prepare.mjs');
const { testPrograms } = await import('./lib/programs.mjs');
const { openCluster } = await import('./lib/cluster.mjs');

const bin = (p) => join(ROOT, 'node_modules', p);
const node = (script, ...args) => [process.execPath, [bin(script), ...args]];
const results = join(TEST_DATA_DIR, 'results');
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

/** Each stage with its budget in seconds on two cores, warm. A stage with a name in `counts` must have run tests. */
const STAGES = [
  {
    name: 'lint',
    seconds: 45,
    commands: [
      node('eslint/bin/eslint.js', '.', '--max-warnings', '0'),
      node('prettier/bin/prettier.cjs', '--check', '--log-level', 'warn', '.'),
    ],
  },
  { name: 'types', seconds: 30, commands: ['core', 'simbench', 'server', 'e2e'].map((p) => node('typescript/bin/tsc', '-p', p)) },
  { name: 'core', seconds: 60, commands: [vitest('core')], counts: true },
  { name: 'simbench', seconds: 30, commands: [vitest('simbench')], counts: true },
  { name: 'server', seconds: 100, commands: [vitest('server')], counts: true },
  {
    name: 'web',
    seconds: 75,
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
  },
  { name: 'build', seconds: 40, work: build },
  { name: 'house', seconds: 120, commands: [vitest('house')], counts: true },
  { name: 'e2e', seconds: 240, commands: [vitest('e2e')], counts: true },
];

function counted(name) {
  try {
    const r = JSON.parse(readFileSync(join(results, `${name}.json`), 'utf8'));
    return { passed: r.numPassedTests, failed: r.numFailedTests };
  } catch {
    return { passed: 0, failed: 0 };
  }
}

testPrograms();
await dependencies();
rmSync(results, { recursive: true, force: true });
mkdirSync(results, { recursive: true });
// One cluster for all stages; each test file has its own database in it.
const cluster = await openCluster(TEST_DATA_DIR, { fsync: false });
process.on('SIGINT', () => {
  cluster.close();
  process.exit(130);
});

let passed = 0;
let failed = 0;
for (const stage of STAGES) {
  const began = Date.now();
  let bad = false;
  if (stage.work) await stage.work();
  for (const [command, args] of stage.commands ?? []) {
    const code = await run(command, args, {
      cwd: join(ROOT, stage.cwd ?? '.'),
      env: { ...process.env, NG_CLI_ANALYTICS: 'false', FORCE_COLOR: '0' },
    });
    bad ||= code !== 0;
  }
  const seconds = (Date.now() - began) / 1000;
  const n = stage.counts ? counted(stage.name) : { passed: bad ? 0 : 1, failed: bad ? 1 : 0 };
  if (stage.counts && n.passed + n.failed === 0) {
    say(`stage ${stage.name} ran no test`);
    n.failed = 1;
  } else if (bad && n.failed === 0) n.failed = 1;
  passed += n.passed;
  failed += n.failed;
  say(`stage ${stage.name}: ${seconds.toFixed(1)} s of ${stage.seconds} s, ${n.passed} passed, ${n.failed} failed`);
}
cluster.close();
if (!Number.isInteger(passed + failed)) stop('the test results could not be read');
say(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
