import { figureText } from '../../base/text';
import type { CaptureDoubt } from '../capture/doubts';
import type { BadRow, CaptureProblem, ColumnRole, Sensor } from '../capture/types';

export const SENSOR_WORDS: Readonly<Record<Sensor, { name: string; unit: string }>> = {
  'card-load': { name: 'Card load', unit: '%' },
  'card-w': { name: 'Card power', unit: 'W' },
  'card-mhz': { name: 'Card clock', unit: 'MHz' },
  'memory-mhz': { name: 'Memory clock of the card', unit: 'MHz' },
  'card-c': { name: 'Card temperature', unit: '°C' },
  'memory-mb': { name: 'Card memory used', unit: 'MB' },
  'cpu-load': { name: 'Processor load', unit: '%' },
  'cpu-w': { name: 'Processor power', unit: 'W' },
  'cpu-mhz': { name: 'Processor clock', unit: 'MHz' },
  'cpu-c': { name: 'Processor temperature', unit: '°C' },
  'wall-w': { name: 'Wall meter', unit: 'W' },
  'card-busy-ms': { name: 'Card busy within a frame', unit: 'ms' },
  'cpu-busy-ms': { name: 'Processor busy within a frame', unit: 'ms' },
  'latency-ms': { name: 'Latency', unit: 'ms' },
  fps: { name: 'Frames a second, as logged', unit: 'frames/s' },
};

export const ROLE_WORDS: Readonly<Record<ColumnRole, string>> = {
  frame: 'Time from frame to frame',
  rate: 'Frames a second of each frame',
  time: 'When the frame or row came',
  date: 'Day of that time',
  shown: 'Time between pictures on the screen',
  generated: 'Generated frame: yes or no, or its type',
  program: 'Program',
  ignore: 'Not read',
  ...(Object.fromEntries(Object.entries(SENSOR_WORDS).map(([k, w]) => [k, w.name])) as Record<
    Sensor,
    string
  >),
};

const BAD: Readonly<Record<BadRow['why'], string>> = {
  short: 'columns only; one that is read is missing',
  'not-a-number': 'is not a number',
  'not-above-0': 'is not above 0',
  'too-long': 'is longer than a minute for one frame',
  'not-a-time': 'is not a time',
  'goes-back': 'is before the row above it',
};

/**
 * Reason why a row was not read, with its place.
 *
 * @param b the row
 * @param columns names of the columns; null where the file has none
 * @returns the sentence
 */
export function badRowText(b: BadRow, columns: readonly string[] | null): string {
  const where =
    b.column === null
      ? ''
      : `, column ${columns?.[b.column] ? `"${columns[b.column] ?? ''}"` : b.column + 1}`;
  return `Line ${b.line}${where}: ${b.column === null && b.why === 'short' ? b.value : `"${b.value}"`} ${BAD[b.why]}.`;
}

/**
 * Reason why a file was not read, with its place.
 *
 * @param p the problem
 * @returns the sentence
 */
export function captureProblemText(p: CaptureProblem): string {
  switch (p.code) {
    case 'empty':
      return 'The file is empty.';
    case 'encoding':
      return `The file is not ${p.encoding.toUpperCase()}; say which encoding it has.`;
    case 'no-table':
      return 'No table of numbers was found in the first lines.';
    case 'width':
      return `Line ${p.line}: ${p.names} names, but the row below has ${p.cells} cells${p.comma ? '; a comma is both decimal mark and delimiter. Write the file with semicolons or tabs between the columns, or with decimal points' : '. Mend the line, or take the names out'}.`;
    case 'no-times':
      return 'No column is named as frame times or times; say which one is.';
    case 'no-rows':
      return 'The table has no rows that can be read.';
    case 'too-many':
      return `More than ${p.most.toLocaleString('en')} frames; cut the file and read it in parts.`;
    case 'json':
      return `${p.where}: ${p.why}.`;
  }
}

/**
 * Why a reading is doubtful, with its figures.
 *
 * @param d the doubt
 * @returns the sentence
 */
export function doubtText(d: CaptureDoubt): string {
  switch (d.code) {
    case 'guessed':
      return `No column is called a frame time; "${d.column}" was taken because its values look like it.`;
    case 'unit':
      return `"${d.column}" is named in ${d.unit}, but a usual value is ${figureText(d.value)} ${d.unit}.`;
    case 'several':
      return `Several columns could be the frame time: ${d.columns.map((c) => `"${c}"`).join(', ')}. The first is read.`;
    case 'frame-or-second':
      return `"${d.column}" without a clock: each row can be one frame or one second.`;
    case 'since-start':
      return `"${d.column}" only grows: read as the time since the start, not as the time of each frame.`;
    case 'whole-ms':
      return `All ${d.frames} frame times are whole milliseconds: the lows are as coarse as that.`;
    case 'clock':
      return `The clock of the file runs for ${figureText(d.clockS)} s, its frame times add up to ${figureText(d.framesS)} s: a unit is wrong, or frames are missing.`;
    case 'gaps':
      return `${d.gaps} gap${d.gaps === 1 ? '' : 's'} in the clock, the first at line ${d.line}: rows are missing.`;
    case 'twice':
      return `The second half repeats the first, ${d.frames} frames: the file holds its capture twice.`;
    case 'alike':
      return `Every frame takes ${figureText(d.ms)} ms: an average or a limit was written, no measurement.`;
    case 'usual':
      return `A usual frame takes ${figureText(d.ms)} ms: another unit, or another column.`;
  }
}
