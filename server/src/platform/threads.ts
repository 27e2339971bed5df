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
  });
  pools.set(url, made);
  return made;
}

/**
 * Runs a function of a program in one of its threads.
 * @param s says where the programs lie
 * @param program which, and its limits
 * @param name the function
 * @param ask what it is given
 * @returns what it gives
 * @throws HttpProblem 503 when too many wait, or when it takes too long
 */
export async function inThread(
  s: Services,
  program: ThreadProgram,
  name: string,
  ask: unknown,
): Promise<unknown> {
  const pool = poolOf(program, new URL(program.file, s.threads ?? import.meta.url).href);
  if (pool.queueSize >= program.waiting)
    throw new HttpProblem(503, `Too many ${program.many} at once; try again in a minute`);
  const signal = AbortSignal.timeout(program.limitMs);
  return pool.run(ask, { name, signal }).catch((e: unknown) => {
    if (!signal.aborted) throw e;
    throw new HttpProblem(503, `Stopped after ${program.limitMs / 1000} s`, {
      detail: 'Ask for less at once.',
    });
  });
}

/** Ends the threads of this process. */
export async function endThreads(): Promise<void> {
  const all = [...pools.values()];
  pools.clear();
  await Promise.all(all.map((pool) => pool.destroy()));
}
