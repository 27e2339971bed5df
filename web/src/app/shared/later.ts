import { afterNextRender, effect, inject, Injector, PendingTasks, signal, untracked, type Signal } from '@angular/core';

/** A browser without the call gets a task of its own instead. */
const whenIdle = (f: () => void) =>
  typeof requestIdleCallback === 'function' ? requestIdleCallback(f, { timeout: 500 }) : setTimeout(f);

/**
 * Turns true once `ready` was true, the page was drawn and the browser has time: what stands below the first screen waits for it, so
 * that the first screen answers sooner. Stays true. Call it where things are injected.
 */
export function later(ready: () => boolean): Signal<boolean> {
  const now = signal(false);
  const injector = inject(Injector);
  const tasks = inject(PendingTasks);
  const watch = effect(() => {
    if (!ready()) return;
    untracked(() => {
      watch.destroy();
      const done = tasks.add();
      afterNextRender(
        () =>
          whenIdle(() => {
            now.set(true);
            done();
          }),
        { injector },
      );
    });
  });
  return now.asReadonly();
}
