import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  type CaptureLayout,
  findLayout,
  type Mapping,
  proposeMapping,
  type ReadCapture,
  readCaptureText,
  readsWhat,
  signatureOf,
} from '../src/runs';

function look(text: string): { layout: CaptureLayout; mapping: Mapping } {
  const found = findLayout(text);
  if (!found.ok) throw new Error(found.problem.code);
  return { layout: found.value, mapping: proposeMapping(found.value) };
}

async function read(text: string, mapping?: Mapping, cut = 1000): Promise<ReadCapture> {
  const seen = look(text);
  const parts = Array.from({ length: Math.ceil(text.length / cut) }, (_, i) =>
    text.slice(i * cut, (i + 1) * cut),
  );
  const r = await readCaptureText(parts, mapping ?? seen.mapping, seen.layout);
  if (!r.ok) throw new Error(r.problem.code);
  return r.value;
}

const TIMES = [16.61, 16.7, 16.55, 33.4, 16.62, 16.68];
const floats = (list: readonly number[]) => list.map(Math.fround);
/** The same six frames, written in every way somebody might write them. */
const LAYOUTS: Record<string, string> = {
  'comma, header, ms': `frame time (ms)\n${TIMES.join('\n')}\n`,
  'no header at all': TIMES.join('\n'),
  'decimal comma, one column, no header': TIMES.map((t) => t.toFixed(2).replace('.', ',')).join(
    '\n',
  ),
  'byte-order mark, semicolon, decimal comma': `\uFEFFNumber;Frame time in ms\r\n${TIMES.map((t, i) => `${i};${String(t).replace('.', ',')}`).join('\r\n')}\r\n`,
  'tabs, microseconds by name': `n\tframetime_us\n${TIMES.map((t, i) => `${i}\t${Math.round(t * 1000)}`).join('\n')}`,
  'microseconds by size only': `run,interval\n${TIMES.map((t) => `a,${t * 1000}`).join('\n')}`,
  'seconds by size only': `n,interval\n${TIMES.map((t, i) => `${i},${t / 1000}`).join('\n')}`,
  'comment lines and a preamble': `# made at dusk\n# by hand\nMachine: L-13\nnumber,frame time ms\n${TIMES.map((t, i) => `${i},${t}`).join('\n')}\n# the end\n`,
  'one column under words of a recorder': `Recorder of the fen\nMachine L-13\nframe ms\n${TIMES.join('\n')}\n`,
  'quoted cells with the mark inside': `"name, long","Frame time [ms]"\r\n${TIMES.map((t) => `"a, b","${t}"`).join('\r\n')}\r\n`,
  'old line ends': `frame time ms\r${TIMES.join('\r')}\r`,
  'bars between cells': `app|frametime ms\n${TIMES.map((t) => `dome.exe|${t}`).join('\n')}`,
};

describe('any layout', () => {
  it.each(Object.entries(LAYOUTS))('%s', async (_, text) => {
    const r = await read(text, undefined, 7);
    expect(r.badCount).toBe(0);
    expect(r.streams).toHaveLength(1);
    const frames = Array.from(r.streams[0]!.frames);
    expect(frames).toHaveLength(TIMES.length);
    for (const [i, f] of frames.entries()) expect(Math.abs(f - TIMES[i]!)).toBeLessThan(2e-5);
  });

  it('reads frame times instead of intervals; the first frame has none', async () => {
    const starts = TIMES.reduce((all, t) => [...all, all.at(-1)! + t], [100]);
    const r = await read(
      `time in ms,picture\n${starts.map((s) => `${s.toFixed(2)},x`).join('\n')}\n`,
    );
    expect(Array.from(r.streams[0]!.frames, (f) => Number(f.toFixed(2)))).toEqual(TIMES);
  });

  it('reads clock times, past midnight too', async () => {
    const stamps = ['23:59:59.980', '23:59:59.990', '00:00:00.005', '00:00:00.025'];
    const r = await read(`time\n${stamps.join('\n')}\n`);
    expect(Array.from(r.streams[0]!.frames, (f) => Math.round(f))).toEqual([10, 15, 20]);
  });

  it('keeps several programs apart', async () => {
    const r = await read(
      `Application,FrameTime\n${TIMES.map((t, i) => `${i % 2 ? 'dome' : 'stack'},${t}`).join('\n')}\n`,
    );
    expect(r.streams.map((s) => [s.program, s.frames.length])).toEqual([
      ['stack', 3],
      ['dome', 3],
    ]);
  });

  it('keeps rendered and shown frames apart where some are generated', async () => {
    const r = await read(`frame ms,generated\n10,0\n10,1\n10,0\n10,1\n12,0\n`);
    expect(Array.from(r.streams[0]!.frames)).toEqual([10, 20, 22]);
    expect(Array.from(r.streams[0]!.shown!)).toEqual([10, 10, 10, 10, 12]);
  });

  it('reads sensors beside frames, and a log of sensors alone', async () => {
    const frames = `frame ms,GPU load %,GPU power (W),Memory clock MHz,CPU power W\n${Array.from({ length: 100 }, (_, i) => `20,${i},150,${i < 50 ? 7000 : 3500},N/A`).join('\n')}\n`;
    const r = await read(frames);
    expect(r.streams[0]!.lanes.map((l) => [l.sensor, l.dtMs, l.values.length])).toEqual([
      ['card-load', 100, 20],
      ['card-w', 100, 20],
      ['memory-mhz', 100, 20],
    ]);
    const log = `Time,Wall meter W,CPU load\n${Array.from({ length: 20 }, (_, i) => `2026-11-03 20:00:${String(i).padStart(2, '0')},${200 + i},0.5`).join('\n')}\n`;
    const { layout, mapping } = look(log);
    expect(readsWhat(mapping, layout)).toBe('log');
    const read2 = await read(log);
    const [wall, cpu] = read2.streams[0]!.lanes;
    expect(read2.streams[0]!.startedMs).toBe(Date.parse('2026-11-03T20:00:00Z'));
    expect([wall?.sensor, wall?.dtMs, wall?.values[5]]).toEqual(['wall-w', 1000, 205]);
    expect(cpu?.values[0]).toBe(50);
  });

  it('tells frames with clock times from a log of seconds', async () => {
    const rows = (ms: number) =>
      Array.from(
        { length: 20 },
        (_, i) => `${new Date(1.7e12 + i * ms).toISOString()},${100 + i}`,
      ).join('\n');
    for (const [ms, what] of [
      [16, 'frames'],
      [1000, 'log'],
    ] as const) {
      const { layout, mapping } = look(`time,card power W\n${rows(ms)}\n`);
      expect(readsWhat(mapping, layout)).toBe(what);
    }
  });

  it('gives files of one layout one signature, and others another', () => {
    expect(signatureOf(look(LAYOUTS['comma, header, ms']!).layout)).toBe(
      signatureOf(look('frame time (ms)\n1\n2\n').layout),
    );
    expect(signatureOf(look(LAYOUTS['comma, header, ms']!).layout)).not.toBe(
      signatureOf(look(LAYOUTS['old line ends']!).layout),
    );
  });
});

describe('bad rows', () => {
  it('names line, column and value, whatever stands before', async () => {
    const text = '# a\nname,frame ms\na,10\n\nb,ten\nc\nd,0\ne,-4\nf,99999\ng,11\n';
    const r = await read(text);
    expect(r.bad).toEqual([
      { line: 5, column: 1, value: 'ten', why: 'not-a-number' },
      { line: 6, column: null, value: '1', why: 'short' },
      { line: 7, column: 1, value: '0', why: 'not-above-0' },
      { line: 8, column: 1, value: '-4', why: 'not-above-0' },
      { line: 9, column: 1, value: '99999', why: 'too-long' },
    ]);
    expect(Array.from(r.streams[0]!.frames)).toEqual([10, 11]);
    expect(r.rows).toBe(7);
  });

  it('refuses a time that goes back or is none', async () => {
    const r = await read('time s,x\n1.00,1\n1.02,1\n0.9,1\nlater,1\n1.04,1\n');
    expect(r.bad.map((b) => [b.line, b.why])).toEqual([
      [4, 'goes-back'],
      [5, 'not-a-time'],
    ]);
    expect(r.streams[0]!.frames).toHaveLength(2);
  });

  it('never loses or invents a row: good and bad are all rows', async () => {
    const cell = fc.oneof(
      fc.double({ min: 0.5, max: 90, noNaN: true }).map(String),
      fc.constantFrom('x', '-1', '0', '1e9', '1;2', '   '),
    );
    await fc.assert(
      fc.asyncProperty(
        fc.array(cell, { minLength: 5, maxLength: 60 }),
        fc.integer({ min: 1, max: 40 }),
        async (cells, cut) => {
          const text = `frame ms,a\n10,b\n${cells.map((c) => `${c},b`).join('\n')}\n`;
          const r = await read(text, undefined, cut);
          expect((r.streams[0]?.frames.length ?? 0) + r.badCount).toBe(cells.length + 1);
        },
      ),
    );
  });
});

describe('what is no capture', () => {
  it.each([
    ['', 'empty'],
    ['   \n\n', 'empty'],
    ['a letter\nto somebody\nabout nothing', 'no-table'],
  ])('%j is refused: %s', (text, code) => {
    const r = findLayout(text);
    expect(r).toMatchObject({ ok: false, problem: { code } });
  });

  it('a table without any time is refused when it is read', async () => {
    const text = 'name,score\na,12\nb,14\n';
    const { layout, mapping } = look(text);
    const ignoring = {
      ...mapping,
      columns: mapping.columns.map((c) => ({ ...c, role: 'ignore' as const })),
    };
    expect(await readCaptureText([text], ignoring, layout)).toMatchObject({
      ok: false,
      problem: { code: 'no-times' },
    });
  });

  it('more than a million frames are refused', async () => {
    const text = 'frame ms\n' + '10\n'.repeat(1_000_001);
    const { layout, mapping } = look('frame ms\n10\n10\n');
    expect(await readCaptureText([text], mapping, layout)).toMatchObject({
      ok: false,
      problem: { code: 'too-many' },
    });
  });
});

describe('decimal marks and numbers', () => {
  it('rounds to float32 as it reads', async () => {
    const r = await read('frame ms\n16.6666666666\n16.1\n');
    expect(Array.from(r.streams[0]!.frames)).toEqual(floats([16.6666666666, 16.1]));
  });
});
