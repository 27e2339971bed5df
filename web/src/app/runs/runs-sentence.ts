import { figureText } from '@ruddy/core/base/text';
import { compareRuns } from '@ruddy/core/runs';
import { pairSentence, runSentence } from '@ruddy/core/runs/text';
import { pluralize } from '../platform/shared/format';
import type { Shown } from './run-store';

/** What the page of runs says first: of the one run that is looked at, or of the second against the first when both are of one title. */
export function shownSentence(shown: readonly Shown[], runs: number, kinds: number): string {
  const [a, b] = shown;
  if (!a)
    return runs === 0
      ? 'No runs yet: 0 measured. Add a capture, or type a result.'
      : `${pluralize(runs, 'run')} of ${pluralize(kinds, 'kind')}. Choose one to see what it shows.`;
  const name = `${a.group.title}, ${a.group.label}`;
  if (!a.run.stats)
    return a.run.kind === 'none'
      ? `${name} could not be run: ${a.run.reason}. 0 measured.`
      : `${name}: ${a.run.result?.value ?? '–'} ${a.run.result?.unit ?? ''}, ${pluralize(a.group.runs.length, 'run')}.`;
  if (!b?.run.stats || b.averages.length === 0)
    return runSentence({ name, stats: a.run.stats, averages: a.averages });
  if (a.run.titleId !== b.run.titleId)
    return `A ran ${a.group.title} and B ${b.group.title}: ${figureText(a.run.stats.averageFps)} and ${figureText(b.run.stats.averageFps)} frames/s are not like with like.`;
  return pairSentence(
    { name: a.letter, stats: a.run.stats, averages: a.averages },
    { name: b.letter, stats: b.run.stats, averages: b.averages },
    compareRuns(a.averages, b.averages),
  );
}
