import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { build as bundle } from 'esbuild';
import { ROOT } from '../lib/paths.mjs';

/** Modules made of this project's own sources, its tests' helpers too. */
export async function load(contents) {
  const { outputFiles } = await bundle({
    stdin: { contents, resolveDir: join(ROOT, 'simbench') },
    bundle: true,
    platform: 'node',
    format: 'esm',
    write: false,
    // Some packages ask for the modules of Node by `require`.
    banner: {
      js: "import { createRequire } from 'node:module'; const require = createRequire(import.meta.url);",
    },
  });
  const dir = mkdtempSync(join(tmpdir(), 'bench-'));
  const file = join(dir, 'sources.mjs');
  writeFileSync(file, outputFiles[0].text);
  const loaded = await import(file);
  rmSync(dir, { recursive: true });
  return loaded;
}
