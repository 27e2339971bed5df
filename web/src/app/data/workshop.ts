import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import type { Bundle, DemoReport, LoadReport, RuleRow } from '@ruddy/core/api';
import { Api } from './api';

/** House rules, the demo data, and everything as one file. */
@Injectable({ providedIn: 'root' })
export class WorkshopData {
  readonly #api = inject(Api);

  rules(): Observable<{ items: RuleRow[] }> {
    return this.#api.get('/rules');
  }

  putRule(id: string, body: { value: number | null; reason: string }, rev: number): Observable<RuleRow> {
    return this.#api.put(`/rules/${id}`, body, rev);
  }

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
