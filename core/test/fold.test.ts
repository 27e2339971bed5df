import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  checklist,
  goodNow,
  type ListInput,
  noted,
  orderWorked,
  progress,
  sinceGood,
  slotNames,
  stand,
  STEP_STATES,
  type StepEvent,
  stepFacts,
} from '../src/bring-up';
import { progressHeadline, startHeadline } from '../src/bring-up/text';
import { NO_DOCKED } from '../src/setups';
import { judge, tunnelChain } from './make';

const chain = tunnelChain();
const input: ListInput = {
  chain,
  evaluation: judge(chain),
  house: {},
  docked: NO_DOCKED,
  purpose: 'bring-up',
  order: 'all-off',
  driver: 'before',
};
const list = checklist(input);
const now = slotNames(chain);
let n = 0;
const event = (
  step: StepEvent['step'],
  state: StepEvent['state'],
  over: Partial<StepEvent> = {},
): StepEvent => ({
  id: `e${n++}`,
  attempt: 'a',
  no: 1,
  step,
  state,
  reason: '',
  symptom: null,
  about: now,
  at: '2026-11-20T18:00:00Z',
  ...over,
});
const stateOf = (events: StepEvent[], id: string, attempt = 'a') =>
  stand(list, events, attempt, now).find((s) => s.step.id === id);

describe('BU-02 how a step stands', () => {
  it('what was said last counts; undone is open again', () => {
    expect(stateOf([event('print', 'done')], 'print')?.state).toBe('done');
    expect(stateOf([event('print', 'failed'), event('print', 'done')], 'print')?.state).toBe(
      'done',
    );
    expect(stateOf([event('print', 'done'), event('print', 'undone')], 'print')?.state).toBe(
      'open',
    );
    expect(stateOf([event('print', 'skipped', { reason: 'no printer' })], 'print')).toMatchObject({
      state: 'skipped',
      event: { reason: 'no printer' },
    });
  });

  it('BU-07 lasting steps stay in the next attempt, others repeat', () => {
    const first = [
      event('card-seat', 'done'),
      event('plug-cable', 'done'),
      event('card-hold', 'skipped'),
    ];
    expect(stateOf(first, 'card-seat', 'b')).toMatchObject({ state: 'done', from: 1 });
    expect(stateOf(first, 'plug-cable', 'b')?.state).toBe('open');
    expect(stateOf(first, 'card-hold', 'b')?.state).toBe('open');
    expect(
      stateOf([...first, event('card-seat', 'undone', { attempt: 'b', no: 2 })], 'card-seat', 'b')
        ?.state,
    ).toBe('open');
  });

  it('another card in the slot reopens the step; a screen does not', () => {
    const seated = event('card-seat', 'done', { about: { ...now, card: 'Alder C-0' } });
    expect(stateOf([seated], 'card-seat')).toMatchObject({ state: 'open', changed: ['card'] });
    expect(
      stateOf([event('card-seat', 'done', { about: { ...now, picture: 'another' } })], 'card-seat')
        ?.state,
    ).toBe('done');
  });

  it('progress counts, names the step to do and what is left', () => {
    const start = stand(list, [], null, now);
    const facts = stepFacts(input);
    expect(startHeadline('bring-up', start, 0)).toBe(
      'Bring it up: 33 steps for this chain, about 160 minutes; not started yet.',
    );
    const one = stand(list, [event('save-work', 'done')], 'a', now);
    expect(progressHeadline(one, progress(one), facts)).toBe(
      'Step 2 of 33: Recovery key at hand. 1 done, about 160 minutes left.',
    );
    const failed = stand(
      list,
      [event('save-work', 'done'), event('recovery-key', 'failed')],
      'a',
      now,
    );
    expect(progressHeadline(failed, progress(failed), facts)).toContain(
      'Step 2 of 33 failed: Recovery key',
    );
    const all = stand(
      list,
      list.map((s, i) => event(s.id, i === 3 ? 'skipped' : 'done')),
      'a',
      now,
    );
    expect(progressHeadline(all, progress(all), facts)).toBe(
      'All 33 steps are settled: 32 done, 1 skipped.',
    );
  });

  it('folding is by the last word, whatever came before', () => {
    const some = fc.record({
      step: fc.constantFrom(...list.map((s) => s.id)),
      state: fc.constantFrom(...STEP_STATES),
      attempt: fc.constantFrom('a', 'b'),
    });
    fc.assert(
      fc.property(fc.array(some, { maxLength: 40 }), (rows) => {
        const events = rows.map((r) =>
          event(r.step, r.state, { attempt: r.attempt, no: r.attempt === 'a' ? 1 : 2 }),
        );
        const p = progress(stand(list, events, 'b', now));
        expect(p.done + p.skipped + p.failed).toBeLessThanOrEqual(p.n);
        for (const s of stand(list, events, 'b', now)) {
          const own = events.filter((e) => e.attempt === 'b' && e.step === s.step.id).at(-1);
          if (own) expect(s.state).toBe(own.state === 'undone' ? 'open' : own.state);
        }
        for (const id of noted(events, 'b'))
          expect(events.some((e) => e.attempt === 'b' && e.step === id)).toBe(true);
      }),
      { numRuns: 80 },
    );
  });
});

describe('BU-07 did the order work?', () => {
  it.each([
    [[event('listed', 'done'), event('soak', 'failed')], true],
    [[event('plug-cable', 'failed')], false],
    [[event('listed', 'failed')], false],
    [[event('listed', 'failed'), event('listed', 'done')], true],
    [[event('card-seat', 'failed')], null],
    [[], null],
  ])('%#', (events, worked) => {
    expect(orderWorked(events, 'a')).toBe(worked);
  });
});

describe('CO-08 what changed since it was good', () => {
  const good = goodNow(tunnelChain({ installed: { driver: '41.2', systemBuild: '6118' } }));

  it('names versions and parts with before and after', () => {
    const later = tunnelChain({
      installed: { driver: '41.5', systemBuild: '6118' },
      card: { model: 'C-2' },
    });
    expect(sinceGood(good, later)).toEqual([
      { what: 'driver', from: '41.2', to: '41.5' },
      { what: 'card', from: 'Alder C-1', to: 'Alder C-2' },
    ]);
  });

  it('what was not noted then is not compared now', () => {
    expect(
      sinceGood(
        good,
        tunnelChain({ installed: { driver: '41.2', systemBuild: '6118', dockFirmware: '2.0' } }),
      ),
    ).toEqual([]);
  });
});
