import { describe, expect, it } from 'vitest';
import type { TestId } from '../src/base';
import { bestPath, leftAt, type PracticeStep, shortestPath, stepMinutes } from '../src/bench';
import { leftWords } from '../src/bench/text';
import { netFor } from '../src/troubleshoot';
import { tunnelChain } from './make';

const net = netFor(tunnelChain());
const asks = (yes: TestId[]) => (t: TestId) =>
  yes.includes(t) ? ('yes' as const) : ('no' as const);
const step = (test: TestId, says: PracticeStep['says']): PracticeStep => ({ test, says });

describe('BE-05 the score of a practice', () => {
  it('the best path is the one the troubleshooter goes, with its minutes', () => {
    const path = bestPath(net, ['low-copy'], asks(['router-speed', 'short-cable']));
    expect(path.says).toBe('cable-class');
    expect(path.steps[0]).toEqual(step('router-speed', 'yes'));
    expect(path.minutes).toBe(path.steps.reduce((sum, s) => sum + stepMinutes(s.test), 0));
  });

  it('in hindsight needs only decisive tests, never more than asked', () => {
    const asked = [step('desktop-slot', 'no'), step('router-speed', 'yes'), step('hub-off', 'no')];
    const path = shortestPath(net, ['low-copy'], 'cable-class', asked);
    expect(path?.steps).toEqual([step('router-speed', 'yes')]);
    expect(path?.minutes).toBe(stepMinutes('router-speed'));
    expect(shortestPath(net, ['low-copy'], 'cable-class', [step('router-speed', 'no')])).toBeNull();
    expect(
      shortestPath(net, ['low-copy'], 'cable-class', [step('router-speed', 'cannot')]),
    ).toBeNull();
  });

  it('a bench that answers nothing ends, it does not go round', () => {
    const path = bestPath(net, ['nothing-listed'], () => 'cannot');
    expect(path.steps.length).toBeLessThanOrEqual(12);
    expect(new Set(path.steps.map((s) => s.test)).size).toBe(path.steps.length);
  });

  it('who goes the best path and names its cause left it nowhere', () => {
    const { steps, says } = bestPath(net, ['low-copy'], asks(['router-speed', 'short-cable']));
    expect(leftAt(net, ['low-copy'], steps, says)).toBeNull();
    expect(leftWords(null, steps)).toMatch(/^Nowhere/);
  });

  it('a weak test for its minutes is where it was left', () => {
    const left = leftAt(
      net,
      ['low-copy'],
      [step('desktop-slot', 'no'), step('router-speed', 'yes')],
      'cable-class',
    );
    expect(left).toMatchObject({ at: 0, why: 'worth' });
    expect(left!.worth).toBeLessThan(left!.best / 2);
    expect(leftWords(left, [step('desktop-slot', 'no')])).toMatch(
      /^At step 1: "run the card in a desktop" told 0\.\d{3} bits a minute/,
    );
  });

  it('naming too early and testing on too long are said', () => {
    expect(leftAt(net, ['nothing-listed'], [], 'look-alike-port')).toMatchObject({
      at: 0,
      why: 'early',
    });
    const plain = [
      step('router-speed', 'yes'),
      step('short-cable', 'yes'),
      step('copy-rate', 'yes'),
    ];
    const { steps, says } = bestPath(
      net,
      ['router-slow', 'low-copy'],
      asks(['router-speed', 'short-cable']),
    );
    expect(says).toBe('cable-class');
    const left = leftAt(
      net,
      ['router-slow', 'low-copy'],
      [...steps, step('short-cable', 'yes'), ...plain.slice(2)],
      'cable-class',
    );
    expect(left).toMatchObject({ why: 'late' });
  });
});
