import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import type { Page } from '@ruddy/core/base/contract';
import type { PartKind } from '@ruddy/core/parts';
import type { Part, PartBody, PartPatch } from '@ruddy/core/parts/contract';
import { Api } from '../platform/api/api';

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
}
