import type { PartKind } from '@ruddy/core/parts';
import type { RowOutcome, Job } from '@ruddy/core/parts/contract';
import { pluralize } from '../platform/shared/format';
import { KIND_WORDS } from './part-facts';

/** What becomes of a row, in the order of how much it wants somebody. */
export const ROW_OUTCOME_LABELS: Record<RowOutcome, string> = {
  wrong: 'to fix',
  asks: 'to look at',
  new: 'new',
  changed: 'changed',
  same: 'already here',
};

const number = new Intl.NumberFormat('en-GB');

/** The sentence of the page: where the file stands and how many rows want somebody. */
export function importSentence(
  job: Job | null,
  problem: string | null,
  file: string | null,
  kind: PartKind,
): string {
  if (problem !== null) return `0 rows read: ${problem}`;
  if (!job || file === null)
    return `0 files chosen: ${KIND_WORDS[kind].many} from a CSV or JSON file, looked at before anything is stored.`;
  if (job.state === 'running')
    return job.total > 0
      ? `${job.message || 'Reading'} "${file}": ${number.format(job.done)} of ${number.format(job.total)} rows.`
      : `"${file}": ${job.message || 'waiting for its turn'}.`;
  if (job.state === 'cancelled')
    return `Stopped at ${number.format(job.done)} rows of "${file}"; nothing saved.`;
  if (job.state === 'failed' || !job.result) return job.message || '0 rows read.';
  const { fates: f, stored } = job.result;
  const all = f.wrong + f.asks + f.new + f.changed + f.same;
  if (stored)
    return `Imported from "${file}": ${number.format(f.new + f.asks + f.changed)} of ${number.format(all)}, ${number.format(f.same)} already here.`;
  if (f.wrong > 0)
    return `Not saved: ${pluralize(f.wrong, 'row')} of ${number.format(all)} to fix.`;
  if (f.new + f.asks + f.changed === 0)
    return `Nothing to import: all ${number.format(all)} are already here.`;
  const asks = f.asks > 0 ? `, ${number.format(f.asks)} to look at` : '';
  return `${number.format(all)} rows are good: ${number.format(f.new)} new, ${number.format(f.changed)} changed, ${number.format(f.same)} already here${asks}.`;
}

/** What the one button says. */
export function storeWords(job: Job | null): string {
  const r = job?.result;
  if (!r) return 'Import all';
  const n = r.fates.new + r.fates.changed + r.fates.asks;
  if (r.stored) return 'Imported';
  if (r.fates.wrong > 0) return `Not saved: ${pluralize(r.fates.wrong, 'row')} to fix`;
  return n === 0 ? 'Nothing to import' : `Import all ${number.format(n)}`;
}
