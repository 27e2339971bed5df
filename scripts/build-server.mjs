import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { build } from 'esbuild';
import { ROOT } from './lib/paths.mjs';

/** Packages stay outside the bundle; the workspace's own core, which is TypeScript, goes in. */
const packagesOutside = {
  name: 'packages-outside',
  setup(b) {
    b.onResolve({ filter: /^[^./]/ }, (args) =>
      args.kind === 'entry-point' || args.path.startsWith('@ruddy/')
        ? null
        : { path: args.path, external: true },
    );
  },
};

rmSync(join(ROOT, 'server/dist'), { recursive: true, force: true });
await build({
  entryPoints: [
    join(ROOT, 'server/src/main.ts'),
    join(ROOT, 'server/src/buy/scout-thread.ts'),
    join(ROOT, 'server/src/runs/frame-thread.ts'),
    join(ROOT, 'server/src/commands.ts'),
  ],
  outdir: join(ROOT, 'server/dist'),
  // Flat, wherever a program stands in the source: threads are looked for beside the program that starts them.
  entryNames: '[name]',
  outExtension: { '.js': '.mjs' },
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  sourcemap: true,
  logLevel: 'warning',
  plugins: [packagesOutside],
});
