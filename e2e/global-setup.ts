import { openCluster } from '../scripts/lib/cluster.mjs';
import { DEMO_FILE, DEMO_NOW, TEST_DATA_DIR, WEB_DIR } from '../scripts/lib/paths.mjs';
import { startServer, stopServer } from '../scripts/lib/server.mjs';

/** The database that the tests of a file copy: as the built server leaves it after its first start with the demo data. */
export const DEMO_TEMPLATE = 'e2e_demo_template';

/** One cluster for the run, without fsync, and the template in it. */
export default async function setup(): Promise<() => void> {
  const cluster = await openCluster(TEST_DATA_DIR, { fsync: false });
  cluster.psql('postgres', `DROP DATABASE IF EXISTS ${DEMO_TEMPLATE} WITH (FORCE)`);
  cluster.psql('postgres', `CREATE DATABASE ${DEMO_TEMPLATE}`);
  const { child, port } = await startServer({
    DATABASE_URL: cluster.url(DEMO_TEMPLATE),
    PORT: '0',
    RUDDY_WEB_DIR: WEB_DIR,
    RUDDY_NOW: DEMO_NOW,
    RUDDY_LOG: 'error',
    RUDDY_DEMO_FILE: DEMO_FILE,
  });
  if (port === undefined) throw new Error('the server did not start with the demo data');
  await stopServer(child);
  return () => cluster.close();
}
