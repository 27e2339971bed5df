import { clearTimeout, setTimeout } from 'node:timers';
import { Worker } from 'node:worker_threads';
import { patient } from '../lib/patience.mjs';
import { bundled } from './bundle.mjs';

/** A reading that takes longer has hung; its thread is ended and the next one goes on. */
const HUNG_MS = patient(120_000);

function from(at, given, results) {
  const worker = new Worker(new URL('./growth-worker.mjs', import.meta.url), {
    workerData: { ...given, from: at },
  });
  let current = { at, name: '' };
  return new Promise((resolve, reject) => {
    let timer = setTimeout(hung, HUNG_MS);
    function hung() {
      results.push({ name: current.name, value: Infinity, ms: HUNG_MS });
      void worker.terminate().then(() => resolve(current.at + 1));
    }
    worker.on('error', reject);
    worker.on('message', (m) => {
      clearTimeout(timer);
      if (m.done) return void worker.terminate().then(() => resolve(null));
      if (m.at !== undefined) current = m;
      else results.push(m);
      timer = setTimeout(hung, HUNG_MS);
    });
  });
}

/**
 * How the time of every reader grows with the length of hostile texts: ×1, ×4 and ×16 of `base` characters. The
 * exponent is 1 where twice the text takes twice the time, 2 where it takes four times.
 */
export async function growth({ base = 16_384, defect = false, only = null }) {
  const module = await bundled('server/test/fuzz/targets.ts', 'growth');
  const results = [];
  try {
    for (let at = 0; at !== null;)
      at = await from(at, { url: module.url, base, defect, only }, results);
  } finally {
    module.remove();
  }
  const measured = results.filter((r) => r.value !== null).sort((a, b) => b.value - a.value);
  return {
    tried: results.length,
    measured: measured.length,
    worst: measured[0] ?? null,
    over: measured.filter((r) => r.value > 1.2),
  };
}
