import { describe, expect, it } from 'vitest';
import { SYMPTOM_IDS, type SymptomId } from '../src/base';
import type { Chain } from '../src/chain';
import {
  type CountsReading,
  countsReadingSchema,
  gradeCounts,
  gradeWindow,
  healthByCable,
  type HealthPoint,
  healthTrends,
  linkCheck,
  readingSchema,
} from '../src/bring-up';
import { countsText, linkCheckHeadline, trendText, windowText } from '../src/bring-up/text';
import { netFor, rankedCauses } from '../src/troubleshoot';
import { CAUSE_WORDS, SYMPTOM_WORDS } from '../src/troubleshoot/text';
import { card, directChain, judge, tunnelChain } from './make';

const counts = (over: Partial<CountsReading>): CountsReading => countsReadingSchema.parse(over);

describe('BU-15 counters of one stretch', () => {
  it.each([
    [
      { correctedBefore: 5, correctedAfter: 17, minutes: 10 },
      'low',
      'Counters: 12 corrected, 72 an hour: low.',
    ],
    [
      { correctedBefore: 5, correctedAfter: 14, minutes: 10 },
      'healthy',
      'Counters: 9 corrected, 54 an hour: healthy.',
    ],
    [
      { correctedBefore: 0, correctedAfter: 0, fatalBefore: 0, fatalAfter: 1, minutes: 10 },
      'poor',
      'Counters: 1 not mended; 0 corrected, 0 an hour: poor.',
    ],
    [{ downs: 2 }, 'poor', 'Counters: 2 times down: poor.'],
    [{ downs: 0 }, 'healthy', 'Counters: 0 times down: healthy.'],
    [
      { correctedBefore: 0, correctedAfter: 8 },
      'not-graded',
      'Counters: 8 corrected: not graded: say how many minutes.',
    ],
    [{ minutes: 10 }, 'not-graded', 'Counters: nothing noted: not graded: say how many minutes.'],
  ] as const)('%j is %s', (over, grade, words) => {
    const g = gradeCounts(counts(over), {});
    expect(g.grade).toBe(grade);
    expect(countsText(g)).toBe(words);
  });

  it('house rules change the grade; shrinking counters are refused', () => {
    expect(
      gradeCounts(counts({ correctedBefore: 0, correctedAfter: 9, minutes: 10 }), {
        'health.correctedPerHour': 50,
      }).grade,
    ).toBe('low');
    const r = countsReadingSchema.safeParse({ correctedBefore: 9, correctedAfter: 2 });
    expect(r.error?.issues[0]).toMatchObject({
      path: ['correctedAfter'],
      message: 'After is less than before: counters only grow',
    });
  });

  it('the memory window against the memory of the card', () => {
    expect(windowText(gradeWindow(256, card({ memoryGB: 12 }))!)).toBe(
      'The memory window is 256 MB of 12288 MB: fine for the link, some titles gain from the whole.',
    );
    expect(gradeWindow(16_384, card({ memoryGB: 12 }))?.whole).toBe(true);
    expect(gradeWindow(256, card({ memoryGB: null }))?.whole).toBeNull();
    expect(gradeWindow(null, card())).toBeNull();
  });

  it('drops outweigh a healthy copy rate; corrected errors cost one step', () => {
    const chain = tunnelChain({ dock: { controllerClass: 'c' } });
    const copy = { value: 24, unit: 'Gb/s', direction: 'down', memory: 'pinned' };
    const check = (c: object) => {
      const e = judge(chain);
      const k = linkCheck(readingSchema.parse({ load: 'load', copy, counts: c }), chain, e, {});
      return [k.overall, linkCheckHeadline(k, e)] as const;
    };
    expect(check({ downs: 0 })).toEqual(['healthy', '24.0 of 26.0 Gb/s, 92 %: healthy.']);
    expect(check({ downs: 1 })[0]).toBe('poor');
    expect(check({ downs: 1 })[1]).toContain(
      'Counters: 1 time down: poor. Supply and power plugs first',
    );
    expect(check({ correctedBefore: 0, correctedAfter: 99, minutes: 1 })[0]).toBe('low');
  });
});

const DAY = 86_400_000;
let n = 0;
function point(day: number, over: Partial<HealthPoint>): HealthPoint {
  const nothing = {
    down: null,
    up: null,
    routerGbps: null,
    lanes: null,
    gen: null,
    correctedPerHour: null,
    fatal: null,
    downs: null,
    windowMB: null,
    minutes: null,
  };
  return {
    id: `p${n++}`,
    at: new Date(Date.UTC(2026, 0, 1) + day * DAY).toISOString(),
    cable: 'K-1',
    overall: 'healthy',
    ...nothing,
    ...over,
  };
}

describe('BU-15 health over time', () => {
  it('a falling copy rate is told from chance, in points a month', () => {
    const falling = [0, 10, 20, 30, 40].map((d, i) => point(d, { down: 0.95 - i * 0.03 }));
    const [t] = healthTrends(falling, {});
    expect(t).toMatchObject({ measure: 'down', way: 'falls', n: 5, first: 0.95 });
    expect(t?.per30Days).toBeCloseTo(-0.09, 10);
    expect(trendText(t!)).toBe(
      'falls, 9 points in 30 days; 95 % of expected first, 83 % of expected last; by chance in 2 % of cases, 5 readings',
    );
  });

  it('three readings are too few whatever they do; scatter is no trend', () => {
    expect(
      healthTrends(
        [0, 1, 2].map((d) => point(d, { down: 0.9 - d * 0.1 })),
        {},
      )[0]?.way,
    ).toBe('too-few');
    expect(
      healthTrends(
        [0.9, 0.8, 0.91, 0.79, 0.9].map((down, d) => point(d, { down })),
        {},
      )[0]?.way,
    ).toBe('none');
    expect(healthTrends([point(0, { down: 0.9 })], {})).toEqual([]);
  });

  it('another cable is another row: a swap is no trend', () => {
    const swapped = [0, 1, 2, 3].flatMap((d) => [
      point(d, { down: 0.95 }),
      point(d + 10, { down: 0.6, cable: 'K-2' }),
    ]);
    expect(healthTrends(swapped, {}).map((t) => [t.cable, t.way])).toEqual([
      ['K-1', 'none'],
      ['K-2', 'none'],
    ]);
  });

  it('cables stand side by side, best first, unread ones open', () => {
    const rows = healthByCable([
      point(0, { down: 0.6, cable: 'long', downs: 1, minutes: 10 }),
      point(5, { down: 0.9, cable: 'short', minutes: 10, correctedPerHour: 6 }),
      point(6, { down: 0.94, cable: 'short', minutes: 20, correctedPerHour: 0 }),
      point(7, { cable: 'new', lanes: 4 }),
    ]);
    expect(
      rows.map((r) => [
        r.cable,
        r.n,
        r.down === null ? null : Math.round(r.down * 100) / 100,
        r.downs,
        r.minutes,
      ]),
    ).toEqual([
      ['short', 2, 0.92, null, 30],
      ['long', 1, 0.6, 1, 10],
      ['new', 1, null, null, 0],
    ]);
    expect(rows[0]?.correctedPerHour).toBe(3);
  });
});

describe('usual causes of a failing step', () => {
  const first = (symptom: SymptomId, chain: Chain, n = 5) =>
    rankedCauses(netFor(chain), symptom).slice(0, n);

  it('every symptom has words and causes on tunnel and direct link', () => {
    for (const chain of [tunnelChain(), directChain()])
      for (const id of SYMPTOM_IDS) {
        expect(SYMPTOM_WORDS[id]).not.toBe('');
        for (const c of rankedCauses(netFor(chain), id)) expect(CAUSE_WORDS[c].help).toMatch(/\.$/);
      }
  });

  it('only causes this chain can have, the usual ones first', () => {
    expect(first('nothing-listed', tunnelChain(), 2)).toEqual(['look-alike-port', 'cable-charges']);
    expect(first('nothing-listed', directChain(), 1)).toEqual(['direct-live']);
    expect(
      rankedCauses(netFor(tunnelChain({ card: { chip: 'desktop' } })), 'error-no-driver'),
    ).not.toContain('mobile-chip');
    expect(
      rankedCauses(netFor(tunnelChain({ host: { graphics: 'none' } })), 'no-picture'),
    ).not.toContain('both-graphics');
  });
});
