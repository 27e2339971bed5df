import { createWriteStream } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import bytes from 'bytes';
import type { RequestHandler } from 'express';
import type { SentFile } from '@ruddy/core/base/contract';
import { HttpProblem } from '../http/problem';
import { inflated, packedWrongly } from './inflate';

/** Counts what passes and stops at the limit. */
function limited(most: number, passed: (total: number) => void): Transform {
  let total = 0;
  return new Transform({
    transform(chunk: Buffer, _encoding, done) {
      total += chunk.length;
      passed(total);
      done(total > most ? tooLarge(most) : null, chunk);
    },
  });
}

const tooLarge = (most: number) =>
  new HttpProblem(413, 'Body too large', {
    detail: `The file is larger than ${Math.round(most / 1024 / 1024)} MB; send it in parts`,
  });

/** Removes a file that was kept after its answer. */
export function removeSent(file: Pick<SentFile, 'path'>): Promise<void> {
  return rm(dirname(file.path), { recursive: true, force: true });
}

/**
 * Writes the body to disk as it comes, in a folder that this account alone can read, and leaves it in `res.locals`.
 * It is removed once the answer is sent unless the handler keeps it.
 * @param limit largest body, like "64mb"
 */
export function receiveFile(limit: string): RequestHandler {
  const most = bytes.parse(limit);
  if (most === null) throw new Error(`"${limit}" is no size`);
  return async (req, res, next) => {
    if (Number(req.header('content-length') ?? 0) > most) throw tooLarge(most);
    const coding = req.header('content-encoding') ?? 'identity';
    const body = inflated(req, coding);
    if (!body) throw new HttpProblem(415, `Content-Encoding "${coding}" is not read`);
    const path = join(await mkdtemp(join(tmpdir(), 'ruddy-')), 'file');
    let kept = false;
    let size = 0;
    const remove = () => void removeSent({ path });
    try {
      const counted = limited(most, (total) => (size = total));
      await pipeline(body, counted, createWriteStream(path, { mode: 0o600 }));
    } catch (error) {
      remove();
      if (packedWrongly(error)) throw new HttpProblem(400, 'The body is packed wrongly');
      throw error;
    }
    res.once('close', () => {
      if (!kept) remove();
    });
    res.locals['file'] = { path, bytes: size, keep: () => (kept = true) } as SentFile;
    next();
  };
}
