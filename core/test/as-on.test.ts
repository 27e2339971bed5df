import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { asOn, type Change } from '../src/compatibility';

const change = (day: string, what: string, from: string, to: string): Change => ({
  at: `${day}T12:00:00.000Z`,
  what,
  from,
  to,
});
const now = { driver: '41.5', dock: 'D-4', cable: 'K-02' };
const changes = [
  change('2026-03-01', 'driver', '40.1', '41.2'),
  change('2026-10-14', 'driver', '41.2', '41.5'),
  change('2026-08-01', 'cable', 'K-07', 'K-02'),
];
const on = (day: string) =>
  Object.fromEntries(asOn(now, changes, day).map((a) => [a.what, a.then]));

describe('CO-01 a setup as it was on a day', () => {
  it('takes back what came later, newest first', () => {
    expect(on('2026-11-20')).toEqual(now);
    expect(on('2026-10-13')).toEqual({ ...now, driver: '41.2' });
    expect(on('2026-05-01')).toEqual({ driver: '41.2', dock: 'D-4', cable: 'K-07' });
    expect(on('2025-01-01')).toEqual({ driver: '40.1', dock: 'D-4', cable: 'K-07' });
  });

  it('a change on the day itself counts as happened', () => {
    expect(on('2026-10-14')['driver']).toBe('41.5');
    expect(asOn(now, changes, '2026-05-01').find((a) => a.what === 'driver')?.changedAt).toBe(
      '2026-10-14T12:00:00.000Z',
    );
    expect(asOn(now, changes, '2026-11-20').every((a) => a.changedAt === null)).toBe(true);
  });

  it('parts taken out since come back; changes undone since are none', () => {
    expect(asOn({}, [change('2026-10-01', 'supply', 'S-55', '')], '2026-09-01')).toEqual([
      { what: 'supply', then: 'S-55', now: '', changedAt: '2026-10-01T12:00:00.000Z' },
    ]);
    const back = [
      change('2026-10-01', 'dock', 'D-4', 'D-1'),
      change('2026-10-02', 'dock', 'D-1', 'D-4'),
    ];
    expect(asOn(now, back, '2026-09-01').find((a) => a.what === 'dock')?.changedAt).toBeNull();
  });

  it('walking every change back from the end gives the beginning', () => {
    const step = fc.record({
      what: fc.constantFrom('a', 'b', 'c'),
      to: fc.constantFrom('1', '2', '3', ''),
    });
    fc.assert(
      fc.property(fc.array(step, { maxLength: 30 }), fc.nat(30), (steps, cut) => {
        const state: Record<string, string> = { a: '0', b: '0', c: '0' };
        let atCut = { ...state };
        const list = steps.map((s, i): Change => {
          if (i === cut) atCut = { ...state };
          const from = state[s.what]!;
          state[s.what] = s.to;
          return change(
            new Date(Date.UTC(2026, 0, i + 2)).toISOString().slice(0, 10),
            s.what,
            from,
            s.to,
          );
        });
        if (cut >= steps.length) atCut = { ...state };
        const day = new Date(Date.UTC(2026, 0, cut + 1)).toISOString().slice(0, 10);
        expect(Object.fromEntries(asOn(state, list, day).map((x) => [x.what, x.then]))).toEqual(
          atCut,
        );
      }),
    );
  });
});
