import type { CauseId, SymptomId, TestId } from '../base';
import type { Observations, RankedCause } from './bayes';
import type { Net } from './chain-net';
import { TESTS } from './net';

/** Minutes that any test costs beside its own: walking over, looking, writing down. */
export const BESIDE_MINUTES = 2;

/**
 * Entropy of a yes or no.
 *
 * Source: C. E. Shannon, Bell System Technical Journal 27 (1948), 379-423.
 * @param p chance of yes, from 0 to 1
 * @returns bits
 * @example binaryBits(0.5) // => 1
 */
export function binaryBits(p: number): number {
  return p <= 0 || p >= 1 ? 0 : -(p * Math.log2(p) + (1 - p) * Math.log2(1 - p));
}

/**
 * Entropy of a distribution.
 *
 * Source: C. E. Shannon, Bell System Technical Journal 27 (1948), 379-423.
 * @param p shares that add up to 1
 * @returns bits
 * @example entropyBits([0.25, 0.25, 0.25, 0.25]) // => 2
 */
export function entropyBits(p: Float64Array): number {
  return p.reduce((sum, x) => (x > 0 ? sum - x * Math.log2(x) : sum), 0);
}

export interface Offer {
  readonly test: TestId;
  readonly minutes: number;
  /** Expected gain: what the answer tells of the cause, bits. */
  readonly bits: number;
  /** Bits for each minute, the two minutes beside it included. */
  readonly worth: number;
  /** How likely the answer is yes. */
  readonly yes: number;
}

const entropies = new WeakMap<Float64Array, Float64Array>();
function rowBits(row: Float64Array): Float64Array {
  const known = entropies.get(row);
  if (known) return known;
  const made = row.map(binaryBits);
  entropies.set(row, made);
  return made;
}

/**
 * Expected information gain of a test: the mutual information of answer and cause, H(answer) less H(answer given
 * cause).
 *
 * Source: C. E. Shannon, Bell System Technical Journal 27 (1948), symmetry of mutual information.
 * @param row chance of yes by cause
 * @param p shares of the causes, in the same order, that add up to 1
 * @returns bits, and the chance of yes
 * @example gain([1, 0], [0.5, 0.5]) // => { bits: 1, yes: 0.5 }
 */
export function gain(row: Float64Array, p: Float64Array): { bits: number; yes: number } {
  const inner = rowBits(row);
  let yes = 0;
  let noise = 0;
  for (let i = 0; i < p.length; i++) {
    const x = p[i] ?? 0;
    yes += x * (row[i] ?? 0);
    noise += x * (inner[i] ?? 0);
  }
  return { bits: Math.max(0, binaryBits(yes) - noise), yes };
}

/** With one of these there is no card at work that could be read. */
export const NO_CARD: readonly SymptomId[] = [
  'nothing-listed',
  'router-no-card',
  'not-at-start',
  'no-lamp',
  'host-dead',
  'update-stuck',
  'does-not-fit',
];

/**
 * Tests that may be offered now: possible on this chain, not answered or refused since something changed, and about
 * what was seen.
 * @param net causes, symptoms and tests of a chain
 * @param clues symptoms seen and tests answered
 * @param refused tests that are not to be offered
 * @returns tests
 */
export function openTests(net: Net, clues: Observations, refused: ReadonlySet<TestId>): TestId[] {
  const answered = new Set(clues.answers.map((a) => a.test));
  const seen = new Set<string>(clues.symptoms);
  const gone = NO_CARD.some((s) => seen.has(s));
  return net.tests.filter((id) => {
    const { after, same, needsCard } = TESTS[id];
    if (needsCard && gone) return false;
    if (answered.has(id) || refused.has(id) || (same !== undefined && seen.has(same))) return false;
    return after === undefined || after.some((s) => seen.has(s));
  });
}

/**
 * Safe tests by what they tell for each minute. Those that tell nothing are left out.
 * @param net causes, symptoms and tests of a chain
 * @param clues symptoms seen and tests answered
 * @param p shares in order of `net.causes`
 * @param refused tests that are not to be offered
 * @returns best first, gain in bits
 */
export function nextTests(
  net: Net,
  clues: Observations,
  p: Float64Array,
  refused: ReadonlySet<TestId> = new Set(),
): Offer[] {
  const offers = openTests(net, clues, refused).map((test): Offer => {
    const { minutes } = TESTS[test];
    const { bits, yes } = gain(net.test(test), p);
    return { test, minutes, bits, yes, worth: bits / (minutes + BESIDE_MINUTES) };
  });
  return offers.filter((o) => o.bits >= MIN_BITS).sort((a, b) => b.worth - a.worth);
}

/** Less than this a test does not tell. */
export const MIN_BITS = 0.005;
/** From this share on the fix is offered before another test; and where no test tells this much any more. */
export const FIX_AT = 0.7;
export const WORTHWHILE_BITS = 0.05;

/**
 * Shares after one more answer.
 * @param net causes and tests of a chain
 * @param p shares in order of `net.causes`
 * @param test the test
 * @param yes its answer
 * @returns shares in the same order that add up to 1
 */
export function updated(net: Net, p: Float64Array, test: TestId, yes: boolean): Float64Array {
  const row = net.test(test);
  const raw = p.map((x, i) => x * (yes ? (row[i] ?? 0) : 1 - (row[i] ?? 0)));
  const sum = raw.reduce((a, b) => a + b, 0) || 1;
  return raw.map((x) => x / sum);
}

/**
 * The likeliest cause after one more answer.
 * @param net causes and tests of a chain
 * @param p shares in order of `net.causes`
 * @param test the test
 * @param yes its answer
 * @returns the cause with its share
 */
export function after(net: Net, p: Float64Array, test: TestId, yes: boolean): RankedCause {
  const then = updated(net, p, test, yes);
  const most = then.reduce((best, x, i) => (x > (then[best] ?? -1) ? i : best), 0);
  return { cause: net.causes[most] as CauseId, p: then[most] ?? 0 };
}

export interface Move {
  readonly test: TestId;
  /** Share of the cause after a yes, and after a no. */
  readonly yes: number;
  readonly no: number;
}

/**
 * Open tests by how far an answer would move one cause, either way.
 * @param net causes, symptoms and tests of a chain
 * @param clues symptoms seen and tests answered
 * @param p shares in order of `net.causes`
 * @param refused tests that are not to be offered
 * @param cause the cause
 * @returns the farthest first
 */
export function movesOf(
  net: Net,
  clues: Observations,
  p: Float64Array,
  refused: ReadonlySet<TestId>,
  cause: CauseId,
): Move[] {
  const at = net.causes.indexOf(cause);
  const here = p[at] ?? 0;
  const all = openTests(net, clues, refused).map((test): Move => {
    const then = (yes: boolean) => updated(net, p, test, yes)[at] ?? 0;
    return { test, yes: then(true), no: then(false) };
  });
  const far = (m: Move) => Math.max(Math.abs(m.yes - here), Math.abs(m.no - here));
  return all.sort((a, b) => far(b) - far(a));
}
