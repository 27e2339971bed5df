import { median, type StepId } from '../../base';

/** A step noted as done in an attempt, or the beginning of one (`step` null), with its time. */
export interface StepNote {
  readonly attempt: string;
  readonly step: StepId | null;
  /** ISO instant. */
  readonly at: string;
}

/** How long a step takes in this workshop. */
export interface StepTime {
  /** Middle one, min. */
  readonly minutes: number;
  /** Attempts it is told from. */
  readonly n: number;
}

/** Times are told from this many attempts on. */
export const MIN_ATTEMPTS = 3;
/** A longer gap is a break and no work, min. */
const BREAK = 120;
const MINUTE_MS = 60_000;

/** Minutes of each step of one attempt: the time since what was noted before, shared by what was noted in the same moment. */
function gaps(events: readonly StepNote[]): [StepId, number][] {
  const times = [...new Set(events.map((e) => Date.parse(e.at)))].sort((a, b) => a - b);
  return times.slice(1).flatMap((t, i): [StepId, number][] => {
    const gap = (t - (times[i] as number)) / MINUTE_MS;
    const steps = events.flatMap((e) =>
      e.step !== null && Date.parse(e.at) === t ? [e.step] : [],
    );
    return gap > BREAK ? [] : steps.map((s) => [s, gap / steps.length]);
  });
}

/**
 * Duration of each step in the attempts of a workshop: the median of at least three attempts. Attempts that noted "Card
 * into the slot" 6, 8 and 15 minutes after the step before give 8 minutes, from 3 attempts.
 *
 * @param events finished steps and the starts of their attempts, in any order
 * @returns minutes and number of attempts, for each step that was timed often enough
 */
export function stepTimes(events: readonly StepNote[]): ReadonlyMap<StepId, StepTime> {
  const byAttempt = new Map<string, StepNote[]>();
  for (const e of events) byAttempt.set(e.attempt, [...(byAttempt.get(e.attempt) ?? []), e]);
  const found = new Map<StepId, number[]>();
  for (const mine of byAttempt.values()) {
    // A step noted twice counts once, with its last time.
    for (const [step, minutes] of new Map(gaps(mine)))
      found.set(step, [...(found.get(step) ?? []), minutes]);
  }
  return new Map(
    [...found].flatMap(([step, list]) =>
      list.length < MIN_ATTEMPTS
        ? []
        : [[step, { minutes: median(list), n: list.length }] as const],
    ),
  );
}
