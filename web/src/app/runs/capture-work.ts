import { Injectable, InjectionToken, inject, type OnDestroy } from '@angular/core';
import { firstValueFrom, from, map, race, Subject } from 'rxjs';
import { proxy, wrap, type Remote } from 'comlink';
import type { CaptureCalls } from './capture-calls';

/** Makes the worker; tests put the calls themselves in its place. */
export const CAPTURE_WORKER = new InjectionToken<
  () => { calls: Remote<CaptureCalls>; end: () => void }
>('capture worker', {
  factory: () => () => {
    const worker = new Worker(new URL('./capture.worker', import.meta.url), { type: 'module' });
    return { calls: wrap<CaptureCalls>(worker), end: () => worker.terminate() };
  },
});

/** Thrown by work that was stopped. */
export class Stopped extends Error {}

/** The worker of this page: made when first asked, ended with the page or when its work is stopped. */
@Injectable()
export class CaptureWork implements OnDestroy {
  readonly #make = inject(CAPTURE_WORKER);
  #worker: { calls: Remote<CaptureCalls>; end: () => void } | null = null;
  readonly #stopped = new Subject<void>();

  /** Do something in the worker. Stopping rejects it with `Stopped`. */
  run<T>(what: (calls: Remote<CaptureCalls>) => Promise<T>): Promise<T> {
    this.#worker ??= this.#make();
    const stop = this.#stopped.pipe(
      map(() => {
        throw new Stopped();
      }),
    );
    return firstValueFrom(race(from(what(this.#worker.calls)), stop));
  }

  /** A function the worker may call. */
  told(f: (share: number) => void): (share: number) => void {
    return proxy(f);
  }

  /** Stop whatever the worker does; the next work begins in a new one. */
  stop(): void {
    this.#worker?.end();
    this.#worker = null;
    this.#stopped.next();
  }

  ngOnDestroy(): void {
    this.stop();
  }
}
