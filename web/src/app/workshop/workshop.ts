import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import type { Encoding } from '@ruddy/core/base/contract';
import type { Job } from '@ruddy/core/parts/contract';
import type { Bundle, DemoReport } from '@ruddy/core/workshop/contract';
import { ApiClient } from '../platform/api/api-client';

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

  /** Send a file of everything as it lies on the disk. */
  load(file: File, encoding: Encoding | null): Observable<Job> {
    const body = file.slice(0, file.size, 'application/json');
    const query = { name: file.name, encoding };
    return this.#api.upload('POST /api/bundle-loads', { query }, body);
  }

  cancel(job: string): Observable<Job> {
    return this.#api.call('POST /api/jobs/:id/cancel', { params: { id: job }, body: {} });
  }
}
