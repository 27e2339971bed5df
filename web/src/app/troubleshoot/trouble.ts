import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import type { CauseId, TestId } from '@ruddy/core/base';
import type { Practice, PracticeBody, PracticeList } from '@ruddy/core/bench/contract';
import type {
  FigureBody,
  TablesRead,
  TroubleBody,
  Troubles,
} from '@ruddy/core/troubleshoot/contract';
import { ApiClient } from '../platform/api/api-client';

/** Searches for a cause, the figures that move them, and practice. What is noted in a search goes by the outbox of its setup. */
@Injectable({ providedIn: 'root' })
export class TroubleData {
  readonly #api = inject(ApiClient);

  ofSetup(id: string): Observable<Troubles> {
    return this.#api.call('GET /api/setups/:id/troubles', { params: { id } });
  }

  /** Begin a search at once; on the page of a setup it goes by the outbox. */
  open(id: string, body: TroubleBody): Observable<Troubles> {
    return this.#api.call('POST /api/setups/:id/troubles', { params: { id }, body });
  }

  tables(): Observable<TablesRead> {
    return this.#api.call('GET /api/faults/tables');
  }

  /** Under the revision the page showed, 0 for one that nobody set. */
  setFigure(body: FigureBody, rev: number): Observable<TablesRead> {
    return this.#api.call('PUT /api/faults/figures', { body, revision: rev });
  }

  practices(): Observable<PracticeList> {
    return this.#api.call('GET /api/practices');
  }

  practice(id: string): Observable<Practice> {
    return this.#api.call('GET /api/practices/:id', { params: { id } });
  }

  begin(body: PracticeBody): Observable<Practice> {
    return this.#api.call('POST /api/practices', { body });
  }

  tryTest(id: string, body: { id: string; test: TestId }): Observable<Practice> {
    return this.#api.call('POST /api/practices/:id/tests', { params: { id }, body });
  }

  name(id: string, cause: CauseId): Observable<Practice> {
    return this.#api.call('POST /api/practices/:id/named', { params: { id }, body: { cause } });
  }

  remove(id: string): Observable<unknown> {
    return this.#api.call('DELETE /api/practices/:id', { params: { id } });
  }
}
