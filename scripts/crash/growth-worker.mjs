import { parentPort, workerData } from 'node:worker_threads';
import { inside, SHAPES } from './shapes.mjs';

/*
 * Reads each shape at three sizes and says how the processor time grows. In a thread, because a reader that grows
 * quadratically may not come back; the thread is ended then.
 */
const { url, from, base, defect, only } = workerData;
const { TARGETS } = await import(url);

/** Grows quadratically on purpose, to show that this would be seen. */
const DEFECT = {
  name: 'a seeded defect',
  how: 'text',
  samples: ['a'],
  read: (t) => {
    let seen = 0;
    for (let i = 0; i < t.length; i += 4) seen += t.indexOf('\u0000', i);
    return seen;
  },
};

async function cpuMs(target, text) {
  const began = process.cpuUsage();
  try {
    await target.read(text);
  } catch {
    // A refusal is an answer; what is counted here is how long it took.
  }
  const { user, system } = process.cpuUsage(began);
  return (user + system) / 1000;
}
async function least(target, text, times) {
  let best = Infinity;
  for (let i = 0; i < times && (i === 0 || best < 2000); i++)
    best = Math.min(best, await cpuMs(target, text));
  return best;
}

/** Below this a time says nothing about growth: collecting memory alone takes as long. */
const FLAT_MS = 40;
/** A size more is not tried when it would take longer. */
const LONGEST_MS = 20_000;

async function exponent(target, text, times) {
  const four = await least(target, text(4 * base), times);
  // The last step alone: what every call costs counts less the larger the text is.
  if (four * 16 > LONGEST_MS) {
    const one = await least(target, text(base), times);
    return { ms: four, value: Math.log(four / one) / Math.log(4) };
  }
  const sixteen = await least(target, text(16 * base), times);
  if (sixteen < FLAT_MS) return { ms: sixteen, value: null };
  return { ms: sixteen, value: Math.log(sixteen / four) / Math.log(4) };
}

const targets = defect ? [DEFECT] : TARGETS;
const shapes = Object.entries(SHAPES).filter(([name]) => !only || only.includes(name));
const places = ['alone', 'inside'];
const all = targets.flatMap((t) =>
  shapes.flatMap(([s, make]) => places.map((p) => [t, s, make, p])),
);
for (let i = from; i < all.length; i++) {
  const [target, shape, make, place] = all[i];
  const sample = target.samples[0] ?? '';
  const text = (n) => (place === 'alone' ? make(n) : inside(target.how, sample, make(n)));
  parentPort.postMessage({ at: i, name: `${target.name}, ${shape}, ${place}`, of: all.length });
  let found = await exponent(target, text, 1);
  // What looks bad is measured again, and what is in doubt on longer texts, where collecting memory counts for less.
  if (found.value > 1.6) found = await exponent(target, text, 2);
  for (let again = 0; again < 3 && found.value > 1.2 && found.value <= 1.6; again++) {
    const now = await exponent(target, (n) => text(4 * n), 5);
    if (now.value === null || now.value < found.value) found = now;
  }
  parentPort.postMessage({ name: `${target.name}, ${shape}, ${place}`, ...found });
}
parentPort.postMessage({ done: true });
