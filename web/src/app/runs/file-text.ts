import { analyse } from 'chardet';
import { type Encoding, ENCODINGS } from '@ruddy/core/base';
import type { CaptureProblem } from '@ruddy/core/runs';
import type { LinesIn } from '../platform/kit/encoding-choice';

/** Bytes that are not of the encoding they were read in. */
class OddBytes extends Error {
  constructor(readonly encoding: Encoding) {
    super(encoding);
  }
}

/** How a file is read as text: in the encoding somebody named, else in what its first bytes say, else as UTF-8. */
interface AsText {
  readonly encoding: Encoding | null;
  /** Only its beginning is there: a character may be cut at the end. */
  readonly cut?: boolean;
}

const FIRST_BYTES = 512;
/** In UTF-16 every second byte of plain text is 0; no other encoding has more than a stray one. */
const ZEROS = 0.3;

async function encodingOf(file: Blob): Promise<Encoding> {
  const bytes = new Uint8Array(await file.slice(0, FIRST_BYTES).arrayBuffer());
  const [a, b] = bytes;
  if (a === 0xff && b === 0xfe) return 'utf-16le';
  if (a === 0xfe && b === 0xff) return 'utf-16be';
  const zeros = (odd: number) => bytes.filter((v, i) => v === 0 && i % 2 === odd).length;
  if (zeros(1) > ZEROS * bytes.length) return 'utf-16le';
  return zeros(0) > ZEROS * bytes.length ? 'utf-16be' : 'utf-8';
}

/**
 * Text of a file in parts, so that a large one is never held twice.
 *
 * Throws `OddBytes` where it is of another encoding.
 */
export async function* textOf(
  file: Blob,
  { encoding: said, cut = false }: AsText,
): AsyncGenerator<string> {
  const encoding = said ?? (await encodingOf(file));
  const decoder = new TextDecoder(encoding, { fatal: true });
  const decoded = (bytes?: Uint8Array) => {
    try {
      return bytes ? decoder.decode(bytes, { stream: true }) : decoder.decode();
    } catch {
      throw new OddBytes(encoding);
    }
  };
  const reader = file.stream().getReader();
  for (;;) {
    const { done, value } = await reader.read();
    if (done) break;
    yield decoded(value);
  }
  if (!cut) yield decoded();
}

export async function wholeText(file: Blob, encoding: Encoding | null): Promise<string> {
  let all = '';
  for await (const part of textOf(file, { encoding })) all += part;
  return all;
}

const NEW_LINE = 10;
const ASCII = 0x80;
const LINES = 6;
const LONGEST = 200;

/** The first lines that hold more than ASCII, each cut to what can be shown. */
async function oddLines(file: Blob): Promise<Uint8Array[]> {
  const found: Uint8Array[] = [];
  let line: number[] = [];
  let odd = false;
  const end = () => {
    if (odd) found.push(Uint8Array.from(line));
    line = [];
    odd = false;
  };
  const reader = file.stream().getReader();
  while (found.length < LINES) {
    const { done, value } = await reader.read();
    if (done) break;
    for (const byte of value) {
      if (byte === NEW_LINE) end();
      else if (line.length < LONGEST) line.push(byte);
      odd ||= byte >= ASCII;
    }
  }
  await reader.cancel();
  end();
  return found.slice(0, LINES);
}

const SHOWN = 3;
/** What the detection calls an encoding, where that is not its label here: a superset stands for its part. */
const SAME: Readonly<Record<string, Encoding>> = {
  'iso-8859-1': 'windows-1252',
  'iso-8859-2': 'windows-1250',
  'iso-8859-5': 'windows-1251',
};

function decodes(lines: readonly Uint8Array[], encoding: Encoding): LinesIn[] {
  try {
    // A character may be cut where a line was.
    const text = (l: Uint8Array) =>
      new TextDecoder(encoding, { fatal: true }).decode(l, { stream: true }).trim();
    return [{ encoding, lines: lines.slice(0, SHOWN).map(text) }];
  } catch {
    // Bytes that this encoding does not have.
    return [];
  }
}

/** The text of a file in the encodings that are likely, the likeliest first. */
async function likelyTexts(file: Blob): Promise<readonly LinesIn[]> {
  const lines = await oddLines(file);
  const all = Uint8Array.from(lines.flatMap((l) => [...l, NEW_LINE]));
  const named = analyse(all).map((m) => m.name.toLowerCase());
  const known = named.flatMap((n) => SAME[n] ?? ENCODINGS.find((e) => e === n) ?? []);
  const likely = [...new Set<Encoding>([...known, 'windows-1252', 'windows-1250'])];
  return likely.flatMap((e) => decodes(lines, e)).slice(0, SHOWN);
}

/** The problem of a file whose bytes are of another encoding than they were read in. Throws what is none. */
export async function oddBytes(
  file: Blob,
  error: unknown,
): Promise<{ problem: CaptureProblem; encodings: readonly LinesIn[] }> {
  if (!(error instanceof OddBytes)) throw error;
  return {
    problem: { code: 'encoding', encoding: error.encoding },
    encodings: await likelyTexts(file),
  };
}
