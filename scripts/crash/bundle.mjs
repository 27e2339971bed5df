import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { build } from 'esbuild';
import { ROOT } from '../lib/paths.mjs';
import { BUNDLE_OPTIONS } from '../lib/server-programs.mjs';

/** A module of the server's tests in this process, with the workspace's own code inside and packages left outside. Gives the file. */
export async function bundled(entry, name) {
  const file = join(ROOT, 'server', `zz-${name}-${process.pid}.mjs`);
  await build({ ...BUNDLE_OPTIONS, entryPoints: [join(ROOT, entry)], outfile: file });
  return { file, url: pathToFileURL(file).href, remove: () => rmSync(file, { force: true }) };
}
