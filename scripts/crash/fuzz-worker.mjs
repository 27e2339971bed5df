import { parentPort, workerData } from 'node:worker_threads';
import { mutate } from './mutate.mjs';
import { chance } from './random.mjs';

/** Reads broken files until told to stop. `at` holds the number of the case it is at, so that one that never ends can be named. */
const { url, seed, from, to, at } = workerData;
const { TARGETS, isRefusal } = await import(url);
const counter = new Int32Array(at);
const counts = Object.fromEntries(TARGETS.map((t) => [t.name, { cases: 0, read: 0, refused: 0 }]));
const crashes = [];
let slowest = { ms: 0, name: '' };

for (let i = from; i < to; i++) {
  Atomics.store(counter, 0, i);
  const target = TARGETS[i % TARGETS.length];
  const input = mutate(target.how, target.samples, chance(seed + i * 7919));
  const c = counts[target.name];
  c.cases++;
  const began = performance.now();
  try {
    await target.read(input);
    c.read++;
  } catch (error) {
    if (isRefusal(error)) c.refused++;
    else if (crashes.length < 50)
      crashes.push({
        i,
        name: target.name,
        error: String(error?.stack ?? error).slice(0, 1500),
        input: input.slice(0, 2000),
      });
    else crashes.push({ i, name: target.name });
  }
  const ms = performance.now() - began;
  if (ms > slowest.ms) slowest = { ms, name: target.name, i };
}
parentPort.postMessage({ counts, crashes, slowest });
