import type { SymptomId, TestId } from '@ruddy/core/base';
import type { FaultId, RemedyId } from '@ruddy/core/bench';
import { inspect, type InjectedFault, type Inspection } from './inspect';

export type Shown = 'yes' | 'no' | 'cannot';

/** Tests that change something and look again. */
const CURES: Readonly<Partial<Record<TestId, RemedyId>>> = {
  'short-cable': 'sound-cable',
  'short-direct': 'sound-cable',
  'other-port': 'right-port',
  'plug-seen': 'plugs-looked-at',
  'approve-anew': 'approved-anew',
  'hub-off': 'hub-bare',
  reseat: 'card-reseated',
  'plugs-home': 'power-plugs-home',
  'other-card': 'other-card',
  'lower-power': 'power-limit',
  'clean-driver': 'drivers-clean',
  'override-rate': 'rate-kept',
  'no-saving': 'saving-off',
  'other-output': 'right-input',
};

/** What no file of a bench shows and a person would read on paper: positive where one of these faults sits in it. */
const ON_PAPER: Readonly<Partial<Record<TestId, readonly FaultId[]>>> = {
  'port-mark': ['look-alike-port'],
  'dock-version': ['dock-firmware-crash', 'dock-firmware-cap'],
  'host-version': [],
  'driver-version': ['driver-refused'],
  'support-list': [],
  compatibility: [],
  'link-software': [],
  'versions-changed': [],
  'key-when': ['asks-for-key'],
  'update-tool': [],
  'measure-fit': [],
  'screen-on-card': [],
  // Cards of a bench keep their clocks, and link at rest was never read.
  clocks: [],
  'ten-minutes': [],
  'read-again': [],
  'asleep-at-rest': [],
};

/** Is everything gone that somebody complained of? */
const cured = (complaint: readonly SymptomId[], now: Inspection): boolean =>
  !complaint.some((s) => now.symptoms.includes(s));

/**
 * What a bench shows when a test is made on it. Looks are what the probe, the lamps and the graded readings say; swaps bring it up again
 * with the remedy and look whether the complaint is gone. Never taken from the tables of the net. In: the hidden bench, what it showed
 * at first and what was complained of. "Cannot": nothing of the kind is on a bench.
 */
export function benchAnswer(
  hidden: InjectedFault,
  first: Inspection,
  complaint: readonly SymptomId[],
  test: TestId,
): Shown {
  const word = (yes: boolean): Shown => (yes ? 'yes' : 'no');
  const seen = first.answers.get(test);
  if (seen !== undefined) return word(seen);
  if (test === 'all-off')
    return word(
      hidden.order !== 'all-off' && cured(complaint, inspect({ ...hidden, order: 'all-off' })),
    );
  if (test === 'plug-later')
    return word(
      hidden.order !== 'host-first' &&
        cured(complaint, inspect({ ...hidden, order: 'host-first' })),
    );
  if (test === 'other-host') return word(!cured(complaint, inspect(hidden, 'other-host')));
  if (test === 'desktop-slot') return word(inspect(hidden, 'card-alone').symptoms.length > 0);
  const remedy = CURES[test];
  if (remedy) return word(cured(complaint, inspect(hidden, remedy)));
  const paper = ON_PAPER[test];
  return paper ? word(paper.some((f) => (hidden.faults[f] ?? 0) > 0)) : 'cannot';
}
