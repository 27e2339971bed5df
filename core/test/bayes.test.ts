import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type CauseId, SYMPTOM_IDS, type SymptomId, type TestId } from '../src/base';
import {
  after,
  type Answer,
  BESIDE_MINUTES,
  binaryBits,
  type Observations,
  entropyBits,
  gain,
  type Net,
  netFor,
  nextTests,
  NO_OBSERVATIONS,
  posterior,
  bayesFactors,
  twoAtOnce,
} from '../src/troubleshoot';
import { directChain, tunnelChain } from './make';

/** A small net with figures of its own; causes and tests only lend their names. */
function small(prior: number[], symptom: number[][], test: number[][]): Net {
  const whole = netFor(tunnelChain());
  const causes = whole.causes.slice(0, prior.length);
  const tests: TestId[] = (
    ['port-mark', 'approved', 'security', 'plug-seen', 'all-off', 'support-list'] as const
  ).slice(0, test.length);
  const sum = prior.reduce((a, b) => a + b, 0);
  const rowOf = (rows: number[][], at: number) =>
    Float64Array.from(rows[at] ?? prior.map(() => 0.5));
  const cache = new Map<string, Float64Array>();
  const kept = (key: string, make: () => Float64Array) =>
    cache.get(key) ?? (cache.set(key, make()), cache.get(key) as Float64Array);
  return {
    ...whole,
    causes,
    tests,
    prior: Float64Array.from(prior, (p) => p / sum),
    symptom: (id) => kept(id, () => rowOf(symptom, SYMPTOM_IDS.indexOf(id))),
    test: (id) => kept(id, () => rowOf(test, tests.indexOf(id))),
  };
}

const share = fc.double({ min: 0.02, max: 0.98, noNaN: true });
const rows = (n: number, causes: number) =>
  fc.array(fc.array(share, { minLength: causes, maxLength: causes }), {
    minLength: n,
    maxLength: n,
  });
const nets = (causes: number, symptoms: number, tests: number) =>
  fc
    .tuple(
      fc.array(fc.double({ min: 0.1, max: 5, noNaN: true }), {
        minLength: causes,
        maxLength: causes,
      }),
      rows(symptoms, causes),
      rows(tests, causes),
    )
    .map(([prior, s, t]) => ({ prior, s, t, net: small(prior, s, t) }));

describe('TR-02 Bayes against exhaustive enumeration', () => {
  it('the posterior is the observed share of the joint table', () => {
    // Every world: a cause, and each of three tests positive or not. Source: the definition of conditional probability.
    fc.assert(
      fc.property(
        nets(5, 2, 3),
        fc.array(fc.constantFrom('yes', 'no', null), { minLength: 3, maxLength: 3 }),
        ({ prior, s, t, net }, said) => {
          const sum = prior.reduce((a, b) => a + b, 0);
          const joint = prior.map((w, c) => {
            let total = 0;
            for (let world = 0; world < 8; world++) {
              const positive = [0, 1, 2].map((i) => ((world >> i) & 1) === 1);
              const fits = said.every((x, i) => x === null || (x === 'yes') === positive[i]);
              if (!fits) continue;
              let p = w / sum;
              positive.forEach((yes, i) => (p *= yes ? t[i]![c]! : 1 - t[i]![c]!));
              total += p;
            }
            return total * s[0]![c]! * s[1]![c]!;
          });
          const all = joint.reduce((a, b) => a + b, 0);
          const answers = said.flatMap((x, i): Answer[] =>
            x === null ? [] : [{ test: net.tests[i]!, yes: x === 'yes' }],
          );
          const got = posterior(net, {
            ...NO_OBSERVATIONS,
            symptoms: SYMPTOM_IDS.slice(0, 2),
            answers,
          });
          joint.forEach((j, c) => expect(got[c]).toBeCloseTo(j / all, 10));
        },
      ),
    );
  });

  it('the gain of a test is entropy now less expected entropy', () => {
    fc.assert(
      fc.property(nets(6, 1, 1), ({ net }) => {
        const p = posterior(net, { ...NO_OBSERVATIONS, symptoms: SYMPTOM_IDS.slice(0, 1) });
        const [test] = net.tests;
        const then = (yes: boolean) =>
          posterior(net, {
            ...NO_OBSERVATIONS,
            symptoms: SYMPTOM_IDS.slice(0, 1),
            answers: [{ test: test!, yes }],
          });
        const { bits, yes } = gain(net.test(test!), p);
        expect(bits).toBeCloseTo(
          entropyBits(p) - yes * entropyBits(then(true)) - (1 - yes) * entropyBits(then(false)),
          9,
        );
      }),
    );
  });

  it('worked by hand: two causes, one test', () => {
    // Even prior, 0.9 and 0.1: a yes gives 9 to 1; the answer tells 1 - H(0.9) = 0.531 bits.
    const net = small([1, 1], [], [[0.9, 0.1]]);
    expect(
      posterior(net, { ...NO_OBSERVATIONS, answers: [{ test: 'port-mark', yes: true }] })[0],
    ).toBeCloseTo(0.9, 12);
    expect(gain(net.test('port-mark'), net.prior).bits).toBeCloseTo(1 - binaryBits(0.9), 12);
    expect(binaryBits(0.5)).toBe(1);
    expect(binaryBits(0)).toBe(0);
    expect(binaryBits(1)).toBe(0);
  });

  it('no observation leaves the prior; shares always add to 1', () => {
    const net = netFor(tunnelChain());
    expect(Array.from(posterior(net, NO_OBSERVATIONS))).toEqual(
      Array.from(net.prior, (x) => expect.closeTo(x, 12)),
    );
    const answers = net.tests.map((test, i): Answer => ({ test, yes: i % 2 === 0 }));
    const p = posterior(net, { ...NO_OBSERVATIONS, symptoms: SYMPTOM_IDS, answers });
    expect(p.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 12);
    expect(p.every((x) => x >= 0 && x <= 1)).toBe(true);
  });
});

/** Expected entropy after the best way of asking k tests, each once, looked through whole. */
function exhaustive(net: Net, clues: Observations, k: number): number {
  const p = posterior(net, clues);
  if (k === 0) return entropyBits(p);
  const open = net.tests.filter((t) => !clues.answers.some((a) => a.test === t));
  return Math.min(...open.map((t) => expected(net, clues, p, t, (c) => exhaustive(net, c, k - 1))));
}
/** The same when each time the test that tells most is asked. */
function greedy(net: Net, clues: Observations, k: number): number {
  const p = posterior(net, clues);
  if (k === 0) return entropyBits(p);
  const open = net.tests.filter((t) => !clues.answers.some((a) => a.test === t));
  const best = open.reduce((a, b) =>
    gain(net.test(b), p).bits > gain(net.test(a), p).bits ? b : a,
  );
  return expected(net, clues, p, best, (c) => greedy(net, c, k - 1));
}
function expected(
  net: Net,
  clues: Observations,
  p: Float64Array,
  test: TestId,
  then: (c: Observations) => number,
): number {
  const { yes } = gain(net.test(test), p);
  const with_ = (says: boolean): Observations => ({
    ...clues,
    answers: [...clues.answers, { test, yes: says }],
  });
  return yes * then(with_(true)) + (1 - yes) * then(with_(false));
}

describe('TR-02 the greedy way beside the exhaustive one', () => {
  it('greedy choice is never better than exhaustive, and within 0.1 bit', () => {
    const whole = netFor(tunnelChain());
    const losses: number[] = [];
    const piece = fc.tuple(
      fc.shuffledSubarray([...whole.causes.keys()], { minLength: 8, maxLength: 8 }),
      fc.shuffledSubarray([...whole.tests], { minLength: 6, maxLength: 6 }),
    );
    fc.assert(
      fc.property(piece, ([causes, tests]) => {
        const of = (row: Float64Array) => causes.map((c) => row[c] ?? 0);
        const net = small(
          of(whole.prior),
          [],
          tests.map((t) => of(whole.test(t))),
        );
        const loss = greedy(net, NO_OBSERVATIONS, 3) - exhaustive(net, NO_OBSERVATIONS, 3);
        expect(loss).toBeGreaterThan(-1e-9);
        losses.push(loss);
      }),
      { numRuns: 100, seed: 11 },
    );
    expect(Math.max(...losses)).toBeLessThan(0.1);
    // The pieces differ: somewhere the two ways part.
    expect(Math.max(...losses)).toBeGreaterThan(0);
  });
});

describe('TR-02 what counts', () => {
  const net = netFor(tunnelChain());
  const at = (c: CauseId, clues: Partial<Observations>, n = net) =>
    posterior(n, { ...NO_OBSERVATIONS, ...clues })[n.causes.indexOf(c)] ?? 0;

  it('a closer test replaces its symptom, so nothing counts twice', () => {
    const symptoms: SymptomId[] = ['low-copy'];
    const answers: Answer[] = [{ test: 'copy-rate', yes: true }];
    expect(at('cable-class', { symptoms, answers })).toBeCloseTo(
      at('cable-class', { answers }),
      12,
    );
  });

  it('the last answer to a test counts, once', () => {
    const once: Answer[] = [{ test: 'short-cable', yes: true }];
    const turned: Answer[] = [{ test: 'short-cable', yes: false }, ...once];
    expect(at('cable-class', { answers: turned })).toBe(at('cable-class', { answers: once }));
  });

  it('answers impossible here or about nothing seen are left out', () => {
    expect(
      at(
        'direct-cable',
        { answers: [{ test: 'router-listed', yes: true }] },
        netFor(directChain()),
      ),
    ).toBeCloseTo(at('direct-cable', {}, netFor(directChain())), 12);
    expect(at('screen-input', { answers: [{ test: 'no-output', yes: true }] })).toBeCloseTo(
      at('screen-input', {}),
      12,
    );
  });

  it('an ineffective fix speaks against its cause; a resolved one is out', () => {
    const symptoms: SymptomId[] = ['low-copy'];
    const before = at('cable-class', { symptoms });
    expect(at('cable-class', { symptoms, noHelp: ['cable-class'] })).toBeLessThan(before / 3);
    expect(at('cable-class', { symptoms, mended: ['cable-class'] })).toBe(0);
  });

  it('pulls are the ratios that turn the prior into the posterior', () => {
    const clues: Observations = {
      ...NO_OBSERVATIONS,
      symptoms: ['low-copy'],
      answers: [{ test: 'router-speed', yes: true }],
    };
    const list = bayesFactors(net, { ...clues, answers: [] }, 'cable-class');
    const prior = net.prior[net.causes.indexOf('cable-class')] ?? 0;
    const odds = (prior / (1 - prior)) * (list[0]?.times ?? 0);
    expect(odds / (1 + odds)).toBeCloseTo(at('cable-class', { symptoms: ['low-copy'] }), 10);
    expect(bayesFactors(net, clues, 'direct-live')).toEqual([]);
  });

  it('offers are ordered by bits for each minute, two minutes beside each', () => {
    const clues: Observations = { ...NO_OBSERVATIONS, symptoms: ['nothing-listed'] };
    const offers = nextTests(net, clues, posterior(net, clues));
    expect(offers.length).toBeGreaterThan(5);
    for (const [i, o] of offers.entries()) {
      expect(o.worth).toBeCloseTo(o.bits / (o.minutes + BESIDE_MINUTES), 12);
      expect(o.worth).toBeLessThanOrEqual(offers[i - 1]?.worth ?? Infinity);
    }
    const refused = nextTests(net, clues, posterior(net, clues), new Set([offers[0]!.test]));
    expect(refused.map((o) => o.test)).not.toContain(offers[0]!.test);
  });

  it('the forecast of an answer equals the posterior after it', () => {
    const clues: Observations = { ...NO_OBSERVATIONS, symptoms: ['low-copy'] };
    const p = posterior(net, clues);
    const then = after(net, p, 'router-speed', true);
    expect(then.p).toBeCloseTo(
      at(then.cause, { symptoms: ['low-copy'], answers: [{ test: 'router-speed', yes: true }] }),
      10,
    );
  });
});

describe('TR-02 two at once', () => {
  it('rises where no single cause explains all, and names two that do', () => {
    const net = netFor(tunnelChain());
    const one = twoAtOnce(net, { ...NO_OBSERVATIONS, symptoms: ['low-copy'] });
    const two = twoAtOnce(net, { ...NO_OBSERVATIONS, symptoms: ['router-slow', 'no-picture'] });
    expect(two!.share).toBeGreaterThan(2 * one!.share);
    expect([...two!.causes].sort()).toEqual(['cable-class', 'screen-input']);
  });

  it('0.7 is shown by noisy-or of two causes of 0.5 and 0.4', () => {
    // 1 - 0.5 * 0.6 = 0.7; with even priors the pair weighs 0.25 * 0.7 * 0.05 beside 0.5 * 0.5 + 0.5 * 0.4.
    const net = small([1, 1], [[0.5, 0.4]], []);
    const pair = 0.25 * 0.7 * 0.05;
    expect(
      twoAtOnce(net, { ...NO_OBSERVATIONS, symptoms: SYMPTOM_IDS.slice(0, 1) })!.share,
    ).toBeCloseTo(pair / (pair + 0.45), 12);
  });
});
