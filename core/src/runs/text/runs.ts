import { mean } from '../../base';
import { figureText } from '../../base/text';
import type { BadRow, CaptureProblem, ColumnRole, Sensor } from '../capture/types';
import { type Measure, type RunComparison, threeWays } from '../comparison/compare';
import { FACTS, type Unlike } from '../comparison/facts';
import type { Note } from '../comparison/grid';
import { PLAY_LABELS, playLabel } from '../comparison/labels';
import type { FrameStats } from '../statistics/summary';

export const SENSOR_WORDS: Readonly<Record<Sensor, { name: string; unit: string }>> = {
  'card-load': { name: 'Card load', unit: '%' },
  'card-w': { name: 'Card power', unit: 'W' },
  'card-mhz': { name: 'Card clock', unit: 'MHz' },
  'memory-mhz': { name: 'Memory clock of the card', unit: 'MHz' },
  'card-c': { name: 'Card temperature', unit: '°C' },
  'memory-mb': { name: 'Card memory used', unit: 'MB' },
  'cpu-load': { name: 'Processor load', unit: '%' },
  'cpu-w': { name: 'Processor power', unit: 'W' },
  'cpu-mhz': { name: 'Processor clock', unit: 'MHz' },
  'cpu-c': { name: 'Processor temperature', unit: '°C' },
  'wall-w': { name: 'Wall meter', unit: 'W' },
  fps: { name: 'Frames a second, as logged', unit: 'frames/s' },
};

export const ROLE_WORDS: Readonly<Record<ColumnRole, string>> = {
  frame: 'Time from frame to frame',
  time: 'When the frame or row came',
  shown: 'Time between pictures on the screen',
  generated: 'Generated frame: yes or no',
  program: 'Program',
  ignore: 'Not read',
  ...(Object.fromEntries(Object.entries(SENSOR_WORDS).map(([k, w]) => [k, w.name])) as Record<
    Sensor,
    string
  >),
};

const BAD: Readonly<Record<BadRow['why'], string>> = {
  short: 'columns only; one that is read is missing',
  'not-a-number': 'is not a number',
  'not-above-0': 'is not above 0',
  'too-long': 'is longer than a minute for one frame',
  'not-a-time': 'is not a time',
  'goes-back': 'is before the row above it',
};

/** Why a row was not read, with its place. `columns`: names of the columns, where the file has them. */
export function badRowText(b: BadRow, columns: readonly string[] | null): string {
  const where =
    b.column === null
      ? ''
      : `, column ${columns?.[b.column] ? `"${columns[b.column] ?? ''}"` : b.column + 1}`;
  return `Line ${b.line}${where}: ${b.column === null && b.why === 'short' ? b.value : `"${b.value}"`} ${BAD[b.why]}.`;
}

export function captureProblemText(p: CaptureProblem): string {
  switch (p.code) {
    case 'empty':
      return 'The file is empty.';
    case 'no-table':
      return 'No table of numbers was found in the first lines.';
    case 'no-times':
      return 'No column is named as frame times or times; say which one is.';
    case 'no-rows':
      return 'The table has no rows that can be read.';
    case 'too-many':
      return `More than ${p.most.toLocaleString('en')} frames; cut the file and read it in parts.`;
    case 'json':
      return `${p.where}: ${p.why}.`;
  }
}

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

/** A share that is lost; a negative one is none. */
export function lostText(percent: number): string {
  return percent < 0 ? 'nothing lost' : `${percent.toFixed(1)} % lost`;
}

/**
 * A comparison in one line: faster or slower, of, lost, with the interval of the first. Where chance alone would show as much it is no
 * difference, told with its interval; with too few repeats the figures stand without a judgement.
 */
export function comparedText(c: RunComparison): string {
  const interval =
    c.lo === null || c.hi === null
      ? ''
      : ` (${signed((c.lo - 1) * 100)} to ${signed((c.hi - 1) * 100)})`;
  if (c.says === 'not-told-apart') return `no difference shown${interval}`;
  const w = threeWays(c.of);
  const figures = `${Math.abs(w.faster).toFixed(1)} % ${w.faster < 0 ? 'slower' : 'faster'}${interval}, ${w.of.toFixed(1)} % of, ${lostText(w.lost)}`;
  return c.says === 'too-few' ? `${figures}; too few repeats to tell` : figures;
}

/** What a difference is in the settings of two runs, in words. */
export function unlikeText(u: Unlike): string {
  return `${FACTS[u.fact]}: ${u.a || 'not said'} / ${u.b || 'not said'}`;
}

export function noteText(n: Note): string {
  switch (n.code) {
    case 'lengths':
      return `lengths differ: ${n.a.toFixed(0)} s and ${n.b.toFixed(0)} s`;
    case 'cap':
      return `looks held to ${n.fps} frames/s`;
    case 'missing':
      return `not said: ${n.what.join(', ').toLowerCase()}`;
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

/** What a page of runs says first of one run: average, low and spread. */
export function runSentence({ name, stats, averages }: SaidRun): string {
  const average = mean(averages);
  const hitch = stats.period ? `a hitch every ${figureText(stats.period.seconds, 2)} s` : '';
  const spread =
    hitch ||
    `half of all frames take ${figureText(stats.atMs[2] as number)} to ${figureText(stats.atMs[4] as number)} ms`;
  const label = PLAY_LABELS[playLabel(average, stats.low1.at)];
  return `${name}: ${figureText(average)} frames/s, 1 % low ${figureText(stats.low1.at)}, ${label}; ${spread}.`;
}

/** What it says of two: by how much the second differs from the first, and whether that is told apart from chance. */
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

/** How often and how hard a run hitches, in words; empty without. */
export function hitchText(s: FrameStats): string {
  if (s.stutters === 0) return 'no stutters';
  const share = `${s.stutters} stutters, ${(s.stutterShare * 100).toFixed(1)} % of the time`;
  return s.period
    ? `${share}, every ${figureText(s.period.seconds, 2)} s (${(s.period.strength * 100).toFixed(0)} % of the gaps)`
    : share;
}
