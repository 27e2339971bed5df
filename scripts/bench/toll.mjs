import { ROOT } from '../lib/paths.mjs';
import { load } from './load.mjs';

const FRAMES = 100_000;

/** A hundred thousand frames drawn by chance, and the random numbers they take alone: medians of rounds that alternate, ms. */
export async function simulateSpeed(rounds = 21) {
  const { simulateFrames, randomLcg, randomNormal } = await load(
    `export { simulateFrames } from '${ROOT}/core/src/runs'; export { randomLcg, randomNormal } from 'd3-random';`,
  );
  const params = {
    cpuMs: 7,
    cardMs: 6,
    exponent: 0.85,
    trafficMB: 9,
    streamed: 0.2,
    trips: 300,
    kappa: 0.7,
    workingGB: 4,
    touched: 0.02,
  };
  const rig = { downGbps: 26, upGbps: 25.3, latencyUs: 2.2, memoryGB: 8 };
  const scene = { pixels: 2560 * 1440, panel: false, capFps: null };
  const rough = { jitter: 0.08, burstsPerS: 0.3, burstMB: 120 };
  let kept = 0;
  const ours = () => {
    kept += simulateFrames(params, rig, scene, rough, FRAMES, 0.5)[FRAMES - 1];
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

const share = (n, of) => `${n} of ${of}, ${((100 * n) / Math.max(1, of)).toFixed(0)} %`;

/**
 * How often the limiter is right on made rigs, inside and outside of what it takes for granted, with and without a pair of runs; whom it
 * takes for whom; and how often each alarm is raised where nothing is wrong. Lines of text.
 */
export async function limiterLines({ rigs = 200, firstSeed = 120_001 } = {}) {
  const { tallyOf, falseAlarms, ODDITIES } = await load(
    `export { tallyOf } from './test/confusion'; export { falseAlarms } from './test/false-alarms'; export { ODDITIES } from './src/frames';`,
  );
  const lines = [];
  const row = (name, t) =>
    lines.push(
      `limiter, ${name} | named rightly ${share(t.right, t.clear)} | wrongly ${share(t.wrong, t.clear)} | cannot tell ${t.open} | two alike, said so ${share(t.saidNear, t.near)} | shares in their interval ${share(t.inside, t.shares)}`,
    );
  const inside = tallyOf(firstSeed, rigs);
  row('inside its assumptions', inside);
  row('the same without a pair', tallyOf(firstSeed, rigs, 'none', { pair: false }));
  row('the same without meters', tallyOf(firstSeed, rigs, 'none', { meters: false }));
  for (const odd of ODDITIES.filter((o) => o !== 'none'))
    row(`outside: ${odd}`, tallyOf(firstSeed, rigs / 2, odd));
  const said = ['cpu', 'card', 'link', 'cannot tell'];
  for (const [truth, counts] of Object.entries(inside.table))
    lines.push(
      `confusion, truly ${truth} | ${said.map((s) => `said ${s} ${counts[s] ?? 0}`).join(' | ')}`,
    );
  const raised = falseAlarms(firstSeed, 2 * rigs);
  for (const [id, n] of Object.entries(raised))
    lines.push(`alarm ${id} | raised on ${n} of ${2 * rigs} clean rigs | limit 5 %`);
  return lines;
}
