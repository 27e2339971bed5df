import { median } from '../../base';

/** A run whose rate falls as it goes on. */
export interface Slowing {
  /** Median rate of its first and of its last third, frames/s. */
  readonly fromFps: number;
  readonly toFps: number;
}

/** Seconds of a block whose median stands for it, and the fewest blocks that show a trend. */
const BLOCK_S = 10;
const LEAST_BLOCKS = 6;
/** The last third must be below this share of the first (judgement). */
const FELL = 0.95;
/** One-sided 1 % of the standard normal distribution, from tables. */
const Z = 2.326;

/**
 * Does a run get slower as it goes on? The medians of its blocks of 10 s must fall by the test of Mann and Kendall at 1 %
 * (H. B. Mann, Econometrica 13 (1945) 245), and the last third by at least 5 %. A scene that gets heavier looks the
 * same: only a clock that falls with it tells heat from scene.
 * @param rates frames/s of whole seconds
 * @param startS seconds at the start that run otherwise than the rest
 * @returns rates of the first and the last third; null where it does not, or the run is too short to tell
 */
export function slowingOf(rates: readonly number[], startS: number): Slowing | null {
  const steady = rates.slice(Math.ceil(startS));
  const n = Math.floor(steady.length / BLOCK_S);
  if (n < LEAST_BLOCKS) return null;
  const blocks = Array.from({ length: n }, (_, i) =>
    median(steady.slice(i * BLOCK_S, (i + 1) * BLOCK_S)),
  );
  let sum = 0;
  blocks.forEach((a, i) => {
    for (const b of blocks.slice(i + 1)) sum += Math.sign(b - a);
  });
  const sd = Math.sqrt((n * (n - 1) * (2 * n + 5)) / 18);
  if (sum >= 0 || (-sum - 1) / sd < Z) return null;
  const third = Math.floor(steady.length / 3);
  const fromFps = median(steady.slice(0, third));
  const toFps = median(steady.slice(-third));
  return toFps < FELL * fromFps ? { fromFps, toFps } : null;
}
