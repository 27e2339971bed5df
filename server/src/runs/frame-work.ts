import { Piscina } from 'piscina';
import type * as tasks from './frame-thread';
import { HttpProblem } from '../platform/http/problem';
import type { Services } from '../platform/http/route';

type Tasks = typeof tasks;
/** More that wait are refused: each takes up to seconds. */
const WAITING = 64;
const pools = new Map<string, Piscina>();

function poolOf(file: string): Piscina {
  const known = pools.get(file);
  if (known) return known;
  // One thread keeps the posteriors it has computed; a second one would compute them again.
  const made = new Piscina({ filename: file, minThreads: 1, maxThreads: 1, maxQueue: WAITING });
  pools.set(file, made);
  return made;
}

/**
 * Runs a computation of the frame model in a thread of its own, so that the server keeps answering.
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
  const file = s.frameThread ?? new URL('./frame-thread.mjs', import.meta.url).href;
  const pool = poolOf(String(file));
  if (pool.queueSize >= WAITING)
    throw new HttpProblem(503, 'Too many forecasts at once; try again in a minute');
  return pool.run(ask, { name }) as Promise<ReturnType<Tasks[K]>>;
}

/** Ends the threads of this process. */
export async function endFrameThreads(): Promise<void> {
  const all = [...pools.values()];
  pools.clear();
  await Promise.all(all.map((pool) => pool.destroy()));
}
