import type { TestProject } from 'vitest/node';
import { openCluster } from '../scripts/lib/cluster.mjs';
import { DEMO_FILE, DEMO_NOW, TEST_DATA_DIR, WEB_DIR } from '../scripts/lib/paths.mjs';
import { startServer, stopServer } from '../scripts/lib/server.mjs';

declare module 'vitest' {
  interface ProvidedContext {
    /** The database that the tests of a file copy: as the built server leaves it after its first start with the demo data. */
    demoTemplate: string;
  }
}

/** One cluster for the run, without fsync, and the template in it. */
export default async function setup(project: TestProject): Promise<() => void> {
  const cluster = await openCluster(TEST_DATA_DIR, { fsync: false });
  // Parts of the suite may run beside each other: each has a template of its own.
  const template = `e2e_demo_${process.pid}`;
  const drop = () => cluster.psql('postgres', `DROP DATABASE IF EXISTS ${template} WITH (FORCE)`);
  drop();
  cluster.createDatabase(template);
  const { child, port } = await startServer({
    DATABASE_URL: cluster.url(template),
    PORT: '0',
    RUDDY_WEB_DIR: WEB_DIR,
    RUDDY_NOW: DEMO_NOW,
    RUDDY_LOG: 'error',
    RUDDY_DEMO_FILE: DEMO_FILE,
  });
  if (port === undefined) throw new Error('the server did not start with the demo data');
  await stopServer(child);
  project.provide('demoTemplate', template);
  return () => {
    drop();
    cluster.close();
  };
}
