import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    projects: [
      { test: { name: 'core', root: './core', include: ['test/**/*.test.ts'], testTimeout: 30_000 } },
      { test: { name: 'simbench', root: './simbench', include: ['test/**/*.test.ts'], testTimeout: 30_000 } },
      {
        test: {
          name: 'server',
          root: './server',
          include: ['test/**/*.test.ts'],
          globalSetup: './test/global-setup.ts',
          testTimeout: 20_000,
          hookTimeout: 30_000,
        },
      },
      { test: { name: 'house', root: './scripts', include: ['test/**/*.test.ts'], testTimeout: 60_000 } },
      {
        test: {
          name: 'e2e',
          root: './e2e',
          include: ['**/*.e2e.ts'],
          testTimeout: 60_000,
          hookTimeout: 60_000,
          fileParallelism: false,
        },
      },
    ],
  },
});
