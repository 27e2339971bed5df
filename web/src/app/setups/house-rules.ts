import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import type { RuleRow } from '@ruddy/core/plan/contract';
import { Api } from '../platform/api/api';

/** House rules with this workshop's own values. */
@Injectable({ providedIn: 'root' })
export class HouseRulesData {
  readonly #api = inject(Api);

  rules(): Observable<{ items: RuleRow[] }> {
    return this.#api.get('/rules');
  }

  putRule(
    id: string,
    body: { value: number | null; reason: string },
    rev: number,
  ): Observable<RuleRow> {
    return this.#api.put(`/rules/${id}`, body, rev);
  }
}
