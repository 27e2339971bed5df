import type { SentFile } from '@ruddy/core/base/contract';
import type { ImportQuery, Job } from '@ruddy/core/parts/contract';
import { startFileJob } from '../platform/files/file-work';
import { beginsAsJson, requireReadable, textFile } from '../platform/files/text-file';
import { HttpProblem } from '../platform/http/problem';
import type { Actor, Services } from '../platform/http/route';

/** Begin to look at a file of parts, or to store it. */
export async function startImport(
  s: Services,
  file: SentFile,
  { kind, mode, name, encoding }: ImportQuery,
  actor: Actor,
): Promise<Job> {
  const text = textFile(file.path, encoding);
  if (kind === undefined && !(await beginsAsJson(text)))
    throw new HttpProblem(400, 'Say which kind of part the file holds');
  await requireReadable(text);
  const ask = { kind: kind ?? 'cable', name, store: mode === 'store' };
  const job = mode === 'store' ? 'import-store' : 'import-try';
  return startFileJob(s, file, { kind: job, work: 'parts', ask, encoding }, actor);
}
