import type { Act, BenchState, FaultMap, LogLine, TimedAct } from '@ruddy/core/bench';
import type { Chain } from '@ruddy/core/chain';
import { ACTIONS, hostUp } from './actions';
import type { BenchDef } from './parts';
import { HAPPENS } from './link-up';
import { newSimulatedBench, pass, say, shown, type SimulatedBench } from './simulated-bench';

/** A bench at one moment of its time. */
export interface BenchRun {
  readonly state: BenchState;
  /** The parts on it now. */
  readonly chain: Chain;
  readonly faults: FaultMap;
  readonly log: readonly LogLine[];
  /** Bench time of what happens next by itself, ms; null when nothing will before somebody acts. */
  readonly nextMs: number | null;
  /** For reading it: the world as the fold left it. */
  readonly world: SimulatedBench;
}

/** Most acts of one bench: the fold goes over all of them each time it is read. */
export const MAX_ACTS = 2000;

function runTo(w: SimulatedBench, ms: number): void {
  for (let next = w.queue[0]; next && next.at <= ms; next = w.queue[0]) {
    w.queue.shift();
    pass(w, next.at);
    if (next.epoch !== w.epochs[next.of]) continue;
    if (next.what === 'host-up') hostUp(w);
    else if (next.what === 'key') {
      w.host = 'asks-key';
      say(w, 'host-asks-key');
    } else HAPPENS[next.what](w);
  }
  pass(w, ms);
}

function doIt<A extends Act['act']>(w: SimulatedBench, act: Extract<Act, { act: A }>): void {
  (ACTIONS[act.act as A] as (w: SimulatedBench, act: Extract<Act, { act: A }>) => void)(w, act);
}

/**
 * The bench at a moment: a fold over its chain, its seed and what was done to it at which bench time. Pure: the same three give the
 * same state and the same log, and a longer time only adds to the log. Acts must be in order of time; those after `ms` are left out.
 */
export function simulate(def: BenchDef, acts: readonly TimedAct[], ms: number): BenchRun {
  const w = newSimulatedBench(def);
  for (const { ms: at, act } of acts) {
    if (at > ms) break;
    runTo(w, at);
    doIt(w, act);
  }
  runTo(w, ms);
  const next = w.queue.find((q) => q.epoch === w.epochs[q.of]);
  return {
    state: shown(w),
    chain: w.chain,
    faults: w.faults,
    log: w.log,
    nextMs: next?.at ?? null,
    world: w,
  };
}
