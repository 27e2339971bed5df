import Papa from 'papaparse';
import { readsWhat } from './propose';
import { CaptureReader } from './reader';
import {
  BLANKS,
  type CaptureLayout,
  type CaptureResult,
  type Mapping,
  type ReadCapture,
} from './types';

/**
 * Options of the CSV library: every line one row, nothing converted, nothing left out. A table of one column is split at a
 * unit separator, which no file holds.
 *
 * @param mapping delimiter of the file
 * @param newline line end of the file
 * @returns the options
 */
export function csvOptions(mapping: Pick<Mapping, 'delimiter'>, newline: '\n' | '\r\n' = '\n') {
  return {
    delimiter: mapping.delimiter === '' ? Papa.UNIT_SEP : mapping.delimiter,
    newline,
    skipEmptyLines: false,
  } as const;
}

/** A blank between cells for every run of blanks, and none at the ends of a line. */
const oneBlank = (text: string) => text.replace(/[^\S\n]+/g, ' ').replace(/^ | $/gm, '');

/** Characters that are cut into rows at once. */
const BATCH = 1 << 20;

/**
 * Reads a capture or a sensor log from chunks of text. Problems and bad rows are values; nothing is thrown.
 *
 * @param parts chunks of the file, in order
 * @param mapping what each column holds, confirmed by the user
 * @param layout how the table is written
 * @param told called after each chunk with the characters read so far
 * @returns streams, row count and bad rows, or the problem with its place
 */
export async function readCaptureText(
  parts: AsyncIterable<string> | Iterable<string>,
  mapping: Mapping,
  layout: CaptureLayout,
  told: (characters: number) => void = () => undefined,
): Promise<CaptureResult<ReadCapture>> {
  const what = readsWhat(mapping, layout);
  if (what === null) return { ok: false, problem: { code: 'no-times' } };
  const reader = new CaptureReader(mapping, what);
  let rest = '';
  let seen = 0;
  let full = false;
  let newline: '\n' | '\r\n' = '\n';
  const blanks = mapping.delimiter === BLANKS;
  for await (const part of parts) {
    let text = rest + part;
    if (seen === 0 && text.startsWith('\uFEFF')) text = text.slice(1);
    if (!blanks && text.includes('\r\n')) newline = '\r\n';
    // Lines may end with a lone carriage return.
    if (!text.includes('\n') && text.includes('\r')) text = text.replaceAll('\r', '\n');
    seen += part.length;
    const cut = text.lastIndexOf('\n') + 1;
    rest = text.slice(cut);
    for (let at = 0; at < cut && !full;) {
      const end = at + BATCH >= cut ? cut : text.lastIndexOf('\n', at + BATCH) + 1 || cut;
      full = readBatch(reader, text.slice(at, end > at ? end : cut), mapping, newline);
      at = end > at ? end : cut;
    }
    if (full) break;
    told(seen);
  }
  if (rest !== '' && !full) readBatch(reader, rest, mapping, newline);
  return reader.end();
}

function readBatch(
  reader: CaptureReader,
  text: string,
  mapping: Mapping,
  newline: '\n' | '\r\n',
): boolean {
  const even = mapping.delimiter === BLANKS ? oneBlank(text) : text;
  // What ends with a line end would give an empty row more.
  const whole = even.endsWith(newline) ? even.slice(0, -newline.length) : even;
  return reader.read(Papa.parse<string[]>(whole, csvOptions(mapping, newline)).data);
}
