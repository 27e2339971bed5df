import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { chainSchema } from '../src/chain';
import {
  compareRuns,
  type Dimension,
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
import { PLAIN_RUN } from './make-groups';

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
    class: null,
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
      setupName: 'Dome desk',
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
  const table = (runs: readonly GridRun[], columns: Dimension, base: string) =>
    grid(runs, { rows: ['title'], columns, base, measure: 'average' });
  const cards = [
    ...[100, 101, 99].map((v) => made({ title: 'a', card: 'C-20' }, v)),
    ...[120, 121, 119].map((v) => made({ title: 'a', card: 'C-30' }, v)),
    made({ title: 'b', card: 'C-20' }, 50),
    made({ title: 'b', card: 'C-30' }, null, { reason: 'closes at its start screen' }),
    made({ title: 'a', card: 'C-40' }, 80, {
      seconds: 20,
      class: { ...PLAIN_RUN, capFps: 60 },
      missing: ['Lid'],
    }),
  ];
  const g = table(cards, 'card', 'C-20');

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
    const other = table(
      [
        made({ title: 'a', card: 'x' }, 1),
        made({ title: 'a', card: 'y' }, 1, { values: { score: 3 } }),
      ],
      'card',
      'x',
    );
    expect(other.cells[0]![1]!.why).toBe('measured, but not this');
  });

  it('warns of unequal lengths, caps, and what nobody said', () => {
    expect(g.cells[0]![2]!.notes.map((n) => n.code)).toEqual(['lengths', 'cap', 'missing']);
  });

  it('averages over the titles both ran', () => {
    expect(g.over).toHaveLength(1);
    expect(g.over[0]!.cells[1]).toMatchObject({
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
    const cell = table(lids, 'card', 'x').cells[0]![1]!;
    expect([cell.values, cell.leftOut, cell.unlike]).toEqual([[110], 2, []]);
  });

  it('has three axes at once, and means over titles at each size', () => {
    const runs = ['a', 'b'].flatMap((title) =>
      ['1920x1080', '2560x1440'].flatMap((resolution) =>
        ['near', 'far'].flatMap((setup) =>
          [99, 100, 101].map((v) =>
            made({ title, resolution, setup }, v * (setup === 'far' ? 0.8 : 1)),
          ),
        ),
      ),
    );
    const asked = {
      rows: ['title', 'resolution'],
      columns: 'setup',
      base: 'near',
      measure: 'average',
    } as const;
    const made3 = grid(runs, asked);
    expect(made3.rows).toEqual([
      ['a', '1920x1080'],
      ['a', '2560x1440'],
      ['b', '1920x1080'],
      ['b', '2560x1440'],
    ]);
    expect(made3.over.map((o) => o.at)).toEqual([['1920x1080'], ['2560x1440'], []]);
    const all = made3.over[2]!.cells[1]!;
    expect(all.of).toBeCloseTo(0.8, 9);
    // Four rows that are known equally well: their mean is known twice as well as each.
    const one = made3.cells[0]![1]!.compared!;
    const half = (c: { lo: number | null; hi: number | null }) => Math.log(c.hi! / c.lo!) / 2;
    expect(half(all)).toBeCloseTo(half(one) / 2, 9);
  });

  it('never makes one cell of two setups', () => {
    const runs = [
      made({ title: 'a', card: 'x', setup: 'near' }, 95),
      made({ title: 'a', card: 'x', setup: 'far' }, 131),
    ];
    const cell = table(runs, 'card', 'x').cells[0]![0]!;
    expect([cell.values.length, cell.leftOut]).toEqual([1, 1]);
  });

  it('says a foreign processor, and holds against the desktop norm', () => {
    const two = [
      made({ title: 'a', card: 'x', host: 'L-13', resolution: '1920x1080' }, 60),
      made({ title: 'a', card: 'x', host: 'M-2', link: 'direct', resolution: '1920x1080' }, 90),
      made({ title: 'a', card: 'x', resolution: '1920x1080' }, 120, { norm: true }),
    ];
    const cells = table(two, 'host', 'L-13').cells[0]!;
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
        const made2 = table(runs, 'card', 'x');
        const counted = made2.cells.flat().reduce((n, c) => n + c.runs.length + c.leftOut, 0);
        expect(counted).toBe(runs.length);
        expect(made2.rows.some(([title]) => title === NOT_SAID)).toBe(
          list.some((f) => f.title === ''),
        );
      }),
    );
  });
});
