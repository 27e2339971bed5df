import { createServer } from 'node:net';
import { networkInterfaces } from 'node:os';
import { requireNode, say, stop } from './lib/say.mjs';

requireNode();
const began = Date.now();
const { BACKUP_DIR, DATA_DIR, DEMO_FILE, WEB_DIR } = await import('./lib/paths.mjs');
const { dependencies, build } = await import('./lib/prepare.mjs');
const { openCluster, ensureDatabase } = await import('./lib/cluster.mjs');
const { startServer, stopServer } = await import('./lib/server.mjs');
const { supervise } = await import('./lib/supervise.mjs');

const empty =
  process.argv.includes('--empty') ||
  process.env.RUDDY_EMPTY === '1' ||
  Boolean(process.env.npm_config_empty);
const port = Number(process.env.PORT ?? 4310);
const host = process.env.HOST || '127.0.0.1';

function taken() {
  return new Promise((resolve) => {
    const s = createServer();
    s.once('error', (e) => resolve(e.code === 'EADDRINUSE'));
    s.listen(port, host, () => s.close(() => resolve(false)));
  });
}
/** Where a browser finds it: this machine first, then the addresses it has in its networks. */
function addressesOf(bound) {
  if (bound !== '0.0.0.0' && bound !== '::') return [bound.includes(':') ? `[${bound}]` : bound];
  const all = Object.values(networkInterfaces()).flatMap((list) => list ?? []);
  return [
    '127.0.0.1',
    ...all.filter((a) => !a.internal && a.family === 'IPv4').map((a) => a.address),
  ];
}
if (!Number.isInteger(port) || port < 0 || port > 65535)
  stop(`PORT=${process.env.PORT} is not a port`);
if (await taken()) stop(`port ${port} is taken; set PORT to another one, like PORT=4311 npm start`);

await dependencies();
await build();

let cluster = null;
let feeds = null;
let server = null;
let leaving = false;
async function leave(code) {
  if (leaving) return;
  leaving = true;
  await server?.stop();
  feeds?.close();
  cluster?.close();
  process.exit(code);
}
process.on('SIGINT', () => void leave(0));
process.on('SIGTERM', () => void leave(0));

if (!process.env.DATABASE_URL) {
  cluster = await openCluster(DATA_DIR);
  if (cluster.recovered)
    say('The last run did not end cleanly; its database was found running and is used again.');
  ensureDatabase(cluster, 'ruddy');
}
const environment = {
  DATABASE_URL: process.env.DATABASE_URL ?? cluster.url('ruddy'),
  RUDDY_RESTORE_URL: process.env.RUDDY_RESTORE_URL ?? cluster?.restoreUrl('ruddy') ?? '',
  PORT: String(port),
  HOST: host,
  ...cluster?.programs.env,
  RUDDY_PG_BIN: cluster?.programs.bin ?? '',
  RUDDY_BACKUP_DIR: BACKUP_DIR,
  RUDDY_WEB_DIR: WEB_DIR,
  RUDDY_DEMO_FILE: DEMO_FILE,
  RUDDY_EMPTY: empty ? '1' : '',
  RUDDY_LOG: process.env.RUDDY_LOG ?? 'error',
};
let bound = port;
server = await supervise(
  async () => {
    const begun = await startServer({ ...environment, PORT: String(bound) });
    // Whoever asked for any free port finds the server there again.
    bound = begun.port ?? bound;
    return begun;
  },
  { stopChild: stopServer },
);
const started = server.first;
if (!empty && started.code === undefined) {
  const { startFeeds, FEED_PORT } = await import('./tools/feed-server.mjs');
  feeds = await startFeeds();
  if (!feeds) say(`Port ${FEED_PORT} is taken, so the stand-in feeds of the examples do not run.`);
}
if (started.code !== undefined) await leave(1);
const took = ((Date.now() - began) / 1000).toFixed(1);
const addresses = addressesOf(host).map((a) => `http://${a}:${started.port}`);
const at = process.env.RUDDY_PUBLIC_URL ?? addresses[0];
say(`Ruddy Bridge is at ${at}   (ready after ${took} s; Ctrl-C stops it)`);
if (!process.env.RUDDY_PUBLIC_URL && addresses.length > 1)
  say(`  from other machines, and a phone beside the bench: ${addresses.slice(1).join('  ')}`);
if (host !== '127.0.0.1' && !process.env.RUDDY_PUBLIC_URL?.startsWith('https'))
  say(
    '  The way in is not encrypted: use it in a network you trust, or put a proxy with a certificate in front (RUDDY_PUBLIC_URL).',
  );
