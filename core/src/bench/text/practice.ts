import type { TestId } from '../../base';
import {
  CARD_TEST_WORDS,
  LINK_TEST_WORDS,
  RUN_TEST_WORDS,
  TEST_WORDS,
} from '../../troubleshoot/text';
import type { Left, PracticeStep } from '../practice';

export const CASE_GRADES = { easy: 'easy', middle: 'middle', hard: 'hard' } as const;

/** Tests grouped by the place where they are made. */
export const TEST_GROUPS: readonly { readonly name: string; readonly of: readonly TestId[] }[] = [
  { name: 'Port, cable, link and dock', of: Object.keys(LINK_TEST_WORDS) as TestId[] },
  { name: 'Card, slot, power and driver', of: Object.keys(CARD_TEST_WORDS) as TestId[] },
  { name: 'Runs, titles, screen and system', of: Object.keys(RUN_TEST_WORDS) as TestId[] },
];

const perMinute = (worth: number): string => `${worth.toFixed(3)} bits a minute`;

/**
 * Where the best way was left, and by what.
 * @param left the place; null where the way was kept
 * @param steps tests made
 * @returns the sentence
 */
export function leftWords(left: Left | null, steps: readonly PracticeStep[]): string {
  if (!left)
    return 'Nowhere: every step told at least half as much for its minutes as the best one open, and the cause was named in time.';
  const better = left.better ? TEST_WORDS[left.better].what.toLowerCase() : '';
  const step = steps[left.at];
  const no = left.at + 1;
  if (left.why === 'late')
    return `At step ${no}: the cause was plain before it. The rest cost minutes and told nothing new.`;
  if (left.why === 'early')
    return `At the naming, after ${steps.length} ${steps.length === 1 ? 'step' : 'steps'}: the cause was still unlikely, and "${better}" would have told ${perMinute(left.best)}.`;
  const what = step ? TEST_WORDS[step.test].what.toLowerCase() : '';
  return `At step ${no}: "${what}" told ${perMinute(left.worth)}, "${better}" would have told ${perMinute(left.best)}.`;
}
