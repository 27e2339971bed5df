import type { StepId, SymptomId } from '../../base';
import type { Slot } from '../../chain';
import type { Step } from './types';

export const STEP_STATES = ['done', 'failed', 'skipped', 'undone'] as const;
export type StepState = (typeof STEP_STATES)[number];

/** What was noted at a step. Events are never changed: undoing is one more. */
export interface StepEvent {
  readonly id: string;
  readonly attempt: string;
  /** Number of the attempt it belongs to. */
  readonly no: number;
  readonly step: StepId;
  readonly state: StepState;
  readonly reason: string;
  readonly symptom: SymptomId | null;
  /** What stood in the places the step is about. */
  readonly about: Readonly<Partial<Record<string, string>>>;
  readonly at: string;
}

/** A step and how it stands. */
export interface StepStatus {
  readonly step: Step;
  readonly state: 'open' | 'done' | 'failed' | 'skipped';
  readonly event: StepEvent | null;
  /** It was done in an earlier attempt and nothing it was done to has changed. */
  readonly from: number | null;
  /** Places where another part stands now than when it was done. */
  readonly changed: readonly Slot[];
}

/** The last thing noted at each step of an attempt, in the order given. */
function newest(events: readonly StepEvent[]): Map<StepId, StepEvent> {
  return new Map(events.map((e) => [e.step, e]));
}

function changedSince(e: StepEvent, step: Step, now: Partial<Record<Slot, string>>): Slot[] {
  return step.about.filter((slot) => (e.about[slot] ?? '') !== (now[slot] ?? ''));
}

/**
 * Steps with an event in an attempt: they stay in the list when the chain no longer asks for them.
 *
 * @param events step events of the setup, oldest first
 * @param attempt id of the attempt
 * @returns ids of those steps
 */
export function noted(events: readonly StepEvent[], attempt: string): Set<StepId> {
  const mine = newest(events.filter((e) => e.attempt === attempt));
  return new Set([...mine.values()].filter((e) => e.state !== 'undone').map((e) => e.step));
}

/**
 * Status of every step of a list in an attempt. The last event of a step counts. A lasting step that an earlier attempt
 * finished stays done while the same parts are fitted; after a change of its part it is open again, with the change named.
 *
 * @param list steps of the chain, in order
 * @param events all step events of the setup, oldest first
 * @param attempt id of the attempt; null before the first
 * @param now names of the parts that are fitted, by slot
 * @returns one status a step, in the order of `list`
 */
export function stand(
  list: readonly Step[],
  events: readonly StepEvent[],
  attempt: string | null,
  now: Partial<Record<Slot, string>>,
): StepStatus[] {
  const mine = newest(events.filter((e) => e.attempt === attempt));
  const earlier = newest(events.filter((e) => e.attempt !== attempt));
  return list.map((step): StepStatus => {
    const own = mine.get(step.id);
    const last = own ?? (step.lasting ? earlier.get(step.id) : undefined);
    const open: StepStatus = { step, state: 'open', event: null, from: null, changed: [] };
    if (!last || last.state === 'undone') return open;
    if (!own && last.state !== 'done') return open;
    const changed = last.state === 'done' ? changedSince(last, step, now) : [];
    if (changed.length > 0) return { ...open, event: last, changed };
    return { step, state: last.state, event: last, from: own ? null : last.no, changed: [] };
  });
}

export interface Progress {
  /** Place of the step to do now; the length of the list when all is done. */
  readonly at: number;
  readonly n: number;
  readonly done: number;
  readonly skipped: number;
  readonly failed: number;
  readonly minutesLeft: number;
}

/**
 * Progress of an attempt.
 *
 * @param list statuses of its steps, in order
 * @returns index of the first step that is neither done nor skipped, counts by status, and minutes left
 */
export function progress(list: readonly StepStatus[]): Progress {
  const settled = (s: StepStatus) => s.state === 'done' || s.state === 'skipped';
  const first = list.findIndex((s) => !settled(s));
  const count = (state: StepStatus['state']) => list.filter((s) => s.state === state).length;
  return {
    at: first < 0 ? list.length : first,
    n: list.length,
    done: count('done'),
    skipped: count('skipped'),
    failed: count('failed'),
    minutesLeft: list.filter((s) => !settled(s)).reduce((sum, s) => sum + s.step.minutes, 0),
  };
}

/**
 * Outcome of the power order in an attempt.
 *
 * @param events step events of the setup, oldest first
 * @param attempt id of the attempt
 * @returns true when the card was listed, false when it failed while connecting or was not listed, null when the attempt
 * stopped before or failed on something else
 */
export function orderWorked(events: readonly StepEvent[], attempt: string): boolean | null {
  const mine = newest(events.filter((e) => e.attempt === attempt));
  const listed = mine.get('listed')?.state;
  if (listed === 'done') return true;
  const failed = [...mine.values()].some(
    (e) =>
      e.state === 'failed' &&
      ['plug-cable', 'dock-on', 'host-start', 'approve', 'listed'].includes(e.step),
  );
  return failed ? false : null;
}
