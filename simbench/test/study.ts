import { type CauseId, SYMPTOM_IDS, type SymptomId, type TestId } from '@ruddy/core/base';
import { type FaultId, FAULTS, faultsOf } from '@ruddy/core/bench';
import type { Chain } from '@ruddy/core/chain';
import { screenSchema } from '@ruddy/core/parts';
import {
  advise,
  type Net,
  netFor,
  type Says,
  SYMPTOMS,
  type TroubleNote,
  troubleState,
} from '@ruddy/core/troubleshoot';
import { judge } from '../../core/test/make';
import { benchAnswer, inspect, type InjectedFault } from '../src';
import { mixedChance } from '../src/chance';
import { CHAINS, readByProbe } from './benches';

/** Somebody with a fault nobody told him of: what he sees, and what each test answers. */
export interface Riddle {
  readonly net: Net;
  readonly truth: CauseId;
  readonly symptoms: readonly SymptomId[];
  readonly ask: (test: TestId) => Exclude<Says, 'unclear'>;
  /** The fault of the bench behind it; null where likelihoods are drawn. */
  readonly fault: FaultId | null;
  readonly chain: string;
}

const screen = screenSchema.parse({
  maker: 'Alder',
  model: 'V-1',
  widthPx: 2560,
  heightPx: 1440,
  hz: 60,
});
export const SHOWN: Readonly<Record<string, Chain>> = Object.fromEntries(
  Object.entries(CHAINS).map(([name, c]) => [
    name,
    { ...c, picture: [{ key: 'a', by: 'card' as const, plug: 'displayport' as const, screen }] },
  ]),
);
const NAMES = Object.keys(SHOWN);

/** Which kinds of a fault show at all: some strengths do nothing. */
export function benchRiddle(
  name: string,
  id: FaultId,
  strength: number,
  seed: number,
): Riddle | null {
  const chain = SHOWN[name] as Chain;
  const evaluation = judge(chain);
  const net = netFor(chain);
  const order = id === 'dock-firmware-crash' ? 'host-first' : 'all-off';
  const hidden: InjectedFault = {
    chain,
    evaluation,
    seed,
    faults: { [id]: strength },
    order,
    read: readByProbe,
  };
  const first = inspect(hidden);
  const symptoms = first.symptoms.slice(0, 2);
  if (symptoms.length === 0) return null;
  const ask = (test: TestId) => benchAnswer(hidden, first, symptoms, test);
  return { net, truth: FAULTS[id].cause, symptoms, ask, fault: id, chain: name };
}

/** Shifted by up to 30 % of its odds either way: the world is not as the tables say. */
const shifted = (p: number, u: number): number => {
  const odds = (p / (1 - p)) * (1 + 0.6 * (u - 0.5));
  return odds / (1 + odds);
};

/** A cause that leaves no trace on a bench: what is seen and answered is drawn from likelihoods that differ from the tables. */
export function drawnRiddle(
  net: Net,
  truth: CauseId,
  next: () => number,
  chain: string,
): Riddle | null {
  const at = net.causes.indexOf(truth);
  const share = (row: Float64Array) => shifted(row[at] ?? 0, next());
  const own = SYMPTOM_IDS.filter(
    (s) => (SYMPTOMS[s].given[truth] ?? 0) >= 0.1 && next() < share(net.symptom(s)),
  );
  const stray = SYMPTOM_IDS.filter((s) => next() < 0.01 && !own.includes(s));
  const symptoms = [...own, ...stray].slice(0, 2);
  if (own.length === 0) return null;
  const answers = new Map<TestId, 'yes' | 'no'>(
    net.tests.map((t) => [t, next() < share(net.test(t)) ? 'yes' : 'no']),
  );
  return { net, truth, symptoms, ask: (t) => answers.get(t) ?? 'cannot', fault: null, chain };
}

/** One hidden fault by seed: a chain, a cause by its weight, on the bench where the bench can have it, otherwise drawn. */
export function riddle(seed: number): Riddle {
  const { next } = mixedChance(seed * 7919);
  for (;;) {
    const name = NAMES[Math.floor(next() * NAMES.length)] ?? NAMES[0]!;
    const chain = SHOWN[name] as Chain;
    const net = netFor(chain);
    let u = next();
    const truth = net.causes.find((_, i) => (u -= net.prior[i] ?? 0) < 0) ?? net.causes[0]!;
    if (truth === 'none-of-these') continue;
    const able = faultsOf(chain).filter((f) => FAULTS[f].cause === truth);
    const fault = able[Math.floor(next() * able.length)];
    const found = fault
      ? benchRiddle(name, fault, 0.3 + 0.7 * next(), seed)
      : drawnRiddle(net, truth, next, name);
    if (found) return found;
  }
}

/** A fault of a bench by seed, every kind as often as any other. */
export function benchOnly(seed: number): Riddle {
  const { next } = mixedChance(seed * 7927);
  for (;;) {
    const name = NAMES[Math.floor(next() * NAMES.length)] ?? NAMES[0]!;
    const able = faultsOf(SHOWN[name] as Chain);
    const fault = able[Math.floor(next() * able.length)] as FaultId;
    const found = benchRiddle(name, fault, 0.3 + 0.7 * next(), seed);
    if (found) return found;
  }
}

export interface Solved {
  readonly riddle: Riddle;
  readonly tests: readonly { test: TestId; says: Says }[];
  /** Place of the truth after three tests at most, from 1. */
  readonly placeAfter3: number;
  readonly saidAtEnd: CauseId;
}

const MOST = 15;
/** Put a riddle to the troubleshooter: its own next test each time, until it would mend something. */
export function solve(r: Riddle): Solved {
  const notes: TroubleNote[] = [{ what: 'seen', symptoms: r.symptoms }];
  const tests: { test: TestId; says: Says }[] = [];
  let placeAfter3 = 0;
  for (;;) {
    const s = troubleState(notes);
    const a = advise(r.net, s.clues, s.refused);
    const place = a.suspects.findIndex((x) => x.cause === r.truth) + 1;
    const next = a.offers[0];
    const over = a.now !== 'test' || !next || tests.length >= MOST;
    if (tests.length === 3 || (over && tests.length < 3)) placeAfter3 = place;
    if (over) return { riddle: r, tests, placeAfter3, saidAtEnd: a.top.cause };
    const says = r.ask(next.test);
    tests.push({ test: next.test, says });
    notes.push({ what: 'test', test: next.test, says, by: 'hand', words: '' });
  }
}

export interface Study {
  readonly n: number;
  readonly amongThree: number;
  readonly first: number;
  readonly right: number;
  readonly medianTests: number;
  readonly wrong: readonly string[];
}

/** How the troubleshooter does over a row of riddles; shares of 1. */
export function studyOf(solved: readonly Solved[]): Study {
  const share = (f: (s: Solved) => boolean) => solved.filter(f).length / solved.length;
  const lengths = solved.map((s) => s.tests.length).sort((a, b) => a - b);
  const wrong = solved.filter((s) => s.saidAtEnd !== s.riddle.truth);
  return {
    n: solved.length,
    amongThree: share((s) => s.placeAfter3 <= 3),
    first: share((s) => s.placeAfter3 === 1),
    right: share((s) => s.saidAtEnd === s.riddle.truth),
    medianTests: lengths[Math.floor(lengths.length / 2)] ?? 0,
    wrong: wrong.map(
      (s) =>
        `${s.riddle.chain}: ${s.riddle.fault ?? s.riddle.truth} [${s.riddle.symptoms.join(' ')}] said ${s.saidAtEnd} after ${s.tests.map((t) => `${t.test}=${t.says}`).join(' ')}`,
    ),
  };
}
