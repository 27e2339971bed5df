import { HttpClient } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import type { UsedBody, UsedRow } from '@ruddy/core/bring-up/contract';
import type { Chain } from '@ruddy/core/chain';
import type {
  ClaimBody,
  ClaimEntry,
  EvidenceAnswer,
  EvidenceBody,
  GridAnswer,
  LogNames,
  LogShare,
  Register,
  ShareQuery,
  TitleNoteBody,
} from '@ruddy/core/compatibility/contract';
import type { Job, LogImportQuery } from '@ruddy/core/parts/contract';
import { Api, type Query } from '../platform/api/api';

export interface GridAsk {
  axes: string;
  scope: string;
  third?: string;
}

/** The compatibility log: what it says of a chain, its grid, claims and titles, and its files. */
@Injectable({ providedIn: 'root' })
export class LogData {
  readonly #api = inject(Api);
  readonly #http = inject(HttpClient);

  /** What the log says of a chain; weights and an entry may be tried otherwise. */
  evidence(chain: Chain, more: Partial<EvidenceBody>): Observable<EvidenceAnswer> {
    const { host, socket, path, dock, card, installed } = chain;
    return this.#api.post('/evidence', {
      ...more,
      chain: { host, socket, path: path?.map((p) => p.spec) ?? null, dock, card, installed },
    });
  }

  names(): Observable<LogNames> {
    return this.#api.get('/compatibility/names');
  }

  grid(ask: GridAsk): Observable<GridAnswer> {
    return this.#api.get('/grid', { ...ask });
  }

  claims(): Observable<{ items: ClaimEntry[] }> {
    return this.#api.get('/claims');
  }

  addClaim(body: ClaimBody): Observable<{ items: ClaimEntry[] }> {
    return this.#api.post('/claims', body);
  }

  withdrawClaim(id: string): Observable<{ items: ClaimEntry[] }> {
    return this.#api.post(`/claims/${id}/withdraw`, {});
  }

  register(): Observable<Register> {
    return this.#api.get('/register');
  }

  addTitleNote(body: TitleNoteBody): Observable<Register> {
    return this.#api.post('/register', body);
  }

  withdrawTitleNote(id: string): Observable<Register> {
    return this.#api.post(`/register/${id}/withdraw`, {});
  }

  used(): Observable<{ items: UsedRow[] }> {
    return this.#api.get('/used');
  }

  addUse(setupId: string, body: UsedBody): Observable<unknown> {
    return this.#api.post(`/setups/${setupId}/used`, body);
  }

  shareReport(q: Partial<ShareQuery>): Observable<LogShare> {
    return this.#api.get('/log/share-report', q as Query);
  }

  /** Send a file as it lies on the disk. */
  importLog(
    file: Blob,
    q: Partial<LogImportQuery> & { mode: 'try' | 'store'; name: string },
  ): Observable<Job> {
    const type = /\.json$/i.test(q.name) ? 'application/json' : 'text/csv';
    // A blob takes its type with it, whatever the header says.
    const body = file.slice(0, file.size, type);
    return this.#api.guard(
      this.#http.post<Job>('/api/log/imports', body, {
        headers: { 'content-type': type },
        params: { ...q },
      }),
    );
  }
}
