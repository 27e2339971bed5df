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
import { Api } from '../platform/api/api';

/** Searches for a cause, the figures that move them, and practice. What is noted in a search goes by the outbox of its setup. */
@Injectable({ providedIn: 'root' })
export class TroubleData {
  readonly #api = inject(Api);

  ofSetup(id: string): Observable<Troubles> {
    return this.#api.get(`/setups/${id}/troubles`);
  }

  /** Begin a search at once; on the page of a setup it goes by the outbox. */
  open(id: string, body: TroubleBody): Observable<Troubles> {
    return this.#api.post(`/setups/${id}/troubles`, body);
  }

  tables(): Observable<TablesRead> {
    return this.#api.get('/faults/tables');
  }

  /** Under the revision the page showed, 0 for one that nobody set. */
  setFigure(body: FigureBody, rev: number): Observable<TablesRead> {
    return this.#api.put('/faults/figures', body, rev);
  }

  practices(): Observable<PracticeList> {
    return this.#api.get('/practices');
  }

  practice(id: string): Observable<Practice> {
    return this.#api.get(`/practices/${id}`);
  }

  begin(body: PracticeBody): Observable<Practice> {
    return this.#api.post('/practices', body);
  }

  tryTest(id: string, body: { id: string; test: TestId }): Observable<Practice> {
    return this.#api.post(`/practices/${id}/tests`, body);
  }

  name(id: string, cause: CauseId): Observable<Practice> {
    return this.#api.post(`/practices/${id}/named`, { cause });
  }

  remove(id: string): Observable<unknown> {
    return this.#api.delete(`/practices/${id}`);
  }
}
