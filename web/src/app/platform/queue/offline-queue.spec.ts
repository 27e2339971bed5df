import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { vi } from 'vitest';
import type { BringUp } from '@ruddy/core/bring-up/contract';
import { OfflineQueue } from './offline-queue';

const ID = '00000000-0000-7000-8000-00000000000a';
const answer = (rev: number) => ({ setup: { id: ID, rev } }) as BringUp;

describe('what is noted at the bench', () => {
  let http: HttpTestingController;
  let box: OfflineQueue;
  let taken: BringUp[];

  function start(): void {
    TestBed.resetTestingModule();
    TestBed.configureTestingModule({
      providers: [provideHttpClient(), provideHttpClientTesting(), OfflineQueue],
    });
    http = TestBed.inject(HttpTestingController);
    box = TestBed.inject(OfflineQueue);
    taken = [];
    box.open(ID, (a) => taken.push(a));
  }
  const sent = () => http.expectOne(`/api/setups/${ID}/steps`);
  const kept = () =>
    JSON.parse(localStorage.getItem(`ruddy.bench.${ID}`) ?? '[]') as { body: { id: string } }[];

  beforeEach(() => {
    localStorage.clear();
    vi.useFakeTimers();
    start();
  });
  afterEach(() => {
    http.verify();
    vi.useRealTimers();
    localStorage.clear();
  });

  it('goes out one after another, in order, and is forgotten once confirmed', () => {
    box.send('steps', { id: '1' });
    box.send('steps', { id: '2' });
    expect(kept().map((k) => k.body.id)).toEqual(['1', '2']);
    const first = sent();
    expect(first.request.body).toEqual({ id: '1' });
    first.flush(answer(2));
    const second = sent();
    expect(second.request.body).toEqual({ id: '2' });
    second.flush(answer(3));
    expect(taken.map((a) => a.setup.rev)).toEqual([2, 3]);
    expect(localStorage.getItem(`ruddy.bench.${ID}`)).toBeNull();
  });

  it.each([0, 502, 503])('status %i: it waits and is tried again, the same body', (status) => {
    box.send('steps', { id: '1' });
    const first = sent();
    if (status === 0) first.error(new ProgressEvent('error'));
    else first.flush('', { status, statusText: 'down' });
    expect(box.unreached()).toBe(true);
    expect(box.waiting()).toHaveLength(1);
    vi.advanceTimersByTime(3000);
    const again = sent();
    expect(again.request.body).toEqual({ id: '1' });
    again.flush(answer(2));
    expect(box.unreached()).toBe(false);
    expect(box.waiting()).toEqual([]);
  });

  it('a refusal is said and holds up nothing after it', () => {
    box.send('steps', { id: '1' });
    box.send('steps', { id: '2' });
    sent().flush(
      { type: 'about:blank', title: 'Not saved', status: 422, detail: 'Reason: say why' },
      { status: 422, statusText: 'x' },
    );
    expect(box.refused()).toBe('Not saved. Reason: say why');
    sent().flush(answer(2));
    expect(taken).toHaveLength(1);
    expect(kept()).toEqual([]);
  });

  it('what waited before a reload goes out on opening', () => {
    box.send('steps', { id: '1' });
    sent().error(new ProgressEvent('error'));
    start();
    const again = sent();
    expect(again.request.body).toEqual({ id: '1' });
    again.flush(answer(2));
    expect(taken).toHaveLength(1);
  });

  it('answers for a closed setup are dropped, its queue stays', () => {
    box.send('steps', { id: '1' });
    const first = sent();
    box.open('other', (a) => taken.push(a));
    first.flush(answer(2));
    expect(taken).toEqual([]);
    // It is known by its id: sending it once more when that setup is opened stores nothing twice.
    expect(kept()).toHaveLength(1);
  });
});
