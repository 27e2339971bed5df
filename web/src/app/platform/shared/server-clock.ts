import { inject, Injectable, signal } from '@angular/core';
import { catchError, EMPTY } from 'rxjs';
import { ApiClient } from '../api/api-client';

/** How far the server's clock, as the page carries it, is ahead of this browser's, ms; 0 where it carries none. */
function aheadOf(page: Document): number {
  const time = page.querySelector('meta[name=server-time]')?.getAttribute('content') ?? '';
  const ms = Date.parse(time);
  // The clock is asked for later than the page came.
  return Number.isNaN(ms) ? 0 : ms - performance.timeOrigin;
}

/** The server's clock: outcomes are dated by it, whatever this browser's clock says. */
@Injectable({ providedIn: 'root' })
export class ServerClock {
  readonly #aheadMs = signal(aheadOf(document));

  constructor() {
    inject(ApiClient)
      .call('GET /api/health')
      // Without an answer the time that the page came with has to do.
      .pipe(catchError(() => EMPTY))
      .subscribe(({ now }) => this.#aheadMs.set(Date.parse(now) - Date.now()));
  }

  /** Now by the server's clock, as an ISO instant. */
  now(): string {
    return new Date(Date.now() + this.#aheadMs()).toISOString();
  }

  /** Today as an ISO date in this machine's time zone. */
  today(): string {
    const d = new Date(Date.now() + this.#aheadMs());
    return [
      d.getFullYear(),
      String(d.getMonth() + 1).padStart(2, '0'),
      String(d.getDate()).padStart(2, '0'),
    ].join('-');
  }

  /** Is an instant of today? */
  isToday(iso: string): boolean {
    return new Date(iso).toDateString() === new Date(Date.now() + this.#aheadMs()).toDateString();
  }
}
