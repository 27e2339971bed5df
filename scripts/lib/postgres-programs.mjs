import { existsSync, mkdirSync, readdirSync, rmSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { quiet, which } from './run.mjs';
import { say, stop } from './say.mjs';

const DEBIAN = '/usr/lib/postgresql';

function newest(parent) {
  if (!existsSync(parent)) return null;
  const versions = readdirSync(parent).filter(
    (v) => existsSync(join(parent, v, 'bin/initdb')) && existsSync(join(parent, v, 'bin/postgres')),
  );
  const best = versions.sort((a, b) => Number(b) - Number(a))[0];
  return best ? join(parent, best, 'bin') : null;
}

function installed() {
  const found = newest(DEBIAN);
  if (found) return { bin: found, env: {} };
  const onPath = which('initdb');
  return onPath && which('postgres') ? { bin: dirname(onPath), env: {} } : null;
}

function unpacked(root) {
  const bin = newest(join(root, 'usr/lib/postgresql'));
  if (!bin) return null;
  const libs = readdirSync(join(root, 'usr/lib'), { withFileTypes: true }).filter(
    (e) => e.isDirectory() && e.name.includes('-linux-'),
  );
  return {
    bin,
    env: { LD_LIBRARY_PATH: libs.map((e) => join(root, 'usr/lib', e.name)).join(':') },
  };
}

function aptInstall() {
  say('Installing PostgreSQL from Debian …');
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  const install = () =>
    quiet('apt-get', ['install', '-y', '--no-install-recommends', 'postgresql'], { env });
  if (install().code === 0) return true;
  quiet('apt-get', ['update'], { env });
  return install().code === 0;
}

/** Without root: Debian's packages are fetched and unpacked below the data folder, nothing is installed. */
function aptUnpack(root) {
  if (!which('apt-get') || !which('dpkg-deb')) return false;
  say('Unpacking PostgreSQL from Debian below the data folder …');
  const work = join(root, 'packages');
  for (const d of ['lists/partial', 'cache/archives/partial', 'packages'])
    mkdirSync(join(root, d), { recursive: true });
  const own = [
    '-o',
    `Dir::State::lists=${join(root, 'lists')}`,
    '-o',
    `Dir::Cache=${join(root, 'cache')}`,
    '-o',
    'Debug::NoLocking=1',
  ];
  if (quiet('apt-get', [...own, 'update']).code !== 0) return false;
  const depends = quiet('apt-cache', [...own, 'depends', 'postgresql']).out;
  const server = /Depends: (postgresql-\d+)/.exec(depends)?.[1];
  if (!server) return false;
  const packages = [server, server.replace('postgresql', 'postgresql-client'), 'libpq5'];
  const got = quiet('apt-get', [...own, 'download', ...packages], { cwd: work });
  if (got.code !== 0) return false;
  const debs = readdirSync(work).filter((f) => f.endsWith('.deb'));
  const ok = debs.every((deb) => quiet('dpkg-deb', ['-x', join(work, deb), root]).code === 0);
  for (const d of ['lists', 'cache', 'packages'])
    rmSync(join(root, d), { recursive: true, force: true });
  return ok;
}

/** PostgreSQL's programs, installed or unpacked when missing; one clear line when neither can be done. */
export function postgresPrograms(dataDir) {
  const root = join(dataDir, 'debian');
  const found = installed() ?? unpacked(root);
  if (found) return found;
  if (process.getuid?.() === 0) {
    if (aptInstall()) return installed();
  } else if (aptUnpack(root)) return unpacked(root);
  return stop(
    'PostgreSQL is missing. Run: sudo apt-get install -y --no-install-recommends postgresql   (or set DATABASE_URL to a database you have)',
  );
}
