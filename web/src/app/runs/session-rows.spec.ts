import { TestBed } from '@angular/core/testing';
import { NO_RUN_SETTINGS } from '@ruddy/core/runs';
import { type FileRow, RunFiles } from './run-files';
import { SessionRows } from './session-rows';
import { RunsData } from './runs';
import { CaptureWork } from './capture-work';

function fileRow(name: string): FileRow {
  const frames = new Float32Array(60).fill(10);
  return {
    id: name,
    file: { name } as File,
    state: 'read',
    share: 1,
    why: '',
    encoding: null,
    encodings: [],
    layout: null,
    mapping: null,
    signature: '',
    known: false,
    read: {
      ok: true,
      streams: [{ program: '', frames, shown: null, lanes: [], startedMs: null, stats: null }],
      rows: 60,
      bad: [],
      badCount: 0,
      doubts: [],
      sha256: '',
    },
    rest: false,
    accepted: false,
    beside: null,
    alignment: null,
    offsetMs: 0,
    cell: null,
    runs: 0,
  };
}

function bed(...names: string[]) {
  TestBed.configureTestingModule({
    providers: [RunFiles, SessionRows, CaptureWork, { provide: RunsData, useValue: {} }],
  });
  TestBed.inject(RunFiles).rows.set(names.map(fileRow));
  const rows = TestBed.inject(SessionRows);
  rows.setupId.set('here');
  rows.known.set({
    titles: ['Fen Runner', 'Heron Chess'],
    presets: [],
    powerModes: [],
    programs: new Map(),
    setups: [
      { id: 'here', name: 'Dome desk', words: 'Dome desk' },
      { id: 'there', name: 'Field box', words: 'Field box, OCuLink' },
    ],
  });
  return rows;
}
const column = (rows: SessionRows, field: 'title' | 'resolution' | 'setupId' | 'preset') =>
  rows.rows().map((r) => r.values[field]);

const NAMES = ['fen_runner_1080p_1.csv', 'fen_runner_1080p_2.csv', 'oculink_heron_1440p_1.csv'];

describe('rows of a session', () => {
  it('are proposed from names, and number the repeats', () => {
    const rows = bed(...NAMES);
    expect(column(rows, 'title')).toEqual(['Fen Runner', 'Fen Runner', 'Heron Chess']);
    expect(column(rows, 'setupId')).toEqual(['here', 'here', 'there']);
    expect(rows.rows().map((r) => r.repeat)).toEqual(['1 of 2', '2 of 2', '1 of 1']);
    expect([...rows.rows()[0]!.proposed]).toEqual(['title', 'resolution']);
  });

  it('a value is said for every selected row, over its proposal', () => {
    const rows = bed(...NAMES);
    rows.chooseAlike('title', 'Fen Runner');
    rows.say('preset', 'High');
    rows.say('resolution', '2560x1440');
    expect(column(rows, 'preset')).toEqual(['High', 'High', '']);
    expect(column(rows, 'resolution')).toEqual(['2560x1440', '2560x1440', '2560x1440']);
    expect(rows.rows()[0]!.proposed.has('resolution')).toBe(false);
  });

  it('fills down from the first ticked row, others stay', () => {
    const rows = bed(...NAMES);
    rows.choose(new Set([NAMES[0]!, NAMES[2]!]));
    rows.fillDown('title');
    expect(column(rows, 'title')).toEqual(['Fen Runner', 'Fen Runner', 'Fen Runner']);
    rows.choose(new Set());
    rows.say('title', 'nobody');
    expect(column(rows, 'title')).not.toContain('nobody');
  });

  it('take what their setup tells, then the last run', () => {
    const rows = bed(...NAMES);
    rows.presets.set(new Map([['there', { ...NO_RUN_SETTINGS, powerMode: 'Quiet' }]]));
    expect(rows.rows().map((r) => r.values.powerMode)).toEqual(['', '', 'Quiet']);
    rows.sayAs({ title: 'Peat Rally', preset: 'Low' });
    expect(column(rows, 'title')).not.toContain('Peat Rally');
    expect(column(rows, 'preset')).toEqual(['Low', 'Low', 'Low']);
  });

  it('that come later take what was said of those before', () => {
    const rows = bed(NAMES[0]!);
    rows.say('preset', 'High');
    rows.say('resolution', '2560x1440');
    TestBed.inject(RunFiles).rows.update((all) => [
      ...all,
      fileRow('later.csv'),
      fileRow('4k.csv'),
    ]);
    const by = new Map(rows.rows().map((r) => [r.path, r.values]));
    expect(by.get('later.csv')).toMatchObject({ preset: 'High', resolution: '2560x1440' });
    // Its own name counts more.
    expect(by.get('4k.csv')).toMatchObject({ preset: 'High', resolution: '3840x2160' });
  });

  it('are named without the folders that all share', () => {
    const rows = bed('night/a/one.csv', 'night/a/two.csv', 'night/b/one.csv');
    expect(rows.rows().map((r) => r.path)).toEqual(['a/one.csv', 'a/two.csv', 'b/one.csv']);
  });

  it('of a kept session are as they were said', () => {
    const rows = bed(...NAMES);
    rows.restore([NAMES[0]!, NAMES[1]!], [{ title: 'Otter' }, {}]);
    expect(column(rows, 'title')).toEqual(['Otter', 'Fen Runner', 'Heron Chess']);
  });
});
