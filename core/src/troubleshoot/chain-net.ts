import { CAUSE_IDS, type CauseId, type SymptomId, TEST_IDS, type TestId } from '../base';
import type { Chain } from '../chain';
import { chainFacts, type ChainFacts, type SaidOfChain } from './chain-facts';
import { TESTS } from './net';
import { CAUSES } from './net/causes';
import { likelihood, START_TABLES, type Tables, weight } from './tables';

/** How much likelier the plan makes a cause before anything is seen, and by which finding. */
export interface PriorMultiplier {
  readonly cause: CauseId;
  readonly times: number;
  readonly code: string;
}

/** The net of one chain: only causes it can have and tests that can be made on it. Rows are P(positive given cause), in order of causes. */
export interface Net {
  readonly facts: ChainFacts;
  readonly tables: Tables;
  readonly lifts: readonly PriorMultiplier[];
  readonly causes: readonly CauseId[];
  /** Adds up to 1. */
  readonly prior: Float64Array;
  readonly tests: readonly TestId[];
  readonly symptom: (id: SymptomId) => Float64Array;
  readonly test: (id: TestId) => Float64Array;
}

/**
 * The net of a chain: its causes, symptoms and tests. Rows are made when they are first read.
 * @param chain the chain
 * @param tables parameters of this workshop
 * @param lifts what the plan makes likelier
 * @param said what was typed of a chain without parts
 * @returns the net
 */
export function netFor(
  chain: Chain,
  tables: Tables = START_TABLES,
  lifts: readonly PriorMultiplier[] = [],
  said: SaidOfChain | null = null,
): Net {
  return netOf(chainFacts(chain, said), tables, lifts);
}

/**
 * The net of a chain by its facts.
 * @param facts of the chain
 * @param tables parameters of this workshop
 * @param lifts what the plan makes likelier
 * @returns the net
 */
export function netOf(
  facts: ChainFacts,
  tables: Tables = START_TABLES,
  lifts: readonly PriorMultiplier[] = [],
): Net {
  const causes = CAUSE_IDS.filter((c) => facts[CAUSES[c].on]);
  const tests = TEST_IDS.filter((t) => facts[TESTS[t].on]);
  const raised = (c: CauseId) => lifts.reduce((x, l) => (l.cause === c ? x * l.times : x), 1);
  const weights = causes.map((c) => weight(tables, c).value * raised(c));
  const sum = weights.reduce((a, b) => a + b, 0);
  const direct = facts.direct && !facts.tunnel;
  const rowsOf = <T extends SymptomId | TestId>(kind: 'symptom' | 'test') => {
    const made = new Map<T, Float64Array>();
    return (id: T) => {
      const known = made.get(id);
      if (known) return known;
      const row = Float64Array.from(causes, (c) => likelihood(tables, kind, id, c, direct).value);
      made.set(id, row);
      return row;
    };
  };
  return {
    facts,
    tables,
    lifts,
    causes,
    tests,
    prior: Float64Array.from(weights, (w) => w / sum),
    symptom: rowsOf<SymptomId>('symptom'),
    test: rowsOf<TestId>('test'),
  };
}
