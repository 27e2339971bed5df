import type { Chain, Slot } from '../../chain';
import type { Evaluation } from '../../plan';
import type { CheckRow } from './compare';
import type { CopyGrade } from './grade';

/** What the readings say, as the reasons look at it. */
export interface ReadingEvidence {
  readonly chain: Chain;
  readonly evaluation: Evaluation;
  readonly rows: readonly CheckRow[];
  readonly copy: CopyGrade | null;
  readonly traffic: 'quiet' | 'busy' | null;
  readonly corrected: readonly string[];
  readonly direct: boolean;
  readonly load: 'load' | 'idle' | null;
}

export type ReasonId =
  | 'half-rate-cable'
  | 'one-lane-cable'
  | 'wrong-port'
  | 'two-lane-host'
  | 'seating'
  | 'narrow-path'
  | 'driver-clamp'
  | 'slot-generation'
  | 'marginal-cable'
  | 'shared-traffic'
  | 'dock-firmware'
  | 'controller-class'
  | 'plan-wrong'
  | 'unit';

export interface DeviationReason {
  readonly id: ReasonId;
  readonly part: Slot;
  /** How strongly the readings support it: 3 shown, 2 fits, 1 possible. */
  readonly support: 1 | 2 | 3;
}

interface Rule {
  readonly id: ReasonId;
  readonly part: Slot;
  readonly support: (e: ReadingEvidence) => 0 | 1 | 2 | 3;
}

const row = (e: ReadingEvidence, key: CheckRow['key']) => e.rows.find((r) => r.key === key);
const isOff = (e: ReadingEvidence, key: CheckRow['key'], what: 'rate' | 'width') => {
  const r = row(e, key);
  return r?.state === 'below' && r.off.includes(what);
};
const short = (e: ReadingEvidence) =>
  e.copy !== null && ['low', 'poor', 'open'].includes(e.copy.grade);
const fine = (e: ReadingEvidence, key: CheckRow['key']) => row(e, key)?.state === 'as-expected';

/** Does the measured rate fit a link of this share of the expected? Healthy readings lie between 0.82 and 1.05 of what carries them. */
function fits(e: ReadingEvidence, share: number): boolean {
  const measured = e.copy?.share;
  return measured ? measured.hi >= 0.82 * share && measured.lo <= 1.05 * share : false;
}
const sockets = (e: ReadingEvidence) => e.chain.host?.sockets ?? [];
const used = (e: ReadingEvidence) => sockets(e).find((s) => s.key === e.chain.socket);

/**
 * Causes of a link that came up short, each with how far the readings support it. From the trade: common practice, no published
 * source. The half rate of a class C chain is 0.62 of its full one, two lanes are 0.51.
 */
const RULES: readonly Rule[] = [
  {
    id: 'half-rate-cable',
    part: 'path',
    support: (e) => {
      if (isOff(e, 'router', 'rate')) return 3;
      if (e.direct || fine(e, 'router') || !short(e)) return 0;
      return fits(e, 0.62) ? 2 : 1;
    },
  },
  { id: 'one-lane-cable', part: 'path', support: (e) => (isOff(e, 'router', 'width') ? 3 : 0) },
  {
    id: 'wrong-port',
    part: 'socket',
    support: (e) => {
      const twins = sockets(e).filter(
        (s) => s.key !== e.chain.socket && s.connector === used(e)?.connector,
      );
      if (e.direct || twins.length === 0) return 0;
      if (isOff(e, 'router', 'rate')) return 2;
      return short(e) && !fine(e, 'router') ? 1 : 0;
    },
  },
  {
    id: 'two-lane-host',
    part: 'socket',
    support: (e) => {
      if (isOff(e, 'host', 'width')) return 3;
      const open = row(e, 'host')?.state === 'not-read' || used(e)?.lanes === null;
      return !e.direct && short(e) && open && fits(e, 0.51) ? 2 : 0;
    },
  },
  { id: 'seating', part: 'card', support: (e) => (isOff(e, 'card', 'width') ? 3 : 0) },
  {
    id: 'narrow-path',
    part: 'path',
    support: (e) => (e.direct && isOff(e, 'card', 'width') ? 3 : 0),
  },
  {
    id: 'driver-clamp',
    part: 'card',
    support: (e) => (isOff(e, 'card', 'rate') && row(e, 'card')?.seen.gen === 1 ? 3 : 0),
  },
  {
    id: 'marginal-cable',
    part: 'path',
    support: (e) => {
      if (!e.direct) return 0;
      if (e.corrected.length > 0) return isOff(e, 'card', 'rate') ? 3 : 2;
      return isOff(e, 'card', 'rate') && row(e, 'card')?.seen.gen !== 1 ? 2 : 0;
    },
  },
  {
    id: 'slot-generation',
    part: 'dock',
    support: (e) => (isOff(e, 'card', 'rate') && row(e, 'card')?.seen.gen !== 1 ? 2 : 0),
  },
  {
    id: 'shared-traffic',
    part: 'loads',
    support: (e) => {
      if (e.direct || !short(e) || e.traffic === 'quiet') return 0;
      if (e.traffic === 'busy') return 3;
      return e.chain.loads.length > 0 ? 2 : 1;
    },
  },
  {
    id: 'dock-firmware',
    part: 'dock',
    support: (e) => (!e.direct && short(e) ? (e.chain.installed.dockFirmware === '' ? 2 : 1) : 0),
  },
  {
    id: 'controller-class',
    part: 'dock',
    support: (e) =>
      !e.direct && short(e) && (e.chain.dock?.controllerClass ?? null) === null ? 2 : 0,
  },
  {
    id: 'plan-wrong',
    part: 'host',
    support: (e) =>
      e.rows.some((r) => r.state === 'above') ? 3 : e.copy?.grade === 'impossible' ? 2 : 0,
  },
  { id: 'unit', part: 'host', support: (e) => (e.copy?.perhaps ? 3 : 0) },
];

/**
 * Reasons for a deviation that the readings support. Common practice, no published source.
 *
 * @param e rows, grades and facts of the reading
 * @returns reasons, strongest first; equals keep the order in which practitioners look
 */
export function reasons(e: ReadingEvidence): DeviationReason[] {
  const found = RULES.flatMap(({ id, part, support }): DeviationReason[] => {
    const s = support(e);
    return s === 0 ? [] : [{ id, part, support: s }];
  });
  return found.sort((a, b) => b.support - a.support);
}
