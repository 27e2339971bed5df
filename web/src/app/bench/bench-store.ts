import { computed, DestroyRef, inject, Injectable, signal } from '@angular/core';
import { takeUntilDestroyed, toObservable, toSignal } from '@angular/core/rxjs-interop';
import {
  catchError,
  concatMap,
  EMPTY,
  interval,
  of,
  Subject,
  switchMap,
  type Subscription,
} from 'rxjs';
import equal from 'fast-deep-equal';
import type { Act, BenchState } from '@ruddy/core/bench';
import type { Bench, BenchEvent, ClockBody } from '@ruddy/core/bench/contract';
import type { ApiError } from '../platform/api/api-client';
import { BenchesData } from '../setups/benches';
import { Live } from '../platform/api/live';
import type { Judgement } from '../setups/setups';

const MAX_LINES = 500;

/**
 * One bench that is open. In: what hands do. Out: how it stands, its log, and the judgement of the chain that lies on it. Acts go to
 * the server one after another; everything that happens comes back by the stream, whoever caused it.
 */
@Injectable()
export class BenchStore {
  readonly #data = inject(BenchesData);
  readonly live = inject(Live);
  readonly bench = signal<Bench | null>(null);
  readonly state = signal<BenchState | null>(null);
  readonly log = signal<readonly BenchEvent[]>([]);
  readonly problem = signal<string | null>(null);
  /** The stream is broken: the bench goes on, and this page follows when it is back. */
  readonly away = computed(() => this.live.connected() === false);
  readonly missing = signal(false);
  readonly cleared = signal(false);
  readonly judgement = signal<Judgement | null>(null);
  readonly speed = signal(1);
  readonly #doing = new Subject<() => ReturnType<BenchesData['one']>>();
  readonly #seenAt = signal(performance.now());
  readonly #beat = toSignal(interval(500), { initialValue: 0 });
  /** The bench that was opened last: an answer about another one comes too late. */
  #id = '';
  #seq = 0;
  #wholeSeq = 0;
  #watching: Subscription | null = null;

  /** Bench time as it goes on between two events, ms. */
  readonly nowMs = computed(() => {
    this.#beat();
    const state = this.state();
    return state ? state.ms + (performance.now() - this.#seenAt()) * this.speed() : 0;
  });
  /** The chain as it would be judged: through the port the cable is in. */
  readonly #chain = computed(
    () => {
      const bench = this.bench();
      const state = this.state();
      return bench && { ...bench.chain, socket: state?.plugged ?? bench.chain.socket };
    },
    { equal },
  );

  constructor() {
    this.#doing
      .pipe(
        concatMap((work) =>
          work().pipe(
            catchError((e: ApiError) => {
              this.problem.set(`Not done. ${e.message}`);
              return EMPTY;
            }),
          ),
        ),
        takeUntilDestroyed(),
      )
      .subscribe((b) => this.#took(b));
    toObservable(this.#chain)
      .pipe(
        switchMap((chain) =>
          chain ? this.#data.judge(chain).pipe(catchError(() => of(null))) : of(null),
        ),
        takeUntilDestroyed(),
      )
      .subscribe((j) => this.judgement.set(j));
    inject(DestroyRef).onDestroy(() => this.#watching?.unsubscribe());
  }

  open(id: string): void {
    this.#watching?.unsubscribe();
    this.#id = id;
    this.problem.set(null);
    this.bench.set(null);
    this.state.set(null);
    this.log.set([]);
    this.missing.set(false);
    this.cleared.set(false);
    this.#seq = 0;
    const read = this.#data.one(id).pipe(
      catchError((e: ApiError) => {
        if (id === this.#id) this.#notRead(e);
        return EMPTY;
      }),
    );
    read.subscribe((b) => {
      if (b.id !== this.#id) return;
      this.log.set(b.log);
      this.#seq = b.seq;
      this.#took(b);
      this.#watching = this.live.watch(`bench/${id}`, b.seq).subscribe((e) => {
        if (e.kind === 'bench') this.#event(e.event);
        if (e.kind === 'gone') this.cleared.set(true);
      });
    });
  }

  #notRead(e: ApiError): void {
    if (e.code === 'not-found') this.missing.set(true);
    else this.problem.set(e.message);
  }

  act(act: Act): void {
    const id = this.bench()?.id;
    this.problem.set(null);
    if (id) this.#doing.next(() => this.#data.act(id, act));
  }

  clock(body: ClockBody): void {
    const id = this.bench()?.id;
    this.problem.set(null);
    if (id) this.#doing.next(() => this.#data.clock(id, body));
  }

  /** An answer is the whole bench: parts and faults are taken from it, what happened comes by the stream. */
  #took(b: Bench): void {
    if (b.id !== this.#id) return;
    this.bench.set(b);
    this.#wholeSeq = b.seq;
    this.#stands(b.state, b.speed);
  }

  #event(e: BenchEvent): void {
    if (e.seq <= this.#seq) return;
    this.#seq = e.seq;
    this.log.update((l) => [...l.slice(1 - MAX_LINES), e]);
    if (e.kind === 'line') this.#stands(e.body.state, this.speed());
    if (e.kind === 'clock') this.#stands(e.body.state, e.body.speed);
    // Somebody else put a part or a fault there: an event names it, the answer of a read has it whole.
    if (e.kind === 'act' && e.seq > this.#wholeSeq && /^(place|fault)/.test(e.body.act))
      this.#again();
  }

  #again(): void {
    const id = this.bench()?.id;
    if (id) this.#doing.next(() => this.#data.one(id));
  }

  #stands(state: BenchState, speed: number): void {
    const now = this.state();
    if (now && state.ms < now.ms) return;
    this.state.set(state);
    this.speed.set(speed);
    this.#seenAt.set(performance.now());
  }
}
