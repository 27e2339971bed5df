import { describe, expect, it } from 'vitest';
import { mean } from '../src/base';
import { groupRuns, pairsOf, pixelsOf } from '../src/runs';
import { groupOf, runsOf, seeded } from './make-groups';

const pairs = (...groups: Parameters<typeof pairsOf>[0][number][]) => pairsOf(groups).pairs;

describe('what the trade measures (common practice, no published source)', () => {
  const RATES = [
    ['1920x1080', 166, 73, 7.67],
    ['2560x1440', 132, 64, 8.05],
    ['3840x2160', 80, 49, 7.91],
  ] as const;

  it('is nearly one time at every resolution: 7.67, 8.05, 7.91 ms', () => {
    const groups = RATES.flatMap(([resolution, slot, link]) => [
      groupOf({ resolution, link: 'slot', sameProcessor: 'yes', ms: [1000 / slot] }),
      groupOf({ resolution, link: 'tunnel', ms: [1000 / link] }),
    ]);
    const found = pairs(...groups).filter((p) => p.kind === 'slot');
    expect(found).toHaveLength(3);
    found.forEach((p, i) => expect(p.difference.mid).toBeCloseTo(RATES[i]?.[3] ?? 0, 1));
  });

  it('panel against outside at 1080p is 2.1 ms', () => {
    const [p] = pairs(groupOf({ ms: [1000 / 116] }), groupOf({ panel: true, ms: [1000 / 93] }));
    expect(p?.kind).toBe('panel');
    expect(p?.difference.mid).toBeCloseTo(2.13, 2);
  });
});

describe('pairs that measure, and those that do not', () => {
  it('internal against outside graphics is no pair, nor limited runs', () => {
    const inside = groupOf({ deviceSet: 'inside', ms: [30] });
    const outside = groupOf({ ms: [12] });
    expect(pairsOf([inside, outside]).pairs).toEqual([]);
    expect(pairsOf([inside, outside]).not[0]?.why).toBe('inside');
    const slot = { ...groupOf({ link: 'slot', ms: [16.67] }), capFps: 60 };
    expect(pairsOf([slot, outside]).not[0]?.why).toBe('capped');
  });

  it('other presets, cards and titles are never held against one another', () => {
    const a = groupOf({ link: 'slot', ms: [8] });
    for (const other of [
      { preset: 'Low' },
      { card: 'other' },
      { title: 'Other' },
      { resolution: '2560x1440' },
    ])
      expect(pairsOf([a, groupOf({ ...other, ms: [12] })])).toEqual({ pairs: [], not: [] });
  });

  it('the faster link is the side without; slots name their processor', () => {
    const [links] = pairs(
      groupOf({ link: 'tunnel', setupId: 'slow', ms: [11] }),
      groupOf({ link: 'direct', setupId: 'fast', ms: [9] }),
    );
    expect(links).toMatchObject({ kind: 'links', foreign: false });
    expect(links?.a.first.setupId).toBe('fast');
    const slot = (sameProcessor: 'yes' | 'no') =>
      pairs(groupOf({ link: 'slot', sameProcessor, ms: [8] }), groupOf({ ms: [12] }))[0]?.foreign;
    expect([slot('yes'), slot('no')]).toEqual([false, true]);
  });

  it('has an interval that holds the truth 95 times in 100', () => {
    const random = seeded(5);
    const noisy = (ms: number) =>
      Array.from({ length: 4 }, () => ms * (1 + 0.015 * random.normal()));
    let held = 0;
    for (let i = 0; i < 200; i++) {
      const a = groupOf({ link: 'slot', sameProcessor: 'yes', ms: noisy(9) });
      const [p] = pairs(a, groupOf({ ms: noisy(12) }));
      const { lo, hi } = p?.difference ?? { lo: null, hi: null };
      if ((lo ?? Infinity) <= 3 && 3 <= (hi ?? -Infinity)) held++;
    }
    // 190 expected; fewer than 180 or more than 199 would come by chance in fewer than 2 of 1000.
    expect(held).toBeGreaterThanOrEqual(180);
  });

  it('takes repeats together and what has no frame time not at all', () => {
    const runs = [...runsOf({ ms: [10, 11, 12] }), ...runsOf({ preset: 'Low', ms: [7] })];
    const none = { ...(runs[0] as (typeof runs)[number]), kind: 'none' as const, result: null };
    const groups = groupRuns([...runs, none]);
    expect(groups.map((g) => g.ms.length)).toEqual([3, 1]);
    expect(mean(groups[0]?.ms ?? [])).toBeCloseTo(11, 9);
  });

  it('reads pixels of a resolution, and nothing of what is none', () => {
    expect(pixelsOf('2560x1440')).toBe(3686400);
    expect(pixelsOf('')).toBeNull();
  });
});
