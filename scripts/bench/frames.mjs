import { ROOT } from '../lib/paths.mjs';
import { load } from './load.mjs';

const FRAMES = 100_000;

/** A hundred thousand frames drawn by chance, and the random numbers they take alone: medians of rounds that alternate, ms. */
export async function simulateSpeed(rounds = 21) {
  const { simulateFrames, randomLcg, randomNormal } = await load(
    `export { simulateFrames } from '${ROOT}/core/src/runs'; export { randomLcg, randomNormal } from 'd3-random';`,
  );
  const frame = { processorMs: 7, cardMs: 9.7, linkMs: 3, panelMs: 0, capMs: 0, downGbps: 26 };
  const rough = { jitter: 0.08, burstsPerS: 0.3, burstMB: 120 };
  let kept = 0;
  const ours = () => {
    kept += simulateFrames(frame, rough, FRAMES, 0.5)[FRAMES - 1];
  };
  const reference = () => {
    const normal = randomNormal.source(randomLcg(0.5))(0, rough.jitter);
    // Three stages scatter in each frame.
    for (let i = 0; i < 3 * FRAMES; i++) kept += normal();
  };
  const time = (f) => {
    const began = performance.now();
    f();
    return performance.now() - began;
  };
  const a = [];
  const b = [];
  for (let i = 0; i < rounds + 3; i++) {
    const x = time(ours);
    const y = time(reference);
    if (i >= 3) {
      a.push(x);
      b.push(y);
    }
  }
  if (!Number.isFinite(kept)) throw new Error('frames were lost');
  const median = (xs) => xs.sort((x, y) => x - y)[xs.length >> 1];
  return [median(a), median(b)];
}

/** How often each alarm is raised where nothing is wrong. Lines of text. */
export async function alarmLines({ rigs = 200, firstSeed = 120_001 } = {}) {
  const { falseAlarms } = await load(`export { falseAlarms } from './test/false-alarms';`);
  const raised = falseAlarms(firstSeed, 2 * rigs);
  return Object.entries(raised).map(
    ([id, n]) => `alarm ${id} | raised on ${n} of ${2 * rigs} clean rigs | limit 5 %`,
  );
}
