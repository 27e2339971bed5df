import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import type { Bundle, DemoReport, LoadReport } from '@ruddy/core/workshop/contract';
import { ApiClient } from '../platform/api/api-client';
import type { RequestTo } from '../platform/api/endpoints';

/** The demo data, and everything as one file. */
@Injectable({ providedIn: 'root' })
export class WorkshopData {
  readonly #api = inject(ApiClient);

  demo(): Observable<DemoReport> {
    return this.#api.call('GET /api/demo');
  }

  removeDemo(): Observable<DemoReport> {
    return this.#api.call('DELETE /api/demo');
  }

  exportAll(): Observable<Bundle> {
    return this.#api.call('GET /api/bundle');
  }

  /** A bundle read from a file: the server checks it whole. */
  load(bundle: unknown): Observable<LoadReport> {
    return this.#api.call('POST /api/bundle', {
      body: bundle as RequestTo<'POST /api/bundle'>['body'],
    });
  }
}
