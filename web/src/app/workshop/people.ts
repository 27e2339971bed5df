import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import type { Page } from '@ruddy/core/base/contract';
import type {
  Account,
  AuditRow,
  AuditRule,
  BackupList,
  BackupPlan,
  BackupRow,
  ChainCheck,
  CodesBegun,
  Lendable,
  LoanRow,
  MemberRow,
  PieceElsewhere,
  RestoreReport,
  Role,
} from '@ruddy/core/workshop/contract';
import { ApiClient } from '../platform/api/api-client';
import type { RequestTo } from '../platform/api/endpoints';

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
  dropCodes(id: string): Observable<{ removed: boolean }> {
    return this.#api.call('DELETE /api/members/:id/one-time-codes', { params: { id } });
  }
  password(id: string, body: { current: string; password: string }): Observable<MemberRow> {
    return this.#api.call('POST /api/members/:id/password', { params: { id }, body });
  }
}

/** One's own account: one-time codes and signed-in browsers. */
@Injectable({ providedIn: 'root' })
export class AccountData {
  readonly #api = inject(ApiClient);

  read(): Observable<Account> {
    return this.#api.call('GET /api/me/account');
  }
  beginCodes(): Observable<CodesBegun> {
    return this.#api.call('POST /api/me/one-time-codes', { body: {} });
  }
  acceptCodes(code: string): Observable<{ recovery: string[] }> {
    return this.#api.call('PUT /api/me/one-time-codes', { body: { code } });
  }
  dropCodes(): Observable<{ removed: boolean }> {
    return this.#api.call('DELETE /api/me/one-time-codes');
  }
  /** Ends one other browser's session, or those of all others. */
  end(id: string | null): Observable<Account> {
    return id === null
      ? this.#api.call('DELETE /api/me/sessions')
      : this.#api.call('DELETE /api/me/sessions/:id', { params: { id } });
  }
}

export type AuditFilter = RequestTo<'GET /api/audit'>['query'] & { cursor?: string };

/** Who did what. */
@Injectable({ providedIn: 'root' })
export class AuditData {
  readonly #api = inject(ApiClient);

  list(query: NonNullable<AuditFilter>): Observable<Page<AuditRow>> {
    return this.#api.call('GET /api/audit', { query });
  }
  rule(): Observable<AuditRule> {
    return this.#api.call('GET /api/audit/rule');
  }
  keep(days: number, rev: number): Observable<AuditRule> {
    return this.#api.call('PUT /api/audit/rule', { body: { days }, revision: rev });
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
