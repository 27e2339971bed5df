import { TestBed } from '@angular/core/testing';
import { of, Subject, throwError, type Observable } from 'rxjs';
import type { Page } from '@ruddy/core/base/contract';
import { ApiError } from './api-client';
import { PagedList } from './paged-list';

interface Filter {
  q: string;
}
const problem = new ApiError({
  type: 'about:blank',
  title: 'The server was not reached; nothing was stored',
  status: 0,
});

describe('a list read a page at a time', () => {
  let asked: (Filter & { cursor?: string })[];
  let answer: (f: Filter & { cursor?: string }) => Observable<Page<string>>;
  const list = () =>
    TestBed.runInInjectionContext(
      () =>
        new PagedList<string, Filter>((f) => {
          asked.push(f);
          return answer(f);
        }),
    );

  beforeEach(() => {
    vi.useFakeTimers();
    asked = [];
    answer = (f) => of({ items: [f.q], next: null });
  });
  afterEach(() => vi.useRealTimers());

  it('asks once for what was typed last', () => {
    const l = list();
    for (const q of ['d', 'do', 'dock']) l.load({ q });
    expect(l.rows()).toBeNull();
    vi.advanceTimersByTime(200);
    expect(asked).toEqual([{ q: 'dock' }]);
    expect(l.rows()).toEqual(['dock']);
  });

  it('drops the answer of an older question', () => {
    const slow = new Subject<Page<string>>();
    answer = (f) => (f.q === 'slow' ? slow : of({ items: [f.q], next: null }));
    const l = list();
    l.load({ q: 'slow' });
    vi.advanceTimersByTime(200);
    l.load({ q: 'fast' });
    vi.advanceTimersByTime(200);
    slow.next({ items: ['slow'], next: null });
    expect(l.rows()).toEqual(['fast']);
  });

  it('adds the next page, and none after the last', () => {
    answer = (f) =>
      of(f.cursor ? { items: ['c'], next: null } : { items: ['a', 'b'], next: 'two' });
    const l = list();
    l.load({ q: 'x' });
    vi.advanceTimersByTime(200);
    l.more();
    expect(l.rows()).toEqual(['a', 'b', 'c']);
    expect(asked[1]).toEqual({ q: 'x', cursor: 'two' });
    l.more();
    expect(asked).toHaveLength(2);
  });

  it('keeps rows when an answer fails, says so, continues', () => {
    const l = list();
    l.load({ q: 'a' });
    vi.advanceTimersByTime(200);
    answer = () => throwError(() => problem);
    l.load();
    vi.advanceTimersByTime(200);
    expect([l.rows(), l.problem()]).toEqual([['a'], problem.message]);
    answer = () => of({ items: ['back'], next: null });
    l.load({ q: 'b' });
    vi.advanceTimersByTime(200);
    expect([l.rows(), l.problem()]).toEqual([['back'], null]);
  });
});
