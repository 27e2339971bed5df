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
import { Api } from '../platform/api/api';

export interface Lending {
  fromOn: string;
  dueOn: string | null;
  condition: LoanRow['conditionOut'];
  along: string[];
  note: string;
  checked: LoanRow['checked'];
}
export type BackSaid = NonNullable<LoanRow['back']> & { id: string; returnedOn: string };

/** Loans of pieces. */
@Injectable({ providedIn: 'root' })
export class LoansData {
  readonly #api = inject(Api);

  list(state: 'open' | 'back'): Observable<{ items: LoanRow[] }> {
    return this.#api.get('/loans', { state });
  }
  pieces(): Observable<{ items: Lendable[] }> {
    return this.#api.get('/loans/pieces');
  }
  check(itemId: string, setupId: string): Observable<ChainCheck> {
    return this.#api.post('/loans/check', { itemId, setupId });
  }
  add(body: {
    id: string;
    itemId: string;
    memberId: string;
    setupId: string | null;
    out: Lending | null;
  }): Observable<LoanRow> {
    return this.#api.post('/loans', body);
  }
  change(
    id: string,
    patch: { out?: Lending; dueOn?: string | null; withdrawn?: true },
    rev: number,
  ): Observable<LoanRow> {
    return this.#api.patch(`/loans/${id}`, patch, rev);
  }
  back(id: string, body: BackSaid, rev: number): Observable<LoanRow> {
    return this.#api.post(`/loans/${id}/back`, body, rev);
  }
  elsewhere(setupId: string): Observable<{ items: PieceElsewhere[] }> {
    return this.#api.get(`/setups/${setupId}/pieces-elsewhere`);
  }
}

/** Who borrows and who signs in. */
@Injectable({ providedIn: 'root' })
export class MembersData {
  readonly #api = inject(Api);

  list(): Observable<{ items: MemberRow[] }> {
    return this.#api.get('/members');
  }
  add(body: {
    id: string;
    name: string;
    role: Role;
    password: string | null;
  }): Observable<MemberRow> {
    return this.#api.post('/members', body);
  }
  change(
    id: string,
    patch: { name?: string; role?: Role; active?: boolean },
    rev: number,
  ): Observable<MemberRow> {
    return this.#api.patch(`/members/${id}`, patch, rev);
  }
  password(id: string, body: { current: string; password: string }): Observable<MemberRow> {
    return this.#api.post(`/members/${id}/password`, body);
  }
}

/** Backups of everything. Letting go of a call stops it on the server. */
@Injectable({ providedIn: 'root' })
export class BackupsData {
  readonly #api = inject(Api);

  list(): Observable<BackupList> {
    return this.#api.get('/backups');
  }
  make(): Observable<BackupRow> {
    return this.#api.post('/backups', {});
  }
  check(name: string): Observable<BackupRow> {
    return this.#api.post(`/backups/${name}/check`, {});
  }
  restore(name: string): Observable<RestoreReport> {
    return this.#api.post(`/backups/${name}/restore`, {});
  }
  remove(name: string): Observable<{ removed: boolean }> {
    return this.#api.delete(`/backups/${name}`);
  }
  plan(plan: BackupPlan, rev: number): Observable<BackupPlan & { rev: number }> {
    return this.#api.put('/backups/plan', plan, rev);
  }
}
