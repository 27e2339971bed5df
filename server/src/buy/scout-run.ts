import { availableParallelism } from 'node:os';
import type { RowIds, ScoutInput } from '@ruddy/core/buy';
import type { search } from './scout-thread';
import type { Services } from '../platform/http/route';
import { inThread } from '../platform/threads';

const PROGRAM = {
  file: './scout-thread.mjs',
  many: 'searches',
  // One core is left for answering.
  atOnce: Math.max(1, availableParallelism() - 1),
  waiting: 8,
  limitMs: 60_000,
};

/** Runs a search in a thread of its own. */
export function runScout(s: Services, input: ScoutInput, pins: readonly RowIds[]) {
  return inThread(s, PROGRAM, 'search', { input, pins }) as Promise<ReturnType<typeof search>>;
}
