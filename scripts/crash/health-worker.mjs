import { parentPort, workerData } from 'node:worker_threads';

/** Asks a server for its health every 20 ms until told to stop; says the longest wait, ms. */
let worstMs = 0;
let asked = 0;
let stop = false;
parentPort.once('message', () => (stop = true));
while (!stop) {
  const began = performance.now();
  await fetch(`${workerData.url}/api/health`).then((r) => r.arrayBuffer());
  worstMs = Math.max(worstMs, performance.now() - began);
  asked += 1;
  await new Promise((resolve) => setTimeout(resolve, 20));
}
parentPort.postMessage({ worstMs, asked });
