import { mean } from '@ruddy/core/base';
import { figureText, pluralize } from '@ruddy/core/base/text';
import type { RunEntry } from '@ruddy/core/runs/contract';
import { apartText } from '@ruddy/core/runs/text';
import { groupRuns, mainValues, type RunGroup, unitOf } from '../../runs/run-groups';
import type { Line } from './record-lines';

/** Runs of one title on one day, in one entry of the record. */
export interface RunBatch {
  readonly title: string;
  readonly lines: readonly Line[];
  /** How many runs it has, under what, and their means. */
  readonly words: string;
  /** A sentence for each group of repeats. */
  readonly cells: readonly string[];
}

/** Means that a line names; of more groups the list below tells. */
const MOST_MEANS = 4;

/** A line of the record by itself, or the runs of a title together. */
export interface Entry {
  readonly line: Line;
  readonly batch: RunBatch | null;
}

/** Average and 1 % low of a capture; of a typed result the line itself tells. */
export function runFigures({ stats }: RunEntry): string {
  if (!stats) return '';
  return `${figureText(stats.averageFps)} frames/s, 1 % low ${figureText(stats.low1.at)}`;
}

function meanWords(g: RunGroup): string {
  const values = mainValues(g);
  const first = g.runs[0];
  if (values.length === 0 || !first) return first?.reason || 'no result';
  return `${figureText(mean(values))} ${unitOf(first)}`.trim();
}

function cellWords(g: RunGroup): string {
  const apart = g.runs.flatMap((r) => {
    const its = g.classes.get(r.id);
    return its && !its.counts ? [apartText(its)] : [];
  });
  const left = apart.length > 0 ? `; ${apart.length} left out: ${apart.join(', ')}` : '';
  return `${g.label}: ${pluralize(g.runs.length, 'run')}, ${meanWords(g)}${left}.`;
}

function batchOf(title: string, lines: readonly Line[], groups: readonly RunGroup[]): RunBatch {
  const ids = new Set(lines.map((l) => l.event.id));
  const own = groups
    .map((g) => ({ ...g, runs: g.runs.filter((r) => ids.has(r.id)) }))
    .filter((g) => g.runs.length > 0);
  const under = own.length > 1 ? ` under ${own.length} settings` : '';
  const means = own.length > MOST_MEANS ? '' : `, ${own.map(meanWords).join('; ')}`;
  return {
    title,
    lines,
    words: `${title}: ${pluralize(lines.length, 'run')}${under}${means}`,
    cells: own.map(cellWords),
  };
}

const isRun = (l: Line) => l.event.kind === 'run' && l.corrections.length === 0;
const titleOf = (l: Line) => String(l.event.body['title'] ?? '');
const dayOf = (l: Line) => l.event.happenedAt.slice(0, 10);

/**
 * The record with runs together that were made of one title on one day and stand beside one another. A run that was corrected or taken
 * back stands by itself.
 */
export function batchRuns(lines: readonly Line[], runs: readonly RunEntry[]): Entry[] {
  const groups = groupRuns(runs);
  const entries: Entry[] = [];
  let stretch: Line[] = [];
  const flush = () => {
    for (const title of new Set(stretch.map(titleOf))) {
      const own = stretch.filter((l) => titleOf(l) === title);
      entries.push({ line: own[0]!, batch: own.length > 1 ? batchOf(title, own, groups) : null });
    }
    stretch = [];
  };
  for (const line of lines) {
    if (stretch[0] && (!isRun(line) || dayOf(line) !== dayOf(stretch[0]))) flush();
    if (isRun(line)) stretch.push(line);
    else entries.push({ line, batch: null });
  }
  flush();
  return entries;
}
