import { TestBed } from '@angular/core/testing';
import { MAX_ASIDE, ComparisonList } from './comparison-list';

const fresh = () => {
  TestBed.resetTestingModule();
  return TestBed.inject(ComparisonList);
};
const plan = (id: string) => ({ id, name: `Plan ${id}` });

describe('PL-22 the tray', () => {
  beforeEach(() => localStorage.clear());

  it('keeps pinned setups over a reload, in order', () => {
    const tray = fresh();
    tray.toggle(plan('a'));
    tray.toggle(plan('b'));
    expect(fresh().plans()).toEqual([plan('a'), plan('b')]);
    const again = fresh();
    again.toggle(plan('a'));
    expect([again.has('a'), again.has('b')]).toEqual([false, true]);
  });

  it('lets the oldest go when it is full', () => {
    const tray = fresh();
    for (const id of ['a', 'b', 'c', 'd', 'e']) tray.toggle(plan(id));
    expect(tray.plans().map((p) => p.id)).toEqual(['b', 'c', 'd', 'e']);
    expect(tray.plans()).toHaveLength(MAX_ASIDE);
  });

  it.each(['{', '7', '[{"id":7}]'])('what is no list there (%s) is nothing put aside', (kept) => {
    localStorage.setItem('ruddy.tray.plans', kept);
    expect(fresh().plans()).toEqual([]);
  });
});
