import { TestBed } from '@angular/core/testing';
import { MAX_ASIDE, ComparisonList } from './comparison-list';

const fresh = () => {
  TestBed.resetTestingModule();
  return TestBed.inject(ComparisonList);
};
const plan = (id: string) => ({ id, name: `Plan ${id}` });

describe('PL-22 the comparison list', () => {
  beforeEach(() => localStorage.clear());

  it('keeps pinned setups over a reload, in order', () => {
    const comparisonList = fresh();
    comparisonList.toggle(plan('a'));
    comparisonList.toggle(plan('b'));
    expect(fresh().plans()).toEqual([plan('a'), plan('b')]);
    const again = fresh();
    again.toggle(plan('a'));
    expect([again.has('a'), again.has('b')]).toEqual([false, true]);
  });

  it('lets the oldest go when it is full', () => {
    const comparisonList = fresh();
    for (const id of ['a', 'b', 'c', 'd', 'e']) comparisonList.toggle(plan(id));
    expect(comparisonList.plans().map((p) => p.id)).toEqual(['b', 'c', 'd', 'e']);
    expect(comparisonList.plans()).toHaveLength(MAX_ASIDE);
  });

  it.each(['{', '7', '[{"id":7}]'])('what is no list there (%s) is nothing put aside', (kept) => {
    localStorage.setItem('ruddy.tray.plans', kept);
    expect(fresh().plans()).toEqual([]);
  });
});
