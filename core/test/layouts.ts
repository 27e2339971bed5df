import { makeFrames } from './make-frames';

/** A capture as somebody may have written it, and the frames that are in it. */
export interface WrittenCapture {
  readonly name: string;
  readonly text: string;
  /** Frame times that reading must give, ms. */
  readonly frames: readonly number[];
  /** How far a value may be off for the digits it was written with, ms. */
  readonly within: number;
}

const N = 180;
const MS = Array.from(makeFrames({ seed: 32, meanMs: 11, seconds: 4 }).frames).slice(0, N);
/** Times since the start, ms; the first frame ends at its own length. */
const ENDS = MS.reduce<number[]>((all, t) => [...all, (all.at(-1) ?? 0) + t], []);
const DAY = '2026-11-03';
const clock = (ms: number) => new Date(Date.parse(`${DAY}T20:15:00Z`) + ms).toISOString();

/** One column: its name and its cells, with a point as decimal mark. */
interface Column {
  readonly name: string;
  readonly cells: readonly string[];
}
const column = (name: string, cell: (i: number) => string): Column => ({
  name,
  cells: MS.map((_, i) => cell(i)),
});
const at = (list: readonly number[], i: number) => list[i] as number;
const number = column('number', (i) => String(i));
const program = column('Application', () => 'dome viewer.exe');
const ms = (name: string) => column(name, (i) => at(MS, i).toFixed(4));
const us = (name: string) => column(name, (i) => (at(MS, i) * 1000).toFixed(0));
const seconds = (name: string) => column(name, (i) => (at(MS, i) / 1000).toFixed(7));
const rates = (name: string) => column(name, (i) => (1000 / at(MS, i)).toFixed(4));
const load = column('GPU load %', (i) => (60 + (i % 9)).toFixed(1));
const latency = column('Input latency (ms)', (i) => (31 + (i % 7)).toFixed(2));
const busy = column('GPU busy ms', (i) => (at(MS, i) * 0.8).toFixed(3));

interface Form {
  readonly delimiter: string;
  readonly decimal?: '.' | ',';
  readonly header?: boolean;
  readonly end?: string;
  readonly before?: string;
  readonly quoted?: boolean;
  readonly bom?: boolean;
}

function written(columns: readonly Column[], form: Form): string {
  const { delimiter, decimal = '.', header = true, end = '\n', before = '' } = form;
  const cell = (c: string) => (form.quoted ? `"${c}"` : c);
  const lines = [
    ...(header ? [columns.map((c) => cell(c.name)).join(delimiter)] : []),
    ...MS.map((_, i) =>
      columns
        .map((c) => cell((c.cells[i] as string).replace(/^(\d+)\.(\d+)$/, `$1${decimal}$2`)))
        .join(delimiter),
    ),
  ];
  return `${form.bom ? '\uFEFF' : ''}${before}${lines.join(end)}${end}`;
}

const FORMS: Record<string, Form> = {
  comma: { delimiter: ',' },
  'semicolon, decimal comma': { delimiter: ';', decimal: ',' },
  'tab, decimal comma': { delimiter: '\t', decimal: ',', end: '\r\n' },
  bar: { delimiter: ' | ' },
  blanks: { delimiter: '    ' },
};

/** What a capture can consist of: its columns, the frames they give, and how exact its digits are. */
const CONTENTS: Record<string, { columns: Column[]; frames?: number[]; within: number }> = {
  'frame time in ms': { columns: [number, ms('Frame time (ms)')], within: 1e-4 },
  'time between frames, microseconds': {
    columns: [number, us('time_between_frames_us')],
    within: 1e-3,
  },
  'interval in seconds by its size': { columns: [number, seconds('interval')], within: 1e-3 },
  'frame length beside latency and busy time': {
    columns: [latency, busy, ms('msFrameLength'), load],
    within: 1e-4,
  },
  'times since the start': {
    columns: [number, column('elapsed ms', (i) => at(ENDS, i).toFixed(4))],
    frames: MS.slice(1),
    within: 1e-3,
  },
  'rate of each frame': { columns: [number, rates('Frame rate')], within: 1e-3 },
  'times since the start under the name of a frame time': {
    columns: [number, column('frame time ms', (i) => at(ENDS, i).toFixed(4))],
    frames: MS.slice(1),
    within: 1e-3,
  },
  'day and clock in two columns': {
    columns: [
      column('Date', () => '3.11.2026'),
      column('Time', (i) => clock(at(ENDS, i)).slice(11, 23)),
      ms('delta ms'),
    ],
    within: 1e-4,
  },
  'seconds since the start, and microseconds of each frame': {
    columns: [column('Time (s)', (i) => (at(ENDS, i) / 1000).toFixed(6)), us('Frame duration us')],
    within: 1e-3,
  },
};

const combined = Object.entries(FORMS).flatMap(([form, f]) =>
  Object.entries(CONTENTS).map(([content, c]): WrittenCapture => ({
    name: `${content}; ${form}`,
    text: written(c.columns, f),
    frames: c.frames ?? MS,
    within: c.within,
  })),
);

const one = (
  name: string,
  columns: readonly Column[],
  form: Form,
  more: Partial<WrittenCapture> = {},
): WrittenCapture => ({ name, text: written(columns, form), frames: MS, within: 1e-3, ...more });

/** Every second frame was made up: a drawn one lasts as long as both. */
const DRAWN = MS.flatMap((_, i) => (i % 2 === 1 ? [at(MS, i - 1) + at(MS, i)] : []));

const single = [
  one('no names at all', [ms('')], { delimiter: '', header: false }),
  one('no names, a running number', [number, ms('')], { delimiter: '\t', header: false }),
  one('one column, decimal comma', [ms('frame ms')], { delimiter: '', decimal: ',' }),
  one('one column, decimal comma, no names', [ms('')], {
    delimiter: '',
    decimal: ',',
    header: false,
  }),
  one(
    'one decimal after a comma',
    [column('frametime', (i) => at(MS, i).toFixed(1))],
    {
      delimiter: '',
      decimal: ',',
    },
    { within: 0.051 },
  ),
  one('quotes around every cell, decimal commas inside', [number, ms('Frame time')], {
    delimiter: ',',
    decimal: ',',
    quoted: true,
  }),
  one('byte-order mark and a preamble', [program, ms('frame ms')], {
    delimiter: ';',
    bom: true,
    before: 'Recorder of the fen\r\nMachine: L-13\r\n\r\n',
    end: '\r\n',
  }),
  one('comment lines', [number, ms('frame ms')], {
    delimiter: ',',
    before: '# at dusk\n# 3 of 4\n',
  }),
  one('old line ends', [number, ms('frame ms')], { delimiter: ',', end: '\r' }),
  one('a delimiter at the end of each row', [number, ms('frame ms'), column('', () => '')], {
    delimiter: ',',
  }),
  one(
    'types of frames',
    [ms('frame ms'), column('Frame type', (i) => (i % 2 === 0 ? 'Generated' : 'Drawn'))],
    { delimiter: ',' },
    { frames: DRAWN },
  ),
  one('date and clock in one cell', [column('timestamp', (i) => clock(at(ENDS, i))), ms('delta')], {
    delimiter: ';',
  }),
  one('nanoseconds by name', [column('frametime_ns', (i) => (at(MS, i) * 1e6).toFixed(0))], {
    delimiter: '',
  }),
  one('a time that goes up and down', [number, ms('Time (ms)')], { delimiter: ',' }),
  one('names of two words over blanks', [ms('frame ms'), load], { delimiter: '   ' }),
];

/** Captures that must be read: every form with every content, and what happens besides. */
export const LAYOUTS: readonly WrittenCapture[] = [...combined, ...single];

const rows = (line: (i: number) => string) =>
  Array.from({ length: 40 }, (_, i) => line(i)).join('\n');

/** Files that must be refused, and the problem that says why. */
export const REFUSED: Readonly<Record<string, { text: string; code: string }>> = {
  'a comma as decimal mark and delimiter': {
    text: `Time,Frame\n${rows((i) => `${i},5,16,${i + 10}`)}\n`,
    code: 'width',
  },
  'a comma as both, one column whole': {
    text: `number,frame ms\n${rows((i) => `${i},16,${i + 10}`)}\n`,
    code: 'width',
  },
  'a comma as both among three': {
    text: `Time,Frame time,GPU power\n${rows((i) => `${i},016,16,6,150,5`)}\n`,
    code: 'width',
  },
  'a name too many': {
    text: `number\tframe ms\tcard\n${rows((i) => `${i}\t16.${i}`)}\n`,
    code: 'width',
  },
  'a name too few': { text: `number;frame ms\n${rows((i) => `${i};16.${i};3`)}\n`, code: 'width' },
  'nothing in it': { text: '', code: 'empty' },
  'comments only': { text: '# one\n# two\n', code: 'empty' },
  'words only': { text: 'a session of the fen\nwithout figures\n', code: 'no-table' },
  'names without rows': { text: 'frame ms,GPU load\n', code: 'no-table' },
  'latencies only': { text: `latency ms\n${rows((i) => `3${i % 10}.5`)}\n`, code: 'no-times' },
  'loads only': {
    text: `GPU load %,CPU load %\n${rows((i) => `${i},${i + 3}`)}\n`,
    code: 'no-times',
  },
  'a running number only': { text: `number\n${rows((i) => String(i))}\n`, code: 'no-times' },
};
