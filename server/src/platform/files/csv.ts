import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { CsvError, parse } from 'csv-parse';
import { notSaved } from '../http/problem';
import type { TextFile } from './text-file';

/** What a CSV may hold; each limit is looked at while it is read. */
export const CSV_LIMITS = { lineLength: 1_000_000, cells: 1000 } as const;

/** Options a CSV is read with, from its first line: comma, semicolon or tab, whichever it holds most of. */
export function csvOptions(firstLine: string) {
  const counts = [',', ';', '\t'].map((d) => [d, firstLine.split(d).length] as const);
  const delimiter = counts.reduce((best, d) => (d[1] > best[1] ? d : best))[0];
  return {
    bom: true,
    delimiter,
    relax_column_count: true,
    skip_empty_lines: true,
    max_record_size: CSV_LIMITS.lineLength,
  } as const;
}

const LINE_END = /[\r\n]/g;

/** Lets lines of a sane length pass: one of commas alone would become millions of cells before the parser sees its end. */
async function* shortLines(pieces: ReturnType<TextFile>): AsyncGenerator<string> {
  let line = 1;
  /** Characters since the last line end of the pieces before. */
  let before = 0;
  const refuseLong = (length: number) => {
    if (length > CSV_LIMITS.lineLength)
      throw notSaved(
        `Line ${line} has more than ${CSV_LIMITS.lineLength.toLocaleString('en')} characters`,
      );
  };
  for await (const piece of pieces) {
    let begin = 0;
    for (const { 0: end, index } of piece.matchAll(LINE_END)) {
      refuseLong(before + index - begin);
      if (end === '\n') line += 1;
      begin = index + 1;
      before = 0;
    }
    before += piece.length - begin;
    refuseLong(before);
    yield piece;
  }
}

async function firstLineOf(file: TextFile): Promise<string> {
  let text = '';
  for await (const piece of file()) {
    text = (text + piece).trimStart();
    const end = text.search(/[\r\n]/);
    if (end >= 0) return text.slice(0, end);
    if (text.length > CSV_LIMITS.lineLength) break;
  }
  return text;
}

/**
 * Rows of a CSV as they are read (RFC 4180; separator by the first line).
 * @param file to read
 * @returns the cells of each row that is not empty, the header first
 * @throws HttpProblem 422 with the line where it is no CSV or goes over a limit
 */
export async function* csvRows(file: TextFile): AsyncGenerator<string[]> {
  const parser = parse(csvOptions(await firstLineOf(file)));
  const fed = pipeline(Readable.from(shortLines(file())), parser);
  // What breaks on the way ends the loop below with the same error.
  fed.catch(() => undefined);
  let row = 0;
  try {
    for await (const cells of parser as AsyncIterable<string[]>) {
      row += 1;
      if (cells.length > CSV_LIMITS.cells)
        throw notSaved(
          `Row ${row} has ${cells.length} cells; a row has at most ${CSV_LIMITS.cells}`,
        );
      yield cells;
    }
  } catch (error) {
    if (error instanceof CsvError) throw notSaved(`Not a CSV file: ${error.message.slice(0, 300)}`);
    throw error;
  } finally {
    parser.destroy();
  }
}
