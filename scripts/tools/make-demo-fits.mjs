import { randomUUID } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import { openCluster } from '../lib/cluster.mjs';
import { DEMO_FILE, DEMO_NOW, TEST_DATA_DIR } from '../lib/paths.mjs';
import { build, dependencies } from '../lib/prepare.mjs';
import { startServer, stopServer } from '../lib/server.mjs';

/**
 * Calibrate the titles of the demo by the program itself, as on the days they are dated, and keep the results in the demo file:
 * `node scripts/tools/make-demo-fits.mjs`, after `node demo/make-runs.mjs`.
 */
const DAYS = [
  ['title.lanterns', '2026-10-15T09:00:00.000Z'],
  ['title.rally', '2026-10-15T09:10:00.000Z'],
  ['title.lanterns', '2026-11-06T09:00:00.000Z'],
];
await dependencies();
await build();
const bundle = JSON.parse(readFileSync(DEMO_FILE, 'utf8'));
for (const p of bundle.profiles) p.fits = [];
writeFileSync(DEMO_FILE, `${JSON.stringify(bundle, null, 2)}\n`);
const cluster = await openCluster(TEST_DATA_DIR, { fsync: false });
cluster.psql('postgres', 'DROP DATABASE IF EXISTS fits WITH (FORCE)');
cluster.psql('postgres', 'CREATE DATABASE fits');
const env = {
  DATABASE_URL: cluster.url('fits'),
  PORT: '0',
  RUDDY_NOW: DEMO_NOW,
  RUDDY_DEMO_FILE: DEMO_FILE,
  RUDDY_LOG: 'error',
};
const { child, port } = await startServer(env);
const api = async (path, body) => {
  const init = body && {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(body),
  };
  const r = await fetch(`http://127.0.0.1:${port}/api${path}`, init);
  if (!r.ok) throw new Error(`${path}: ${r.status} ${await r.text()}`);
  return r.json();
};
const known = (await api('/profiles')).items;
for (const [i, [id, before]] of DAYS.entries()) {
  const title = bundle.profiles.find((p) => p.id === id);
  const { fit } = await api(`/profiles/${known.find((p) => p.name === title.name).id}/fits`, {
    id: randomUUID(),
    before,
  });
  title.fits.push({ id: `fit.${i}`, madeAt: before, fit });
  process.stdout.write(
    `${title.name} ${before}: ${fit.cells} cells, ${fit.refused ?? `left out ${fit.left.rms}`}\n`,
  );
}
await stopServer(child);
cluster.close();
writeFileSync(DEMO_FILE, `${JSON.stringify(bundle, null, 2)}\n`);
