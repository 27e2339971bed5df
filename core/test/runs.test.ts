import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { chainSchema } from '../src/chain';
import {
  compareRuns,
  FACT_IDS,
  factsOf,
  grid,
  type GridRun,
  missingOf,
  NO_RUN_CONTEXT,
  NO_RUN_SETTINGS,
  NOT_SAID,
  overTitles,
  playLabel,
  type RunFacts,
  statedPercent,
  threeWays,
  unlike,
} from '../src/runs';

const EMPTY = Object.fromEntries(FACT_IDS.map((f) => [f, ''])) as Record<keyof RunFacts, string>;
let next = 0;
function made(
  facts: Partial<RunFacts>,
  average: number | null,
  more: Partial<GridRun> = {},
): GridRun {
  return {
    id: String(next++),
    kind: average === null ? 'none' : 'frames',
    facts: { ...EMPTY, ...facts },
    values: average === null ? {} : { average },
    reason: '',
    seconds: 60,
    cap: null,
    missing: [],
    norm: false,
    ...more,
  };
}

describe('faster, of, lost', () => {
  // Arithmetic; "178 % faster = 36 % of = 64 % lost" is how the trade mixes them up (common practice, no published source).
  it('are three numbers of one ratio', () => {
    expect(threeWays(2.78).faster).toBeCloseTo(178, 9);
    const back = threeWays(1 / 2.78);
    expect([Math.round(back.of), Math.round(back.lost)]).toEqual([36, 64]);
  });

  it('a stated percentage is read by its meaning and side', () => {
    const meanings = (a: number, b: number, percent: number) =>
      statedPercent(a, b, percent).map((m) => `${m.meaning} from ${m.base}`);
    expect(meanings(100, 278, 178)).toEqual(['faster from a']);
    expect(meanings(278, 100, 36)).toEqual(['of from a']);
    expect(meanings(278, 100, 64)).toEqual(['lost from a']);
    expect(meanings(278, 100, 178)).toEqual(['faster from b']);
    expect(meanings(100, 120, 45)).toEqual([]);
  });

  it('a ratio is the same from both sides, rates and times', () => {
    const values = fc.array(fc.double({ min: 5, max: 300, noNaN: true }), {
      minLength: 2,
      maxLength: 6,
    });
    fc.assert(
      fc.property(values, values, (a, b) => {
        const there = compareRuns(a, b);
        const back = compareRuns(b, a);
        expect(there.of * back.of).toBeCloseTo(1, 9);
        expect(there.says).toBe(back.says);
        expect(
          compareRuns(
            a.map((v) => 1000 / v),
            b.map((v) => 1000 / v),
            true,
          ).of,
        ).toBeCloseTo(there.of, 9);
        expect(there.lo! <= there.of && there.of <= there.hi!).toBe(true);
        if (there.says === 'real') expect(there.lo! > 1 || there.hi! < 1).toBe(true);
      }),
    );
  });

  it('says real, not told apart, or too few', () => {
    expect(compareRuns([100, 101, 99], [120, 121, 119]).says).toBe('real');
    expect(compareRuns([100, 110, 90], [102, 111, 93]).says).toBe('not-told-apart');
    expect(compareRuns([100], [120, 121])).toMatchObject({
      says: 'too-few',
      lo: null,
      p: null,
      of: expect.closeTo(1.2, 1) as number,
    });
  });
});

describe('over titles', () => {
  it('is the geometric mean, and names what it leaves out', () => {
    const o = overTitles([
      { title: 'a', of: 0.5, why: '' },
      { title: 'b', of: 2, why: '' },
      { title: 'c', of: null, why: 'not measured' },
    ]);
    expect(o.of).toBeCloseTo(1, 12);
    expect(o.left).toEqual([{ title: 'c', why: 'not measured' }]);
    expect(overTitles([]).of).toBeNull();
  });

  // Common practice, no published source: 30 in the lows, 60 and 100 average; lows near 10 are unplayable.
  it.each([
    [140, 10, 'unplayable'],
    [70, 25, 'poor'],
    [45, 31, 'playable'],
    [60, 40, 'good'],
    [100, 61, 'high'],
  ])('%i average with a low of %i is %s', (average, low, label) => {
    expect(playLabel(average, low)).toBe(label);
  });
});

describe('what is unlike', () => {
  it('lists every difference but the tested one, and gaps', () => {
    const a = made({ card: 'C-20', lid: 'open', driver: '41' }, 1).facts;
    const b = made({ card: 'C-30', lid: '', driver: '42' }, 1).facts;
    expect(unlike(a, b, ['card']).map((u) => [u.fact, u.notSaid])).toEqual([
      ['driver', false],
      ['lid', true],
    ]);
    expect(unlike(a, a, [])).toEqual([]);
  });

  it('finds any single difference in any fact, whichever it is', () => {
    fc.assert(
      fc.property(fc.constantFrom(...FACT_IDS), fc.constantFrom(...FACT_IDS), (changed, tested) => {
        const found = unlike(EMPTY, { ...EMPTY, [changed]: 'x' }, [tested]).map((u) => u.fact);
        expect(found).toEqual(changed === tested ? [] : [changed]);
      }),
    );
  });

  it('asks for what nobody said', () => {
    expect(missingOf('frames', NO_RUN_SETTINGS, NO_RUN_CONTEXT)).toHaveLength(10);
    expect(missingOf('none', NO_RUN_SETTINGS, NO_RUN_CONTEXT)).toEqual([]);
    const said = { ...NO_RUN_SETTINGS, capFps: 0, resolution: '1920x1080' };
    expect(missingOf('frames', said, { ...NO_RUN_CONTEXT, method: 'trace' })).toHaveLength(7);
  });

  it('takes what a chain and its settings say', () => {
    const chain = chainSchema.parse({
      host: null,
      socket: null,
      path: null,
      dock: null,
      card: null,
    });
    const f = factsOf({
      chain,
      title: 'Peat Rally',
      settings: { ...NO_RUN_SETTINGS, capFps: 0, lid: 'closed' },
      context: NO_RUN_CONTEXT,
    });
    expect([f.title, f.cap, f.lid, f.card, f.link]).toEqual([
      'Peat Rally',
      'none',
      'closed',
      '',
      '',
    ]);
  });
});

describe('a grid', () => {
  const cards = [
    ...[100, 101, 99].map((v) => made({ title: 'a', card: 'C-20' }, v)),
    ...[120, 121, 119].map((v) => made({ title: 'a', card: 'C-30' }, v)),
    made({ title: 'b', card: 'C-20' }, 50),
    made({ title: 'b', card: 'C-30' }, null, { reason: 'closes at its start screen' }),
    made({ title: 'a', card: 'C-40' }, 80, { seconds: 20, cap: 60, missing: ['Lid'] }),
  ];
  const g = grid(cards, 'title', 'card', 'C-20', 'average');

  it('puts the base first and compares each row with it', () => {
    expect(g.columns).toEqual(['C-20', 'C-30', 'C-40']);
    expect(g.cells[0]![1]!.compared).toMatchObject({
      says: 'real',
      of: expect.closeTo(1.2, 2) as number,
    });
    expect(g.cells[0]![0]!.compared).toBeNull();
  });

  it('says why a cell is empty', () => {
    expect(g.cells[1]!.map((c) => c.why)).toEqual([
      '',
      'closes at its start screen',
      'not measured',
    ]);
    const other = grid(
      [
        made({ title: 'a', card: 'x' }, 1),
        made({ title: 'a', card: 'y' }, 1, { values: { score: 3 } }),
      ],
      'title',
      'card',
      'x',
      'average',
    );
    expect(other.cells[0]![1]!.why).toBe('measured, but not this');
  });

  it('warns of unequal lengths, caps, and what nobody said', () => {
    expect(g.cells[0]![2]!.notes.map((n) => n.code)).toEqual(['lengths', 'cap', 'missing']);
  });

  it('averages over the titles both ran', () => {
    expect(g.over[1]).toMatchObject({
      titles: ['a'],
      left: [{ title: 'b', why: 'closes at its start screen' }],
    });
  });

  it('counts repeats most like the base and names the rest', () => {
    const lids = [
      made({ title: 'a', card: 'x', lid: 'open' }, 100),
      made({ title: 'a', card: 'y', lid: 'closed' }, 90),
      made({ title: 'a', card: 'y', lid: 'closed' }, 91),
      made({ title: 'a', card: 'y', lid: 'open' }, 110),
    ];
    const cell = grid(lids, 'title', 'card', 'x', 'average').cells[0]![1]!;
    expect([cell.values, cell.leftOut, cell.unlike]).toEqual([[110], 2, []]);
  });

  it('says a foreign processor, and holds against the desktop norm', () => {
    const two = [
      made({ title: 'a', card: 'x', host: 'L-13', resolution: '1920x1080' }, 60),
      made({ title: 'a', card: 'x', host: 'M-2', link: 'direct', resolution: '1920x1080' }, 90),
      made({ title: 'a', card: 'x', resolution: '1920x1080' }, 120, { norm: true }),
    ];
    const cells = grid(two, 'title', 'host', 'L-13', 'average').cells[0]!;
    expect(cells[1]!.notes).toContainEqual({ code: 'foreign-processor', a: 'L-13', b: 'M-2' });
    expect(cells.map((c) => c.ofNorm)).toEqual(
      [0.5, 0.75].map((v) => expect.closeTo(v, 9) as number),
    );
  });

  it('never drops a run: cell, left out, or reference', () => {
    const fact = fc.record({
      title: fc.constantFrom('a', 'b', ''),
      card: fc.constantFrom('x', 'y', ''),
      lid: fc.constantFrom('open', ''),
    });
    fc.assert(
      fc.property(fc.array(fact, { minLength: 1, maxLength: 20 }), (list) => {
        const runs = list.map((f) => made(f, 50));
        const made2 = grid(runs, 'title', 'card', 'x', 'average');
        const counted = made2.cells.flat().reduce((n, c) => n + c.runs.length + c.leftOut, 0);
        expect(counted).toBe(runs.length);
        expect(made2.rows.includes(NOT_SAID)).toBe(list.some((f) => f.title === ''));
      }),
    );
  });
});
