import type { SymptomId, TestId } from '@ruddy/core/base';
import { type Act, type FaultMap, remedied, type RemedyId, type TimedAct } from '@ruddy/core/bench';
import {
  linkCheck,
  type LinkCheck,
  type Reading,
  readingSchema,
  type Report,
} from '@ruddy/core/bring-up';
import type { Chain } from '@ruddy/core/chain';
import type { Evaluation } from '@ruddy/core/plan';
import {
  answersOf,
  type ChainObservation,
  countsBetween,
  failsAt,
  NOTHING_SEEN,
  seenOf,
} from '@ruddy/core/troubleshoot';
import { readCopy } from '../copy';
import { simulate, type BenchRun } from '../simulate';

/** A bench with something hidden in it, and how it is brought up. */
export interface InjectedFault {
  readonly chain: Chain;
  readonly evaluation: Evaluation;
  readonly seed: number;
  readonly faults: FaultMap;
  readonly order: 'all-off' | 'host-first';
  /** The probe's report of the running system. */
  readonly read: (run: BenchRun) => Report | null;
}

/** What somebody finds who looks everywhere, and knows nothing of what is hidden. */
export interface Inspection {
  /** In the order in which they show. */
  readonly symptoms: readonly SymptomId[];
  readonly answers: ReadonlyMap<TestId, boolean>;
}

const SOAK_MINUTES = 10;

/** A bench while it is inspected: acts are kept with their times, observations are gathered. */
class Hands {
  readonly #acts: TimedAct[] = [];
  #ms = 0;
  readonly symptoms: SymptomId[] = [];
  readonly answers = new Map<TestId, boolean>();

  constructor(readonly b: InjectedFault) {
    for (const [id, strength] of Object.entries(b.faults))
      this.do({ act: 'fault', id, strength } as Act, 0);
  }

  get run(): BenchRun {
    return simulate({ chain: this.b.chain, seed: this.b.seed }, this.#acts, this.#ms);
  }

  do(act: Act, wait = 1000): void {
    this.#acts.push({ ms: this.#ms, act });
    this.#ms += wait;
  }

  wait(ms: number): void {
    this.#ms += ms;
  }

  report(): Report | null {
    return this.run.state.host === 'on' ? this.b.read(this.run) : null;
  }

  look(more: Partial<ChainObservation> = {}): ChainObservation {
    const report = this.report();
    const told = report ? seenOf(report, this.b.evaluation.predicted.link.kind) : NOTHING_SEEN;
    return { ...told, lamp: this.run.state.dockLamp, allOff: this.b.order === 'all-off', ...more };
  }

  check(reading: Partial<Reading>): LinkCheck {
    return linkCheck(
      readingSchema.parse({ load: 'load', ...reading }),
      this.b.chain,
      this.b.evaluation,
      {},
    );
  }

  /** What a look and a graded reading answer. The first look stands: later ones see what an earlier fault left behind. */
  note(seen: ChainObservation, check: LinkCheck | null): void {
    for (const a of answersOf(seen, check))
      if (!this.answers.has(a.test)) this.answers.set(a.test, a.yes);
  }

  saw(symptom: SymptomId | null): symptom is SymptomId {
    if (symptom !== null && !this.symptoms.includes(symptom)) this.symptoms.push(symptom);
    return symptom !== null;
  }
}

/** Cable, mains, dock and host in their order; false when the host does not live through it. */
function connect(h: Hands): boolean {
  const plug = () => h.do({ act: 'plug', socket: h.b.chain.socket ?? '' }, 5000);
  const power = () => {
    h.do({ act: 'mains', on: true });
    h.do({ act: 'dock', on: true }, 5000);
  };
  const start = () => {
    h.do({ act: 'host', to: 'on' }, 25_000);
    if (h.run.state.host !== 'asks-key') return;
    h.saw('recovery-key-asked');
    h.do({ act: 'key' }, 15_000);
  };
  if (h.b.order === 'host-first') start();
  if (h.b.order === 'all-off') plug();
  power();
  if (h.b.order === 'host-first') plug();
  else start();
  if (h.run.state.host !== 'frozen') return true;
  h.saw('crash-on-plug');
  h.note({ ...NOTHING_SEEN, lamp: h.run.state.dockLamp }, null);
  return false;
}

function soak(h: Hands, kind: 'tunnel' | 'direct'): void {
  const before = h.report();
  const { downs } = h.run.state;
  const lines = h.run.log.length;
  h.wait(SOAK_MINUTES * 60_000);
  const { state, log } = h.run;
  const lost = state.downs - downs;
  const lampWentOut = lost > 0 ? log.slice(lines).some((l) => l.code === 'brown-out') : null;
  const seen = h.look({ lampWentOut });
  const after = h.report();
  const counts =
    before && after
      ? countsBetween(before, after, kind, { minutes: SOAK_MINUTES, downs: lost })
      : null;
  const check = counts ? h.check({ counts }) : null;
  h.saw(failsAt('soak', { seen, check }));
  // What is read after it dropped is not about the link as it was: only the lamp and the counters are.
  h.note({ ...NOTHING_SEEN, lampWentOut, errors: seen.errors }, check);
}

/** The readings of a card that is there and held by a driver. */
function readings(h: Hands, kind: 'tunnel' | 'direct'): void {
  h.do({ act: 'load', on: true }, 5000);
  const report = h.report();
  const seen = h.look();
  const check = report ? h.check({ report }) : null;
  h.note(seen, check);
  if (h.saw(failsAt('read-outs', { seen, check })) && seen.card !== 'there') return;
  const copy = readCopy(h.run, 'down', 0);
  if (report && copy && copy.value > 0) {
    const graded = h.check({ report, copy });
    h.saw(failsAt('copy-down', { seen, check: graded }));
    h.note(NOTHING_SEEN, graded);
  }
  soak(h, kind);
}

/** Bring a bench up, look everywhere, and write down what shows. A remedy is done before. Pure: the same bench shows the same. */
export function inspect(hidden: InjectedFault, remedy: RemedyId | null = null): Inspection {
  const h = new Hands(
    remedy === null ? hidden : { ...hidden, faults: remedied(hidden.faults, remedy) },
  );
  const { kind } = h.b.evaluation.predicted.link;
  const done = (): Inspection => ({ symptoms: h.symptoms, answers: h.answers });
  if (!connect(h)) return done();
  if (h.b.chain.dock && !h.run.state.dockLamp) h.saw('no-lamp');
  h.do({ act: 'approve', how: 'always' }, 10_000);
  const first = h.look();
  h.note(first, null);
  const approve = kind === 'tunnel' ? failsAt('approve', { seen: first, check: null }) : null;
  const missing = approve ?? failsAt('listed', { seen: first, check: null });
  if (h.saw(missing)) return done();
  h.wait(40_000);
  const rested = h.look();
  h.note(rested, null);
  if (h.saw(failsAt('driver-holds', { seen: rested, check: null }))) return done();
  if (h.b.chain.picture.length > 0) h.saw(failsAt('screen-path', { seen: rested, check: null }));
  readings(h, kind);
  return done();
}
