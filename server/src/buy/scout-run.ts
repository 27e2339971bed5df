import { availableParallelism } from 'node:os';
import { Worker } from 'node:worker_threads';
import type { RowIds, RowView, ScoutInput, ScoutResult } from '@ruddy/core/buy';
import { HttpProblem } from '../platform/http/problem';
import type { Services } from '../platform/http/route';

export interface ThreadAnswer {
  readonly result: ScoutResult;
  readonly pinned: readonly (RowView | null)[];
}

const LIMIT_MS = 60_000;
/** One core is left for answering; others wait in line. */
const AT_ONCE = Math.max(1, availableParallelism() - 1);
const WAITING = 8;
let running = 0;
const line: (() => void)[] = [];

async function turn(): Promise<void> {
  if (running < AT_ONCE) {
    running += 1;
    return;
  }
  if (line.length >= WAITING)
    throw new HttpProblem(503, 'Too many searches at once; try again in a minute');
  await new Promise<void>((go) => line.push(go));
}

function next(): void {
  const go = line.shift();
  if (go) go();
  else running -= 1;
}

/** Run a search in a worker thread, one after another when all cores are busy; given up after a minute. */
export async function runScout(
  s: Services,
  input: ScoutInput,
  pins: readonly RowIds[],
): Promise<ThreadAnswer> {
  await turn();
  try {
    const file = s.scoutThread ?? new URL('./scout-thread.mjs', import.meta.url);
    const worker = new Worker(file, { workerData: { input, pins } });
    return await new Promise<ThreadAnswer>((resolve, reject) => {
      const timer = setTimeout(() => {
        reject(
          new HttpProblem(503, 'The search took more than a minute and was stopped', {
            detail: 'Set more limits.',
          }),
        );
      }, LIMIT_MS);
      const settle = (f: () => void) => {
        clearTimeout(timer);
        f();
      };
      worker.once('message', (m: ThreadAnswer) => settle(() => resolve(m)));
      worker.once('error', (e) => settle(() => reject(e)));
      worker.once('exit', () =>
        settle(() => reject(new Error('the search ended without an answer'))),
      );
    }).finally(() => void worker.terminate());
  } finally {
    next();
  }
}
