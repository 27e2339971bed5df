import { Worker } from 'node:worker_threads';
import { patient } from '../lib/patience.mjs';
import { bundled } from './bundle.mjs';

/** A case that takes longer than this has hung. */
const HUNG_MS = patient(10_000);

/** One stretch of cases in a thread of its own, watched. */
function stretch(url, seed, from, to) {
  const at = new SharedArrayBuffer(4);
  const counter = new Int32Array(at);
  const worker = new Worker(new URL('./fuzz-worker.mjs', import.meta.url), {
    workerData: { url, seed, from, to, at },
  });
  return new Promise((resolve, reject) => {
    let last = -1;
    let since = Date.now();
    const watch = setInterval(() => {
      const now = Atomics.load(counter, 0);
      if (now !== last) {
        last = now;
        since = Date.now();
      } else if (Date.now() - since > HUNG_MS) void end({ hung: now });
    }, 200);
    const end = async (result) => {
      clearInterval(watch);
      await worker.terminate();
      resolve(result);
    };
    worker.on('message', (m) => void end(m));
    worker.on('error', (e) => {
      clearInterval(watch);
      reject(e);
    });
  });
}

/**
 * Broken files for everything that reads files: `cases` of them, made from `seed`. Each is read or refused in words; anything else is a
 * crash, and a case that does not end is a hang.
 */
export async function fuzz({ cases, seed, log = () => undefined }) {
  const module = await bundled('server/test/fuzz/targets.ts', 'fuzz');
  const total = {
    cases: 0,
    read: 0,
    refused: 0,
    crashes: [],
    hangs: [],
    slowest: { ms: 0, name: '' },
    targets: {},
  };
  const began = Date.now();
  const size = 20_000;
  try {
    for (let from = 0; from < cases;) {
      const to = Math.min(cases, from + size);
      const r = await stretch(module.url, seed, from, to);
      if (r.hung !== undefined) {
        total.hangs.push(r.hung);
        total.cases += r.hung - from + 1;
        from = r.hung + 1;
        continue;
      }
      for (const [name, c] of Object.entries(r.counts)) {
        const t = (total.targets[name] ??= { cases: 0, read: 0, refused: 0 });
        for (const k of ['cases', 'read', 'refused']) {
          t[k] += c[k];
          total[k] += c[k];
        }
      }
      total.crashes.push(...r.crashes);
      for (const c of r.crashes)
        log(`case ${c.i}: ${c.name}: ${c.error ?? ''}\n  ${c.input ?? ''}`);
      if (r.slowest.ms > total.slowest.ms) total.slowest = r.slowest;
      from = to;
      if (to % 100_000 === 0)
        log(`${to} cases, ${total.crashes.length} crashes, ${total.hangs.length} hangs`);
    }
  } finally {
    module.remove();
  }
  return { ...total, seconds: Math.round((Date.now() - began) / 1000) };
}
