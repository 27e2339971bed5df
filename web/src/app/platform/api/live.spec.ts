import { TestBed } from '@angular/core/testing';
import type { StreamEvent } from '@ruddy/core/bench/contract';
import { Live, STREAM_READER } from './live';

class Fake {
  static all: Fake[] = [];
  onopen: (() => void) | null = null;
  onmessage: ((m: { data: string }) => void) | null = null;
  onerror: (() => void) | null = null;
  readyState = 0;
  readonly url: string;
  constructor(address: string) {
    this.url = decodeURIComponent(address);
    Fake.all.push(this);
  }
  close(): void {
    this.readyState = 2;
  }
  send(e: StreamEvent): void {
    this.onmessage?.({ data: JSON.stringify(e) });
  }
}
const A = 'bench/00000000-0000-7000-8000-00000000000a';
const B = 'job/00000000-0000-7000-8000-00000000000b';
const event = (seq: number): StreamEvent =>
  ({
    kind: 'bench',
    topic: A,
    event: { kind: 'act', seq, ms: 0, body: { act: 'unplug' } },
  }) as StreamEvent;
const job = (seq: number) => ({ kind: 'job', topic: B, seq, job: {} }) as StreamEvent;
const seq = (e: StreamEvent) => (e.kind === 'bench' ? e.event.seq : 0);

describe('BE-04 the one stream of a tab', () => {
  let live: Live;
  const last = () => Fake.all[Fake.all.length - 1] as Fake;
  beforeEach(() => {
    vi.useFakeTimers();
    Fake.all = [];
    TestBed.configureTestingModule({
      providers: [{ provide: STREAM_READER, useValue: (url: string) => new Fake(url) }],
    });
    live = TestBed.inject(Live);
  });
  afterEach(() => vi.useRealTimers());

  it('opens with the first watcher, closes with the last', async () => {
    expect(Fake.all).toEqual([]);
    const s = live.watch(A, 7).subscribe();
    await vi.advanceTimersByTimeAsync(0);
    expect(last().url).toBe(`/api/stream?topics=${A}&after=${A}=7`);
    last().onopen?.();
    expect(live.connected()).toBe(true);
    s.unsubscribe();
    await vi.advanceTimersByTimeAsync(0);
    expect([last().readyState, live.connected()]).toEqual([2, null]);
  });

  it('another topic shares one stream, nothing comes twice', async () => {
    const got: number[] = [];
    live.watch(A, 0).subscribe((e) => got.push(seq(e)));
    await vi.advanceTimersByTimeAsync(0);
    last().send(event(1));
    last().send(event(2));
    live.watch(B, 0).subscribe();
    await vi.advanceTimersByTimeAsync(0);
    expect([Fake.all.length, last().url]).toEqual([
      2,
      `/api/stream?topics=${A},${B}&after=${A}=2,${B}=0`,
    ]);
    last().send(event(2));
    last().send(event(3));
    expect(got).toEqual([1, 2, 3]);
  });

  it('topics are apart, an ended job ends its watchers', async () => {
    const a: number[] = [];
    const b: StreamEvent[] = [];
    live.watch(A, 0).subscribe((e) => a.push(seq(e)));
    live.watch(B, 0).subscribe((e) => b.push(e));
    await vi.advanceTimersByTimeAsync(0);
    last().send(job(4));
    last().send(event(1));
    expect([a, b.length]).toEqual([[1], 1]);
  });

  it('a broken connection is said and reopened after refusal', async () => {
    live.watch(A, 3).subscribe();
    await vi.advanceTimersByTimeAsync(0);
    last().onerror?.();
    expect([live.connected(), Fake.all.length]).toEqual([false, 1]);
    last().readyState = 2;
    last().onerror?.();
    await vi.advanceTimersByTimeAsync(2000);
    expect(Fake.all).toHaveLength(2);
    expect(last().url).toContain(`${A}=3`);
  });

  it('what was taken away ends the watching', async () => {
    let ended = false;
    live.watch(A, 0).subscribe({ complete: () => (ended = true) });
    await vi.advanceTimersByTimeAsync(0);
    last().send({ kind: 'gone', topic: A, id: A.slice(6) });
    expect(ended).toBe(true);
  });
});
