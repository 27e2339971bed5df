import { ROOT } from '../lib/paths.mjs';
import { sideBySide } from '../lib/side-by-side.mjs';
import { load } from './load.mjs';

/**
 * The next best test over the whole net, every condition of a chain taken as met, beside the arithmetic nobody can leave out: one update
 * of all causes by one answer. Medians of rounds that alternate, ms.
 */
export async function nextTestSpeed(rounds = 41, calls = 200) {
  const {
    netOf,
    nextTests,
    CHAIN_CONDITIONS,
    SYMPTOM_IDS,
    TESTS,
    TEST_IDS,
    NO_OBSERVATIONS,
    NO_CARD,
  } = await load(
    `export * from '${ROOT}/core/src/troubleshoot'; export * from '${ROOT}/core/src/base';`,
  );
  const net = netOf(Object.fromEntries(Object.keys(CHAIN_CONDITIONS).map((c) => [c, true])));
  const asked = new Set(TEST_IDS.map((t) => TESTS[t].same));
  // What keeps most tests open: everything seen but what a test looks at, and what says that no card is there.
  const clues = {
    ...NO_OBSERVATIONS,
    symptoms: SYMPTOM_IDS.filter((s) => !asked.has(s) && !NO_CARD.includes(s)),
  };
  // As uncertain as can be: after so much was seen no test would tell anything.
  const p = net.prior;
  const row = net.test('short-cable');
  const update = () => {
    const after = new Float64Array(p.length);
    let sum = 0;
    for (let i = 0; i < p.length; i++) sum += after[i] = p[i] * row[i];
    for (let i = 0; i < p.length; i++) after[i] /= sum;
    return after;
  };
  let open = 0;
  const best = () => (open = nextTests(net, clues, p).length);
  const [ours, reference] = sideBySide(best, update, rounds, calls);
  return {
    oursMs: ours / 1000,
    referenceMs: reference / 1000,
    tests: open,
    causes: net.causes.length,
  };
}

const share = (x) => `${(100 * x).toFixed(1)} %`;

/** How often the troubleshooter finds a hidden fault: all kinds, and those of the bench alone. Lines of text. */
export async function troubleLines({ faults = 300, bench = 120, firstSeed = 200_001 } = {}) {
  const { riddle, benchOnly, solve, studyOf } = await load(`export * from './test/study';`);
  const row = (name, s, limits) =>
    `troubleshooter, ${s.n} hidden faults, ${name} | among the first three after three tests ${share(s.amongThree)} | first ${share(s.first)} | right at the end ${share(s.right)} | median ${s.medianTests} tests | limits ${limits}`;
  const seeds = (n) => Array.from({ length: n }, (_, i) => firstSeed + i);
  return [
    row('all kinds', studyOf(seeds(faults).map((s) => solve(riddle(s)))), '85 and 80 %'),
    row('on the bench alone', studyOf(seeds(bench).map((s) => solve(benchOnly(s)))), '88 %'),
  ];
}
