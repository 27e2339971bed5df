import { estimateParts, figureText } from '../../base/text';
import type { MeasuredPair, MeasuredValue, NoPair } from '../comparison/pairs';

/**
 * What a pair of runs differs in.
 * @param p the pair
 * @returns a few words
 */
export function pairText(p: MeasuredPair): string {
  const what = {
    slot: 'desktop slot',
    links: 'the other link',
    panel: "the host's panel against the outside screen",
  }[p.kind];
  return p.kind === 'panel' ? what : `${what}${p.foreign ? ', another processor' : ''}`;
}
export const NO_PAIR_WORDS: Readonly<Record<NoPair['why'], string>> = {
  capped: 'a limit held the frames of one side',
  generated: 'frames were generated',
  inside: 'internal graphics against the outside card: everything differs',
  'rate-unknown': 'the rate of one link is not known',
};

/**
 * "4.6 ms (±0.3)"; without repeats it says so; an interval wider than half its figure by its ends.
 * @param t a difference of frame times, ms
 * @returns the figure with its 95 % interval
 */
export function differenceText(t: MeasuredValue): string {
  if (t.lo === null || t.hi === null)
    return `${figureText(t.mid, 2)} ms (too few repeats for an interval)`;
  const { figure, give } = estimateParts({ mid: t.mid, lo: t.lo, hi: t.hi }, -Infinity, 2);
  return `${figure} ms${give === '' ? '' : ` (${give})`}`;
}
