import { defineConfig } from 'vitest/config';

/** Limits on time end what hangs, and stretch with the load: each test file measures anew how fast this machine is. */
const setupFiles = [new URL('scripts/lib/patience-setup.mjs', import.meta.url).pathname];

export default defineConfig({
  test: {
    projects: [
      {
        test: {
          name: 'core',
          root: './core',
          include: ['test/**/*.test.ts'],
          setupFiles,
          isolate: false,
        },
      },
      {
        test: {
          name: 'simbench',
          root: './simbench',
          include: ['test/**/*.test.ts'],
          setupFiles,
          isolate: false,
        },
      },
      {
        test: {
          name: 'server',
          root: './server',
          include: ['test/**/*.test.ts'],
          setupFiles,
          globalSetup: './test/global-setup.ts',
          // The application is loaded once a worker; each file has a database of its own.
          isolate: false,
        },
      },
      { test: { name: 'house', root: './scripts', include: ['test/**/*.test.ts'], setupFiles } },
      {
        test: {
          name: 'e2e',
          root: './e2e',
          include: ['**/*.e2e.ts'],
          setupFiles,
          globalSetup: './global-setup.ts',
          fileParallelism: false,
          // A browser on a busy machine can miss a click; `npm test` names each test that passed at its second try (decision 42).
          retry: 1,
        },
      },
    ],
  },
});
