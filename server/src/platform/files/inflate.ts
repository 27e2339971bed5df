import type { Readable } from 'node:stream';
import { createBrotliDecompress, createGunzip, createInflate } from 'node:zlib';

const MAKERS = {
  gzip: createGunzip,
  'x-gzip': createGunzip,
  deflate: createInflate,
  br: createBrotliDecompress,
};

/**
 * A body as it was before it was packed for the way (Content-Encoding, RFC 9110).
 * @param stream as it comes
 * @param coding what the header says
 * @returns the unpacked stream; null where the coding is not read
 */
export function inflated(stream: Readable, coding: string): Readable | null {
  if (coding === 'identity') return stream;
  if (!Object.hasOwn(MAKERS, coding)) return null;
  const unpacked = stream.pipe(MAKERS[coding as keyof typeof MAKERS]());
  stream.on('error', (e) => unpacked.destroy(e));
  return unpacked;
}

/** Did unpacking fail because the bytes are not what the header says? */
export function packedWrongly(error: unknown): boolean {
  const code = (error as NodeJS.ErrnoException).code ?? '';
  return code.startsWith('Z_') || code.startsWith('ERR__');
}
