import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import type { RuleRow } from '@ruddy/core/plan/contract';
import type { RuleId } from '@ruddy/core/base';
import { ApiClient } from '../platform/api/api-client';

/** House rules with this workshop's own values. */
@Injectable({ providedIn: 'root' })
export class HouseRulesData {
  readonly #api = inject(ApiClient);

  rules(): Observable<{ items: RuleRow[] }> {
    return this.#api.call('GET /api/rules');
  }

  putRule(
    id: RuleId,
    body: { value: number | null; reason: string },
    rev: number,
  ): Observable<RuleRow> {
    return this.#api.call('PUT /api/rules/:id', { params: { id }, body, revision: rev });
  }
}
