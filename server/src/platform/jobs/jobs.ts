import { fn, literal, Op } from 'sequelize';
import type { RowOutcome, ImportRow, Job } from '@ruddy/core/parts/contract';
import { JobModel } from './models/job';
import { knownProblem, notFound } from '../http/problem';
import type { Actor, Services } from '../http/route';
import { marked } from '../http/storable';
import { newId } from '../db/ids';
import { notify } from '../db/notify';
import { JobRowModel } from './models/job-row';
import { beatJobs } from './queries/beat-jobs';
import { noteProgress } from './queries/note-progress';
import { outsideTransaction } from '../db/transaction';

/** Thrown inside a job that was asked to stop: whatever it wrote is rolled back. */
export class Cancelled extends Error {}

const STALE_MS = 30_000;
const KEEP_DAYS = 7;

/** What a job does while it works: says how far it is, and learns whether it should stop. */
export interface JobTools {
  /** Reports progress. Throws `Cancelled` when the job was asked to stop. */
  progress(done: number, total: number, message: string): Promise<void>;
  /** Keep the fates of rows, a batch at a time; on their own connection, so that they outlive a roll-back. */
  keep(rows: readonly ImportRow[]): Promise<void>;
}

/** A job of this process. */
interface Running {
  readonly done: Promise<void>;
  readonly stop: AbortController;
}

const running = new Map<string, Running>();
const BEAT_MS = 2000;
let beating: NodeJS.Timeout | undefined;

/** Keeps the jobs of this process known as alive, and stops those that were asked to: work that reports nothing stops too. */
function beat(s: Services): void {
  beating ??= setInterval(() => {
    beatJobs([...running.keys()])
      .then((asked) => asked.forEach((id) => running.get(id)?.stop.abort(new Cancelled())))
      .catch((e: unknown) => s.unexpected?.(e));
  }, BEAT_MS).unref();
}

function settled(id: string): void {
  running.delete(id);
  if (running.size > 0) return;
  clearInterval(beating);
  beating = undefined;
}

async function keepRows(jobId: string, rows: readonly ImportRow[]): Promise<void> {
  if (rows.length === 0) return;
  await JobRowModel.bulkCreate(
    marked(rows).map((r) => ({ ...r, jobId })),
    { updateOnDuplicate: ['fate', 'part', 'notes'] },
  );
}

/** Tools of a job, for the process or the thread that does its work. */
export function toolsFor(id: string): JobTools {
  return {
    keep: (rows) => outsideTransaction(() => keepRows(id, rows)),
    progress: async (done, total, message) => {
      const cancelled = await outsideTransaction(() => noteProgress(id, done, total, message));
      if (cancelled) throw new Cancelled();
    },
  };
}

type Result = Job['result'];

async function noteEnd(id: string, state: Job['state'], message: string, result: Result = null) {
  const values = { state, message, result, heartbeatAt: fn('now'), seq: literal('seq + 1') };
  await JobModel.update(values, { where: { id } });
  await notify(`job/${id}`);
}

/** Writes the end of a job, good or bad, into its row. */
async function noted(s: Services, id: string, result: Promise<Result>): Promise<void> {
  try {
    await noteEnd(id, 'done', '', await result);
  } catch (error) {
    if (error instanceof Cancelled) return noteEnd(id, 'cancelled', 'Stopped; nothing saved.');
    const known = knownProblem(error);
    if (!known) s.unexpected?.(error);
    const why = known ? (known.more.detail ?? known.title) : 'Something went wrong here';
    await noteEnd(id, 'failed', `Not saved. ${why}`);
  }
}

/**
 * Begins long work.
 * @param work is given the id of its job and a signal that says when it is to stop
 * @returns id of the job, and the result once it is there; its end is written into its row too
 */
export async function beginJob(
  s: Services,
  kind: Job['kind'],
  actor: Actor,
  work: (id: string, signal: AbortSignal) => Promise<Result>,
): Promise<{ id: string; result: Promise<Result> }> {
  const id = newId();
  const at = new Date();
  await JobModel.destroy({
    where: { createdAt: { [Op.lt]: new Date(at.getTime() - KEEP_DAYS * 86_400_000) } },
  });
  await JobModel.create({
    id,
    kind,
    state: 'running',
    createdAt: at,
    createdBy: actor.id,
    heartbeatAt: at,
    result: null,
  });
  const stop = new AbortController();
  const result = work(id, stop.signal);
  // A database that went away cannot be told; the job's heartbeat stops and it is read as failed.
  const over = () => settled(id);
  const done = noted(s, id, result).then(over, over);
  running.set(id, { done, stop });
  beat(s);
  const ended = done.then(() => result);
  // Its failure is in the row of the job; nobody needs to wait for it.
  ended.catch(() => undefined);
  return { id, result: ended };
}

/** A job that has not been heard of for half a minute has failed: whoever did it is gone. */
export async function failStale(id: string): Promise<void> {
  const [failed] = await JobModel.update(
    {
      state: 'failed',
      message: 'Not saved. The work stopped without a word',
      seq: literal('seq + 1'),
    },
    {
      where: {
        id,
        state: 'running',
        heartbeatAt: { [Op.lt]: new Date(Date.now() - STALE_MS) },
      },
    },
  );
  if (failed > 0) await notify(`job/${id}`);
}

/** One job; one that has not been heard of for half a minute has failed. */
export async function getJob(id: string): Promise<Job> {
  await failStale(id);
  const row = await JobModel.findByPk(id);
  if (!row) throw notFound('job');
  const { kind, state, message, result } = row;
  return {
    id,
    kind,
    state,
    message,
    result,
    done: row.done,
    total: row.total,
    startedAt: row.createdAt.toISOString(),
  };
}

/** Ask a job to stop; it does so between two batches and takes back what it wrote. */
export async function cancelJob(id: string): Promise<Job> {
  await JobModel.update({ cancelRequested: true }, { where: { id } });
  return getJob(id);
}

/** A page of what became of each row, in the order of the file. */
export async function rowOutcomesOf(
  id: string,
  q: { after: number; limit: number; fate?: RowOutcome },
): Promise<{ items: ImportRow[]; next: number | null }> {
  const found = await JobRowModel.findAll({
    where: { jobId: id, row: { [Op.gt]: q.after }, ...(q.fate && { fate: q.fate }) },
    order: ['row'],
    limit: q.limit + 1,
  });
  const rows = found.map(({ row, fate, part, notes }): ImportRow => ({ row, fate, part, notes }));
  const items = rows.slice(0, q.limit);
  return { items, next: rows.length > q.limit ? (items[items.length - 1]?.row ?? null) : null };
}

/** How many jobs this process works on. */
export const runningJobs = (): number => running.size;

/** Stop every job of this process and wait for them: the server is going down. */
export async function stopJobs(): Promise<void> {
  for (const { stop } of running.values()) stop.abort(new Cancelled());
  await Promise.all([...running.values()].map((r) => r.done));
}
