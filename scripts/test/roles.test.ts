import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Cluster, ensureDatabase, openCluster } from '../lib/cluster.mjs';
import { DEMO_FILE, DEMO_NOW, TEST_DATA_DIR } from '../lib/paths.mjs';
import { startServer, stopServer } from '../lib/server.mjs';

const database = `roles_${randomUUID().replaceAll('-', '')}`;
let cluster: Cluster;
beforeAll(async () => {
  cluster = await openCluster(TEST_DATA_DIR, { fsync: false });
});
afterAll(() => {
  cluster.psql('postgres', `DROP DATABASE IF EXISTS ${database} WITH (FORCE)`);
  cluster.close();
});

describe('the role of the server', () => {
  it('takes over what an earlier version made as superuser', async () => {
    cluster.psql('postgres', `CREATE DATABASE ${database}`);
    const env = { PORT: '0', RUDDY_NOW: DEMO_NOW, RUDDY_DEMO_FILE: DEMO_FILE, RUDDY_LOG: 'error' };
    const before = await startServer({ ...env, DATABASE_URL: cluster.adminUrl(database) });
    await stopServer(before.child);
    const owners = () =>
      cluster.psql(
        database,
        `SELECT DISTINCT pg_get_userbyid(relowner) FROM pg_class c WHERE relnamespace = 'public'::regnamespace
           AND NOT EXISTS (SELECT 1 FROM pg_depend d WHERE d.objid = c.oid AND d.deptype = 'e')`,
      ).out;
    expect(owners().trim()).toBe('ruddy');
    ensureDatabase(cluster, database);
    expect(owners().trim()).toBe('ruddy_owner');
    const after = await startServer({ ...env, DATABASE_URL: cluster.url(database) });
    const url = `http://127.0.0.1:${after.port}`;
    try {
      const setups = (await (await fetch(`${url}/api/setups`)).json()) as { items: unknown[] };
      expect(setups.items.length).toBeGreaterThan(3);
      // The functions and views behind it belong to the role too.
      const gone = await fetch(`${url}/api/demo`, { method: 'DELETE' });
      expect(gone.status).toBe(200);
    } finally {
      await stopServer(after.child);
    }
    ensureDatabase(cluster, database);
  });
});
