import { createReadStream } from 'node:fs';
import { open } from 'node:fs/promises';
import type { Encoding } from '@ruddy/core/base/contract';
import { HttpProblem } from '../http/problem';

/** Opens a text anew and gives it in pieces. */
export type TextFile = () => AsyncIterable<string> | Iterable<string>;

const HEAD = 1024;
const PIECE = 64 * 1024;

/** The encoding the first bytes show: a byte order mark, or every second byte zero; UTF-8 otherwise. */
export function encodingShown(head: Uint8Array): Encoding {
  const [a, b] = head;
  if (a === 0xff && b === 0xfe) return 'utf-16le';
  if (a === 0xfe && b === 0xff) return 'utf-16be';
  const zeros = [0, 0];
  for (const [i, byte] of head.entries()) if (byte === 0) zeros[i % 2] = (zeros[i % 2] ?? 0) + 1;
  const [even = 0, odd = 0] = zeros;
  const many = head.length / 4;
  return odd > many && even === 0 ? 'utf-16le' : even > many && odd === 0 ? 'utf-16be' : 'utf-8';
}

async function headOf(path: string): Promise<Uint8Array> {
  const file = await open(path);
  try {
    const { buffer, bytesRead } = await file.read(Buffer.alloc(HEAD), 0, HEAD, 0);
    return buffer.subarray(0, bytesRead);
  } finally {
    await file.close();
  }
}

function otherEncoding(encoding: Encoding, line: number): HttpProblem {
  const message = `Line ${line} is not ${encoding.toUpperCase()}. Say which encoding the file has`;
  const errors = [{ path: 'encoding', message }];
  return new HttpProblem(422, 'Encoding not known', { detail: message, errors });
}

/** In which line of a piece the first bytes stand that are not of the encoding, counted from 0. */
function lineOfOdd(piece: Buffer, encoding: Encoding): number {
  const text = new TextDecoder(encoding).decode(piece);
  return text.slice(0, text.indexOf('\uFFFD')).split('\n').length - 1;
}

const linesIn = (text: string) => text.split('\n').length - 1;

async function* decoded(path: string, said: Encoding | undefined): AsyncGenerator<string> {
  const encoding = said ?? encodingShown(await headOf(path));
  const decoder = new TextDecoder(encoding, { fatal: true });
  let line = 1;
  for await (const piece of createReadStream(path, { highWaterMark: PIECE })) {
    const bytes = piece as Buffer;
    const text =
      decode(decoder, bytes) ?? raise(otherEncoding(encoding, line + lineOfOdd(bytes, encoding)));
    line += linesIn(text);
    yield text;
  }
  yield decode(decoder) ?? raise(otherEncoding(encoding, line));
}

function raise(problem: HttpProblem): never {
  throw problem;
}

/** The next piece as text; null where its bytes are not of the encoding. Without a piece: the end. */
function decode(decoder: InstanceType<typeof TextDecoder>, piece?: Buffer): string | null {
  try {
    return piece ? decoder.decode(piece, { stream: true }) : decoder.decode();
  } catch {
    return null;
  }
}

/**
 * A file as text.
 * @param path of the file
 * @param said its encoding; found out by its first bytes where left out
 * @returns opens it; reading throws a problem with the line where the bytes are not of that encoding
 */
export function textFile(path: string, said?: Encoding): TextFile {
  return () => decoded(path, said);
}

/** Reads a text once and keeps nothing, so that an encoding that does not fit is said before any work begins. */
export async function requireReadable(file: TextFile): Promise<void> {
  for await (const piece of file()) void piece;
}

/** Does a text begin as JSON does? */
export async function beginsAsJson(file: TextFile): Promise<boolean> {
  for await (const piece of file()) {
    const first = piece.trimStart()[0];
    if (first !== undefined) return first === '{' || first === '[';
  }
  return false;
}
