import { connect } from 'node:net';
import { openCluster, ensureDatabase } from '../lib/cluster.mjs';
import { patient } from '../lib/patience.mjs';
import { stopServer } from '../lib/server.mjs';
import { serveOn } from './serve.mjs';

const wait = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

/** A client that sends its letters one at a time and never ends. Gives when it was let go, or null while it hangs on. */
function drip(port, begin) {
  const c = { ended: null };
  const socket = connect(port, '127.0.0.1', () => socket.write(begin));
  const timer = setInterval(() => socket.writable && socket.write('x'), 1000);
  const over = () => {
    clearInterval(timer);
    c.ended ??= Date.now();
  };
  socket.on('error', over);
  socket.on('close', over);
  c.close = () => socket.destroy();
  return c;
}

/** A server over a small database, for what needs no particular one. */
async function small(dataDir) {
  const cluster = await openCluster(dataDir);
  ensureDatabase(cluster, 'small');
  const server = await serveOn(cluster.url('small'));
  return { cluster, server, url: `http://127.0.0.1:${server.port}` };
}

const median = (xs) => [...xs].sort((a, b) => a - b)[xs.length >> 1] ?? 0;

/**
 * Two hundred clients that never finish their head, fifty that never finish their body: others are answered meanwhile, and heads that
 * drip are let go. Times in ms.
 */
export async function slowClients({ dataDir, heads = 200, bodies = 50, seconds = 30 }) {
  const { cluster, server, url } = await small(dataDir);
  try {
    const ask = async () => {
      const began = performance.now();
      const r = await fetch(`${url}/api/setups`);
      await r.json();
      return { ok: r.ok, ms: performance.now() - began };
    };
    const alone = [];
    for (let i = 0; i < 50; i++) alone.push((await ask()).ms);
    const began = Date.now();
    const slow = [
      ...Array.from({ length: heads }, () =>
        drip(server.port, 'GET /api/setups HTTP/1.1\r\nHost: 127.0.0.1\r\nX-Slow: '),
      ),
      ...Array.from({ length: bodies }, () =>
        drip(
          server.port,
          'POST /api/parts HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/json\r\nContent-Length: 100000\r\n\r\n{',
        ),
      ),
    ];
    const beside = [];
    let refused = 0;
    while (Date.now() - began < seconds * 1000) {
      const r = await ask();
      if (r.ok) beside.push(r.ms);
      else refused++;
      await wait(50);
    }
    const letGo = slow.slice(0, heads).filter((c) => c.ended !== null);
    slow.forEach((c) => c.close());
    return {
      heads,
      bodies,
      answered: beside.length,
      refused,
      aloneMs: median(alone),
      besideMs: median(beside),
      letGo: letGo.length,
      letGoAfterS: Math.round(Math.max(0, ...letGo.map((c) => c.ended - began)) / 1000),
    };
  } finally {
    await stopServer(server.child);
    cluster.close();
  }
}

/** The database goes away for some seconds and comes back: what is asked meanwhile is refused in words, and afterwards all goes on by itself. */
export async function databaseAway({ dataDir, rounds = 5, awayMs = 3000 }) {
  const { cluster, server, url } = await small(dataDir);
  const total = { rounds, asked: 0, told: 0, wordless: 0, backMs: [] };
  try {
    for (let i = 0; i < rounds; i++) {
      cluster.kill();
      const until = Date.now() + awayMs;
      while (Date.now() < until) {
        const r = await fetch(`${url}/api/setups`);
        const body = await r.json();
        total.asked++;
        if (r.status === 503 && /database is not there/.test(body.title)) total.told++;
        else total.wordless++;
        await wait(100);
      }
      const started = await cluster.again();
      if (started.code !== 0) throw new Error(`the database did not come back: ${started.out}`);
      const began = Date.now();
      const limit = patient(20_000);
      while (!(await fetch(`${url}/api/setups`)).ok && Date.now() - began < limit) await wait(20);
      // Not found again within the limit counts as never.
      total.backMs.push(Date.now() - began < limit ? Date.now() - began : null);
    }
    return total;
  } finally {
    await stopServer(server.child);
    cluster.close();
  }
}
