import type * as tasks from './frame-thread';
import type { Services } from '../platform/http/route';
import { inThread } from '../platform/threads';

type Tasks = typeof tasks;
const PROGRAM = {
  file: './frame-thread.mjs',
  many: 'forecasts',
  // One thread keeps the posteriors it has computed; a second one would compute them again.
  atOnce: 1,
  waiting: 64,
  limitMs: 120_000,
};

/**
 * Runs a computation of the frame model in its thread.
 * @param s says where the thread's program lies
 * @param name what to compute
 * @param ask its question
 * @returns the answer
 */
export function inFrameThread<K extends keyof Tasks>(
  s: Services,
  name: K,
  ask: Parameters<Tasks[K]>[0],
): Promise<ReturnType<Tasks[K]>> {
  return inThread(s, PROGRAM, name, ask) as Promise<ReturnType<Tasks[K]>>;
}
