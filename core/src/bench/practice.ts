import type { CauseId, SymptomId, TestId } from '../base';
import {
  advise,
  BESIDE_MINUTES,
  CAUSES,
  type Observations,
  FIX_AT,
  gain,
  type Net,
  nextTests,
  posterior,
  type Says,
  suspects,
  TESTS,
  type TroubleNote,
  troubleState,
  WORTHWHILE_BITS,
} from '../troubleshoot';

/** A test made in a practice case, and what the bench showed. */
export interface PracticeStep {
  readonly test: TestId;
  readonly says: Extract<Says, 'yes' | 'no' | 'cannot'>;
}

export const stepMinutes = (test: TestId): number => TESTS[test].minutes + BESIDE_MINUTES;

function observationsOf(
  symptoms: readonly SymptomId[],
  steps: readonly PracticeStep[],
): { clues: Observations; refused: ReadonlySet<TestId> } {
  const tests = steps.map((s): TroubleNote => ({
    what: 'test',
    test: s.test,
    says: s.says,
    by: 'hand',
    words: '',
  }));
  const s = troubleState([{ what: 'seen', symptoms }, ...tests]);
  return { clues: s.clues, refused: s.refused };
}

export interface Path {
  readonly steps: readonly PracticeStep[];
  readonly minutes: number;
  /** What it would say at the end. */
  readonly says: CauseId;
}

/** Upper bound on tests of one practice case. */
const MAX_STEPS = 12;

/**
 * The way the troubleshooter itself goes on the same bench, until it would mend something or nothing tells any more.
 * @param net causes, symptoms and tests of the chain
 * @param symptoms that are seen
 * @param ask what the bench answers to a test
 * @returns tests with their answers, and minutes
 */
export function bestPath(
  net: Net,
  symptoms: readonly SymptomId[],
  ask: (test: TestId) => PracticeStep['says'],
): Path {
  const steps: PracticeStep[] = [];
  for (;;) {
    const c = observationsOf(symptoms, steps);
    const a = advise(net, c.clues, c.refused);
    const next = a.offers[0];
    if (a.now !== 'test' || !next || steps.length >= MAX_STEPS) {
      const minutes = steps.reduce((sum, s) => sum + stepMinutes(s.test), 0);
      return { steps, minutes, says: a.top.cause };
    }
    steps.push({ test: next.test, says: ask(next.test) });
  }
}

/**
 * The shortest path in hindsight: of the tests whose answers are known, one after another the one that tells most for
 * what was hidden for its minutes, until it stands first and is likely enough to be mended.
 * @param net causes, symptoms and tests of the chain
 * @param symptoms that are seen
 * @param truth the cause that was hidden
 * @param known tests with their answers
 * @returns the path; null where these answers never get there
 */
export function shortestPath(
  net: Net,
  symptoms: readonly SymptomId[],
  truth: CauseId,
  known: readonly PracticeStep[],
): Path | null {
  const at = net.causes.indexOf(truth);
  const steps: PracticeStep[] = [];
  const likely = (list: readonly PracticeStep[]) =>
    posterior(net, observationsOf(symptoms, list).clues);
  const left = known.filter((s) => s.says !== 'cannot');
  for (;;) {
    const p = likely(steps);
    const now = p[at] ?? 0;
    if (now >= FIX_AT && p.every((x) => x <= now))
      return {
        steps,
        minutes: steps.reduce((sum, s) => sum + stepMinutes(s.test), 0),
        says: truth,
      };
    let best: { step: PracticeStep; worth: number } | null = null;
    for (const step of left) {
      if (steps.some((s) => s.test === step.test)) continue;
      const then = likely([...steps, step])[at] ?? 0;
      const worth = (Math.log(then) - Math.log(now)) / stepMinutes(step.test);
      if (worth > (best?.worth ?? 0)) best = { step, worth };
    }
    if (!best) return null;
    steps.push(best.step);
  }
}

export interface Left {
  /** Step at which the way was left, from 0; the number of steps when it was the naming. */
  readonly at: number;
  /** What would have told most for its minutes there; null when naming was right in time. */
  readonly better: TestId | null;
  /** Bits for each minute of what was done, and of the better one. */
  readonly worth: number;
  readonly best: number;
  readonly why: 'worth' | 'early' | 'late';
}

/** A step that tells less than half of what the best would, for its minutes, leaves the way. */
const HALF = 0.5;

/**
 * Where the best way was left: the first test that tells less than half as much for its minutes as the best one open
 * there, a cause named while it was still unlikely and tests would have told, or tests made after it was plain.
 * @param net causes, symptoms and tests of the chain
 * @param symptoms that are seen
 * @param steps tests made
 * @param named the cause that was named
 * @returns the place; null where the way was kept
 */
export function leftAt(
  net: Net,
  symptoms: readonly SymptomId[],
  steps: readonly PracticeStep[],
  named: CauseId,
): Left | null {
  for (const [at, step] of steps.entries()) {
    const c = observationsOf(symptoms, steps.slice(0, at));
    const p = posterior(net, c.clues);
    const [best] = nextTests(net, c.clues, p, c.refused);
    if (!best) continue;
    const worth = net.tests.includes(step.test)
      ? gain(net.test(step.test), p).bits / stepMinutes(step.test)
      : 0;
    const top = suspects(net, p)[0];
    if (top && top.p >= FIX_AT && top.cause === named && top.cause !== 'none-of-these')
      return { at, better: null, worth, best: best.worth, why: 'late' };
    if (worth < HALF * best.worth)
      return { at, better: best.test, worth, best: best.worth, why: 'worth' };
  }
  const c = observationsOf(symptoms, steps);
  const p = posterior(net, c.clues);
  const [best] = nextTests(net, c.clues, p, c.refused);
  const sure = p[net.causes.indexOf(named)] ?? 0;
  if (best && best.bits >= WORTHWHILE_BITS && sure < FIX_AT)
    return { at: steps.length, better: best.test, worth: 0, best: best.worth, why: 'early' };
  return null;
}

/**
 * Minutes a note of a search stands for; what was known already, and what could not be done, took none.
 * @param n the note
 * @returns minutes
 */
export function noteMinutes(n: TroubleNote): number {
  if (n.what === 'test') return n.says === 'cannot' || n.by === 'reading' ? 0 : stepMinutes(n.test);
  return n.what === 'fix' ? CAUSES[n.cause].fix.minutes : 0;
}
