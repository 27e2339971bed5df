import { cpSync, mkdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { basename, dirname, join, relative, sep } from 'node:path';
import { build, dependencies } from './lib/prepare.mjs';
import { ROOT } from './lib/paths.mjs';
import { quiet, run } from './lib/run.mjs';
import { say, stop } from './lib/say.mjs';

/** A package to carry to another machine: built files and production packages, started without building or installing. */

await dependencies();
await build();
const { version, license, engines } = JSON.parse(readFileSync(join(ROOT, 'package.json'), 'utf8'));
const outside = process.argv[2] ?? join(ROOT, 'release');
const name = `ruddy-bridge-${version}`;
const folder = join(outside, name);
rmSync(folder, { recursive: true, force: true });
mkdirSync(folder, { recursive: true });

const take = (path, filter = () => true) =>
  cpSync(join(ROOT, path), join(folder, path), { recursive: true, dereference: true, filter });
const noMaps = (path) => !path.endsWith('.map');
for (const path of [
  'server/dist',
  'web/dist/browser',
  'demo/observatory.json',
  'LICENSE',
  'deploy',
])
  take(path, noMaps);
for (const path of ['start.mjs', 'command.mjs', 'tools/feed-server.mjs', 'lib'])
  take(join('scripts', path), (p) => !p.endsWith('.mts'));
for (const path of ['docs/operations.md', 'README.md']) take(path);

// What npm says the server needs in production; the workspaces themselves are in the built files.
const listed = quiet('npm', ['ls', '-w', 'server', '--omit=dev', '--all', '--parseable'], {
  cwd: ROOT,
});
const inPackages = `${join(ROOT, 'node_modules')}${sep}`;
const packages = listed.out
  .split('\n')
  .filter(
    (path) => path.startsWith(inPackages) || path.includes(`${sep}server${sep}node_modules${sep}`),
  )
  .filter((path) => !path.startsWith(join(inPackages, '@ruddy')));
if (packages.length < 20)
  stop(`npm names only ${packages.length} production packages; is all installed?`);
for (const path of packages)
  take(
    relative(ROOT, path),
    (p) => !relative(path, p).split(sep).includes('node_modules') && noMaps(p),
  );

writeFileSync(
  join(folder, 'package.json'),
  JSON.stringify(
    {
      name: 'ruddy-bridge',
      version,
      private: true,
      license,
      type: 'module',
      engines,
      scripts: {
        start: 'node scripts/start.mjs',
        keeper: 'node scripts/command.mjs keeper',
        backup: 'node scripts/command.mjs backup',
        restore: 'node scripts/command.mjs restore',
      },
    },
    null,
    2,
  ),
);
const commit = quiet('git', ['rev-parse', 'HEAD'], { cwd: ROOT });
writeFileSync(
  join(folder, 'RELEASE.json'),
  JSON.stringify({ version, commit: commit.code === 0 ? commit.out.trim() : null }),
);
const archive = join(outside, `${name}.tar.gz`);
if ((await run('tar', ['-czf', archive, '-C', dirname(folder), basename(folder)])) !== 0)
  stop('the archive could not be written');
say(
  `${archive}: ${packages.length} packages, ${(statSync(archive).size / 1e6).toFixed(1)} MB. Unpack it, then: npm start`,
);
