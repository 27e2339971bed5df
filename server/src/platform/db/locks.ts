import { execute, select } from './database';

/** Named locks of the database; each has a number of its own, which nothing else may take. */
const LOCKS = {
  migrations: 4310,
  houseRules: 4311,
  netParameters: 4312,
  members: 4313,
  backupPlan: 4314,
  backup: 4315,
  firstStart: 4316,
  auditRule: 4317,
} as const;
export type LockName = keyof typeof LOCKS;

/** Waits for a lock and holds it to the end of the current transaction. */
export function lock(name: LockName): Promise<void> {
  return execute('SELECT pg_advisory_xact_lock($1)', [LOCKS[name]]);
}

/** Takes a lock to the end of the current transaction unless another process holds it. */
export async function tryLock(name: LockName): Promise<boolean> {
  const [row] = await select<{ taken: boolean }>('SELECT pg_try_advisory_xact_lock($1) AS taken', [
    LOCKS[name],
  ]);
  return row?.taken === true;
}
