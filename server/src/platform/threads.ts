import { Piscina } from 'piscina';
import { HttpProblem } from './http/problem';
import type { Services } from './http/route';

/** A program that computes in threads of its own, so that the server keeps answering. */
export interface ThreadProgram {
  /** Its file beside the built server. */
  readonly file: string;
  /** What it computes, as a refusal names it. */
  readonly many: string;
  readonly atOnce: number;
  /** More that wait are refused. */
  readonly waiting: number;
  /** Given up after this long, the wait included. */
  readonly limitMs: number;
  /** Most memory of one thread for what it works on; a thread that needs more is ended. */
  readonly heapMb?: number;
}

const IDLE_MS = 60_000;
const pools = new Map<string, Piscina>();

function poolOf(program: ThreadProgram, url: string): Piscina {
  const known = pools.get(url);
  if (known) return known;
  const made = new Piscina({
    filename: url,
    minThreads: 1,
    maxThreads: program.atOnce,
    maxQueue: program.waiting,
    idleTimeout: IDLE_MS,
    ...(program.heapMb !== undefined && {
      resourceLimits: { maxOldGenerationSizeMb: program.heapMb },
    }),
  });
  pools.set(url, made);
  return made;
}

/** Reason why a thread gave no answer, in words; the error itself where it is none of the thread's limits. */
function noAnswer(program: ThreadProgram, error: unknown, late: boolean): unknown {
  if (late)
    return new HttpProblem(503, `Stopped after ${program.limitMs / 1000} s`, {
      detail: `Stopped after ${program.limitMs / 1000} s. Ask for less at once.`,
    });
  if ((error as NodeJS.ErrnoException).code === 'ERR_WORKER_OUT_OF_MEMORY')
    return new HttpProblem(413, 'Too much for the memory it may use', {
      detail: `It needs more than ${program.heapMb ?? 0} MB of memory. Send it in parts.`,
    });
  return error;
}

/**
 * Runs a function of a program in one of its threads. A thread that is given up is ended, whatever it does.
 * @param s says where the programs lie
 * @param program which, and its limits
 * @param name the function
 * @param ask what it is given
 * @param stop gives it up earlier; rejects with the reason of the signal
 * @returns what it gives
 * @throws HttpProblem 503 when too many wait or when it takes too long, 413 when it needs too much memory
 */
export async function inThread(
  s: Services,
  program: ThreadProgram,
  name: string,
  ask: unknown,
  stop?: AbortSignal,
): Promise<unknown> {
  const pool = poolOf(program, new URL(program.file, s.threads ?? import.meta.url).href);
  if (pool.queueSize >= program.waiting)
    throw new HttpProblem(503, `Too many ${program.many} at once; try again in a minute`);
  const late = AbortSignal.timeout(program.limitMs);
  const signal = stop ? AbortSignal.any([stop, late]) : late;
  return pool.run(ask, { name, signal }).catch((e: unknown) => {
    stop?.throwIfAborted();
    throw noAnswer(program, e, late.aborted);
  });
}

/** How much work waits for a thread. */
export const waitingInThreads = (): number =>
  [...pools.values()].reduce((n, pool) => n + pool.queueSize, 0);

/** Ends the threads of this process. */
export async function endThreads(): Promise<void> {
  const all = [...pools.values()];
  pools.clear();
  await Promise.all(all.map((pool) => pool.destroy()));
}
