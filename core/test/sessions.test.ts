import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  FACT_IDS,
  type Factor,
  leastReachable,
  planSession,
  repeatsFor,
  type RunFacts,
  scatterOf,
  sessionState,
} from '../src/runs';

describe('a session', () => {
  const factor = (dimension: Factor['dimension'], n: number, minutes: number): Factor => ({
    dimension,
    levels: Array.from({ length: n }, (_, i) => `${dimension} ${i}`),
    minutes,
  });

  it('measures A-B-A and swaps once each way', () => {
    const p = planSession([factor('card', 2, 15)], 3);
    expect(p.steps.map((s) => `${s.cell[0]} ${s.repeat}${s.back ? ' back' : ''}`)).toEqual([
      'card 0 1',
      'card 0 2',
      'card 0 3',
      'card 1 1',
      'card 1 2',
      'card 1 3',
      'card 0 4 back',
    ]);
    expect([p.swaps, p.minutes]).toEqual([2, 30]);
  });

  it('changes the dear thing least often and one thing at a time', () => {
    const p = planSession([factor('resolution', 3, 1), factor('card', 2, 15)], 1);
    const there = p.steps.filter((s) => !s.back);
    expect(there.slice(1).every((s) => s.change.length === 1)).toBe(true);
    expect(there.filter((s) => s.change.includes('card'))).toHaveLength(1);
  });

  it('no order of up to six cells takes fewer minutes', () => {
    const orders = (list: string[][]): string[][][] =>
      list.length < 2
        ? [list]
        : list.flatMap((x, i) => orders(list.filter((_, k) => k !== i)).map((o) => [x, ...o]));
    const minutes = (a: string[], b: string[], f: Factor[]) =>
      f.reduce((m, x, i) => m + (a[i] === b[i] ? 0 : x.minutes), 0);
    for (const factors of [
      [factor('card', 2, 15), factor('resolution', 3, 1)],
      [factor('lid', 2, 1), factor('card', 2, 15)],
      [factor('card', 5, 15)],
      [factor('screenPath', 3, 5), factor('lid', 2, 1)],
    ]) {
      const plan = planSession(factors, 1);
      const cells = plan.steps.filter((s) => !s.back).map((s) => [...s.cell]);
      const length = (o: string[][]) =>
        o.slice(1).reduce((m, c, i) => m + minutes(o[i]!, c, factors), 0);
      const best = Math.min(...orders(cells).map(length));
      expect(length(cells)).toBe(best);
    }
  });

  it('every cell as often as planned, whatever varies', () => {
    const some = fc.array(
      fc.tuple(
        fc.constantFrom('card', 'lid', 'resolution', 'title'),
        fc.integer({ min: 2, max: 4 }),
        fc.nat(20),
      ),
      { minLength: 1, maxLength: 4 },
    );
    fc.assert(
      fc.property(some, fc.integer({ min: 1, max: 4 }), (list, repeats) => {
        const factors = list.map(([d, n, m]) => factor(d as Factor['dimension'], n, m));
        const p = planSession(factors, repeats);
        const cells = new Map<string, number>();
        for (const s of p.steps)
          if (!s.back) cells.set(s.cell.join(), (cells.get(s.cell.join()) ?? 0) + 1);
        expect(cells.size).toBe(factors.reduce((n, f) => n * f.levels.length, 1));
        expect([...cells.values()].every((n) => n === repeats)).toBe(true);
      }),
    );
  });

  it('asks more repeats for smaller differences and wider scatter', () => {
    const needs = (percent: number, scatter: number) => repeatsFor(percent, scatter) ?? Infinity;
    expect(needs(5, 0.02)).toBeLessThan(needs(2, 0.02));
    expect(needs(5, 0.02)).toBeLessThan(needs(5, 0.05));
    // Out of reach is said, not clamped.
    expect(repeatsFor(1, 0.1)).toBeNull();
    expect(repeatsFor(100 * leastReachable(0.1) + 0.01, 0.1)).toBe(50);
    expect(repeatsFor(50, 0.001)).toBe(3);
    // Arithmetic: 1 % of 100 is 1, sd of 99, 100, 101.
    expect(scatterOf([[99, 100, 101], [5]])).toBeCloseTo(0.01, 12);
    expect(scatterOf([[5]])).toBeNull();
  });
});

describe('where a session stands', () => {
  const factors: Factor[] = [{ dimension: 'screenPath', levels: ['outside', 'panel'], minutes: 5 }];
  const empty = Object.fromEntries(FACT_IDS.map((f) => [f, ''])) as Record<keyof RunFacts, string>;
  let at = Date.parse('2026-10-14T19:00:00Z');
  const run = (screenPath: string, more: Partial<RunFacts> = {}) => {
    at += 60_000;
    return {
      id: String(at),
      facts: { ...empty, title: 'a', driver: '41', screenPath, ...more },
      happenedAt: new Date(at).toISOString(),
    };
  };
  const planned = '2026-10-14T18:00:00Z';

  it('puts runs into their cells and says which is next', () => {
    const s = sessionState(factors, 2, [run('outside'), run('outside'), run('panel')], planned);
    expect(s.cells.map((c) => [c.name, c.runs.length, c.left])).toEqual([
      ['outside', 2, 0],
      ['panel', 1, 1],
    ]);
    expect(s.next).toBe(1);
    expect(s.notHeld).toEqual([]);
    expect(s.notSaid).toContain('lid');
  });

  it('counts nothing from before it was planned, and nothing of another level', () => {
    const s = sessionState(
      factors,
      1,
      [{ ...run('outside'), happenedAt: '2026-10-01T00:00:00Z' }, run('elsewhere')],
      planned,
    );
    expect(s.cells.every((c) => c.runs.length === 0)).toBe(true);
  });

  it('names what was not held and the first cell measured again', () => {
    const runs = [run('outside'), run('panel', { driver: '42' }), run('outside')];
    const s = sessionState(factors, 1, runs, planned);
    expect(s.notHeld).toEqual([{ fact: 'driver', values: ['41', '42'] }]);
    expect([s.next, s.backDone]).toEqual([null, true]);
    expect(sessionState(factors, 1, runs.slice(0, 2), planned).backDone).toBe(false);
  });
});
