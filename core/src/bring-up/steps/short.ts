import type { StepId } from '../../base';
import type { StepStatus } from './fold';

/** A short list has no more steps than this; a list that has no more is short as it is. */
export const SHORT_MOST = 12;

/** A step of the short form with the steps folded under it, in the order of the full list. */
export interface Group {
  readonly head: StepStatus;
  /** Steps that are done with it, without the head itself. */
  readonly folded: readonly StepStatus[];
}

/**
 * Steps that lead in the short form, what cannot be folded first: those that take a reading or the outcome, then those at which a rig most
 * often fails. Common practice, no published source.
 */
const LEADING: readonly StepId[] = [
  ...(['read-outs', 'copy-down', 'copy-up', 'soak', 'log-entry'] as const),
  ...([
    'plug-cable',
    'host-start',
    'listed',
    'card-seat',
    'power-plugs',
    'dock-on',
    'way-back',
  ] as const),
  ...([
    'driver-before',
    'driver-after',
    'dock-firmware',
    'dock-close',
    'approve',
    'first-run',
    'host-alone',
    'charger',
  ] as const),
];

/** Rank of a step among those that may lead; a step that cannot be undone always does. */
function rank(s: StepStatus): number {
  if (s.step.final) return -1;
  const at = LEADING.indexOf(s.step.id);
  return at < 0 ? Infinity : at;
}

/**
 * Short form of a list: at most `SHORT_MOST` leading steps, each with the others folded under it. A folded step belongs to
 * the next leading one, so that a preparation stands before its act; what follows the last one belongs to that. A laptop
 * with a tunnel dock has 29 steps in 12 groups, "Cable into the marked port" with four folded under it.
 *
 * @param list statuses of the steps, in order
 * @returns groups in that order; every step is in exactly one
 */
export function shortForm(list: readonly StepStatus[]): Group[] {
  if (list.length <= SHORT_MOST) return list.map((head) => ({ head, folded: [] }));
  const ranked = [...list].sort((a, b) => rank(a) - rank(b) || list.indexOf(a) - list.indexOf(b));
  const leads = new Set(ranked.slice(0, SHORT_MOST).filter((s) => rank(s) < Infinity));
  const groups: { head: StepStatus; folded: StepStatus[] }[] = [];
  let waiting: StepStatus[] = [];
  for (const s of list) {
    if (!leads.has(s)) waiting.push(s);
    else {
      groups.push({ head: s, folded: waiting });
      waiting = [];
    }
  }
  const last = groups.at(-1);
  if (!last) return list.map((head) => ({ head, folded: [] }));
  last.folded.push(...waiting);
  return groups;
}
