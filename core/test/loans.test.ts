import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { daysBetween } from '../src/base';
import { CAUTION_TEXTS } from '../src/bring-up/text';
import {
  byUrgency,
  cameBackWorse,
  daysLate,
  doublyUsed,
  LEND_KINDS,
  loanState,
  readyForNext,
  RETURN_LOOKS,
} from '../src/workshop';
import { afterReturn, dueWords, loansHeadline } from '../src/workshop/text';

const loan = (over: object = {}) => ({
  fromOn: '2026-11-01',
  dueOn: '2026-11-10',
  returnedOn: null,
  withdrawn: false,
  askedOn: '2026-10-30',
  label: 'K-07 a',
  member: 'Member B',
  ...over,
});

describe('where a loan stands', () => {
  it('is late from the day after it was due, not on it', () => {
    expect(['2026-11-09', '2026-11-10', '2026-11-11'].map((d) => loanState(loan(), d))).toEqual([
      'out',
      'out',
      'late',
    ]);
    expect([daysLate(loan(), '2026-11-10'), daysLate(loan(), '2026-11-18')]).toEqual([0, 8]);
    expect(loanState(loan({ dueOn: null }), '2030-01-01')).toBe('out');
    expect(loanState(loan({ returnedOn: '2026-12-24' }), '2030-01-01')).toBe('back');
    expect(loanState(loan({ fromOn: null, dueOn: null }), '2026-11-11')).toBe('waiting');
    expect(loanState(loan({ fromOn: null, dueOn: null, withdrawn: true }), '2026-11-11')).toBe(
      'let-go',
    );
  });

  it('counts days over leap days, clock changes and years', () => {
    expect(daysBetween('2024-02-28', '2024-03-01')).toBe(2);
    expect(daysBetween('2026-10-24', '2026-10-26')).toBe(2);
    expect(daysBetween('2026-12-31', '2027-01-01')).toBe(1);
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 40_000 }),
        fc.integer({ min: -2000, max: 2000 }),
        (start, n) => {
          const day = (d: number) => new Date(d * 86_400_000).toISOString().slice(0, 10);
          return daysBetween(day(start), day(start + n)) === n;
        },
      ),
    );
  });

  it('orders loans: longest late, next due, then waiting', () => {
    const all = [
      loan({ label: 'waits', fromOn: null, dueOn: null }),
      loan({ label: 'some day', dueOn: null }),
      loan({ label: 'due later', dueOn: '2026-12-24' }),
      loan({ label: 'late', dueOn: '2026-11-12' }),
      loan({ label: 'very late', dueOn: '2026-09-12' }),
      loan({ label: 'due soon', dueOn: '2026-11-22' }),
    ];
    const order = ['very late', 'late', 'due soon', 'due later', 'some day', 'waits'];
    expect(byUrgency(all, '2026-11-20').map((l) => l.label)).toEqual(order);
    expect(byUrgency([...all].reverse(), '2026-11-20').map((l) => l.label)).toEqual(order);
  });

  it('says it in words', () => {
    expect(dueWords(loan(), '2026-11-09')).toBe('due in 1 day');
    expect(dueWords(loan(), '2026-11-10')).toBe('due today');
    expect(dueWords(loan(), '2026-11-12')).toBe('2 days late');
    expect(loansHeadline([], '2026-11-12')).toBe('0 items are out.');
    expect(loansHeadline([loan(), loan({ fromOn: null, dueOn: null })], '2026-11-01')).toBe(
      '1 item is out, none late; 1 waiting.',
    );
    expect(loansHeadline([loan(), loan({ label: 'D-4', dueOn: '2026-11-02' })], '2026-11-12')).toBe(
      '2 items are out, 2 late. First: D-4 with Member B, 10 days late.',
    );
  });

  it('finds a piece in two live setups, not twice in one', () => {
    const piece = (label: string, ...ids: string[]) => ({
      label,
      liveIn: ids.map((id) => ({ id })),
    });
    expect(
      doublyUsed([piece('a', '1'), piece('b', '1', '2'), piece('c', '3', '3')]).map((p) => p.label),
    ).toEqual(['b']);
  });
});

describe('the return check', () => {
  it('has look, trial, limit and caution for every lendable kind', () => {
    for (const kind of LEND_KINDS) {
      const look = RETURN_LOOKS[kind];
      expect([
        kind,
        look.lookFor.length > 20,
        look.trial.length > 20,
        look.never.length > 20,
      ]).toEqual([kind, true, true, true]);
      expect(CAUTION_TEXTS[look.caution]).toMatch(/last word|says so/);
    }
    // Where mains, batteries or a supply are in the piece, its caution speaks of them.
    expect(RETURN_LOOKS.dock.caution).toBe('mains');
    expect(RETURN_LOOKS.supply.never).toMatch(/never opened/);
    expect(RETURN_LOOKS.host.caution).toBe('battery');
  });

  it('names what came back worse, only where conditions are known', () => {
    expect(cameBackWorse('new', 'used')).toBe(true);
    expect(cameBackWorse('used', 'used')).toBe(false);
    expect(cameBackWorse('worn', 'used')).toBe(false);
    expect(cameBackWorse(null, 'faulty')).toBeNull();
  });

  it('lets a piece go only whole, tried and working', () => {
    const said = (over: object) =>
      readyForNext({ missing: [], condition: 'used', tested: 'works', ...over });
    expect(said({})).toEqual({ ready: true, why: null });
    expect(said({ tested: 'not-tried' }).why).toBe('not-tried');
    expect(said({ missing: ['mains cable'], tested: 'not-tried' }).why).toBe('missing');
    expect(said({ missing: ['mains cable'], tested: 'fails' }).why).toBe('fails');
    expect(said({ condition: 'faulty' }).why).toBe('faulty');
    expect(afterReturn(said({}), 'Member D')).toBe('It is ready; next is Member D.');
    expect(afterReturn(said({ tested: 'fails' }), 'Member D')).toMatch(
      /stays here.*Member D waits/,
    );
  });
});
