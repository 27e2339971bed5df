import { join } from 'node:path';
import { ROOT } from './paths.mjs';

const source = (file) => join(ROOT, 'server/src', file);

/** Programs that threads of the server run; they are files of their own beside it. */
export const THREADS = ['buy/scout-thread.ts', 'runs/frame-thread.ts', 'file-thread.ts'].map(
  source,
);

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

/** How esbuild bundles code of the server for Node. */
export const BUNDLE_OPTIONS = {
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  logLevel: 'warning',
  plugins: [packagesOutside],
};

/** How it makes a program of the server: flat, wherever it stands in the source. */
export const PROGRAM_OPTIONS = {
  ...BUNDLE_OPTIONS,
  entryNames: '[name]',
  outExtension: { '.js': '.mjs' },
};
