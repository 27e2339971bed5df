import type { CauseId, SymptomId, TestId } from '../../base';
import { pluralize } from '../../base/text';
import type { CautionId } from '../../bring-up';
import type { TroubleAdvice } from '../advice';
import type { ChainFacts } from '../chain-facts';
import { TESTS } from '../net';
import { CAUSES } from '../net/causes';
import type { Place } from '../net/types';
import { BESIDE_MINUTES, FIX_AT, type Offer } from '../next';
import type { FixResult, TroubleNote } from '../trouble';
import { CAUSE_WORDS, SYMPTOM_WORDS } from './symptoms';
import { CARD_TEST_WORDS } from './tests-card';
import { LINK_TEST_WORDS, type TestWords } from './tests-link';
import { RUN_TEST_WORDS } from './tests-run';

export type { TestWords } from './tests-link';
/** Every safe test in words. */
export const TEST_WORDS: Readonly<Record<TestId, TestWords>> = {
  ...LINK_TEST_WORDS,
  ...CARD_TEST_WORDS,
  ...RUN_TEST_WORDS,
};

export const FIX_WORDS: Readonly<Record<FixResult, string>> = {
  solved: 'Solved by this',
  better: 'Better, not well',
  'no-change': 'No change',
  stopped: 'Stopped here',
};

export const PLACE_WORDS: Readonly<Record<Place, string>> = {
  system: 'System',
  port: 'Host port',
  cable: 'Cable',
  dock: 'Dock',
  card: 'Card',
  screen: 'Screen',
  elsewhere: 'elsewhere',
};

/** What comes before any diagnosis when the screen is black or the host stands still. */
export const PICTURE_STEPS: readonly string[] = [
  'Hold the power button of the host as its maker says, until it is off.',
  'Dock off, mains out, and take the cable out of the host.',
  'Wait ten seconds, then start the host without the dock, on its own panel or a screen at the host.',
  'Save what is open and note what was on the screen last. Only then look for the cause.',
];
export const PICTURE_CAUTION =
  "Work may be lost: a forced stop loses what is not saved, and a direct cable comes out only with everything off. The maker's manual has the last word.";

/** What would be asked for if the key comes up, and where: said before every fix that can ask for it. */
export const cautionsOfFix = (cause: CauseId, facts: ChainFacts): CautionId[] =>
  onChain(CAUSES[cause].fix.cautions, facts);
export const cautionsOfTest = (test: TestId, facts: ChainFacts): CautionId[] =>
  onChain(TESTS[test].cautions ?? [], facts);

/** Words about direct links are left out where the link is surely another. */
function onChain(cautions: readonly CautionId[], facts: ChainFacts): CautionId[] {
  return cautions.filter((c) => c !== 'direct-off' || facts.direct);
}

/**
 * Bits, as much as tells them apart.
 * @param bits information gain
 * @returns "0.8 bit"
 */
export function bitWords(bits: number): string {
  const text = bits < 0.095 ? bits.toFixed(2) : bits.toFixed(1);
  return `${text} ${text === '1.0' ? 'bit' : 'bits'}`;
}

/** Symptoms grouped by the place where they are seen. */
export const SYMPTOM_GROUPS: readonly {
  readonly name: string;
  readonly of: readonly SymptomId[];
}[] = [
  {
    name: 'It does not come up',
    of: [
      'nothing-listed',
      'router-no-card',
      'no-lamp',
      'not-at-start',
      'error-no-driver',
      'no-picture',
      'host-dead',
      'does-not-fit',
    ],
  },
  {
    name: 'It crashes, drops or hangs',
    of: [
      'crash-on-plug',
      'seen-then-lost',
      'drops-under-load',
      'freeze-under-load',
      'errors-rise',
      'not-back',
    ],
  },
  { name: 'The link is slow', of: ['low-copy', 'narrow-slow', 'router-slow'] },
  {
    name: 'Frames disappoint',
    of: [
      ...([
        'flat-frames',
        'load-without-watts',
        'poor-lows',
        'regular-hitch',
        'bigger-slower',
        'slower-than-inside',
      ] as const),
      ...(['slow-on-panel', 'memory-clock-half', 'textures-collapse', 'handheld-hot'] as const),
    ],
  },
  {
    name: 'Programs, system, power',
    of: [
      ...([
        'wrong-card',
        'title-refuses',
        'small-window',
        'desktop-stutter',
        'worked-before',
      ] as const),
      ...(['recovery-key-asked', 'battery-falls', 'update-stuck'] as const),
    ],
  },
];

const percentOf = (p: number): string => (p < 0.005 ? 'under 1 %' : `${Math.round(p * 100)} %`);
export { percentOf as suspicionPercent };

/**
 * The one sentence of a search.
 * @param a what to try next
 * @param minutes spent so far
 * @returns the sentence
 */
export function searchHeadline(a: TroubleAdvice, minutes: number): string {
  const { what } = CAUSE_WORDS[a.top.cause];
  const most = `Most suspect: ${lower(what)}, ${percentOf(a.top.p)}.`;
  const next = a.offers[0];
  if (a.now === 'fix') {
    const verb = a.top.cause === 'own-cap' ? 'Look at' : 'Mend';
    const start =
      a.top.p < FIX_AT
        ? `No safe test left tells enough. ${verb} the likeliest`
        : `${verb} the most suspect`;
    return `${start}, ${percentOf(a.top.p)}: ${lower(what)}. ${pluralize(minutes, 'minute')}, then look again.`;
  }
  if (a.now === 'stuck' || !next)
    return `0 safe tests left that tell anything: keep it unsolved with what was tried. ${most}`;
  return `Next: ${lower(TEST_WORDS[next.test].what)}, ${next.minutes} ${next.minutes === 1 ? 'minute' : 'minutes'}. ${most}`;
}

/** Words in the middle of a sentence; names that are written large stay so. */
function lower(words: string): string {
  return /^(PCIe|USB4|Thunderbolt|LAN)/.test(words)
    ? words
    : words.charAt(0).toLowerCase() + words.slice(1);
}

/**
 * Why a test is offered: its gain and minutes beside those of the next best.
 * @param offers tests, best first
 * @param at the one that is offered
 * @returns the sentence
 */
export function offerReason(offers: readonly Offer[], at: Offer): string {
  const other = offers.find((o) => o.test !== at.test);
  const minutes = (o: Offer) => o.minutes + BESIDE_MINUTES;
  const first = `${bitWords(at.bits)} of information expected in ${pluralize(minutes(at), 'minute')}`;
  return other
    ? `${first}, ${BESIDE_MINUTES} of them to get there; ${other.worth > at.worth ? 'the best' : 'the next best'} gives ${bitWords(other.bits)} in ${minutes(other)}.`
    : `${first}, ${BESIDE_MINUTES} of them to get there; no other test is informative.`;
}

/** No table of causes is known well enough to tell stronger ones apart. */
const MAX_TIMES = 100;

/**
 * How strong an observation is for a cause.
 * @param times the Bayes factor
 * @returns "12 times likelier with it"
 */
export function pullWords(times: number): string {
  const by = (n: number) =>
    n > MAX_TIMES ? `more than ${MAX_TIMES}` : n >= 10 ? Math.round(n) : n.toFixed(1);
  if (times >= 1.005) return `${by(times)} times likelier with this cause than with the others`;
  if (times > 0.995) return 'as likely with this cause as with the others';
  return `${by(1 / times)} times less likely with this cause than with the others`;
}

/**
 * Something noted in a search, as the record tells it.
 * @param n the note
 * @returns the sentence
 */
export function noteWords(n: TroubleNote): string {
  switch (n.what) {
    case 'seen':
      return `Seen: ${n.symptoms.map((s) => SYMPTOM_WORDS[s].toLowerCase()).join('; ') || 'nothing any more'}`;
    case 'test': {
      const t = TEST_WORDS[n.test];
      const answer = { yes: t.yes, no: t.no, unclear: 'not sure', cannot: 'cannot be done' }[
        n.says
      ];
      return `${t.what}: ${lower(answer)}${n.by === 'reading' ? ' (known already)' : ''}`;
    }
    case 'fix':
      return `Mended, ${lower(CAUSE_WORDS[n.cause].what)}: ${FIX_WORDS[n.result].toLowerCase()}`;
    case 'closed':
      return n.outcome === 'solved'
        ? `Solved${n.cause ? `: ${lower(CAUSE_WORDS[n.cause].what)}` : ''}`
        : n.outcome === 'unsolved'
          ? 'Closed unsolved'
          : 'Discarded';
  }
}
