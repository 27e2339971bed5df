import type { AuditKind } from '@ruddy/core/base/contract';
import { type Actor, THIS_MACHINE } from '../access/actor';
import { newId } from '../db/ids';
import { outsideTransaction } from '../db/transaction';
import { AuditEventModel } from './models/audit-event';

/** One entry of the audit trail. What people typed as a password or a code is never part of it. */
export interface AuditEntry {
  kind: AuditKind;
  /** Method and path of the endpoint, or what the server did by itself. */
  act: string;
  about: string;
  status: number;
  why?: string;
}

/** Who did it: a caller of the API, or nobody who is known. */
export interface AuditFrom {
  actor: Actor | null;
  address: string;
  requestId: string | null;
}

/** The server by itself, by its plan. */
export const BY_PLAN: AuditFrom = {
  actor: { ...THIS_MACHINE, name: 'this server, by plan' },
  address: '',
  requestId: null,
};

const LONGEST = 300;

/** Writes an entry, whatever becomes of the transaction that is open. */
export async function writeAudit(now: Date, from: AuditFrom, entry: AuditEntry): Promise<void> {
  await outsideTransaction(() =>
    AuditEventModel.create({
      id: newId(),
      at: now,
      kind: entry.kind,
      requestId: from.requestId,
      actorId: from.actor?.id ?? null,
      actor: from.actor?.name ?? '',
      address: from.address,
      act: entry.act,
      about: entry.about.slice(0, LONGEST),
      status: entry.status,
      why: (entry.why ?? '').slice(0, LONGEST),
    }),
  );
}
