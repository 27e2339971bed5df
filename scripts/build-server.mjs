import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { build } from 'esbuild';
import { ROOT } from './lib/paths.mjs';
import { PROGRAM_OPTIONS, THREADS } from './lib/server-programs.mjs';

rmSync(join(ROOT, 'server/dist'), { recursive: true, force: true });
await build({
  ...PROGRAM_OPTIONS,
  entryPoints: [join(ROOT, 'server/src/main.ts'), join(ROOT, 'server/src/commands.ts'), ...THREADS],
  outdir: join(ROOT, 'server/dist'),
  sourcemap: true,
});
