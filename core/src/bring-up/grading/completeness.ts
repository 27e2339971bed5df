import type { CheckRow } from './compare';
import type { CountsGrade } from './counts';
import type { CopyGrade } from './grade';

/** What a whole link check reads; a direct link has no router. */
export const READ_MARKS = ['router', 'slot', 'copy-down', 'copy-up', 'counters'] as const;
export type ReadMark = (typeof READ_MARKS)[number];

/** Which of the marks a reading has; null where the link has no such thing. */
export type Completeness = Readonly<Record<ReadMark, boolean | null>>;

/**
 * Parts of a complete link check that a reading holds: router rate and lanes, slot width and generation, copy rate in
 * each direction, error counters.
 *
 * @param c graded rows, copy rate and counters of the reading; null where it has none
 * @returns for each part whether the reading has it; null where the link has no such part
 */
export function completenessOf(c: {
  readonly rows: readonly CheckRow[];
  readonly copy: CopyGrade | null;
  readonly counts: CountsGrade | null;
}): Completeness {
  const row = (key: CheckRow['key']) => c.rows.find((r) => r.key === key);
  const read = (key: CheckRow['key']) => {
    const r = row(key);
    return r ? r.state !== 'not-read' && r.state !== 'idle' : null;
  };
  const copied = (direction: 'down' | 'up') =>
    c.copy !== null && c.copy.grade !== 'not-graded' && c.copy.direction === direction;
  return {
    router: read('router'),
    slot: read('card') ?? false,
    'copy-down': copied('down'),
    'copy-up': copied('up'),
    counters: c.counts !== null,
  };
}
