/** A frame is a stutter when it takes more than this many times the median of the second around it (common practice, no published source). */
export const STUTTER_TIMES = 2.5;
const HALF_MS = 500;

const BLOCK = 512;

/** The least of each block of frames: most frames are no stutter because nothing near them is short enough. */
function blockLeast(frames: Float32Array): Float32Array {
  const out = new Float32Array(Math.ceil(frames.length / BLOCK)).fill(Infinity);
  for (let i = 0; i < frames.length; i++) {
    const k = (i / BLOCK) | 0;
    if ((frames[i] as number) < (out[k] as number)) out[k] = frames[i] as number;
  }
  return out;
}

/**
 * The frames that stutter: longer than 2.5 times the median (the upper of two) of the frames that begin within half
 * a second before or after them. Common practice, no published source.
 * @param frames frame times in ms
 * @returns their indices, rising
 */
export function stutters(frames: Float32Array): number[] {
  const least = blockLeast(frames);
  const found: number[] = [];
  let first = 0;
  let next = 0;
  let firstAt = 0;
  let nextAt = 0;
  let at = 0;
  for (let i = 0; i < frames.length; i++) {
    const ms = frames[i] as number;
    while (next < frames.length && nextAt <= at + HALF_MS) nextAt += frames[next++] as number;
    while (first < i && firstAt < at - HALF_MS) firstAt += frames[first++] as number;
    at += ms;
    let shortest = Infinity;
    for (let k = (first / BLOCK) | 0; k * BLOCK < next; k++)
      if ((least[k] as number) < shortest) shortest = least[k] as number;
    if (!(ms > STUTTER_TIMES * shortest)) continue;
    let short = 0;
    for (let k = first; k < next; k++) if (ms > STUTTER_TIMES * (frames[k] as number)) short++;
    if (short > (next - first) >> 1) found.push(i);
  }
  return found;
}

export interface Period {
  readonly seconds: number;
  /** Share of the gaps between hitches that lie within 10 % of the period, 0 to 1. */
  readonly strength: number;
}

/** Stutters closer than this are one hitch. */
const ONE_HITCH_MS = 250;
const NEAR = 0.1;
const FEWEST_GAPS = 4;
const STRONG = 0.6;

/**
 * Where hitches begin: stutters that follow within a quarter of a second belong to the one before.
 * @param frames frame times in ms
 * @param found indices of stutters, rising
 * @returns ms from the start
 */
export function hitches(frames: Float32Array, found: readonly number[]): number[] {
  const times: number[] = [];
  let at = 0;
  let i = 0;
  let last = -Infinity;
  for (const index of found) {
    for (; i < index; i++) at += frames[i] as number;
    if (at - last > ONE_HITCH_MS) times.push(at);
    last = at;
  }
  return times;
}

/**
 * The period hitches come back in: the gap that most gaps are within 10 % of, where those are at least 60 % of no
 * fewer than four gaps. Of gaps by chance at most about 7 % (0.2 / e) lie within 10 % of any one length, so that
 * many do not come together by chance.
 * @param times when hitches begin, ms, rising
 * @returns the period in ms and its share of the gaps; null where nothing comes back
 */
export function period(times: readonly number[]): Period | null {
  const gaps = times.slice(1).map((t, i) => t - (times[i] as number));
  if (gaps.length < FEWEST_GAPS) return null;
  const sorted = [...gaps].sort((a, b) => a - b);
  let best: { from: number; to: number } = { from: 0, to: 0 };
  for (let from = 0, to = 0; from < sorted.length; from++) {
    const most = ((sorted[from] as number) * (1 + NEAR)) / (1 - NEAR);
    while (to < sorted.length && (sorted[to] as number) <= most) to++;
    if (to - from > best.to - best.from) best = { from, to };
  }
  const near = sorted.slice(best.from, best.to);
  const strength = near.length / gaps.length;
  return strength < STRONG
    ? null
    : { seconds: (near[near.length >> 1] as number) / 1000, strength };
}
