import { run } from './lib/run.mjs';
import { requireNode, say } from './lib/say.mjs';

/** Beside the server, whether it runs or not: `npm run keeper -- NAME`, `npm run backup`, `npm run restore -- FILE`. */
requireNode();
const { BACKUP_DIR, COMMANDS_FILE, DATA_DIR } = await import('./lib/paths.mjs');
const { dependencies, build } = await import('./lib/prepare.mjs');
const { openCluster, ensureDatabase } = await import('./lib/cluster.mjs');

await dependencies();
await build();
let cluster = null;
if (!process.env.DATABASE_URL) {
  cluster = await openCluster(DATA_DIR);
  ensureDatabase(cluster, 'ruddy');
}
const [command, argument] = process.argv.slice(2);
if (command === 'restore' && argument)
  say(
    'Trying the file beside the database first; what is there now is backed up before it is replaced.',
  );
const code = await run(process.execPath, [COMMANDS_FILE, ...process.argv.slice(2)], {
  env: {
    ...process.env,
    ...cluster?.programs.env,
    DATABASE_URL: process.env.DATABASE_URL ?? cluster.url('ruddy'),
    RUDDY_RESTORE_URL: process.env.RUDDY_RESTORE_URL ?? cluster?.restoreUrl('ruddy') ?? '',
    RUDDY_PG_BIN: cluster?.programs.bin ?? '',
    RUDDY_BACKUP_DIR: BACKUP_DIR,
  },
});
cluster?.close();
process.exit(code);
