import { type HouseRules, RuleBook, stated } from '../../base';
import type { CardSpec } from '../../parts';
import type { CountsReading } from '../schema/reading';

/** What the counters of a link say of one stretch under load. */
export interface CountsGrade {
  /** Grown meanwhile; null where before or after was not noted. */
  readonly corrected: number | null;
  readonly fatal: number | null;
  readonly downs: number | null;
  readonly correctedPerHour: number | null;
  readonly grade: 'healthy' | 'low' | 'poor' | 'not-graded';
}

function grown(before: number | null, after: number | null): number | null {
  return before === null || after === null ? null : after - before;
}

/**
 * Grades error counters: poor when the link went down or met an uncorrectable error, low when corrected errors an
 * hour exceed the limit of the rules, healthy otherwise. Without minutes there is no rate, and corrected errors stay
 * ungraded. Common practice, no published source. Worked example: 5 to 17 corrected in 10 minutes is 72 an hour,
 * low under the default limit of 60.
 *
 * @param c corrected and uncorrected errors, times down, and the minutes of load they were counted over
 * @param house the workshop's rules, with the limit of corrected errors an hour
 * @returns the grade, the growth of each counter and corrected errors an hour; null where not noted
 */
export function gradeCounts(c: CountsReading, house: HouseRules): CountsGrade {
  const corrected = grown(c.correctedBefore, c.correctedAfter);
  const fatal = grown(c.fatalBefore, c.fatalAfter);
  const correctedPerHour =
    corrected === null || c.minutes === null ? null : (corrected * 60) / c.minutes;
  const seen = { corrected, fatal, downs: c.downs, correctedPerHour };
  if ((fatal ?? 0) > 0 || (c.downs ?? 0) > 0) return { ...seen, grade: 'poor' };
  if (correctedPerHour !== null)
    return {
      ...seen,
      grade:
        correctedPerHour >= new RuleBook(house).get('health.correctedPerHour') ? 'low' : 'healthy',
    };
  const quiet = corrected === 0 || (corrected === null && (fatal === 0 || c.downs === 0));
  return { ...seen, grade: quiet ? 'healthy' : 'not-graded' };
}

/** The memory window of a card against its memory, MB. */
export interface WindowGrade {
  readonly nowMB: number;
  readonly memoryMB: number | null;
  /** Does the window reach over the whole memory? Null while the memory is not known. */
  readonly whole: boolean | null;
}

/**
 * Compares the memory window (BAR) of a card with its memory; 1 GB is 1024 MB.
 *
 * @param nowMB size of the window, MB; null where the report does not show it
 * @param card the card, with its memory in GB; null where none is chosen
 * @returns both sizes and whether the window covers the memory; null where the report shows no window
 */
export function gradeWindow(nowMB: number | null, card: CardSpec | null): WindowGrade | null {
  if (nowMB === null) return null;
  const memory = card ? stated(card.memoryGB) : null;
  if (!memory) return { nowMB, memoryMB: null, whole: null };
  const memoryMB = memory.hi * 1024;
  return {
    nowMB,
    memoryMB,
    whole: nowMB >= memoryMB ? true : nowMB < memory.lo * 1024 ? false : null,
  };
}
