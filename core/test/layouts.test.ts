import { describe, expect, it } from 'vitest';
import {
  type CaptureDoubt,
  type CaptureResult,
  findLayout,
  layoutDoubts,
  proposeMapping,
  type ReadCapture,
  readCaptureText,
  readDoubts,
} from '../src/runs';
import { captureProblemText, doubtText } from '../src/runs/text';
import { LAYOUTS, REFUSED } from './layouts';

async function read(text: string): Promise<CaptureResult<ReadCapture>> {
  const found = findLayout(text);
  if (!found.ok) return found;
  // Cut at odd places, as a stream of a file is.
  const parts = text.match(/[^]{1,997}/g) ?? [];
  return readCaptureText(parts, proposeMapping(found.value), found.value);
}

async function readWell(text: string): Promise<ReadCapture> {
  const r = await read(text);
  if (!r.ok) throw new Error(captureProblemText(r.problem));
  return r.value;
}

function columnDoubts(text: string): CaptureDoubt[] {
  const found = findLayout(text);
  if (!found.ok) throw new Error(captureProblemText(found.problem));
  return layoutDoubts(found.value, proposeMapping(found.value));
}

const codes = (doubts: readonly CaptureDoubt[]) => doubts.map((d) => d.code);
const rows = (n: number, line: (i: number) => string) =>
  Array.from({ length: n }, (_, i) => line(i)).join('\n');

describe('captures as people write them', () => {
  it('are sixty', () => expect(LAYOUTS).toHaveLength(60));

  it.each(LAYOUTS.map((l) => [l.name, l] as const))('%s', async (_, l) => {
    const { streams, badCount } = await readWell(l.text);
    expect(badCount).toBe(0);
    expect(streams).toHaveLength(1);
    const frames = Array.from(streams[0]!.frames);
    expect(frames).toHaveLength(l.frames.length);
    const off = frames.map((f, i) => Math.abs(f - (l.frames[i] as number)));
    expect(Math.max(...off)).toBeLessThan(l.within);
  });

  it.each(Object.entries(REFUSED))('%s: refused', async (_, { text, code }) => {
    const r = await read(text);
    expect(r.ok ? 'read' : r.problem.code).toBe(code);
  });

  it('the line of a comma as both is named', async () => {
    const r = await read(REFUSED['a comma as decimal mark and delimiter']!.text);
    expect(r.ok ? '' : captureProblemText(r.problem)).toMatch(
      /^Line 1: 2 names, .* 4 cells; a comma is both/,
    );
  });
});

describe('what stands beside frames', () => {
  it('a latency is a sensor, and a busy time gives the load', async () => {
    const text = `Click latency ms,GPU busy (ms),frame ms\n${rows(200, (i) => `${30 + (i % 3)},${i % 2 ? 6 : 8},10`)}\n`;
    const { streams } = await readWell(text);
    const lanes = streams[0]!.lanes;
    expect(lanes.map((l) => l.sensor)).toEqual(['latency-ms', 'card-busy-ms', 'card-load']);
    const mean = (i: number) =>
      lanes[i]!.values.reduce((a, b) => a + b, 0) / lanes[i]!.values.length;
    expect(mean(1)).toBeCloseTo(7, 1);
    expect(mean(2)).toBeCloseTo(70, 0);
  });

  it('a load of its own is kept as logged', async () => {
    const text = `frame ms,GPU busy ms,GPU load %\n${rows(50, () => '10,5,93')}\n`;
    const lanes = (await readWell(text)).streams[0]!.lanes;
    expect(lanes.map((l) => [l.sensor, l.values[1]])).toEqual([
      ['card-busy-ms', 5],
      ['card-load', 93],
    ]);
  });

  it('a day in its own column dates the capture', async () => {
    const text = `Date,Time,delta ms\n${rows(40, (i) => `3.11.2026,20:15:0${Math.floor(i / 10)},${10 + (i % 4)}`)}\n`;
    const { streams } = await readWell(text);
    expect(streams[0]!.startedMs).toBe(Date.parse('2026-11-03T20:15:00Z'));
  });

  it('a day that can be read two ways is not known', async () => {
    const text = `Date,delta ms\n${rows(40, (i) => `03/04/2026,${10 + (i % 4)}`)}\n`;
    expect((await readWell(text)).streams[0]!.startedMs).toBeNull();
  });

  it('frames a second beside a clock of seconds are a log', async () => {
    const text = `Time,fps\n${rows(30, (i) => `20:00:${String(i).padStart(2, '0')},${60 + (i % 5)}`)}\n`;
    const { streams } = await readWell(text);
    expect(streams[0]!.frames).toHaveLength(0);
    expect(streams[0]!.lanes.map((l) => [l.sensor, l.dtMs, l.values.length])).toEqual([
      ['fps', 1000, 30],
    ]);
  });

  it('frames a second without a clock can be said to be seconds', async () => {
    const text = `fps\n${rows(30, (i) => String(60 + (i % 5)))}\n`;
    const found = findLayout(text);
    if (!found.ok) throw new Error(found.problem.code);
    const mapping = {
      ...proposeMapping(found.value),
      columns: [{ role: 'fps', unit: 'own' } as const],
    };
    const r = await readCaptureText([text], mapping, found.value);
    expect(r.ok && r.value.streams[0]!.lanes[0]).toMatchObject({ sensor: 'fps', dtMs: 1000 });
  });
});

const uneven = (i: number) => (10 + ((i * 7) % 11) / 10).toFixed(2);

describe('doubts', () => {
  it.each([
    ['guessed', `number,x\n${rows(40, (i) => `${i},${uneven(i)}`)}\n`],
    ['unit', `frame ms\n${rows(40, (i) => `0.0${uneven(i).replace('.', '')}`)}\n`],
    ['several', `frame ms,interval ms\n${rows(40, (i) => `${uneven(i)},${uneven(i + 1)}`)}\n`],
    ['frame-or-second', `fps\n${rows(40, (i) => String(60 + (i % 7)))}\n`],
    ['since-start', `frame time ms\n${rows(40, (i) => String(i * 10.3))}\n`],
  ])('of the columns: %s', (code, text) => {
    const doubts = columnDoubts(text);
    expect(codes(doubts)).toEqual([code]);
    expect(doubtText(doubts[0]!)).toMatch(/\.$/);
  });

  it.each([
    ['whole-ms', `frame ms\n${rows(100, (i) => String(10 + (i % 3)))}\n`],
    ['twice', `frame ms\n${rows(200, (i) => uneven(i % 100))}\n`],
    ['alike', `frame ms\n${rows(100, () => '16.67')}\n`],
    ['usual', `frame s\n${rows(100, (i) => uneven(i % 90))}\n`],
    [
      'clock',
      `time s,frame ms\n${rows(400, (i) => `${(i * 0.03).toFixed(3)},${uneven(i % 397)}`)}\n`,
    ],
    [
      'gaps',
      `time s,frame ms\n${rows(400, (i) => `${(i * 0.0105 + (i > 250 ? 6 : 0)).toFixed(4)},${uneven(i % 397)}`)}\n`,
    ],
  ])('of the frames: %s', async (code, text) => {
    const doubts = readDoubts(await readWell(text));
    expect(codes(doubts)).toEqual([code]);
    expect(doubtText(doubts[0]!)).toMatch(/\.$/);
  });

  it('none of a plain capture', async () => {
    for (const l of LAYOUTS.filter((x) => x.name.startsWith('frame time in ms'))) {
      expect(columnDoubts(l.text)).toEqual([]);
      expect(readDoubts(await readWell(l.text))).toEqual([]);
    }
  });
});
