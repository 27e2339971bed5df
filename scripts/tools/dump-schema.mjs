import { spawnSync } from 'node:child_process';
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { openCluster } from '../lib/cluster.mjs';
import { DEMO_FILE, DEMO_NOW, ROOT, TEST_DATA_DIR } from '../lib/paths.mjs';
import { build, dependencies } from '../lib/prepare.mjs';
import { postgresPrograms } from '../lib/postgres-programs.mjs';
import { say, stop } from '../lib/say.mjs';
import { startServer, stopServer } from '../lib/server.mjs';

/** Write schema and demo data of a release as SQL: `node scripts/tools/dump-schema.mjs 0.1`. Migrations are tested from each such file. */
const name = process.argv[2] ?? stop('say which release it is, like 0.1');
await dependencies();
await build();
const cluster = await openCluster(TEST_DATA_DIR, { fsync: false });
cluster.psql('postgres', 'DROP DATABASE IF EXISTS dump WITH (FORCE)');
cluster.createDatabase('dump');
const { child } = await startServer({
  DATABASE_URL: cluster.url('dump'),
  PORT: '0',
  RUDDY_NOW: DEMO_NOW,
  RUDDY_DEMO_FILE: DEMO_FILE,
  RUDDY_LOG: 'error',
});
await stopServer(child);
// Of the runs those of one setup are enough: their values would make the file large.
cluster.psql(
  'dump',
  `BEGIN; SELECT set_config('ruddy.removing_demo', 'on', true);
   CREATE TEMP TABLE gone ON COMMIT DROP AS SELECT id FROM runs WHERE setup_id <> (SELECT min(setup_id::text)::uuid FROM runs WHERE kind = 'time');
   DELETE FROM runs WHERE id IN (SELECT id FROM gone); DELETE FROM events WHERE id IN (SELECT id FROM gone);
   DELETE FROM captures c WHERE NOT EXISTS (SELECT 1 FROM run_channels r WHERE r.sha256 = c.sha256); COMMIT`,
);
const { bin, env } = postgresPrograms(TEST_DATA_DIR);
const r = spawnSync(
  join(bin, 'pg_dump'),
  ['--inserts', '--no-owner', '--no-privileges', cluster.url('dump')],
  {
    encoding: 'utf8',
    env: { ...process.env, ...env },
    maxBuffer: 1 << 28,
  },
);
cluster.close();
if (r.status !== 0) stop(r.stderr);
// Lines that only psql understands, or that name the version of the program, are left out.
const sql = r.stdout
  .split('\n')
  .filter((l) => !l.startsWith('--') && !l.startsWith('\\') && l !== '');
mkdirSync(join(ROOT, 'server/test/schemas'), { recursive: true });
writeFileSync(join(ROOT, `server/test/schemas/${name}.sql`), `${sql.join('\n')}\n`);
say(`server/test/schemas/${name}.sql, ${sql.length} lines`);
