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
 * Grade counters: poor when the link went down or met an error it could not mend, low when it mended more an hour than the house rule
 * allows, healthy when what was noted is quiet. Without minutes a rate is not known, and any corrected error is left ungraded.
 *
 * Worked example: 5 to 17 corrected in 10 minutes is 72 an hour, low under the default of 60.
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

/** Hold a memory window against the memory of the card; 1 GB is 1024 MB. */
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
