import { defineConfig } from 'vitest/config';

/** The tests of the core alone, as `npm run mutate` runs them. */
export default defineConfig({
  test: {
    root: new URL('.', import.meta.url).pathname,
    include: ['test/**/*.test.ts'],
    setupFiles: [new URL('../scripts/lib/patience-setup.mjs', import.meta.url).pathname],
    isolate: false,
  },
});
