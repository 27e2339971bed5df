import type { Encoding, SentFile } from '@ruddy/core/base/contract';
import type { Job } from '@ruddy/core/parts/contract';
import type { Actor, Services } from '../http/route';
import { beginJob, getJob, type JobTools } from '../jobs/jobs';
import { inThread } from '../threads';
import { removeSent } from './sent-file';
import type { TextFile } from './text-file';
import { valueOf, type ThreadAnswer } from './thread-answer';
import { inTurn } from './turns';

/** Everything that reads and stores whole files, in a thread of its own with a connection of its own. */
const FILES = {
  file: './file-thread.mjs',
  many: 'files',
  // One at a time keeps the memory of all of them within that of one.
  atOnce: 1,
  waiting: 64,
  limitMs: 30 * 60_000,
  heapMb: 320,
};
/** Small texts from outside: feeds and pasted reports. They do not wait behind a large file. */
const TEXTS = {
  file: './file-thread.mjs',
  many: 'texts',
  atOnce: 1,
  waiting: 64,
  limitMs: 10_000,
  heapMb: 192,
};

/** What every work on a file is told beside its own question. */
export interface FileAsk {
  readonly databaseUrl: string;
  /** The clock's time when it began, ISO. */
  readonly now: string;
  /** Member in whose name it is stored. */
  readonly by: string;
  readonly jobId: string;
  readonly path: string;
  readonly encoding: Encoding | undefined;
}

/** What a work on a file is given beside its question. */
export interface FileGiven {
  readonly file: TextFile;
  readonly now: Date;
  readonly tools: JobTools;
}

function askOf(s: Services, given: Omit<FileAsk, 'databaseUrl' | 'now'>): FileAsk {
  if (s.databaseUrl === undefined) throw new Error('services name no database for threads');
  return { databaseUrl: s.databaseUrl, now: s.now().toISOString(), ...given };
}

/** A file that was sent, and what is to be done with it. */
export interface FileTask {
  readonly kind: Job['kind'];
  /** Function of the thread's program. */
  readonly work: string;
  readonly ask: object;
  readonly encoding?: Encoding | undefined;
}

/** Begins a job that reads a file in the thread for files; a second file of the same member waits for the first. */
function beginFileJob(s: Services, file: SentFile, task: FileTask, actor: Actor) {
  file.keep();
  const { kind, work, ask, encoding } = task;
  return beginJob(s, kind, actor, (jobId, signal) =>
    inTurn(actor.id, async () => {
      const whole = { ...askOf(s, { by: actor.id, jobId, path: file.path, encoding }), ...ask };
      const answer = await inThread(s, FILES, work, whole, signal);
      return valueOf(answer as ThreadAnswer<Job['result']>);
    }).finally(() => removeSent(file)),
  );
}

/**
 * Begins to read a file and answers at once. The work ends by itself after half an hour, or when it needs too much
 * memory.
 * @returns the job
 */
export async function startFileJob(
  s: Services,
  file: SentFile,
  task: FileTask,
  actor: Actor,
): Promise<Job> {
  return getJob((await beginFileJob(s, file, task, actor)).id);
}

/**
 * Reads a file and waits for the end.
 * @returns the result of the job
 * @throws HttpProblem what the file was refused for
 */
export async function workOnFile(
  s: Services,
  file: SentFile,
  task: FileTask,
  actor: Actor,
): Promise<Job['result']> {
  return (await beginFileJob(s, file, task, actor)).result;
}

/**
 * Reads a text from outside in a thread: at most ten seconds.
 * @param work function of the thread's program
 * @param text to read
 * @returns what is in it
 */
export async function readText<T>(s: Services, work: string, text: string): Promise<T> {
  return valueOf((await inThread(s, TEXTS, work, text)) as ThreadAnswer<T>);
}
