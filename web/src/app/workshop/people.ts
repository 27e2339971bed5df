import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import type {
  BackupList,
  BackupPlan,
  BackupRow,
  ChainCheck,
  Lendable,
  LoanRow,
  MemberRow,
  PieceElsewhere,
  RestoreReport,
  Role,
} from '@ruddy/core/workshop/contract';
import { ApiClient } from '../platform/api/api-client';

export interface Lending {
  fromOn: string;
  dueOn: string | null;
  condition: LoanRow['conditionOut'];
  along: string[];
  note: string;
  checked: LoanRow['checked'];
}
export type BackSaid = NonNullable<LoanRow['back']> & { id: string; returnedOn: string };

/** Loans of items. */
@Injectable({ providedIn: 'root' })
export class LoansData {
  readonly #api = inject(ApiClient);

  list(state: 'open' | 'back'): Observable<{ items: LoanRow[] }> {
    return this.#api.call('GET /api/loans', { query: { state } });
  }
  items(): Observable<{ items: Lendable[] }> {
    return this.#api.call('GET /api/loans/pieces');
  }
  check(itemId: string, setupId: string): Observable<ChainCheck> {
    return this.#api.call('POST /api/loans/check', { body: { itemId, setupId } });
  }
  add(body: {
    id: string;
    itemId: string;
    memberId: string;
    setupId: string | null;
    out: Lending | null;
  }): Observable<LoanRow> {
    return this.#api.call('POST /api/loans', { body });
  }
  change(
    id: string,
    patch: { out?: Lending; dueOn?: string | null; withdrawn?: true },
    rev: number,
  ): Observable<LoanRow> {
    return this.#api.call('PATCH /api/loans/:id', { params: { id }, body: patch, revision: rev });
  }
  back(id: string, body: BackSaid, rev: number): Observable<LoanRow> {
    return this.#api.call('POST /api/loans/:id/back', { params: { id }, body, revision: rev });
  }
  elsewhere(setupId: string): Observable<{ items: PieceElsewhere[] }> {
    return this.#api.call('GET /api/setups/:id/pieces-elsewhere', { params: { id: setupId } });
  }
}

/** Who borrows and who signs in. */
@Injectable({ providedIn: 'root' })
export class MembersData {
  readonly #api = inject(ApiClient);

  list(): Observable<{ items: MemberRow[] }> {
    return this.#api.call('GET /api/members');
  }
  add(body: {
    id: string;
    name: string;
    role: Role;
    password: string | null;
  }): Observable<MemberRow> {
    return this.#api.call('POST /api/members', { body });
  }
  change(
    id: string,
    patch: { name?: string; role?: Role; active?: boolean },
    rev: number,
  ): Observable<MemberRow> {
    return this.#api.call('PATCH /api/members/:id', { params: { id }, body: patch, revision: rev });
  }
  password(id: string, body: { current: string; password: string }): Observable<MemberRow> {
    return this.#api.call('POST /api/members/:id/password', { params: { id }, body });
  }
}

/** Backups of everything. Letting go of a call stops it on the server. */
@Injectable({ providedIn: 'root' })
export class BackupsData {
  readonly #api = inject(ApiClient);

  list(): Observable<BackupList> {
    return this.#api.call('GET /api/backups');
  }
  make(): Observable<BackupRow> {
    return this.#api.call('POST /api/backups', { body: {} });
  }
  check(name: string): Observable<BackupRow> {
    return this.#api.call('POST /api/backups/:name/check', { params: { name }, body: {} });
  }
  restore(name: string): Observable<RestoreReport> {
    return this.#api.call('POST /api/backups/:name/restore', { params: { name }, body: {} });
  }
  remove(name: string): Observable<{ removed: boolean }> {
    return this.#api.call('DELETE /api/backups/:name', { params: { name } });
  }
  plan(plan: BackupPlan, rev: number): Observable<BackupPlan & { rev: number }> {
    return this.#api.call('PUT /api/backups/plan', { body: plan, revision: rev });
  }
}
