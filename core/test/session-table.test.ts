import { describe, expect, it } from 'vitest';
import { type KnownNames, proposeSettings } from '../src/runs';

const KNOWN: KnownNames = {
  titles: ['Fen Runner', 'Heron Chess', 'Peat Rally', 'Reed Warden'],
  presets: ['High', 'Very high'],
  powerModes: ['Performance', 'Quiet'],
  setups: [
    { id: 'tb', words: 'Solar trial, Thunderbolt 4 Corbeck L-13 Mossgill D-2 Dunlinby C-50' },
    { id: 'ocu', words: 'Stacking PC, OCuLink Corbeck L-13 Harrow D-9 Dunlinby C-50' },
  ],
  programs: new Map([['rally-x64.exe', 'Peat Rally']]),
};
const one = (path: string, program = '') => proposeSettings([{ path, program }], KNOWN)[0]!;

describe('what the name of a file says', () => {
  it.each([
    [
      'tb4/1440p/fen-runner_high_run2.csv',
      { title: 'Fen Runner', resolution: '2560x1440', setupId: 'tb', preset: 'High', repeat: 2 },
    ],
    [
      'OCuLink\\Heron Chess\\3840x2160 very high (3).txt',
      {
        title: 'Heron Chess',
        resolution: '3840x2160',
        setupId: 'ocu',
        preset: 'Very high',
        repeat: 3,
      },
    ],
    [
      'FenRunner-4K-external-01.csv',
      { title: 'Fen Runner', resolution: '3840x2160', screenPath: 'outside', repeat: 1 },
    ],
    [
      'frametimes_rw_1080_quiet_panel_take 4.csv',
      {
        title: 'Reed Warden',
        resolution: '1920x1080',
        powerMode: 'Quiet',
        screenPath: 'panel',
        repeat: 4,
      },
    ],
    [
      'harrow_peat_ultra.json',
      { title: 'Peat Rally', setupId: 'ocu', preset: 'Ultra', repeat: null },
    ],
    ['capture-2026-11-03-Otter Lake-uhd.csv', { title: 'Otter Lake', resolution: '3840x2160' }],
  ])('%s', (path, said) => expect(one(path)).toMatchObject(said));

  it('a program has the title its runs had before', () => {
    expect(one('0001.csv', 'rally-x64.exe')).toMatchObject({ title: 'Peat Rally', repeat: null });
  });

  it('says nothing where it says nothing', () => {
    expect(one('capture.csv')).toEqual({
      title: '',
      resolution: '',
      preset: '',
      setupId: '',
      screenPath: null,
      powerMode: '',
      repeat: null,
    });
  });

  it('a word of two setups alike is of neither', () => {
    expect(one('corbeck_fen runner.csv').setupId).toBe('');
    const odd = { ...KNOWN, setups: [...KNOWN.setups, { id: 'x', words: 'Quill D-2 first run' }] };
    expect(proposeSettings([{ path: 'first run.csv', program: '' }], odd)[0]!.setupId).toBe('');
  });

  it('words that every file has are no title', () => {
    const files = ['otter', 'badger'].map((t) => ({ path: `evening_${t}_1080p.csv`, program: '' }));
    expect(proposeSettings(files, KNOWN).map((p) => p.title)).toEqual(['otter', 'badger']);
  });

  it('a folder of 72 is right from its names alone', () => {
    const sizes = { '1080p': '1920x1080', '1440p': '2560x1440', '4k': '3840x2160' };
    const wanted = KNOWN.titles.flatMap((title) =>
      Object.entries(sizes).flatMap(([size, resolution]) =>
        ['tb4', 'oculink'].flatMap((link) =>
          [1, 2, 3].map((repeat) => ({
            path: `${link}/${title.toLowerCase().replace(' ', '_')}_${size}_${repeat}.csv`,
            title,
            resolution,
            setupId: link === 'tb4' ? 'tb' : 'ocu',
            repeat,
          })),
        ),
      ),
    );
    expect(wanted).toHaveLength(72);
    const got = proposeSettings(
      wanted.map(({ path }) => ({ path, program: '' })),
      KNOWN,
    );
    expect(got.map((p, i) => ({ path: wanted[i]!.path, ...p }))).toMatchObject(wanted);
  });
});
