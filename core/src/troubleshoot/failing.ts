import type { StepId, SymptomId } from '../base';
import { type CountsReading, type LinkCheck, measure, type Report } from '../bring-up';
import type { ChainObservation } from './seen';

/** What was looked at when a step was tried: what eyes and a report say, and how the link was graded. */
export interface Looked {
  readonly seen: ChainObservation;
  readonly check: LinkCheck | null;
}

const SHORT = ['low', 'poor'];
/** No card: with the dock's router there it is another matter than with nothing at all. */
const missing = (seen: ChainObservation): SymptomId =>
  seen.router === true ? 'router-no-card' : 'nothing-listed';

/** What a step of bringing up looks for, and what it is when that is not there. */
const FAILS: Partial<Record<StepId, (l: Looked) => SymptomId | null>> = {
  'dock-on': ({ seen }) => (seen.lamp === false ? 'no-lamp' : null),
  approve: ({ seen }) =>
    seen.router === false ? 'nothing-listed' : seen.authorized === 0 ? 'router-no-card' : null,
  listed: ({ seen }) =>
    seen.card === 'absent' ? missing(seen) : seen.card === 'gone' ? 'seen-then-lost' : null,
  'driver-holds': ({ seen }) =>
    seen.card === 'there' && seen.driver === false ? 'error-no-driver' : null,
  'read-outs': ({ seen, check }) => {
    if (seen.card === 'absent' || seen.card === 'gone') return 'seen-then-lost';
    const below = (check?.rows ?? []).filter((r) => r.state === 'below');
    if (below.length === 0) return null;
    return below.every((r) => r.key === 'router') ? 'router-slow' : 'narrow-slow';
  },
  'copy-down': ({ check }) => (SHORT.includes(check?.copy?.grade ?? '') ? 'low-copy' : null),
  'copy-up': ({ check }) => (SHORT.includes(check?.copy?.grade ?? '') ? 'low-copy' : null),
  soak: ({ seen, check }) => {
    const counts = check?.counts;
    if ((counts?.downs ?? 0) > 0 || seen.card === 'gone' || seen.card === 'absent')
      return seen.card === 'there' && seen.lampWentOut !== true
        ? 'seen-then-lost'
        : 'drops-under-load';
    return counts?.grade === 'low' || counts?.grade === 'poor' ? 'errors-rise' : null;
  },
  'screen-path': ({ seen }) => (seen.screen === false ? 'no-picture' : null),
};

/**
 * What a reading taken at a step shows to be wrong there.
 * @param step of the bring-up
 * @param looked the reading
 * @returns the symptom; null where the step holds, or where this reading cannot tell
 */
export function failsAt(step: StepId, looked: Looked): SymptomId | null {
  return FAILS[step]?.(looked) ?? null;
}

/**
 * Errors the system counted so far along the link of the card.
 * @param report the reading
 * @param kind of the link
 * @returns corrected and fatal; null where it does not count, or no card is there
 */
export function errorTotals(
  report: Report,
  kind: 'tunnel' | 'direct',
): { corrected: number; fatal: number } | null {
  const m = measure(report, { kind });
  const ends = m.cardSpan ? [m.cardSpan.upper, m.cardSpan.lower] : [];
  const told = ends.flatMap((d) => (d.errors ? [d.errors] : []));
  if (told.length === 0) return null;
  // Both ends see the same link: the one that saw more is taken, not their sum.
  return {
    corrected: Math.max(...told.map((e) => e.corrected)),
    fatal: Math.max(...told.map((e) => e.fatal + e.nonfatal)),
  };
}

/**
 * Counts of a stretch of load. A counter that is less afterwards was started anew.
 * @param before report from before it
 * @param after report from after it
 * @param kind of the link
 * @param stretch its minutes, and links that went down
 * @returns counts over the stretch
 */
export function countsBetween(
  before: Report,
  after: Report,
  kind: 'tunnel' | 'direct',
  stretch: { minutes: number; downs: number | null },
): CountsReading {
  const a = errorTotals(before, kind);
  const b = errorTotals(after, kind);
  const pair = (key: 'corrected' | 'fatal') =>
    a && b ? [a[key] <= b[key] ? a[key] : 0, b[key]] : [a?.[key] ?? null, b?.[key] ?? null];
  const [correctedBefore = null, correctedAfter = null] = pair('corrected');
  const [fatalBefore = null, fatalAfter = null] = pair('fatal');
  return { correctedBefore, correctedAfter, fatalBefore, fatalAfter, ...stretch };
}
