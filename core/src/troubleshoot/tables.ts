import {
  CAUSE_IDS,
  type CauseId,
  SYMPTOM_IDS,
  type SymptomId,
  TEST_IDS,
  type TestId,
} from '../base';
import { TESTS } from './net';
import { CAUSES } from './net/causes';
import { BESIDE, NONE_SEEN, SYMPTOMS } from './net/symptoms';

/** The start counts as much as so many cases of the log: Beta with this strength for a likelihood. */
export const START_STRENGTH = 4;
/** For the weights of the causes: they share one table of some fifty, so one case must not turn it over. */
export const CAUSE_STRENGTH = 40;

/**
 * A figure of the net by name: `cause/heat` is a weight, `symptom/low-copy/heat` and `test/reseat/heat` are P(positive given cause),
 * `test/reseat/any` is that for a cause not named.
 */
export type FigureKey = string;
export const figureKey = (
  kind: 'symptom' | 'test',
  id: SymptomId | TestId,
  cause: CauseId | 'any',
): FigureKey => `${kind}/${id}/${cause}`;
export const weightKey = (cause: CauseId): FigureKey => `cause/${cause}`;

export interface CaseCount {
  /** Times it was so. */
  readonly k: number;
  /** Times it was looked at, in cases whose cause was found. */
  readonly n: number;
}

/** The workshop's own parameters of the net: values set, and counts of its closed cases. */
export interface Tables {
  readonly edits: Readonly<Record<FigureKey, number>>;
  readonly counts: Readonly<Record<FigureKey, CaseCount>>;
}
export const START_TABLES: Tables = { edits: {}, counts: {} };

export interface Figure {
  readonly key: FigureKey;
  /** As it shipped. */
  readonly start: number;
  /** As the workshop set it, or null. */
  readonly set: number | null;
  readonly count: CaseCount;
  /** As it is used. */
  readonly value: number;
}

const NO_COUNT: CaseCount = { k: 0, n: 0 };
const WEIGHTS = Object.values(CAUSES).reduce((sum, c) => sum + c.w, 0);

function known<T extends string>(ids: readonly T[], id: string | undefined): T | null {
  return ids.find((x) => x === id) ?? null;
}

/** Start of a likelihood that may be named or not. */
function startOf(
  kind: 'symptom' | 'test',
  id: SymptomId | TestId,
  cause: CauseId | 'any',
  direct: boolean,
): number {
  if (kind === 'symptom') {
    const def = SYMPTOMS[id as SymptomId];
    const given = direct ? (def.direct ?? def.given) : def.given;
    if (cause === 'none-of-these') return NONE_SEEN;
    return (cause === 'any' ? undefined : given[cause]) ?? BESIDE;
  }
  const def = TESTS[id as TestId];
  return (cause === 'any' ? undefined : def.given[cause]) ?? def.q;
}

/**
 * A share moved by counts: a Beta prior with the start as its mean and the strength as its weight.
 *
 * Source: the conjugate prior of a binomial share.
 * @param start share from 0 to 1
 * @param counts k of n cases
 * @param strength weight of the start in cases
 * @returns the posterior mean
 * @example moved(0.5, { k: 10, n: 10 }, 10) // => 0.75
 */
export function moved(start: number, { k, n }: CaseCount, strength: number): number {
  return (strength * start + k) / (strength + n);
}

/**
 * One likelihood with the workshop's values. A cause without its own value or count takes the value set for any
 * cause, if there is one.
 * @param t tables of the workshop
 * @param kind symptom or test
 * @param id which one
 * @param cause the cause, or any
 * @param direct whether the chain is direct PCIe
 * @returns the parameter with its origin
 */
export function likelihood(
  t: Tables,
  kind: 'symptom' | 'test',
  id: SymptomId | TestId,
  cause: CauseId | 'any',
  direct = false,
): Figure {
  const key = figureKey(kind, id, cause);
  const start = startOf(kind, id, cause, direct);
  const named =
    kind === 'test' && cause !== 'any' && TESTS[id as TestId].given[cause] === undefined;
  const any = named ? (t.edits[figureKey('test', id, 'any')] ?? null) : null;
  const set = t.edits[key] ?? null;
  const count = t.counts[key] ?? NO_COUNT;
  return { key, start, set, count, value: moved(set ?? any ?? start, count, START_STRENGTH) };
}

/**
 * Prior weight of a cause with the workshop's values; the sum of all default weights is the same for any counts.
 * @param t tables of the workshop
 * @param cause the cause
 * @returns the parameter with its origin
 */
export function weight(t: Tables, cause: CauseId): Figure {
  const key = weightKey(cause);
  const start = CAUSES[cause].w;
  const set = t.edits[key] ?? null;
  const count = t.counts[key] ?? NO_COUNT;
  return {
    key,
    start,
    set,
    count,
    value: moved((set ?? start) / WEIGHTS, count, CAUSE_STRENGTH) * WEIGHTS,
  };
}

/**
 * Which numbers a parameter of the net may take.
 * @param key name of the parameter
 * @returns least and most; null where there is none of this name
 */
export function figureLimits(key: FigureKey): { lo: number; hi: number } | null {
  const [kind, id, cause, more] = key.split('/');
  if (more !== undefined) return null;
  if (kind === 'cause')
    return known(CAUSE_IDS, id) && cause === undefined ? { lo: 0, hi: 100 } : null;
  const causes = [...CAUSE_IDS, 'any' as const];
  if (!known(causes, cause)) return null;
  if (kind === 'symptom')
    return known(SYMPTOM_IDS, id) && cause !== 'any' ? { lo: 0.001, hi: 0.999 } : null;
  return kind === 'test' && known(TEST_IDS, id) ? { lo: 0.001, hi: 0.999 } : null;
}
