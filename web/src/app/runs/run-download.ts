import { captureFile } from '@ruddy/core/runs';
import type { RunEntry } from '@ruddy/core/runs/contract';
import { toCsv } from '../platform/kit/csv';
import { download } from '../platform/shared/download';
import type { RunStore } from './run-store';

/** Keep a run as a file: CSV with the times, or the open JSON format with everything. */
export async function keepRun(
  store: RunStore,
  run: RunEntry,
  format: 'csv' | 'json',
  name: string,
): Promise<void> {
  const frames = await store.values(run, 'frames');
  if (format === 'csv') {
    let at = 0;
    const rows = Array.from(frames, (f) => {
      const row = [String(Math.round(at * 1000) / 1000), f.toPrecision(7)];
      at += f;
      return row;
    });
    return download(`${name}.csv`, 'text/csv', await toCsv(['start ms', 'frame ms'], rows));
  }
  await store.openLanes(run);
  const shown = run.channels.some((c) => c.channel === 'shown')
    ? await store.values(run, 'shown')
    : null;
  const head = { program: run.source?.program ?? '', startedAt: run.happenedAt };
  download(
    `${name}.json`,
    'application/json',
    JSON.stringify(captureFile(head, frames, shown, store.lanes().get(run.id) ?? [])),
  );
}
