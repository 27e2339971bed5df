import { copyFileSync, existsSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { pack } from './pack.mjs';
import { IS_RELEASE, ROOT, SERVER_FILE, WEB_DIR } from './paths.mjs';
import { run } from './run.mjs';
import { say, stop } from './say.mjs';
import { treeHash, unlessStamped } from './stamp.mjs';

/** `npm ci`, unless what is installed came from this lock file. */
export async function dependencies() {
  if (IS_RELEASE) return;
  const hash = treeHash([join(ROOT, 'package-lock.json')]);
  await unlessStamped(join(ROOT, 'node_modules/.ruddy-stamp'), hash, async () => {
    say('Installing packages (npm ci) …');
    const code = await run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
      cwd: ROOT,
    });
    if (code !== 0) stop('npm ci failed; see its lines above');
  });
}

const SOURCES = [
  'core/src',
  'simbench/src',
  'probe',
  'server/src',
  'web',
  'scripts/build-server.mjs',
  'scripts/lib/pack.mjs',
  'package-lock.json',
  'tsconfig.base.json',
];

/** Build server and pages, unless the tree is the one that was built. */
export async function build() {
  if (IS_RELEASE) return;
  const stamp = join(ROOT, 'node_modules/.ruddy-build');
  if (!existsSync(SERVER_FILE) || !existsSync(join(WEB_DIR, 'index.html')))
    rmSync(stamp, { force: true });
  const hash = treeHash(SOURCES.map((s) => join(ROOT, s)));
  await unlessStamped(stamp, hash, async () => {
    say('Building …');
    const server = await run(process.execPath, [join(ROOT, 'scripts/build-server.mjs')], {
      cwd: ROOT,
    });
    if (server !== 0) stop('the server did not build; see the lines above');
    // The builder joins files of a few hundred bytes when asked to.
    const env = { ...process.env, NG_CLI_ANALYTICS: 'false', NG_BUILD_OPTIMIZE_CHUNKS: '1' };
    const web = await run(
      process.execPath,
      [join(ROOT, 'node_modules/@angular/cli/bin/ng.js'), 'build'],
      {
        cwd: join(ROOT, 'web'),
        env,
      },
    );
    if (web !== 0) stop('the pages did not build; see the lines above');
    pack(WEB_DIR);
    // The probe is handed out beside the pages, as it is.
    copyFileSync(join(ROOT, 'probe/probe.mjs'), join(WEB_DIR, 'probe.mjs'));
  });
}
