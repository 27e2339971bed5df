import { describe, expect, it } from 'vitest';
import {
  byAge,
  changedNames,
  converge,
  type DatedRun,
  FACT_IDS,
  hostSwap,
  overTime,
  type RunFacts,
  sameButVersions,
} from '../src/runs';

const facts = (more: Partial<Record<string, string>> = {}) =>
  ({ ...Object.fromEntries(FACT_IDS.map((f) => [f, ''])), ...more }) as unknown as RunFacts;
const run = (at: string, speed: number, driver: string): DatedRun => ({
  id: at + speed,
  at,
  speed,
  facts: facts({ driver }),
});

describe('the same run over versions and months', () => {
  it('makes a step of every version set, against the one before', () => {
    const t = overTime([
      run('2026-03-01', 100, '20.1'),
      run('2026-01-01', 100, '20.1'),
      run('2026-05-01', 91, '21.0'),
      run('2026-05-01', 92, '21.0'),
      run('2026-08-01', 101, '21.4'),
    ]);
    expect(t.steps.map((s) => s.runs.length)).toEqual([2, 2, 1]);
    expect(t.steps[1]?.changed).toEqual([{ fact: 'driver', from: '20.1', to: '21.0' }]);
    expect(t.steps[1]?.against?.of).toBeCloseTo(0.915, 3);
    expect(t.steps[2]?.against?.says).toBe('too-few');
    expect(t.steps[2] && changedNames(t.steps[2])).toBe('Card driver: 21.0 to 21.4');
  });

  it('finds the trend a year, in % of the first', () => {
    const t = overTime([0, 1, 2, 3, 4].map((i) => run(`2026-0${2 * i + 1}-01`, 100 - 2 * i, 'x')));
    // 2 % every two months is about 12 % a year.
    expect(t.perYear?.slope).toBeCloseTo(-12, 0);
    expect(t.perYear?.p).toBeLessThan(0.05);
    expect(overTime([run('2026-01-01', 1, 'x')]).perYear).toBeNull();
  });

  it('is another run when anything but a version differs', () => {
    expect(sameButVersions(facts({ driver: 'a', build: 'b' }))).toBe(sameButVersions(facts()));
    expect(sameButVersions(facts({ preset: 'Low' }))).not.toBe(sameButVersions(facts()));
  });
});

describe('synthetic tests by age', () => {
  it('losses of 21, 15 and 8 % rise by year (common practice)', () => {
    const test = (year: number, lost: number) => ({
      title: `Test ${year}`,
      year,
      desktop: [1000],
      here: [1000 * (1 - lost / 100)],
    });
    const a = byAge([test(2023, 8), test(2016, 21), test(2019, 15)]);
    expect(a.rows.map((r) => [r.year, Math.round((1 - r.percent.of) * 100)])).toEqual([
      [2016, 21],
      [2019, 15],
      [2023, 8],
    ]);
    // Slopes of the three pairs: 2, 1.75 and 13/7; their median.
    expect(a.perYear?.slope).toBeCloseTo(13 / 7, 6);
    expect(byAge([{ title: 'x', year: 2020, here: [1], desktop: [] }])).toEqual({
      rows: [],
      perYear: null,
    });
  });
});

describe('cards that come together', () => {
  const card = (
    name: string,
    here: number,
    desktop: number | null,
    index: number | null = null,
  ) => ({
    card: name,
    here: [here, here * 1.01],
    desktop: desktop === null ? [] : [desktop, desktop * 1.01],
    index,
  });
  it('is an alarm when a desktop tells them apart, not the chain', () => {
    const c = converge([card('small', 60, 80), card('middle', 61, 100), card('big', 62, 130)]);
    expect(c?.alarm).toBe(true);
    expect(c?.spread).toBeCloseTo(62 / 60 - 1, 6);
    expect(c?.desktopSpread).toBeCloseTo(130 / 80 - 1, 6);
  });
  it('is none where they differ here or hardly in a desktop', () => {
    expect(converge([card('small', 60, 80), card('big', 80, 130)])?.alarm).toBe(false);
    expect(converge([card('small', 60, 80), card('big', 61, 82)])?.alarm).toBe(false);
    expect(converge([card('small', 60, null), card('big', 61, null)])).toMatchObject({
      alarm: false,
      desktopSpread: null,
    });
    expect(converge([card('small', 60, null, 100), card('big', 61, null, 150)])).toMatchObject({
      alarm: true,
    });
    expect(converge([card('small', 60, 80)])).toBeNull();
  });
  it('a swap of the host: how much of the processor arrives', () => {
    const s = hostSwap({ speeds: [100], index: 100 }, { speeds: [110], index: 121 });
    expect(s?.arrives).toBeCloseTo(0.5, 6);
    expect(hostSwap({ speeds: [100], index: 100 }, { speeds: [99], index: 101 })).toBeNull();
  });
});
