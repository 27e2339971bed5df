import { describe, expect, it } from 'vitest';
import type { StepId } from '../src/base';
import {
  checklist,
  type ListInput,
  SHORT_MOST,
  shortForm,
  stand,
  type StepNote,
  stepTimes,
} from '../src/bring-up';
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
const standing = (over: Partial<ListInput> = {}) =>
  stand(checklist({ ...input, ...over }), [], null, {});

describe('the short form of a list', () => {
  it('holds eight to twelve steps, the rest folded under them', () => {
    const list = standing();
    const groups = shortForm(list);
    expect(list.length).toBeGreaterThan(SHORT_MOST);
    expect([groups.length >= 8, groups.length <= SHORT_MOST]).toEqual([true, true]);
    expect(groups.flatMap((g) => [...g.folded, g.head])).toEqual(list);
    const heads = groups.map((g) => g.head.step.id);
    expect(heads).toEqual(
      expect.arrayContaining(['plug-cable', 'host-start', 'listed', 'copy-down', 'log-entry']),
    );
    // What is taken or told cannot be folded away.
    for (const g of groups)
      for (const s of g.folded) expect(s.step.fields.map((f) => f.kind)).not.toContain('reading');
  });

  it('leaves a list alone that is short as it is', () => {
    const list = standing({ purpose: 'undock' });
    expect(list.length).toBeLessThanOrEqual(SHORT_MOST);
    expect(shortForm(list).every((g) => g.folded.length === 0)).toBe(true);
  });
});

describe('how long steps take in a workshop', () => {
  const at = (minutes: number) =>
    new Date(Date.parse('2026-11-20T10:00:00Z') + minutes * 60_000).toISOString();
  const attempt = (name: string, ...steps: [StepId, number][]): StepNote[] => [
    { attempt: name, step: null, at: at(0) },
    ...steps.map(([step, minutes]) => ({ attempt: name, step, at: at(minutes) })),
  ];

  it('is told from three attempts on, as the middle one', () => {
    const two = [...attempt('a', ['card-seat', 6]), ...attempt('b', ['card-seat', 8])];
    expect(stepTimes(two).size).toBe(0);
    expect(stepTimes([...two, ...attempt('c', ['card-seat', 15])]).get('card-seat')).toEqual({
      minutes: 8,
      n: 3,
    });
  });

  it('leaves out breaks and shares time noted at one moment', () => {
    const both: [StepId, number][] = [
      ['place', 10],
      ['plug-cable', 10],
      ['dock-on', 500],
    ];
    const times = stepTimes([
      ...attempt('a', ...both),
      ...attempt('b', ...both),
      ...attempt('c', ...both),
    ]);
    expect(times.get('place')).toEqual({ minutes: 5, n: 3 });
    expect(times.get('plug-cable')).toEqual({ minutes: 5, n: 3 });
    expect(times.has('dock-on')).toBe(false);
  });

  it('stands in the list with the attempts it is told from', () => {
    const times = new Map([['plug-cable', { minutes: 4.4, n: 3 }] as const]);
    const plug = checklist({ ...input, times }).find((s) => s.id === 'plug-cable');
    expect([plug?.minutes, plug?.timedIn]).toEqual([4, 3]);
    expect(checklist(input).find((s) => s.id === 'plug-cable')?.timedIn).toBe(0);
  });
});
