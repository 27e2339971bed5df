import type { TestId } from '../base';
import type { LinkCheck } from '../bring-up';
import type { Answer } from './bayes';
import type { ChainObservation } from './seen';

const FORBIDS = ['dponly', 'usbonly', 'nopcie'];
type ReportedFact = boolean | null;

/** A span of real PCIe as it was graded: below, right, or not told. */
function spanBelow(check: LinkCheck | null, key: string, what?: 'rate' | 'width'): ReportedFact {
  const row = check?.rows.find((r) => r.key === key);
  if (row?.state === 'below') return what === undefined || row.off.includes(what);
  return row?.state === 'as-expected' ? false : null;
}

/** One told yes is enough for yes; a no needs all that are told. */
function any(...told: readonly ReportedFact[]): ReportedFact {
  const known = told.filter((t) => t !== null);
  return known.length === 0 ? null : known.some(Boolean);
}

function copyShort(check: LinkCheck | null): ReportedFact {
  const grade = check?.copy?.grade;
  return grade === 'low' || grade === 'poor' ? true : grade === 'healthy' ? false : null;
}

function errorsRose(seen: ChainObservation, check: LinkCheck | null): ReportedFact {
  const counts = check?.counts ?? null;
  if (counts && counts.correctedPerHour !== null)
    return counts.correctedPerHour > 0 && counts.grade !== 'healthy';
  return seen.errors === true ? true : null;
}

/** A rate within 8 of 100 of what this chain should carry. */
function nearClass(check: LinkCheck | null): ReportedFact {
  const share = check?.copy?.share;
  if (!share || check.copy?.grade === 'not-graded') return null;
  return share.lo >= 0.92 ? true : share.hi < 0.92 ? false : null;
}

const LOOKS: Readonly<
  Partial<Record<TestId, (s: ChainObservation, c: LinkCheck | null) => ReportedFact>>
> = {
  'port-mark': (s) => (s.usb4 === null ? null : !s.usb4),
  'router-listed': (s) => (s.router === null ? null : !s.router),
  approved: (s) => (s.authorized === null ? null : s.authorized === 0),
  security: (s) => (s.security === null ? null : FORBIDS.includes(s.security)),
  'router-speed': (_, c) => spanBelow(c, 'router'),
  'two-lane-span': (_, c) => spanBelow(c, 'host', 'width'),
  'span-loaded': (_, c) => any(spanBelow(c, 'card'), spanBelow(c, 'host')),
  'copy-rate': (_, c) => copyShort(c),
  'near-class': (_, c) => nearClass(c),
  'count-errors': errorsRose,
  'no-space': (s) => (s.assigned === null ? null : !s.assigned),
  'device-state': (s) => (s.card === 'there' && s.driver !== null ? !s.driver : null),
  // With everything off at first and the fault still there, that has been tried.
  'all-off': (s) => (s.allOff === true ? false : null),
  'dock-dark': (s) => (s.lamp === null ? null : !s.lamp),
  'plug-partner': (s) => (s.partner === null ? null : !s.partner),
  bridges: (s) => (s.bridges === null || s.router === false ? null : !s.bridges),
  'slot-empty': (s) => (s.present === null || s.card !== 'absent' ? null : !s.present),
  'lamp-out': (s) => s.lampWentOut,
  'asleep-at-rest': (s) => (s.asleep === true ? true : null),
  'no-output': (s) => (s.screen === null ? null : !s.screen),
};

/**
 * Tests that a reading answers by itself. What the reading does not say, it does not answer.
 * @param seen what eyes and a report said of the chain
 * @param check how the link was graded; null where it was not
 * @returns answers
 */
export function answersOf(seen: ChainObservation, check: LinkCheck | null): Answer[] {
  return (Object.keys(LOOKS) as TestId[]).flatMap((test) => {
    const yes = LOOKS[test]?.(seen, check) ?? null;
    return yes === null ? [] : [{ test, yes }];
  });
}
