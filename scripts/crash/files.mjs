import { readFileSync } from 'node:fs';
import { Worker } from 'node:worker_threads';
import { ensureDatabase, openCluster } from '../lib/cluster.mjs';
import { stopServer } from '../lib/server.mjs';
import { serveOn } from './serve.mjs';

const MB = 1e6;
const fill = (byte, mb) => Buffer.alloc(mb * MB, byte);
const text = (s) => Buffer.from(s);
const bundle = (rest) => text(`{"format":"ruddy-bridge/bundle","version":1,${rest}}`);
const repeat = (unit, mb) => unit.repeat(Math.round((mb * MB) / unit.length));

const CABLES = '/api/imports?kind=cable&mode=try';
const PARTS = '/api/imports?mode=try&name=x.json';
const LOG = '/api/log/imports?mode=try&name=log.csv';
const LOADS = '/api/bundle-loads?name=all.json';
const CSV = 'text/csv';
const JSON_TYPE = 'application/json';
const CABLE_HEAD = 'maker,model,variant,connector,construction,lengthMm,markedGbps,markedW\n';

/** Files as somebody's disk may hold them, and as somebody may make them on purpose; MB, address, type. */
const FILES = {
  'commas, 60 MB': [() => fill(44, 60), CABLES, CSV],
  'line ends, 60 MB': [() => fill(10, 60), CABLES, CSV],
  'quotes, 60 MB': [() => fill(34, 60), CABLES, CSV],
  'zeros, 60 MB': [() => fill(0, 60), CABLES, CSV],
  'a log of another program, 100 MB': [
    () => text(repeat('2026-01-01 something happened, then more of it\n', 100)),
    LOG,
    CSV,
  ],
  'parts, 99,000 rows': [
    () =>
      text(
        CABLE_HEAD +
          Array.from(
            { length: 99_000 },
            (_, i) => `Lea,N-${i},,usb-c,passive,${300 + (i % 900)},40,100`,
          ).join('\n'),
      ),
    CABLES,
    CSV,
  ],
  'a list in JSON, 60 MB': [() => bundle(`"parts":[${repeat('0,', 60)}0]`), PARTS, JSON_TYPE],
  'junk in JSON, 60 MB': [() => bundle(`"junk":[${repeat('0,', 60)}0]`), PARTS, JSON_TYPE],
  'a text in JSON, 60 MB': [() => bundle(`"parts":["${repeat('x', 60)}"]`), PARTS, JSON_TYPE],
  'open lists, 60 MB': [() => bundle(`"parts":${repeat('[', 60)}`), PARTS, JSON_TYPE],
  'many members, 60 MB': [
    () => bundle(Array.from({ length: 4_000_000 }, (_, i) => `"k${i}":0`).join(',')),
    PARTS,
    JSON_TYPE,
  ],
  'a file of everything, 100 MB': [
    () => bundle(`"parts":[${repeat(`{"a":"${'x'.repeat(1000)}"},`, 100)}{}]`),
    LOADS,
    JSON_TYPE,
  ],
  'log entries, 100 MB': [
    () => bundle(`"outcomes":[${repeat('{"id":"a"},', 100)}{}]`),
    LOG,
    JSON_TYPE,
  ],
};

/** Asks for the health in a thread of its own: the one that sends large files is busy with them. */
function healthWatch(url) {
  const worker = new Worker(new URL('./health-worker.mjs', import.meta.url), {
    workerData: { url },
  });
  return () =>
    new Promise((resolve, reject) => {
      worker.once('error', reject);
      worker.once('message', (m) => void worker.terminate().then(() => resolve(m)));
      worker.postMessage('stop');
    });
}

const memoryMb = (pid) =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1024;

async function ended(url, job) {
  let now = job;
  while (now.state === 'running') {
    await new Promise((resolve) => setTimeout(resolve, 100));
    now = await (await fetch(`${url}/api/jobs/${job.id}`)).json();
  }
  return now;
}

/** One file: how long others waited meanwhile, and what memory it took. */
async function send(server, url, [make, address, type]) {
  const body = make();
  const restMb = memoryMb(server.child.pid);
  let peakMb = restMb;
  const watch = setInterval(() => (peakMb = Math.max(peakMb, memoryMb(server.child.pid))), 20);
  const health = healthWatch(url);
  const r = await fetch(url + address, { method: 'POST', headers: { 'content-type': type }, body });
  const end = r.status === 202 ? await ended(url, await r.json()) : await r.json();
  const { worstMs, asked } = await health();
  clearInterval(watch);
  const said = end.message || end.detail || end.state || `status ${r.status}`;
  return { worstMs, asked, addedMb: peakMb - restMb, said, answered: r.status < 500 };
}

/**
 * Large and hostile files to a server, one after another: health and memory while each is read. `held` seeds a defect:
 * the server is stopped for half a second while the first file is read.
 */
export async function files({ dataDir, only = Object.keys(FILES), held = false }) {
  const cluster = await openCluster(dataDir);
  ensureDatabase(cluster, 'files');
  const server = await serveOn(cluster.url('files'));
  const url = `http://127.0.0.1:${server.port}`;
  const beforeMb = memoryMb(server.child.pid);
  const results = [];
  try {
    for (const name of only) {
      if (held) {
        // One after the other: on a busy machine the first may come late, and the half second counts from there.
        setTimeout(() => {
          server.child.kill('SIGSTOP');
          setTimeout(() => server.child.kill('SIGCONT'), 500);
        }, 100);
      }
      results.push({ name, ...(await send(server, url, FILES[name])) });
    }
  } finally {
    await stopServer(server.child);
    cluster.close();
  }
  const worst = (key) => [...results].sort((a, b) => b[key] - a[key])[0];
  return {
    results,
    beforeMb,
    slowest: worst('worstMs'),
    largest: worst('addedMb'),
    unanswered: results.filter((r) => !r.answered).length,
  };
}
