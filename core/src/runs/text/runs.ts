import { mean } from '../../base';
import { figureText } from '../../base/text';
import { type Measure, type RunComparison, threeWays } from '../comparison/compare';
import { FACTS, type Unlike } from '../comparison/facts';
import type { Note } from '../comparison/grid';
import { PLAY_LABELS, playLabel } from '../comparison/labels';
import type { FrameStats } from '../statistics/summary';
import { apartText, spreadText, throttledText } from './repeats';

export const MEASURE_UNITS: Readonly<Record<Measure, string>> = {
  average: 'frames/s',
  low: 'frames/s',
  lowFrames: 'frames/s',
  second: 'frames/s',
  score: '',
  time: 's',
};

/** A change in %, with its sign. */
export const signed = (v: number) => `${v < 0 ? '−' : '+'}${Math.abs(v).toFixed(1)} %`;

export const SAYS_WORDS: Readonly<Record<RunComparison['says'], string>> = {
  real: 'real',
  'not-told-apart': 'no difference shown',
  'too-few': 'too few repeats',
};

/**
 * Loss in per cent; a negative loss is none.
 *
 * @param percent loss, %
 * @returns the words
 */
export function lostText(percent: number): string {
  return percent < 0 ? 'nothing lost' : `${percent.toFixed(1)} % lost`;
}

/**
 * 95 % interval of a ratio, in % against the base.
 *
 * @param c ratio of the base with its interval
 * @returns the words in brackets, with a blank before; empty without an interval
 * @example intervalText({ lo: 1.1, hi: 1.3 }) // => ' (+10.0 to +30.0)'
 */
export function intervalText(c: {
  readonly lo: number | null;
  readonly hi: number | null;
}): string {
  const end = (v: number) => signed((v - 1) * 100).replace(' %', '');
  return c.lo === null || c.hi === null ? '' : ` (${end(c.lo)} to ${end(c.hi)})`;
}

/**
 * Comparison in one line: how much faster than the base, with its interval, and whether that is significant. A difference within
 * chance is no difference and keeps its interval; with too few repeats there is no verdict.
 *
 * @param c the comparison
 * @returns the line
 */
export function comparedText(c: RunComparison): string {
  if (c.says === 'not-told-apart') return `no difference shown${intervalText(c)}`;
  const ratio = `${signed(threeWays(c.of).faster)}${intervalText(c)}`;
  return c.says === 'too-few' ? `${ratio}; too few repeats to tell` : `${ratio}, significant`;
}

/**
 * Difference in the facts of two runs.
 *
 * @param u the difference
 * @returns the words
 */
export function unlikeText(u: Unlike): string {
  return `${FACTS[u.fact]}: ${u.a || 'not set'} / ${u.b || 'not set'}`;
}

/**
 * Note of a comparison.
 *
 * @param n the note
 * @returns the sentence
 */
export function noteText(n: Note): string {
  switch (n.code) {
    case 'lengths':
      return `lengths differ: ${n.a.toFixed(0)} s and ${n.b.toFixed(0)} s`;
    case 'cap':
      return `looks held to ${n.fps} frames/s`;
    case 'apart':
      return `${n.runs.length} left out: ${n.runs.map(apartText).join('; ')}`;
    case 'spread':
      return spreadText(n.spread, '');
    case 'throttled':
      return throttledText(n.first);
    case 'missing':
      return `not set: ${n.what.join(', ').toLowerCase()}`;
    case 'foreign-processor':
      return `another processor: ${n.a} and ${n.b}`;
  }
}

export interface SaidRun {
  readonly name: string;
  readonly stats: FrameStats;
  /** Averages of all repeats, frames/s. */
  readonly averages: readonly number[];
}

/**
 * Main sentence of one run: average, low and spread.
 *
 * @param run name, statistics and averages of its repeats
 * @returns the sentence
 */
export function runSentence({ name, stats, averages }: SaidRun): string {
  const average = mean(averages);
  const hitch = stats.period ? `a hitch every ${figureText(stats.period.seconds, 2)} s` : '';
  const spread =
    hitch ||
    `half of all frames take ${figureText(stats.atMs[2] as number)} to ${figureText(stats.atMs[4] as number)} ms`;
  const label = PLAY_LABELS[playLabel(average, stats.low1.at)];
  return `${name}: ${figureText(average)} frames/s, 1 % low ${figureText(stats.low1.at)}, ${label}; ${spread}.`;
}

/**
 * Main sentence of two runs: the difference, and whether it is told apart from chance.
 *
 * @param a the base
 * @param b the other run
 * @param c their comparison
 * @returns the sentence
 */
export function pairSentence(a: SaidRun, b: SaidRun, c: RunComparison): string {
  const x = mean(a.averages);
  const y = mean(b.averages);
  const ms = 1000 / y - 1000 / x;
  const time =
    c.says === 'real'
      ? `, ${figureText(Math.abs(ms), 2)} ms a frame ${ms >= 0 ? 'more' : 'less'}`
      : '';
  return `${a.name} runs at ${figureText(x)} frames/s, ${b.name} at ${figureText(y)}: ${comparedText(c)}${time}.`;
}

/**
 * Number and length of the stutters of a run.
 *
 * @param s its statistics
 * @returns the words; empty without stutters
 */
export function hitchText(s: FrameStats): string {
  if (s.stutters === 0) return 'no stutters';
  const share = `${s.stutters} stutters, ${(s.stutterShare * 100).toFixed(1)} % of the time`;
  return s.period
    ? `${share}, every ${figureText(s.period.seconds, 2)} s (${(s.period.strength * 100).toFixed(0)} % of the gaps)`
    : share;
}
