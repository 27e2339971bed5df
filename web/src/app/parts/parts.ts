import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import type { Page } from '@ruddy/core/base/contract';
import type { PartKind } from '@ruddy/core/parts';
import type { Part, PartBody, PartPatch } from '@ruddy/core/parts/contract';
import { ApiClient } from '../platform/api/api-client';

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
  readonly #api = inject(ApiClient);

  list(filter: PartFilter): Observable<Page<Part> & { total: number }> {
    return this.#api.call('GET /api/parts', { query: filter });
  }

  one(id: string): Observable<Part> {
    return this.#api.call('GET /api/parts/:id', { params: { id } });
  }

  create(body: PartBody): Observable<Part> {
    return this.#api.call('POST /api/parts', { body });
  }

  patch(id: string, patch: PartPatch, rev: number): Observable<Part> {
    return this.#api.call('PATCH /api/parts/:id', { params: { id }, body: patch, revision: rev });
  }
}
