import type { HouseRules } from '../../base';
import type { AttrPath, Chain } from '../../chain';
import type { Evaluation } from '../../plan';
import { measure, type MeasuredChain } from '../reports/measured';
import type { LinkSpan } from '../reports/tree';
import type { Reading, RouterReading, SpanReading } from '../schema/reading';
import { type CheckRow, compareReading } from './compare';
import { type Completeness, completenessOf } from './completeness';
import { type CountsGrade, gradeCounts, gradeWindow, type WindowGrade } from './counts';
import { doubtsOf, portCeilingGbps } from './doubts';
import { type CopyGrade, gradeCopy } from './grade';
import { type DeviationReason, reasons } from './reasons';

/** `open`: graded differently at the ends of the expected. `idle`: nothing that counts was read under load. */
export type Overall =
  | 'healthy'
  | 'low'
  | 'poor'
  | 'impossible'
  | 'open'
  | 'idle'
  | 'no-card'
  | 'gone'
  | 'not-graded'
  | 'above';

export interface LinkCheck {
  readonly overall: Overall;
  readonly rows: readonly CheckRow[];
  readonly copy: CopyGrade | null;
  readonly counts: CountsGrade | null;
  readonly window: WindowGrade | null;
  readonly reasons: readonly DeviationReason[];
  /** Which of the marks of a whole check were read. */
  readonly read: Completeness;
  /** Assumptions of the plan that a reading above the expected contradicts, what binds first. */
  readonly doubts: readonly AttrPath[];
  /** A copy rate above all that the port's standard can carry: no plan explains it. */
  readonly beyondPort: boolean;
  readonly measured: MeasuredChain | null;
  /** The card is there but no driver holds it. */
  readonly noDriver: boolean;
  /** The router is there but waits for approval, so that no bridge appears. */
  readonly notApproved: boolean;
}

function spanOf(s: LinkSpan | null): SpanReading | null {
  return s && (s.gen !== null || s.lanes !== null) ? { gen: s.gen, lanes: s.lanes } : null;
}

function routerOf(m: MeasuredChain | null): RouterReading | null {
  const r = m?.router;
  return r ? { laneGbps: r.rxGbps, lanes: r.rxLanes } : null;
}

/** What is typed wins over what the report says: a person may correct it. */
function mix<T extends object>(typed: T | null, read: T | null): T | null {
  if (!typed || !read) return typed ?? read;
  const known = Object.fromEntries(
    Object.entries(typed).filter(([, v]) => v !== null),
  ) as Partial<T>;
  return { ...read, ...known };
}

function overallOf(c: Omit<LinkCheck, 'overall'>): Overall {
  if (c.measured && c.measured.card === null) return 'no-card';
  if (c.measured?.card?.gone) return 'gone';
  if (c.rows.some((r) => r.state === 'above') || (c.copy?.grade === 'impossible' && !c.beyondPort))
    return 'above';
  const below = c.rows.some((r) => r.state === 'below');
  // Drops and errors outweigh any rate.
  if (c.counts?.grade === 'poor') return 'poor';
  // A healthy rate beside a slow or narrow span is not the whole truth.
  if (c.copy && c.copy.grade !== 'not-graded')
    return c.copy.grade === 'healthy' && (below || c.counts?.grade === 'low')
      ? 'low'
      : c.copy.grade;
  if (below || c.counts?.grade === 'low') return 'low';
  if (c.rows.some((r) => r.state === 'idle')) return 'idle';
  return c.rows.some((r) => r.state === 'as-expected') || c.counts?.grade === 'healthy'
    ? 'healthy'
    : 'not-graded';
}

/**
 * Grades one reading against what the chain should show: every pair, the router and the copy rate, with reasons ranked by
 * the support of the other readings. Pure: the same reading and chain give the same check.
 *
 * @param reading the reading as entered or read from a report
 * @param chain the chain at the time of the reading
 * @param evaluation evaluation of that chain
 * @param house the workshop's rules
 * @returns rows, grades, reasons and contradicted assumptions
 */
export function linkCheck(
  reading: Reading,
  chain: Chain,
  evaluation: Evaluation,
  house: HouseRules,
): LinkCheck {
  const { kind, readouts } = evaluation.predicted.link;
  const measured = reading.report
    ? measure(reading.report, { kind, address: reading.card ?? undefined })
    : null;
  // A card that fell off leaves its port behind: what that shows is no link.
  const there = measured?.card?.gone ? null : measured;
  const seen = {
    router: mix(reading.router, routerOf(measured)),
    host: mix(reading.hostSpan, spanOf(there?.hostSpan ?? null)),
    card: mix(reading.cardSpan, spanOf(there?.cardSpan ?? null)),
    inside: spanOf(there?.inside ?? null),
    virtual: (measured?.virtual.length ?? 0) > 0,
  };
  const rows = compareReading(readouts, seen, reading.load);
  const decides = evaluation.toVerify.map((v) => v.path);
  const copy = reading.copy
    ? gradeCopy(reading.copy, { load: reading.load, expected: readouts.copy, decides, house })
    : null;
  const evidence = {
    chain,
    evaluation,
    rows,
    copy,
    traffic: reading.copy?.traffic ?? null,
    corrected: measured?.corrected ?? [],
    direct: kind === 'direct',
    load: reading.load,
  };
  const card = measured?.card ?? null;
  const counts = reading.counts ? gradeCounts(reading.counts, house) : null;
  const check = {
    rows,
    copy,
    counts,
    read: completenessOf({ rows, copy, counts }),
    doubts: doubtsOf(chain, evaluation, rows, copy),
    beyondPort:
      copy?.gbps !== null && copy?.gbps !== undefined && copy.gbps > portCeilingGbps(chain),
    window: gradeWindow(reading.window?.nowMB ?? measured?.window?.nowMB ?? null, chain.card),
    reasons: measured?.card?.gone ? [] : reasons(evidence),
    measured,
    noDriver:
      card !== null &&
      !card.gone &&
      card.driver === null &&
      !(measured?.denied ?? false) &&
      hasDrivers(reading),
    notApproved: measured?.router?.authorized === 0,
  };
  return { overall: overallOf(check), ...check };
}

/** Does this report list drivers at all? Without any, none missing means nothing. */
function hasDrivers(r: Reading): boolean {
  return r.report?.devices.some((d) => d.driver !== null) ?? false;
}
