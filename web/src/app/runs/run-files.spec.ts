import { TestBed } from '@angular/core/testing';
import { of, throwError } from 'rxjs';
import { NO_RUN_CONTEXT, NO_RUN_SETTINGS } from '@ruddy/core/runs';
import type { CsvMapping, RunBody, RunEntry } from '@ruddy/core/runs/contract';
import { ApiError } from '../platform/api/api-client';
import { RunsData } from './runs';
import { captureCalls } from './capture-calls';
import { CAPTURE_WORKER, CaptureWork } from './capture-work';
import { framesOf, RunFiles, type Common } from './run-files';

/** The real calls, without a worker around them; packing needs a browser, so it only passes on. */
const calls = {
  ...captureCalls((v) => v),
  pack: (values: Float32Array) =>
    Promise.resolve({ bytes: new Uint8Array(1), sha256: 'a'.repeat(64), n: values.length }),
};
const common: Common = {
  setupId: 's',
  titleId: 't',
  settings: NO_RUN_SETTINGS,
  context: NO_RUN_CONTEXT,
  saw: '',
};

const NOW = '2026-11-20T18:00:00.000Z';

function bed(data: Partial<RunsData> = {}) {
  const stored: RunBody[] = [];
  const kept: CsvMapping[] = [];
  const fake: Partial<RunsData> = {
    mappings: () => of(kept),
    keepMapping: (m) => {
      kept.push(m);
      return of(m);
    },
    send: () => of(undefined),
    add: (_, run) => {
      stored.push(run);
      return of({} as RunEntry);
    },
    ...data,
  };
  TestBed.configureTestingModule({
    providers: [
      RunFiles,
      CaptureWork,
      { provide: RunsData, useValue: fake },
      { provide: CAPTURE_WORKER, useValue: () => ({ calls, end: () => undefined }) },
    ],
  });
  // Functions given to a worker are wrapped; here they are called as they are.
  TestBed.inject(CaptureWork).told = (f) => f;
  return { files: TestBed.inject(RunFiles), stored, kept };
}
/** A file as a browser has it: the simulated page's own cannot be read as a stream. */
async function fileOf(text: string, name: string): Promise<File> {
  return Object.assign(await new Response(text).blob(), {
    name,
    lastModified: Date.parse('2026-10-01T12:00:00Z'),
  }) as unknown as File;
}
/** Frame times that nothing is doubtful about. */
const uneven = Array.from({ length: 60 }, (_, i) =>
  (10 + ((i * 7) % 11) / 10 + i / 1000).toFixed(3),
);
const csv = (name: string, rows: string) => fileOf(`frame ms,note\n${rows}`, name);
const state = (files: RunFiles) => files.rows().map((r) => r.state);

describe('files on their way to be runs', () => {
  it('of another encoding ask which, and are read in it', async () => {
    const { files } = bed();
    // "Zürich" as ISO 8859-1 has it: 0xFC alone is no UTF-8 (RFC 3629).
    const latin = Uint8Array.from('frame ms,Z\u00FCrich\n10,1\n11,2\n', (c) => c.charCodeAt(0));
    const file = Object.assign(await new Response(latin).blob(), { name: 'latin.csv' });
    await files.add([file as unknown as File]);
    expect(files.rows()[0]).toMatchObject({
      state: 'refused',
      why: 'The file is not UTF-8; say which encoding it has.',
    });
    // Its lines are shown in the likely encodings, so that somebody can tell which is right.
    const western = files.rows()[0]!.encodings.find((e) => e.encoding === 'windows-1252');
    expect(western?.lines).toEqual(['frame ms,Z\u00FCrich']);
    await files.readAs(files.rows()[0]!.id, 'windows-1252');
    const [row] = files.rows();
    expect([row!.state, row!.encodings]).toEqual(['confirm', []]);
    expect(JSON.stringify(row!.layout)).toContain('Z\u00FCrich');
    await files.confirm(row!.id, row!.mapping!);
    expect(state(files)).toEqual(['read']);
  });

  it('cut inside a character by the first look are read', async () => {
    const { files } = bed();
    // The look ends after 128 KiB, in the second byte of a letter.
    const head = 'frame ms,note\n10,';
    const text = `${head}${'x'.repeat(128 * 1024 - head.length - 1)}\u00FC\n11,y\n`;
    await files.add([await fileOf(text, 'long.csv')]);
    expect(files.rows()[0]!.encodings).toEqual([]);
  });

  it('are asked about once a layout, then read at once', async () => {
    const { files, kept } = bed();
    await files.add([await csv('a.csv', '10,x\n11,x\n'), await csv('b.csv', '12,x\n')]);
    expect(state(files)).toEqual(['confirm', 'confirm']);
    const [a] = files.rows();
    await files.confirm(a!.id, a!.mapping!);
    expect(state(files)).toEqual(['read', 'read']);
    expect(kept).toHaveLength(1);
    await files.add([await csv('c.csv', '13,x\n')]);
    expect(state(files)).toEqual(['read', 'read', 'read']);
    expect(files.ready()).toBe(3);
  });

  it('still being looked at are read as their like was confirmed', async () => {
    // The server keeps nothing of it: what was confirmed here is known here.
    const { files } = bed({ mappings: () => of([]), keepMapping: () => throwError(() => 0) });
    await files.add([await csv('a.csv', '10,x\n11,x\n')]);
    const adding = files.add([await csv('b.csv', '12,x\n')]);
    await files.confirm(files.rows()[0]!.id, files.rows()[0]!.mapping!);
    await adding;
    expect(state(files)).toEqual(['read', 'read']);
  });

  it('with bad rows wait until somebody says that the rest counts', async () => {
    const { files, stored } = bed();
    await files.add([await fileOf('[10, "x", 12]', 'a.json')]);
    expect([files.rows()[0]!.read!.badCount, files.ready()]).toEqual([1, 0]);
    expect(await files.store(NOW, () => common)).toHaveLength(0);
    files.patch(files.rows()[0]!.id, { rest: true });
    expect(await files.store(NOW, () => common)).toHaveLength(1);
    expect(stored[0]).toMatchObject({
      kind: 'frames',
      channels: [{ channel: 'frames', n: 2 }],
      source: { name: 'a.json' },
      happenedAt: '2026-10-01T12:00:00.000Z',
    });
  });

  it('that are refused do not touch the others', async () => {
    const { files } = bed();
    await files.add([await fileOf('dear all', 'letter.txt'), await fileOf('[10]', 'a.json')]);
    expect(state(files)).toEqual(['refused', 'read']);
    expect(files.rows()[0]!.why).toContain('No table');
  });

  it('that the server refuses stay, with the reason', async () => {
    const { files } = bed({
      add: () => throwError(() => new ApiError({ type: '', title: 'Too late', status: 422 })),
    });
    await files.add([await fileOf('[10]', 'a.json')]);
    expect(await files.store(NOW, () => common)).toHaveLength(0);
    expect(files.rows()[0]).toMatchObject({ state: 'read', why: 'Not stored: Too late' });
  });

  it('stopped are marked so, and the next one is read', async () => {
    const { files } = bed();
    const reading = files.add([await fileOf('[10]', 'a.json')]);
    // The list of layouts has come, the file is being looked at.
    await Promise.resolve();
    await Promise.resolve();
    await Promise.resolve();
    files.stop();
    await reading;
    expect(state(files)).toEqual(['stopped']);
    await files.add([await fileOf('[10]', 'b.json')]);
    expect(state(files)).toEqual(['stopped', 'read']);
  });

  it('a log lies beside the first capture, and leaves with it', async () => {
    const { files } = bed();
    const rows = Array.from({ length: 30 }, (_, i) => `${i},${100 + i}`).join('\n');
    const log = await fileOf(`elapsed s,card power W\n${rows}`, 'log.csv');
    await files.add([await fileOf(JSON.stringify(Array(3000).fill(10)), 'a.json'), log]);
    const row = files.rows()[1]!;
    await files.confirm(row.id, row.mapping!);
    expect(files.rows()[1]!.beside).toBe(files.rows()[0]!.id);
    files.remove(files.rows()[0]!.id);
    expect(files.rows()[0]!.beside).toBeNull();
  });

  it('are dated by their own clock, and never after now', async () => {
    const { files, stored } = bed();
    const clocks = (day: string) =>
      fileOf(
        `time,x\n${[0, 1, 2].map((i) => `${day}T20:00:00.0${i}0Z,1`).join('\n')}\n`,
        `${day}.csv`,
      );
    await files.add([await clocks('2026-11-03'), await clocks('2027-11-03')]);
    const [first] = files.rows();
    await files.confirm(first!.id, first!.mapping!);
    expect(await files.store(NOW, () => common)).toHaveLength(2);
    expect(stored.map((r) => r.happenedAt)).toEqual(['2026-11-03T20:00:00.000Z', NOW]);
  });

  it('several programs in one file are several runs', async () => {
    const { files, stored } = bed();
    await files.add([await fileOf('app,frame ms\na,10\nb,20\na,11\n', 'two.csv')]);
    const [r] = files.rows();
    await files.confirm(r!.id, r!.mapping!);
    expect(framesOf(files.rows()[0]!)).toHaveLength(2);
    expect(await files.store(NOW, () => common)).toHaveLength(2);
    expect(stored.map((s) => s.source?.program)).toEqual(['a', 'b']);
  });

  it('UTF-16 without a mark is told by its zeros', async () => {
    const { files } = bed();
    const text = `frame ms\n${uneven.join('\n')}\n`;
    const wide = Uint8Array.from([...text].flatMap((c) => [c.charCodeAt(0), 0]));
    const file = Object.assign(await new Response(wide).blob(), { name: 'wide.csv' });
    await files.add([file as unknown as File]);
    await files.confirm(files.rows()[0]!.id, files.rows()[0]!.mapping!);
    expect(framesOf(files.rows()[0]!)[0]!.frames).toHaveLength(uneven.length);
  });

  it('doubtful ones are asked about once a layout, the others go on', async () => {
    const { files, stored } = bed();
    const whole = (by: number) =>
      Array.from({ length: 60 }, (_, i) => `${10 + ((i * by) % 4)},x`).join('\n');
    await files.add([
      await csv('a.csv', whole(1)),
      await csv('b.csv', whole(3)),
      await csv('good.csv', uneven.map((t) => `${t},x`).join('\n')),
    ]);
    await files.confirm(files.rows()[0]!.id, files.rows()[0]!.mapping!);
    expect(files.doubtful().map((g) => [g.files.length, g.doubts.map((d) => d.code)])).toEqual([
      [2, ['whole-ms']],
    ]);
    expect(files.ready()).toBe(1);
    files.accept(files.doubtful()[0]!);
    expect([files.doubtful(), files.ready()]).toEqual([[], 3]);
    await files.store(NOW, () => common);
    expect(stored.map((r) => r.source?.name)).toEqual(['a.csv', 'b.csv', 'good.csv']);
  });

  it('rates logged each second are a score, without figures of frames', async () => {
    const { files, stored } = bed();
    const rows = Array.from(
      { length: 30 },
      (_, i) => `20:00:${String(i).padStart(2, '0')},${80 + (i % 3)}`,
    );
    await files.add([await fileOf(`Time,fps\n${rows.join('\n')}\n`, 'rates.csv')]);
    await files.confirm(files.rows()[0]!.id, files.rows()[0]!.mapping!);
    expect(await files.store(NOW, () => common)).toHaveLength(1);
    expect(stored[0]).toMatchObject({
      kind: 'score',
      result: { value: 81, unit: 'frames/s' },
      channels: [{ channel: 'fps', n: 30 }],
    });
  });
});
