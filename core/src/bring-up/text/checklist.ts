import type { DriverSchool, OrderId, Phase, Purpose, StepId } from '../../base';
import { capital, formatWhole } from '../../base/text';
import { SOFTWARE_NAMES, type SoftwareRole } from '../../parts';
import type { Progress, StepStatus } from '../steps/fold';
import type { OrderAdvice, OrderCount } from '../steps/history';
import type { SinceGood } from '../steps/last-good';
import type { OpeningPlan } from '../steps/opening';
import type { OrderChoice } from '../steps/orders';
import type { StepFacts } from '../steps/types';
import { BEFORE_WORDS, type StepWords } from './steps-before';
import { CONNECT_WORDS } from './steps-connect';
import { LIVE_WORDS } from './steps-live';
import { MOUNT_WORDS } from './steps-mount';

export const STEP_WORDS: Readonly<Record<StepId, (f: StepFacts) => StepWords>> = {
  ...BEFORE_WORDS,
  ...MOUNT_WORDS,
  ...CONNECT_WORDS,
  ...LIVE_WORDS,
};

export const PURPOSE_WORDS: Readonly<Record<Purpose, string>> = {
  'bring-up': 'Bring it up',
  undock: 'Undock',
  'dock-again': 'Dock again',
};

export const PHASE_WORDS: Readonly<Record<Phase, string>> = {
  before: 'Before',
  open: 'Open the host',
  mount: 'Mount',
  connect: 'Connect',
  check: 'Check',
  settle: 'Set up',
  finish: 'Finish',
  leave: 'Get ready',
  apart: 'Take apart',
  after: 'After',
};

export const ORDER_WORDS: Readonly<Record<OrderId, { name: string; what: string }>> = {
  'all-off': { name: 'all off', what: 'Everything off, mains out, cable, dock on, host on.' },
  slaved: {
    name: 'host drives the dock',
    what: 'Cable in, then the button of the host starts both.',
  },
  'dock-first': { name: 'dock first', what: 'Dock and cable before the host starts.' },
  'host-first': { name: 'host first', what: 'Host up, dock on, then the cable.' },
  'any-time': { name: 'any time', what: 'Host up; cable and dock whenever.' },
};

export const DRIVER_WORDS: Readonly<Record<DriverSchool, string>> = {
  before: 'driver before the first plug',
  after: 'driver after the card is listed',
};

const SHUT: Readonly<Record<NonNullable<OrderChoice['why']>, string>> = {
  direct: 'a direct link is never plugged live',
  firmware: 'not before the firmware is updated',
  'not-driven': 'the host does not drive this dock',
  'driven-unknown': 'only if the host drives this dock; not known yet',
};

/**
 * Reason why a power order is ruled out or warned of.
 *
 * @param c the order as `orderChoices` gives it
 * @returns the sentence; empty when nothing speaks against it
 */
export function orderWhy(c: OrderChoice): string {
  return c.why === null ? '' : SHUT[c.why];
}

/**
 * Successes of each order, such as "all off 4 of 5, any time 1 of 3".
 *
 * @param list orders with successes and attempts
 * @returns the list in words; empty for none
 */
export function countsWords(list: readonly OrderCount[]): string {
  return list.map((c) => `${ORDER_WORDS[c.order].name} ${c.worked} of ${c.n}`).join(', ');
}

/**
 * Reason for the recommended power order, with its counts.
 *
 * @param a the recommendation
 * @param build system build in use; empty when unknown
 * @returns one or two sentences
 */
export function adviceWords(a: OrderAdvice, build: string): string {
  const name = ORDER_WORDS[a.order].name;
  const before = a.before ? countsWords(a.before.counts) : '';
  switch (a.why) {
    case 'log':
      return `This host under build ${build}: ${countsWords(a.here)} came up. So: ${name}.`;
    case 'new-build': {
      const here = a.here.length > 0 ? ` Under build ${build}: ${countsWords(a.here)}.` : '';
      return `The system build changed${a.before ? ` from ${a.before.build || 'one not noted'}` : ''} to ${build}, so the order is open again. Before: ${before}.${here} The safest: ${name}.`;
    }
    case 'no-build':
      return `The system build is not noted, so the log cannot be read for it (${before}). Enter it, or take the safest: ${name}.`;
    case 'safest': {
      const here =
        a.here.length > 0
          ? ` Tried under build ${build}: ${countsWords(a.here)}.`
          : ' 0 tries are logged for this host and link.';
      return `The safest: ${name}.${here}`;
    }
  }
}

/**
 * Rounded duration, such as "about 25 minutes": to fives above ten.
 *
 * @param minutes duration, minutes
 * @returns the words
 */
export function about(minutes: number): string {
  const n = minutes > 10 ? Math.round(minutes / 5) * 5 : Math.max(1, Math.round(minutes));
  return `about ${n} ${n === 1 ? 'minute' : 'minutes'}`;
}

/**
 * Main sentence of a list in progress.
 *
 * @param list statuses of the steps
 * @param p progress of the attempt
 * @param f facts of the chain
 * @returns the sentence
 */
export function progressHeadline(list: readonly StepStatus[], p: Progress, f: StepFacts): string {
  const now = list[p.at];
  if (!now) return `All ${p.n} steps are settled: ${p.done} done, ${p.skipped} skipped.`;
  const failed = now.state === 'failed' ? ' failed' : '';
  const { title } = STEP_WORDS[now.step.id](f);
  return `Step ${p.at + 1} of ${p.n}${failed}: ${title}. ${p.done} done, ${about(p.minutesLeft)} left.`;
}

/**
 * Main sentence before an attempt is started.
 *
 * @param purpose purpose of the list
 * @param list statuses of the steps
 * @param attempts number of earlier attempts
 * @returns the sentence
 */
export function startHeadline(
  purpose: Purpose,
  list: readonly StepStatus[],
  attempts: number,
): string {
  const minutes = list.reduce((sum, s) => sum + s.step.minutes, 0);
  const tried =
    attempts === 0
      ? 'not started yet'
      : `${attempts} ${attempts === 1 ? 'attempt' : 'attempts'} so far`;
  return `${PURPOSE_WORDS[purpose]}: ${list.length} steps for this chain, ${about(minutes)}; ${tried}.`;
}

const OPENS = {
  none: 'nothing: opening is at your own risk',
  hatch: 'a service hatch',
  cover: 'the bottom cover',
  board: 'down to the board',
} as const;
const HOLDS = {
  screws: 'screws',
  clips: 'clips',
  both: 'screws and clips',
  glue: 'glue: warmth and patience, or not at all',
} as const;
const COMES_OUT = {
  'system-drive': 'the drive the system starts from',
  drive: 'another drive',
  radio: 'the radio card',
  nothing: 'nothing',
} as const;
const DANGERS: Partial<Record<string, string>> = {
  battery: 'a charged battery under the lid',
  'lid-fan': 'a fan cable on the lid',
  conducts: 'liquid metal on the coolers',
};

/**
 * Rows of a disassembly plan; facts that are not known yet say so.
 *
 * @param p the plan
 * @returns label and text of each row
 */
export function openingWords(p: OpeningPlan): { what: string; words: string }[] {
  const known = p.hazards.filter((h) => h.known).map((h) => DANGERS[h.caution]);
  const open = p.hazards.filter((h) => !h.known).map((h) => DANGERS[h.caution]);
  const dangers = [known.join(', '), open.length > 0 ? `not known: ${open.join(', ')}` : ''].filter(
    (s) => s !== '',
  );
  const screws = p.screws ? `${formatWhole(p.screws)} ` : '';
  return [
    {
      what: 'Slot',
      words: `${p.slot}${p.adapters.length > 0 ? `, takes ${p.adapters.join(', ')}` : ''}`,
    },
    { what: 'Comes out', words: p.out === null ? 'not known: look first' : COMES_OUT[p.out] },
    {
      what: 'Held by',
      words:
        p.fixings === null
          ? `${screws ? `${screws}screws` : 'not known'}`
          : `${p.fixings === 'clips' ? '' : screws}${HOLDS[p.fixings]}`,
    },
    {
      what: 'Maker allows',
      words: `${p.depth === null ? 'not known: read the manual' : OPENS[p.depth]}${p.beyond ? '; this goes further' : ''}`,
    },
    { what: 'Dangers', words: dangers.join('; ') || 'static' },
    {
      what: 'Starts from',
      words:
        p.out === 'system-drive' || p.out === null
          ? p.boots.length > 0
            ? `another drive, for example in ${p.boots.join(', ')}`
            : 'another drive; no free slot is known'
          : 'as before',
    },
    {
      what: 'Way back',
      words: p.cuts
        ? 'none for the shell; the rest the way it came'
        : 'the way it came: part back into its slot, screws in their order',
    },
  ];
}

/**
 * One change since the last good state, such as "Card driver 41.2 to 41.5".
 *
 * @param s the change
 * @returns the words
 */
export function sinceWords(s: SinceGood): string {
  const name = s.what in SOFTWARE_NAMES ? SOFTWARE_NAMES[s.what as SoftwareRole] : capital(s.what);
  return `${name} ${s.from} to ${s.to || 'not known'}`;
}
