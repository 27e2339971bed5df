import type { CauseId, OrderId, StepId, SymptomId } from '@ruddy/core/base';
import type { Act, FaultMap, TimedAct } from '@ruddy/core/bench';
import {
  checklist,
  linkCheck,
  type LinkCheck,
  ORDERS,
  type Reading,
  readingSchema,
  type Report,
} from '@ruddy/core/bring-up';
import type { Chain } from '@ruddy/core/chain';
import type { Evaluation } from '@ruddy/core/plan';
import { NO_DOCKED } from '@ruddy/core/setups';
import {
  answersOf,
  type ChainObservation,
  countsBetween,
  failsAt,
  netFor,
  NOTHING_SEEN,
  rankedCauses,
  seenOf,
} from '@ruddy/core/troubleshoot';
import { judge } from '../../core/test/make';
import { readCopy, simulate, type BenchRun } from '../src';
import { readByProbe } from './benches';

export interface Outcome {
  /** Steps that held, in order. */
  readonly held: readonly StepId[];
  readonly step: StepId | null;
  readonly symptom: SymptomId | null;
  /** Causes as the page would name them, likeliest first. */
  readonly causes: readonly CauseId[];
}

/**
 * Somebody who brings a bench up by the list, who knows nothing of what was hidden in it: does each step, looks where the step says,
 * and stops at the first that does not hold. Only lamps, the state of the host, reports of the probe and copy rates are looked at.
 */
export class Walk {
  readonly #acts: TimedAct[] = [];
  readonly #evaluation: Evaluation;
  #ms = 0;
  #copies = 0;
  #seen: Partial<ChainObservation> = {};
  #cabled = true;

  constructor(
    readonly chain: Chain,
    readonly seed: number,
    faults: FaultMap,
    readonly order: OrderId,
  ) {
    this.#evaluation = judge(chain);
    for (const [id, strength] of Object.entries(faults))
      this.#do({ act: 'fault', id, strength } as Act);
  }

  get #run(): BenchRun {
    return simulate({ chain: this.chain, seed: this.seed }, this.#acts, this.#ms);
  }

  #do(act: Act, wait = 1000): void {
    this.#acts.push({ ms: this.#ms, act });
    this.#ms += wait;
  }

  #report(): Report | null {
    return this.#run.state.host === 'on' ? readByProbe(this.#run) : null;
  }

  #look(extra: Partial<ChainObservation> = {}): ChainObservation {
    const report = this.#report();
    const { kind } = this.#evaluation.predicted.link;
    const told = report ? seenOf(report, kind) : NOTHING_SEEN;
    // What was seen at rest is not forgotten when the card is gone.
    if (told.asleep === true) this.#seen = { ...this.#seen, asleep: true };
    if (told.errors === true) this.#seen = { ...this.#seen, errors: true };
    const known = Object.fromEntries(Object.entries(this.#seen).filter(([, v]) => v !== null));
    return {
      ...told,
      lamp: this.#run.state.dockLamp,
      allOff: this.order === 'all-off',
      ...known,
      ...extra,
    };
  }

  #check(reading: Partial<Reading>): LinkCheck {
    return linkCheck(
      readingSchema.parse({ load: 'load', ...reading }),
      this.chain,
      this.#evaluation,
      {},
    );
  }

  /** Do one step and say what is wrong there, or nothing. */
  #step(id: StepId): { symptom: SymptomId; check?: LinkCheck; seen: ChainObservation } | null {
    const fails = (check: LinkCheck | null, seen: ChainObservation) => {
      const symptom = failsAt(id, { seen, check });
      return symptom ? { symptom, ...(check && { check }), seen } : null;
    };
    switch (id) {
      case 'host-down':
        this.#do({ act: 'host', to: 'off' });
        return null;
      case 'mains-out':
        this.#do({ act: 'mains', on: false });
        return null;
      case 'adapter-in':
        if (!this.#cabled) this.#do({ act: 'plug', socket: this.chain.socket ?? '' });
        return null;
      case 'plug-cable':
        this.#do({ act: 'plug', socket: this.chain.socket ?? '' }, 5000);
        break;
      case 'dock-on':
        this.#do({ act: 'mains', on: true });
        this.#do({ act: 'dock', on: true }, 5000);
        if (this.chain.dock && this.#run.state.host === 'off')
          return fails(null, { ...NOTHING_SEEN, lamp: this.#run.state.dockLamp });
        break;
      case 'host-start':
        this.#do({ act: 'host', to: 'on' }, 25_000);
        break;
      case 'approve': {
        this.#do({ act: 'approve', how: 'always' }, 10_000);
        const failed = fails(null, this.#look());
        return failed && this.#again(failed);
      }
      case 'listed':
        return fails(null, this.#look());
      case 'driver-holds':
        this.#ms += 30_000;
        return fails(null, this.#look());
      case 'read-outs': {
        this.#do({ act: 'load', on: true }, 5000);
        const seen = this.#look();
        const report = this.#report();
        return fails(report ? this.#check({ report }) : null, seen);
      }
      case 'copy-down':
      case 'copy-up': {
        const copy = readCopy(this.#run, id === 'copy-down' ? 'down' : 'up', this.#copies++);
        const report = this.#report();
        return report && copy ? fails(this.#check({ report, copy }), this.#look()) : null;
      }
      case 'soak':
        return this.#soak(fails);
      case 'screen-path':
        return this.chain.picture.length > 0 ? fails(null, this.#look()) : null;
      default:
        return null;
    }
    return this.#alive(id);
  }

  /** After an act at cable, dock or host: is the host still well? */
  #alive(id: StepId): { symptom: SymptomId; seen: ChainObservation } | null {
    const { host } = this.#run.state;
    if (host === 'frozen') return { symptom: 'crash-on-plug', seen: NOTHING_SEEN };
    return host === 'asks-key' && id === 'host-start'
      ? { symptom: 'recovery-key-asked', seen: NOTHING_SEEN }
      : null;
  }

  /** Nothing there after a start: out and in again, which a tunnel bears, tells the order from the rest. */
  #again<F extends { symptom: SymptomId; seen: ChainObservation }>(failed: F): F {
    if (failed.seen.router !== false) return failed;
    this.#do({ act: 'unplug' }, 3000);
    this.#do({ act: 'plug', socket: this.chain.socket ?? '' }, 10_000);
    return this.#look().router === true ? { ...failed, symptom: 'not-at-start' } : failed;
  }

  #soak<F>(fails: (check: LinkCheck | null, seen: ChainObservation) => F | null): F | null {
    const { kind } = this.#evaluation.predicted.link;
    const before = this.#report();
    const downs = this.#run.state.downs;
    let out = false;
    for (let i = 0; i < 600; i++) {
      this.#ms += 1000;
      const { state } = this.#run;
      out ||= !state.dockLamp;
      if (state.downs > downs) break;
    }
    if (this.#run.state.downs > downs) this.#ms += 15_000;
    const after = this.#report();
    const lost = this.#run.state.downs > downs;
    const seen = this.#look({ lampWentOut: lost ? out : null });
    if (!before || !after) return fails(null, seen);
    const minutes = 10;
    return fails(
      this.#check({
        counts: countsBetween(before, after, kind, {
          minutes,
          downs: this.#run.state.downs - downs,
        }),
      }),
      seen,
    );
  }

  /** Go through the whole list. */
  outcome(): Outcome {
    const steps = checklist({
      chain: this.chain,
      evaluation: this.#evaluation,
      house: {},
      docked: NO_DOCKED,
      purpose: 'bring-up',
      order: this.order,
      driver: 'before',
    });
    this.#cabled = steps.some((s) => s.id === 'plug-cable');
    if (ORDERS[this.order].live) this.#do({ act: 'host', to: 'on' }, 25_000);
    const held: StepId[] = [];
    for (const { id, symptoms } of steps) {
      const failed = this.#step(id);
      if (!failed) {
        held.push(id);
        continue;
      }
      if (!symptoms.includes(failed.symptom))
        throw new Error(`${id} does not know ${failed.symptom}`);
      const causes = rankedCauses(
        netFor(this.chain),
        failed.symptom,
        answersOf(failed.seen, failed.check ?? null),
      );
      return { held, step: id, symptom: failed.symptom, causes };
    }
    return { held, step: null, symptom: null, causes: [] };
  }
}
