import { openCluster } from '../lib/cluster.mjs';
import { chromium, CHROMIUM_FLAGS } from '../lib/chromium.mjs';
import { DEMO_FILE, DEMO_NOW, TEST_DATA_DIR, WEB_DIR } from '../lib/paths.mjs';
import { build } from '../lib/prepare.mjs';
import { startServer, stopServer } from '../lib/server.mjs';

/** The built application over a database of its own, empty or with the demo data, and a page of a browser to measure it with. */
export async function openPage({ demo = false } = {}) {
  await build();
  const { default: puppeteer } = await import('puppeteer-core');
  const cluster = await openCluster(TEST_DATA_DIR, { fsync: false });
  const name = `bench_${process.pid}_${Date.now()}`;
  cluster.createDatabase(name);
  const server = await startServer({
    DATABASE_URL: cluster.url(name),
    PORT: '0',
    RUDDY_WEB_DIR: WEB_DIR,
    RUDDY_NOW: DEMO_NOW,
    RUDDY_LOG: 'error',
    ...(demo ? { RUDDY_DEMO_FILE: DEMO_FILE } : { RUDDY_EMPTY: '1' }),
  });
  const browser = await puppeteer.launch({ executablePath: chromium(), args: CHROMIUM_FLAGS });
  const page = await browser.newPage();
  await page.setViewport({ width: 1280, height: 800 });
  return {
    browser,
    page,
    url: `http://127.0.0.1:${server.port}`,
    async close() {
      await browser.close();
      await stopServer(server.child);
      cluster.psql('postgres', `DROP DATABASE IF EXISTS ${name} WITH (FORCE)`);
      cluster.close();
    },
  };
}
