import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import type { Bundle, DemoReport, LoadReport } from '@ruddy/core/workshop/contract';
import { Api } from '../platform/api/api';

/** The demo data, and everything as one file. */
@Injectable({ providedIn: 'root' })
export class WorkshopData {
  readonly #api = inject(Api);

  demo(): Observable<DemoReport> {
    return this.#api.get('/demo');
  }

  removeDemo(): Observable<DemoReport> {
    return this.#api.delete('/demo');
  }

  exportAll(): Observable<Bundle> {
    return this.#api.get('/bundle');
  }

  load(bundle: unknown): Observable<LoadReport> {
    return this.#api.post('/bundle', bundle);
  }
}
