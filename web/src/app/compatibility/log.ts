import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import type { Encoding } from '@ruddy/core/base/contract';
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
  GridAxes,
  ShareQuery,
  TitleNoteBody,
} from '@ruddy/core/compatibility/contract';
import type { Job, LogImportQuery } from '@ruddy/core/parts/contract';
import { ApiClient } from '../platform/api/api-client';

export interface GridAsk {
  axes: GridAxes;
  scope: 'own' | 'all';
  third?: string;
}

/** The compatibility log: what it says of a chain, its grid, claims and titles, and its files. */
@Injectable({ providedIn: 'root' })
export class LogData {
  readonly #api = inject(ApiClient);

  /** What the log says of a chain; weights and an entry may be tried otherwise. */
  evidence(chain: Chain, more: Partial<EvidenceBody>): Observable<EvidenceAnswer> {
    const { host, socket, path, dock, card, installed } = chain;
    return this.#api.call('POST /api/evidence', {
      body: {
        ...more,
        chain: { host, socket, path: path?.map((p) => p.spec) ?? null, dock, card, installed },
      },
    });
  }

  names(): Observable<LogNames> {
    return this.#api.call('GET /api/compatibility/names');
  }

  grid(ask: GridAsk): Observable<GridAnswer> {
    return this.#api.call('GET /api/grid', { query: ask });
  }

  claims(): Observable<{ items: ClaimEntry[] }> {
    return this.#api.call('GET /api/claims');
  }

  addClaim(body: ClaimBody): Observable<{ items: ClaimEntry[] }> {
    return this.#api.call('POST /api/claims', { body });
  }

  withdrawClaim(id: string): Observable<{ items: ClaimEntry[] }> {
    return this.#api.call('POST /api/claims/:id/withdraw', { params: { id }, body: {} });
  }

  register(): Observable<Register> {
    return this.#api.call('GET /api/register');
  }

  addTitleNote(body: TitleNoteBody): Observable<Register> {
    return this.#api.call('POST /api/register', { body });
  }

  withdrawTitleNote(id: string): Observable<Register> {
    return this.#api.call('POST /api/register/:id/withdraw', { params: { id }, body: {} });
  }

  used(): Observable<{ items: UsedRow[] }> {
    return this.#api.call('GET /api/used');
  }

  addUse(setupId: string, body: UsedBody): Observable<unknown> {
    return this.#api.call('POST /api/setups/:id/used', { params: { id: setupId }, body });
  }

  shareReport(q: Partial<ShareQuery>): Observable<LogShare> {
    return this.#api.call('GET /api/log/share-report', { query: q });
  }

  /** Send a file as it lies on the disk. */
  importLog(
    file: Blob,
    q: Partial<Omit<LogImportQuery, 'encoding'>> & {
      mode: 'try' | 'store';
      name: string;
      encoding?: Encoding | null;
    },
  ): Observable<Job> {
    const type = /\.json$/i.test(q.name) ? 'application/json' : 'text/csv';
    // A blob takes its type with it, whatever the header says.
    const body = file.slice(0, file.size, type);
    return this.#api.upload('POST /api/log/imports', { query: q }, body);
  }
}
