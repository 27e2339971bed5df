import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import type { Page, Part, PartBody, PartPatch, SearchHit } from '@ruddy/core/api';
import type { PartKind } from '@ruddy/core/schema';
import { Api } from './api';

export interface PartFilter {
  kind?: PartKind;
  q?: string;
  retired?: boolean;
  owned?: boolean;
  where?: string;
  cursor?: string;
  limit?: number;
}

/** The catalogue. */
@Injectable({ providedIn: 'root' })
export class PartsData {
  readonly #api = inject(Api);

  list(filter: PartFilter): Observable<Page<Part> & { total: number }> {
    return this.#api.get('/parts', { ...filter });
  }

  one(id: string): Observable<Part> {
    return this.#api.get(`/parts/${id}`);
  }

  create(body: PartBody): Observable<Part> {
    return this.#api.post('/parts', body);
  }

  patch(id: string, patch: PartPatch, rev: number): Observable<Part> {
    return this.#api.patch(`/parts/${id}`, patch, rev);
  }

  search(q: string): Observable<{ items: SearchHit[] }> {
    return this.#api.get('/search', { q });
  }
}
