import { pathToFileURL } from 'node:url';
import { build } from 'esbuild';
import type { TestProject } from 'vitest/node';
import { connect } from '../src/platform/db/connect';
import { migrate } from '../src/platform/db/migrate';
import { defineModels } from '../src/models';
import { firstStart } from '../src/workshop/demo';
import { openCluster } from '../../scripts/lib/cluster.mjs';
import { DEMO_FILE, DEMO_NOW, TEST_DATA_DIR } from '../../scripts/lib/paths.mjs';
import { PROGRAM_OPTIONS, THREADS } from '../../scripts/lib/server-programs.mjs';

declare module 'vitest' {
  interface ProvidedContext {
    adminUrl: string;
    /** The database `postgres` as the server's own role, and as that of restores, come in. */
    ownerUrl: string;
    restoreUrl: string;
    threads: string;
  }
}

/** One cluster for the run, without fsync, and two templates that test files copy: migrated and empty, and with the demo data. */
export default async function setup(project: TestProject): Promise<() => void> {
  const cluster = await openCluster(TEST_DATA_DIR, { fsync: false });
  for (const name of ['ruddy_template', 'ruddy_demo_template'])
    cluster.psql('postgres', `DROP DATABASE IF EXISTS ${name} WITH (FORCE)`);
  cluster.createDatabase('ruddy_template');
  const db = connect(cluster.url('ruddy_template'));
  defineModels(db);
  await migrate(db);
  await db.close();
  cluster.createDatabase('ruddy_demo_template', 'ruddy_template');
  const demo = connect(cluster.url('ruddy_demo_template'));
  defineModels(demo);
  await firstStart({ now: () => new Date(DEMO_NOW) }, DEMO_FILE);
  await demo.close();
  // The programs of threads are files of their own: threads do not go through the test runner's transforms.
  await build({ ...PROGRAM_OPTIONS, entryPoints: THREADS, outdir: TEST_DATA_DIR });
  project.provide('threads', pathToFileURL(`${TEST_DATA_DIR}/`).href);
  project.provide('adminUrl', cluster.adminUrl('postgres'));
  project.provide('ownerUrl', cluster.url('postgres'));
  project.provide('restoreUrl', cluster.restoreUrl('postgres'));
  return () => cluster.close();
}
