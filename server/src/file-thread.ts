import type { Sequelize } from 'sequelize';
import { readReport } from '@ruddy/core/bring-up';
import { type LogAsk, importLog } from './compatibility/log-import';
import { defineModels } from './models';
import { type PartsAsk, importParts } from './parts/import-work';
import { connect } from './platform/db/connect';
import { answerOf } from './platform/files/thread-answer';
import type { FileAsk, FileGiven } from './platform/files/file-work';
import { textFile } from './platform/files/text-file';
import { toolsFor } from './platform/jobs/jobs';
import { type BundleAsk, loadFile } from './workshop/bundle-file';
import { feedAnswer } from './workshop/feeds/read';

/*
 * The program of the threads in which files and texts from outside are read. A thread has a connection of its own: when
 * it is ended in the middle of a file, PostgreSQL takes back what it wrote.
 */

let connected: { readonly url: string; readonly db: Sequelize } | undefined;

async function useDatabaseAt(url: string): Promise<void> {
  if (connected?.url === url) return;
  await connected?.db.close();
  connected = { url, db: connect(url) };
  defineModels(connected.db);
}

/** A work on a file with what it needs: the file, the clock, the job's tools. */
function onFile<Ask extends FileAsk, T>(work: (ask: Ask, given: FileGiven) => Promise<T>) {
  return (ask: Ask) =>
    answerOf(async () => {
      await useDatabaseAt(ask.databaseUrl);
      return work(ask, {
        file: textFile(ask.path, ask.encoding),
        now: new Date(ask.now),
        tools: toolsFor(ask.jobId),
      });
    });
}

export const parts = onFile<PartsAsk, Awaited<ReturnType<typeof importParts>>>(importParts);
export const log = onFile<LogAsk, Awaited<ReturnType<typeof importLog>>>(importLog);
export const bundle = onFile<BundleAsk, Awaited<ReturnType<typeof loadFile>>>(loadFile);
export const feed = (text: string) => answerOf(() => Promise.resolve(feedAnswer(text)));
export const report = (text: string) => answerOf(() => Promise.resolve(readReport(text)));
