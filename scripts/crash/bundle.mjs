import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { build } from 'esbuild';
import { ROOT } from '../lib/paths.mjs';

/** A module of the server's tests in this process, with the workspace's own code inside and packages left outside. Gives the file. */
export async function bundled(entry, name) {
  const file = join(ROOT, 'server', `zz-${name}-${process.pid}.mjs`);
  await build({
    entryPoints: [join(ROOT, entry)],
    outfile: file,
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    logLevel: 'warning',
    plugins: [
      {
        name: 'packages-outside',
        setup(b) {
          b.onResolve({ filter: /^[^./]/ }, (a) =>
            a.kind === 'entry-point' || a.path.startsWith('@ruddy/')
              ? null
              : { path: a.path, external: true },
          );
        },
      },
    ],
  });
  return { file, url: pathToFileURL(file).href, remove: () => rmSync(file, { force: true }) };
}
