import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';

const SKIP = new Set(['node_modules', 'dist', '.angular']);

function files(path) {
  if (!existsSync(path)) return [];
  if (statSync(path).isFile()) return [path];
  return readdirSync(path, { withFileTypes: true })
    .filter((e) => !SKIP.has(e.name))
    .sort((a, b) => (a.name < b.name ? -1 : 1))
    .flatMap((e) => files(join(path, e.name)));
}

/** SHA-256 over names and contents of files and folders. */
export function treeHash(paths) {
  const hash = createHash('sha256');
  for (const file of paths.flatMap(files))
    hash.update(file).update('\0').update(readFileSync(file)).update('\0');
  return hash.digest('hex');
}

/** Do some work unless the stamp says it was done for exactly these inputs. Returns whether it ran. */
export async function unlessStamped(stampFile, hash, work) {
  if (existsSync(stampFile) && readFileSync(stampFile, 'utf8') === hash) return false;
  await work();
  mkdirSync(dirname(stampFile), { recursive: true });
  writeFileSync(stampFile, hash);
  return true;
}
