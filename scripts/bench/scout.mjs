import { ROOT } from '../lib/paths.mjs';
import { load } from './load.mjs';

const SIZES = { docks: 300, cards: 400, cables: 20 };
const median = (list) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)];

/**
 * The unavoidable of one combination, over arrays as large as the catalogue: five additions for its price, four minima for its rate, one
 * division for its frames, one mask, one compare with the front.
 */
function reference(lanes, n) {
  const at = (k, scale) =>
    Float64Array.from(
      { length: n },
      (_, i) => scale * (1 + ((i * 7919 + k * 104_729) % 1000) / 1000),
    );
  const price = at(1, 300);
  const link = at(2, 30);
  const slot = at(3, 26);
  const ms = at(4, 12);
  const masks = Int32Array.from({ length: n }, (_, i) => (i % 5 === 0 ? 0 : 1 << (i % 17)));
  let kept = 0;
  let best = 0;
  for (let l = 0; l < lanes; l++) {
    const a = 100 + (l % 50);
    const b = 20 + (l % 7);
    const c = 15 + (l % 11);
    const d = 5 + (l % 3);
    const cable = 24 + (l % 9);
    const port = 26 + (l % 5);
    const bits = l % 13 === 0 ? 2 : 0;
    for (let i = 0; i < n; i++) {
      const money = price[i] + a + b + c + d + (i & 1);
      const rate = Math.min(link[i], slot[i], cable, port, 32);
      const frames = 1000 / (ms[i] + rate);
      if (((masks[i] | bits) & 0x1ffff) !== 0) continue;
      if (frames * 1000 > best * money) {
        best = (frames * 1000) / money;
        kept += 1;
      }
    }
  }
  return kept;
}

/** A whole search and its parts: the join alone beside the reference, first results, and combinations a second. */
export async function scoutSpeed(rounds = 5) {
  const { Ranking, market } = await load(
    `export { Ranking } from '${ROOT}/core/src/buy'; export { market } from '${ROOT}/core/test/scout-catalogue';`,
  );
  const input = market(7, SIZES);
  const clock = () => performance.now();
  const time = (f) => {
    const began = performance.now();
    f();
    return performance.now() - began;
  };
  const first = [];
  const whole = [];
  const join = [];
  const plain = [];
  let total = 0;
  for (let i = 0; i < rounds; i++) {
    const began = performance.now();
    const fresh = new Ranking(input);
    while (fresh.fronts[0].points().length === 0 && !fresh.step(clock() + 10, clock));
    first.push(performance.now() - began);
    fresh.step(Infinity, clock);
    whole.push(performance.now() - began);
    total = fresh.total;
    const again = new Ranking(input, fresh);
    plain.push(time(() => reference(total / SIZES.cards, SIZES.cards)));
    join.push(time(() => again.step(Infinity, clock)));
  }
  return {
    total,
    firstMs: first[0],
    wholeMs: median(whole),
    joinMs: median(join),
    referenceMs: median(plain),
  };
}
if (process.argv[1]?.endsWith('bench/scout.mjs')) console.log(await scoutSpeed());
