import type { CauseId, SymptomId, TestId } from '../base';
import type { Net } from './chain-net';
import { TESTS } from './net';
import { CAUSES } from './net/causes';

export interface Answer {
  readonly test: TestId;
  readonly yes: boolean;
}

/** What counts: symptoms seen, tests answered, fixes that changed nothing, causes found and mended before. "Not sure" leaves no trace here. */
export interface Observations {
  readonly symptoms: readonly SymptomId[];
  readonly answers: readonly Answer[];
  readonly noHelp: readonly CauseId[];
  readonly mended: readonly CauseId[];
}
export const NO_OBSERVATIONS: Observations = { symptoms: [], answers: [], noHelp: [], mended: [] };

/** One clue with P(clue given cause), in order of the causes of the net. */
export interface EvidenceTerm {
  readonly kind: 'symptom' | 'test' | 'fix';
  readonly id: SymptomId | TestId | CauseId;
  readonly yes: boolean;
  readonly row: Float64Array;
}

/**
 * Answers that count: to tests this chain can have, that are about what was seen; the last one to each.
 * @param net causes, symptoms and tests of a chain
 * @param clues symptoms seen and tests answered
 * @returns answers
 */
export function answersThatCount(net: Net, clues: Observations): Answer[] {
  const last = [...new Map(clues.answers.map((a) => [a.test, a])).values()];
  return last.filter(({ test }) => {
    const { after } = TESTS[test];
    return (
      net.tests.includes(test) &&
      (after === undefined || after.some((s) => clues.symptoms.includes(s)))
    );
  });
}

/**
 * Symptoms that still count: one that a test looked at more closely does not count beside it.
 * @param net causes, symptoms and tests of a chain
 * @param clues symptoms seen and tests answered
 * @returns symptoms
 */
export function symptomsThatCount(net: Net, clues: Observations): SymptomId[] {
  const closer = new Set(answersThatCount(net, clues).map((a) => TESTS[a.test].same));
  return [...new Set(clues.symptoms)].filter((s) => !closer.has(s));
}

const flip = (row: Float64Array) => row.map((p) => 1 - p);

/**
 * Every observation that counts on a chain.
 * @param net causes, symptoms and tests of a chain
 * @param clues symptoms seen and tests answered
 * @returns one term each, with its likelihood by cause
 */
export function evidenceTerms(net: Net, clues: Observations): EvidenceTerm[] {
  return [
    ...symptomsThatCount(net, clues).map((id): EvidenceTerm => ({
      kind: 'symptom',
      id,
      yes: true,
      row: net.symptom(id),
    })),
    ...answersThatCount(net, clues).map(({ test: id, yes }): EvidenceTerm => ({
      kind: 'test',
      id,
      yes,
      row: yes ? net.test(id) : flip(net.test(id)),
    })),
    ...[...new Set(clues.noHelp)].map((id): EvidenceTerm => {
      const row = Float64Array.from(net.causes, (c) => (c === id ? 1 - CAUSES[c].fix.cures : 1));
      return { kind: 'fix', id, yes: false, row };
    }),
  ];
}

/**
 * P(cause given observations) by Bayes, observations independent given the cause; summed as logarithms so that many
 * do not underflow.
 *
 * Source: Bayes' rule (naive Bayes).
 * @param net causes, symptoms and tests of a chain
 * @param clues symptoms seen and tests answered
 * @returns shares in order of `net.causes` that add up to 1; causes mended before have 0
 */
export function posterior(net: Net, clues: Observations): Float64Array {
  const logs = net.prior.map((p, i) =>
    clues.mended.includes(net.causes[i] as CauseId) ? -Infinity : Math.log(p),
  );
  for (const { row } of evidenceTerms(net, clues))
    for (let i = 0; i < logs.length; i++) logs[i] = (logs[i] ?? 0) + Math.log(row[i] ?? 1);
  let most = -Infinity;
  for (const l of logs) most = Math.max(most, l);
  let sum = 0;
  for (let i = 0; i < logs.length; i++) sum += logs[i] = Math.exp((logs[i] ?? 0) - most);
  for (let i = 0; i < logs.length; i++) logs[i] = (logs[i] ?? 0) / sum;
  return logs;
}

export interface RankedCause {
  readonly cause: CauseId;
  readonly p: number;
}

/**
 * Causes with their share.
 * @param net causes of a chain
 * @param p shares in order of `net.causes`
 * @returns likeliest first; equals in the order of the table
 */
export function suspects(net: Net, p: Float64Array): RankedCause[] {
  return net.causes.map((cause, i) => ({ cause, p: p[i] ?? 0 })).sort((a, b) => b.p - a.p);
}

export interface Pull {
  readonly clue: Omit<EvidenceTerm, 'row'>;
  /** P(observation | this cause) over P(observation | the other causes by their posterior): above 1 supports it. */
  readonly times: number;
}

/**
 * How much each observation is for or against one cause.
 *
 * Source: the likelihood ratio of the cause against all others.
 * @param net causes, symptoms and tests of a chain
 * @param clues symptoms seen and tests answered
 * @param cause the cause
 * @returns factors, the strongest first
 */
export function bayesFactors(net: Net, clues: Observations, cause: CauseId): Pull[] {
  const at = net.causes.indexOf(cause);
  if (at < 0) return [];
  const rest = 1 - (net.prior[at] ?? 0);
  const all = evidenceTerms(net, clues).map(({ row, ...clue }) => {
    const others =
      net.prior.reduce((sum, p, i) => (i === at ? sum : sum + p * (row[i] ?? 1)), 0) / rest;
    return { clue, times: (row[at] ?? 1) / others };
  });
  return all.sort((a, b) => Math.abs(Math.log(b.times)) - Math.abs(Math.log(a.times)));
}
