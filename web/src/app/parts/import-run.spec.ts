import { TestBed } from '@angular/core/testing';
import { finalize, interval, map, of, take, throwError } from 'rxjs';
import type { RowOutcome, ImportRow, Job } from '@ruddy/core/parts/contract';
import { CatalogueData } from './catalogue';
import { ImportRun } from './import-run';
import { Live } from '../platform/api/live';

const base: Job = {
  id: 'j',
  kind: 'import-try',
  state: 'running',
  done: 0,
  total: 0,
  message: '',
  startedAt: '',
  result: null,
};
const done = (wrong: number): Job => ({
  ...base,
  state: 'done',
  result: {
    name: 'a.csv',
    unknown: [],
    stored: false,
    fates: { wrong, asks: 0, new: 300, changed: 0, same: 0 },
  },
});
const row = (n: number, fate: RowOutcome): ImportRow => ({
  row: n,
  fate,
  part: `P ${n}`,
  notes: [],
});
const file = new File(['x'], 'a.csv');

function run(steps: Job[]) {
  const asked: { after?: number; fate?: RowOutcome }[] = [];
  const data = {
    import: () => of(base),
    cancel: vi.fn(() => of({ ...base, state: 'cancelled' as const })),
    fates: (_id: string, q: { after?: number; fate?: RowOutcome; limit?: number }) => {
      asked.push(q);
      const start = q.after ?? 0;
      const rows = Array.from({ length: q.fate ? 2 : 200 }, (_, i) =>
        row(start + i + 1, q.fate ?? 'new'),
      );
      return of({ items: rows, next: q.fate || start > 0 ? null : 200 });
    },
  };
  // Each state comes by the stream a moment after the one before.
  const live = {
    watched: 0,
    watch: (topic: string) => {
      live.watched++;
      return interval(300).pipe(
        take(steps.length),
        map((i) => ({ kind: 'job', topic, seq: i + 1, job: steps[i] })),
        finalize(() => live.watched--),
      );
    },
  };
  const providers = [
    ImportRun,
    { provide: CatalogueData, useValue: data },
    { provide: Live, useValue: live },
  ];
  TestBed.configureTestingModule({ providers });
  return { run: TestBed.inject(ImportRun), data, asked, live };
}

describe('PA-02 one file on its way in', () => {
  beforeEach(() => vi.useFakeTimers());
  afterEach(() => vi.useRealTimers());

  it('watches until done, then shows wrong rows, or all', async () => {
    const t = run([{ ...base, done: 500 }, done(2), base]);
    t.run.start(file, 'cable', 'try', null);
    expect(t.run.job()?.state).toBe('running');
    await vi.advanceTimersByTimeAsync(300);
    expect(t.run.job()?.done).toBe(500);
    await vi.advanceTimersByTimeAsync(300);
    expect([t.run.job()?.state, t.run.fate(), t.run.rows().length]).toEqual(['done', 'wrong', 2]);
    expect(t.live.watched).toBe(0);
    await vi.advanceTimersByTimeAsync(3000);
    expect(t.run.job()?.state).toBe('done');
  });

  it('reads the next rows when the last come into view, once', async () => {
    const t = run([done(0)]);
    t.run.start(file, 'cable', 'try', null);
    await vi.advanceTimersByTimeAsync(300);
    expect([t.run.fate(), t.run.rows().length, t.run.next()]).toEqual([null, 200, 200]);
    t.run.more();
    expect([t.run.rows().length, t.run.next(), t.run.rows()[399]?.row]).toEqual([400, null, 400]);
    t.run.more();
    expect(t.asked).toHaveLength(2);
  });

  it('another start replaces the first; stops and refusals are said', async () => {
    const t = run([{ ...base, done: 1 }]);
    t.run.start(file, 'cable', 'try', null);
    await vi.advanceTimersByTimeAsync(1);
    t.run.cancel();
    expect(t.run.job()?.state).toBe('cancelled');
    t.data.import = () => throwError(() => new Error('Body too large')) as never;
    t.run.start(file, 'cable', 'store', null);
    expect([t.run.job(), t.run.rows(), t.run.problem()]).toEqual([null, [], 'Body too large']);
  });
});
