import {
  afterNextRender,
  DestroyRef,
  effect,
  inject,
  Injector,
  PendingTasks,
  signal,
  untracked,
  type Signal,
} from '@angular/core';

/** A browser without the call gets a task of its own instead. */
const whenIdle = (f: () => void) =>
  typeof requestIdleCallback === 'function'
    ? requestIdleCallback(f, { timeout: 300 })
    : setTimeout(f);

/**
 * Counts up to `steps` once `ready` was true, one step each time the page was drawn and the browser has time: what stands below the
 * first screen is made in steps, so that typing and scrolling are answered in between. Never counts back. Call it where things
 * are injected.
 */
export function renderWhenIdle(ready: () => boolean, steps = 1): Signal<number> {
  const done = signal(0);
  const injector = inject(Injector);
  const tasks = inject(PendingTasks);
  // Who leaves the page meanwhile has no use for the rest of it.
  let gone = false;
  let end: (() => void) | null = null;
  inject(DestroyRef).onDestroy(() => {
    gone = true;
    end?.();
  });
  const step = (finished: () => void) =>
    afterNextRender(
      () =>
        whenIdle(() => {
          if (gone) return;
          done.update((n) => n + 1);
          if (done() < steps) step(finished);
          else finished();
        }),
      { injector },
    );
  const watch = effect(() => {
    if (!ready()) return;
    untracked(() => {
      watch.destroy();
      const finished = tasks.add();
      end = finished;
      step(finished);
    });
  });
  return done.asReadonly();
}
