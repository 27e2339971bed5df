import { signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { catchError, debounceTime, of, Subject, switchMap, type Observable } from 'rxjs';
import type { Page } from '@ruddy/core/base/contract';
import type { ApiError } from './api-client';

const ASK_AFTER_MS = 120;

/**
 * A list read a page at a time under a filter. In: filters, as they change; the newest one wins.
 * Out: rows, null until the first page came; whether there are more; the last problem, with the
 * rows of before kept. Made in an injection context and ended with it.
 */
export class PagedList<T, F extends object> {
  readonly rows = signal<T[] | null>(null);
  readonly next = signal<string | null>(null);
  readonly problem = signal<string | null>(null);
  readonly #read: (filter: F & { cursor?: string }) => Observable<Page<T>>;
  readonly #asked = new Subject<F>();
  #filter: F | null = null;
  #reading: string | null = null;

  constructor(read: (filter: F & { cursor?: string }) => Observable<Page<T>>) {
    this.#read = read;
    this.#asked
      .pipe(
        debounceTime(ASK_AFTER_MS),
        switchMap((f) => this.#guarded(f)),
        takeUntilDestroyed(),
      )
      .subscribe((page) => {
        if (!page) return;
        this.rows.set(page.items);
        this.next.set(page.next);
      });
  }

  /** Read the first page under a filter; without one, under the last. */
  load(filter: F | null = this.#filter): void {
    if (!filter) return;
    this.#filter = filter;
    this.#asked.next(filter);
  }

  /** Read the page after the last one shown. */
  more(): void {
    const cursor = this.next();
    if (!cursor || !this.#filter || this.#reading === cursor) return;
    this.#reading = cursor;
    const filter = this.#filter;
    this.#guarded({ ...filter, cursor }).subscribe((page) => {
      this.#reading = null;
      // Another filter was asked for meanwhile: these rows belong to a list that is gone.
      if (!page || filter !== this.#filter) return;
      this.rows.update((rows) => [...(rows ?? []), ...page.items]);
      this.next.set(page.next);
    });
  }

  #guarded(filter: F & { cursor?: string }): Observable<Page<T> | null> {
    this.problem.set(null);
    return this.#read(filter).pipe(
      catchError((e: ApiError) => {
        this.problem.set(e.message);
        return of(null);
      }),
    );
  }
}
