import { inject, Injectable, signal } from '@angular/core';
import { catchError, EMPTY } from 'rxjs';
import { ApiClient } from '../api/api-client';

/** The server's clock: outcomes are dated by it, whatever this browser's clock says. */
@Injectable({ providedIn: 'root' })
export class ServerClock {
  readonly #aheadMs = signal(0);

  constructor() {
    inject(ApiClient)
      .call('GET /api/health')
      // Without an answer this browser's clock has to do.
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
