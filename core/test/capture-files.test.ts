import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  align,
  alignRuns,
  type BadRow,
  captureFile,
  clockMs,
  readCaptureJson,
  type Sensor,
  SENSORS,
  type SensorSeries,
  shortest,
} from '../src/runs';
import { captureSchema } from '../src/runs/contract';
import { badRowText, captureProblemText } from '../src/runs/text';
import { makeFrames } from './make-frames';

const frames = (list: readonly number[]) => Float32Array.from(list);
const read = (value: unknown) => readCaptureJson(JSON.stringify(value));

describe('JSON', () => {
  it('reads the open format, a bare list, and rows with names', () => {
    const open = read({
      format: 'ruddy-bridge/capture',
      version: 1,
      frameMs: [10, 20],
      sensors: [{ sensor: 'card-w', dtMs: 500, values: [1, null] }],
    });
    expect(open).toMatchObject({
      ok: true,
      value: { kind: 'capture', read: { rows: 2, badCount: 0 } },
    });
    expect(read([10, 20])).toMatchObject({ ok: true, value: { kind: 'capture' } });
    expect(read({ rows: [{ 'frame ms': 10, app: 'a' }] })).toEqual({
      ok: true,
      value: { kind: 'table', text: 'frame ms\tapp\n10\ta\n' },
    });
  });

  it.each([
    ['{"a"', 'the file is not JSON'],
    ['7', 'neither a list nor an object'],
    [
      JSON.stringify({ format: 'ruddy-bridge/capture', version: 2 }),
      'version: this program reads version 1',
    ],
    [JSON.stringify({ format: 'else' }), 'format: is not "ruddy-bridge/capture"'],
    [
      JSON.stringify({
        format: 'ruddy-bridge/capture',
        version: 1,
        frameMs: [1],
        sensors: [{ sensor: 'heat' }],
      }),
      'sensors/0/sensor: is none of',
    ],
    [
      JSON.stringify({
        format: 'ruddy-bridge/capture',
        version: 1,
        frameMs: [1],
        sensors: [{ sensor: 'card-w', dtMs: 0, values: [] }],
      }),
      'sensors/0/dtMs: is not a number above 0',
    ],
    ['[]', 'The file is empty'],
    [JSON.stringify({ format: 'ruddy-bridge/capture', version: 1 }), 'no rows'],
  ])('%s is refused with its place', (text, words) => {
    const r = readCaptureJson(text);
    expect(r.ok).toBe(false);
    if (!r.ok)
      expect(captureProblemText(r.problem).replace('the file:', 'the file')).toContain(words);
  });

  it('names bad values of a list, and reads the others', () => {
    const r = read([10, 'x', 0, 70_000, 12]);
    if (!r.ok || r.value.kind !== 'capture') throw new Error('not read');
    expect(r.value.read.bad.map((b) => [b.line, b.why])).toEqual([
      [2, 'not-a-number'],
      [3, 'not-above-0'],
      [4, 'too-long'],
    ]);
    expect(Array.from(r.value.read.streams[0]!.frames)).toEqual([10, 12]);
  });

  it('reading back what was written gives the same bits and schema', () => {
    const values = fc.array(fc.float({ min: Math.fround(0.01), max: 60_000, noNaN: true }), {
      minLength: 1,
      maxLength: 50,
    });
    fc.assert(
      fc.property(
        values,
        fc.array(fc.float({ noDefaultInfinity: true }), { minLength: 1, maxLength: 20 }),
        (list, sensor) => {
          // JSON knows no -0.
          const lane: SensorSeries = {
            sensor: 'card-w',
            t0Ms: -500,
            dtMs: 250,
            values: Float32Array.from(sensor, (v) => v + 0),
          };
          const file = captureFile({ program: 'p', startedAt: null }, frames(list), null, [lane]);
          expect(captureSchema.safeParse(JSON.parse(JSON.stringify(file))).success).toBe(true);
          const r = read(file);
          if (!r.ok || r.value.kind !== 'capture') throw new Error('not read');
          const [stream] = r.value.read.streams;
          expect(stream!.frames).toEqual(frames(list));
          expect(stream!.lanes[0]).toEqual(lane);
        },
      ),
    );
    expect(shortest(Math.fround(16.7))).toBe(16.7);
  });
});

describe('clocks', () => {
  it.each([
    ['14:02', 50_520_000],
    ['14:02:03,5', 50_523_500],
    ['2026-11-03T14:02:03.5Z', Date.parse('2026-11-03T14:02:03.5Z')],
    ['2026-11-03 14:02:03', Date.parse('2026-11-03T14:02:03Z')],
    ['2026-11-03T14:02:03+01:00', Date.parse('2026-11-03T13:02:03Z')],
  ])('%s', (cell, ms) => expect(clockMs(cell)).toBe(ms));
  it('anything else is none', () => {
    expect([clockMs('soon'), clockMs('12'), clockMs('')]).toEqual([NaN, NaN, NaN]);
  });
});

describe('a log beside frames', () => {
  const turns = [5, 14, 18, 31, 33, 47, 60, 63, 66, 81, 92, 97, 110];
  const fast = (s: number) => turns.filter((t) => t <= s).length % 2 === 0;
  const capture = (fromS: number) => {
    const out: number[] = [];
    for (let at = 0; at < 90_000; at += out.at(-1)!) out.push(fast(at / 1000 + fromS) ? 8 : 14);
    return frames(out);
  };
  const lane = (dtMs: number, up: boolean): SensorSeries => ({
    sensor: 'card-w',
    t0Ms: 0,
    dtMs,
    values: Float32Array.from(
      { length: 120_000 / dtMs },
      (_, i) => (fast((i * dtMs) / 1000) === up ? 210 : 160) + ((i * 7) % 5),
    ),
  });

  it.each([
    [12, 1000, true],
    [12, 500, true],
    [25, 500, false],
    [0, 1000, true],
  ])('%i s later, a value each %i ms, is found exactly', (later, dtMs, up) => {
    const found = align(capture(later), lane(dtMs, up));
    expect(found?.offsetMs).toBeCloseTo(-later * 1000, 9);
    expect(found?.clear).toBe(true);
    expect(Math.sign(found!.r)).toBe(up ? 1 : -1);
  });

  it.each([12, 3.4])('a run begun %f s later is laid onto the first', (later) => {
    const found = alignRuns(capture(0), capture(later));
    expect(found).toMatchObject({ offsetMs: later * 1000, clear: true });
    expect(alignRuns(capture(later), capture(0))?.offsetMs).toBeCloseTo(-later * 1000, 9);
    expect(alignRuns(capture(0), new Float32Array(6000).fill(20))).toBeNull();
  });

  it('unrelated series have no clear place: at most 5 of 100', () => {
    let said = 0;
    for (let seed = 1; seed <= 100; seed++) {
      const noise = makeFrames({ seed: seed + 500, meanMs: 1, seconds: 0.12 }).frames.slice(0, 100);
      const found = align(makeFrames({ seed, meanMs: 11, seconds: 60 }).frames, {
        sensor: 'card-w',
        t0Ms: 0,
        dtMs: 1000,
        values: noise,
      });
      if (found?.clear) said++;
    }
    expect(said).toBeLessThanOrEqual(5);
  });

  it('that never changes has none at all', () => {
    expect(
      align(capture(0), { ...lane(1000, true), values: new Float32Array(120).fill(5) }),
    ).toBeNull();
  });
});

describe('words', () => {
  const why: BadRow['why'][] = [
    'short',
    'not-a-number',
    'not-above-0',
    'too-long',
    'not-a-time',
    'goes-back',
  ];
  it.each(why)('a bad row says its line: %s', (w) => {
    const text = badRowText({ line: 7, column: w === 'short' ? null : 1, value: 'x', why: w }, [
      'a',
      'frame ms',
    ]);
    expect(text).toMatch(/^Line 7/);
    if (w !== 'short') expect(text).toContain('column "frame ms"');
  });
  it('every sensor has a unit', () => {
    for (const s of Object.keys(SENSORS) as Sensor[]) expect(SENSORS[s]).not.toBe('');
  });
});
