import type { SetupEvent } from '@ruddy/core/compatibility/contract';
import { FACT_IDS, NO_RUN_CONTEXT, NO_RUN_SETTINGS } from '@ruddy/core/runs';
import type { RunEntry } from '@ruddy/core/runs/contract';
import { linesOf } from './record-lines';
import { batchRuns } from './run-batches';

const facts = Object.fromEntries(FACT_IDS.map((f) => [f, '']));
const run = (id: string, title: string, value: number, resolution = '1920x1080') =>
  ({
    id,
    titleId: title,
    title,
    setupId: 's',
    kind: 'score',
    settings: { ...NO_RUN_SETTINGS, resolution },
    context: NO_RUN_CONTEXT,
    facts: { ...facts, title, resolution },
    rig: { host: 'H', slot: false },
    result: { value, unit: 'frames/s' },
    stats: null,
    sensors: null,
  }) as unknown as RunEntry;
const event = (id: string, kind: SetupEvent['kind'], title: string, day = '2026-11-20') =>
  ({
    id,
    kind,
    body: { title, kind: 'score', result: { value: 1, unit: 'frames/s' } },
    happenedAt: `${day}T18:00:00Z`,
    corrects: null,
  }) as unknown as SetupEvent;
const entries = (events: readonly SetupEvent[], runs: readonly RunEntry[]) =>
  batchRuns(linesOf(events, String), runs).map((e) => [
    e.line.event.id,
    e.batch?.words ?? null,
    e.batch?.cells ?? [],
  ]);

describe('runs in the record', () => {
  it('of one title and day stand together', () => {
    const runs = [
      run('a', 'Reed', 60),
      run('b', 'Mill', 90),
      run('c', 'Reed', 61),
      run('d', 'Reed', 30, '3840x2160'),
    ];
    const events = runs.map((r) => event(r.id, 'run', r.title));
    expect(entries(events, runs)).toEqual([
      [
        'a',
        'Reed: 3 runs under 2 settings, 60.5 frames/s; 30.0 frames/s',
        ['1920x1080: 2 runs, 60.5 frames/s.', '3840x2160: 1 run, 30.0 frames/s.'],
      ],
      ['b', null, []],
    ]);
  });

  it('of other days, or with a note between, stand apart', () => {
    const runs = [run('a', 'Reed', 60), run('b', 'Reed', 61), run('c', 'Reed', 62)];
    const events = [
      event('a', 'run', 'Reed'),
      event('n', 'note', ''),
      event('b', 'run', 'Reed'),
      event('c', 'run', 'Reed', '2026-11-19'),
    ];
    expect(entries(events, runs).map(([id, words]) => [id, words])).toEqual([
      ['a', null],
      ['n', null],
      ['b', null],
      ['c', null],
    ]);
  });
});
